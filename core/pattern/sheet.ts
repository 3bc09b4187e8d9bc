import { stringSpreadMm, type BoardMeasures, type Finger } from '../instrument'
import { fittedLine, fittedLines, PAPERS, type Page, type PageItem, type PaperId } from '../paper'

/** A finger as it is printed. */
export interface SheetFinger {
  readonly finger: Finger
  readonly note: string
  /** From the nut. */
  readonly placeMm: number
  readonly semitones: number
  readonly isInScale: boolean
}

/** One string of the sheet, with everything that is said of it. */
export interface SheetString {
  readonly name: string
  /** Whether the key has the open string: it is printed filled. */
  readonly isOpenInKey: boolean
  readonly fingers: readonly SheetFinger[]
  /** Beside the drawing: fingers and notes, then what is said of them, a sentence each. */
  readonly lines: readonly string[]
}

export interface PatternSheetRequest {
  readonly title: string
  readonly subtitle: string
  readonly paper: PaperId
  /** As long as it is on the instrument, or every semitone equally far from the next. */
  readonly drawing: 'scale' | 'diagram'
  readonly board: BoardMeasures
  /** Lowest first. */
  readonly strings: readonly SheetString[]
  readonly words: PatternSheetWords
}

/** Every sentence on the sheet; the wording is the page's, the layout is here. */
export interface PatternSheetWords {
  readonly nut: string
  readonly diagram: string
  readonly legend: readonly string[]
  /** Said of the drawing: 1 : 1, 1 : 2 … */
  scale(oneTo: number): string
}

const MARGIN_MM = 14
const NUT_Y_MM = 44
/** Of the drawing; the words stand at its right. */
const MIDDLE_X_MM = 52
const WORDS_X_MM = 102
const TAIL_MM = 12
const SCALES = [1, 2, 3, 4]
const DIAGRAM = { semitoneMm: 26, stringMm: 18, circleMm: 6 }
const HAIRLINE_MM = 0.15
/** Largest circle that leaves its neighbour string free. */
const LARGEST_CIRCLE_MM = 4
/** Of a drawing to a smaller scale: its figure is 3.2 mm high, as large as the words. */
const LEAST_CIRCLE_MM = 2.6
/** Of string to string, in radii. */
const CIRCLE_ROOM = 2.15

/** Where things of one drawing lie on the page. */
interface Drawing {
  readonly oneTo: number | undefined
  /** A place along the strings, by mm from the nut and by semitones. */
  y(finger: Pick<SheetFinger, 'placeMm' | 'semitones'>): number
  x(stringIndex: number, placeMm: number): number
  readonly endY: number
  readonly endMm: number
  readonly circleMm: number
}

/**
 * A key's pattern sheet on one page: the board upright with the nut at the top, every string's fingers on it, and beside it
 * what each string asks. To scale at 1 : 1 where the paper is long enough, else at the largest of 1 : 2, 1 : 3, 1 : 4.
 */
export function patternSheet(request: PatternSheetRequest): Page {
  const paper = PAPERS[request.paper]
  const drawing =
    request.drawing === 'scale' ? toScale(request, paper.heightMm) : asDiagram(request, paper.heightMm)
  const { strings, words } = request
  const scaleWords = drawing.oneTo === undefined ? words.diagram : words.scale(drawing.oneTo)
  const head = (y: number, sizeMm: number, leastMm: number, words: string, style?: TextStyle) => {
    const fitted = fittedLine(words, paper.widthMm - 2 * MARGIN_MM, sizeMm, leastMm)
    return text(MARGIN_MM, y, fitted.size, fitted.text, style)
  }
  return {
    ...paper,
    items: [
      head(MARGIN_MM + 5, 8, 5, request.title, { isBold: true }),
      head(MARGIN_MM + 12, 3.8, 2.6, request.subtitle),
      head(MARGIN_MM + 17.5, 3.4, 2.6, scaleWords),
      ...nut(drawing, strings, words.nut),
      ...strings.flatMap((string, index) => stringItems(drawing, string, index)),
      ...sideWords(strings, words.legend, paper.widthMm),
      ...(drawing.oneTo === 1 ? proof(paper) : []),
    ],
  }
}

function toScale({ board, strings }: PatternSheetRequest, paperHeightMm: number): Drawing {
  const lastMm = Math.max(
    ...strings.flatMap((s) => s.fingers.map((f) => f.placeMm)),
    board.stringLengthMm / 6,
  )
  const room = paperHeightMm - NUT_Y_MM - MARGIN_MM - TAIL_MM
  const oneTo = SCALES.find((n) => lastMm / n <= room) ?? SCALES.at(-1)!
  // Drawn smaller along the strings, they stand further apart than they should: a figure has to be read.
  const readable = (LEAST_CIRCLE_MM * CIRCLE_ROOM * (strings.length - 1)) / (stringSpreadMm(board, 0) / oneTo)
  const across = oneTo === 1 ? 1 : Math.max(1, readable)
  const spread = (placeMm: number) => (stringSpreadMm(board, placeMm) / oneTo) * across
  const endMm = lastMm + TAIL_MM * oneTo
  return {
    oneTo,
    endMm,
    endY: NUT_Y_MM + endMm / oneTo,
    circleMm: Math.min(LARGEST_CIRCLE_MM, spread(0) / (strings.length - 1) / CIRCLE_ROOM),
    y: ({ placeMm }) => NUT_Y_MM + placeMm / oneTo,
    x: (index, placeMm) => MIDDLE_X_MM + (index / (strings.length - 1) - 0.5) * spread(placeMm),
  }
}

function asDiagram({ strings }: PatternSheetRequest, paperHeightMm: number): Drawing {
  const last = Math.max(...strings.flatMap((s) => s.fingers.map((f) => f.semitones)), 1)
  const first = Math.min(...strings.flatMap((s) => s.fingers.map((f) => f.semitones)), last)
  // High positions begin where the hand is; the strings above it are cut short.
  const skipped = Math.max(0, first - 3)
  const room = (paperHeightMm - NUT_Y_MM - MARGIN_MM - TAIL_MM) / (last - skipped)
  const semitoneMm = Math.min(DIAGRAM.semitoneMm, room)
  const y = (semitones: number) => NUT_Y_MM + (semitones - skipped) * semitoneMm
  const stringMm = Math.min(DIAGRAM.stringMm, 68 / (strings.length - 1))
  return {
    oneTo: undefined,
    endMm: 0,
    endY: y(last) + TAIL_MM,
    circleMm: Math.min(DIAGRAM.circleMm, stringMm / 2.9, semitoneMm / 2.05),
    y: ({ semitones }) => y(semitones),
    x: (index) => MIDDLE_X_MM + (index - (strings.length - 1) / 2) * stringMm,
  }
}

function nut(drawing: Drawing, strings: readonly SheetString[], name: string): PageItem[] {
  const [left, right] = [drawing.x(0, 0) - 5, drawing.x(strings.length - 1, 0) + 5]
  return [
    line(left, NUT_Y_MM, right, NUT_Y_MM, 0.9),
    text(left - 1, NUT_Y_MM - 1.2, 2.6, name, { isEnd: true }),
    ...strings.flatMap((string, index): PageItem[] => {
      const x = drawing.x(index, 0)
      const y = NUT_Y_MM - 5
      const r = Math.min(2.6, drawing.circleMm)
      return [
        { kind: 'circle', x, y, r, widthMm: 0.25, fill: string.isOpenInKey ? 'black' : 'white' },
        text(x, y + r * 0.42, r * 1.15, string.name, {
          isCentred: true,
          isBold: true,
          isWhite: string.isOpenInKey,
        }),
      ]
    }),
  ]
}

function stringItems(drawing: Drawing, string: SheetString, index: number): PageItem[] {
  const { circleMm: r } = drawing
  return [
    line(drawing.x(index, 0), NUT_Y_MM, drawing.x(index, drawing.endMm), drawing.endY, 0.25),
    ...string.fingers.flatMap((finger): PageItem[] => {
      const [x, y] = [drawing.x(index, finger.placeMm), drawing.y(finger)]
      return [
        {
          kind: 'circle',
          x,
          y,
          r,
          widthMm: 0.3,
          fill: 'white',
          isDashed: !finger.isInScale,
        },
        text(x, y + r * 0.45, r * 1.25, String(finger.finger), { isCentred: true, isBold: finger.isInScale }),
        ...(drawing.oneTo === undefined ? [text(x + r + 0.8, y + 1.3, 3.8, finger.note)] : []),
      ]
    }),
  ]
}

/** Highest string first, as it is read on the page of a song book. */
function sideWords(
  strings: readonly SheetString[],
  legend: readonly string[],
  paperWidthMm: number,
): PageItem[] {
  const items: PageItem[] = []
  const right = paperWidthMm - MARGIN_MM
  const room = right - WORDS_X_MM - STRING_MM
  let y = NUT_Y_MM
  for (const string of [...strings].reverse()) {
    const [fingers = '', ...sentences] = string.lines
    const first = fittedLine(fingers, room, FINGERS_MM.most, FINGERS_MM.least)
    const others = sentences.flatMap((words) => fittedLines(words, room, WORDS_MM, MOST_ROWS))
    items.push(
      text(WORDS_X_MM, y, 6.5, string.name, { isBold: true }),
      text(WORDS_X_MM + STRING_MM, y, first.size, first.text, { isBold: true }),
      ...others.map((words, row) =>
        text(WORDS_X_MM + STRING_MM, y + (row + 1) * WORDS_ROW_MM, WORDS_MM, words),
      ),
    )
    y += (1 + others.length) * WORDS_ROW_MM + 7
  }
  items.push(line(WORDS_X_MM, y - 4, right, y - 4, HAIRLINE_MM))
  const size = Math.min(...legend.map((words) => fittedLine(words, right - WORDS_X_MM, 3.4, 2.6).size))
  legend.forEach((words, row) => items.push(text(WORDS_X_MM, y + 3 + row * 5.2, size, words)))
  return items
}

const WORDS_ROW_MM = 6.2
/** From a string's name to what is said of it. */
const STRING_MM = 12
const WORDS_MM = 3.8
const FINGERS_MM = { most: 5.4, least: 3 }
/** Of one sentence. */
const MOST_ROWS = 4

const PROOF_MM = 50

/** A line to prove the printer by. */
function proof({ widthMm, heightMm }: { widthMm: number; heightMm: number }): PageItem[] {
  const [left, y] = [widthMm - MARGIN_MM - PROOF_MM, heightMm - MARGIN_MM]
  return [
    line(left, y, left + PROOF_MM, y, 0.2),
    ...[left, left + PROOF_MM].map((x) => line(x, y - 2, x, y + 2, HAIRLINE_MM)),
    text(left, y - 3, 2.9, `${PROOF_MM} mm`),
  ]
}

function line(x1: number, y1: number, x2: number, y2: number, widthMm: number): PageItem {
  return { kind: 'line', x1, y1, x2, y2, widthMm }
}

interface TextStyle {
  readonly isBold?: boolean
  readonly isCentred?: boolean
  readonly isWhite?: boolean
  readonly isEnd?: boolean
}

/** Rough width of a letter, for a text that ends at its x. */
const LETTER_SHARE = 0.5

function text(
  x: number,
  y: number,
  sizeMm: number,
  words: string,
  { isEnd = false, ...style }: TextStyle = {},
): PageItem {
  return {
    kind: 'text',
    x: isEnd ? x - words.length * sizeMm * LETTER_SHARE : x,
    y,
    sizeMm,
    text: words,
    ...style,
  }
}
