import { stringSpreadMm, type BoardMeasures } from '../instrument'
import { fittedLine, PAPERS, type Page, type PageItem, type PaperId } from '../paper'

/** A place of the line on the board. */
export interface StripPlace {
  readonly stringIndex: number
  /** From the nut. */
  readonly placeMm: number
  readonly finger: string
}

/** Lines of notes as they were drawn: each with its height, its items from its own upper left corner. */
export interface DrawnLine {
  readonly heightMm: number
  readonly items: readonly PageItem[]
}

/** The board with the places of a line. */
export interface StripDrawing {
  readonly board: BoardMeasures
  /** Lowest first. */
  readonly strings: readonly string[]
  readonly places: readonly StripPlace[]
  readonly words: { readonly strip: string }
}

export interface LineSheetRequest extends StripDrawing {
  readonly title: string
  readonly subtitle: string
  readonly paper: PaperId
  readonly lines: readonly DrawnLine[]
  readonly words: {
    readonly strip: string
    /** Said at the foot of every sheet. */
    readonly foot: readonly string[]
  }
}

export const LINE_MARGIN_MM = 14
const TITLE_Y_MM = 20
const MUSIC_Y_MM = 32
const BETWEEN_MM = 5
const FOOT_MM = 14
const STRIP = { headMm: 8, tailMm: 10, stringMm: 8, circleMm: 2.9, leastCircleMm: 1.5, leftMm: 12 }
/** Where a page has room, lines stand further apart, and the board’s strings. */
const MOST_BETWEEN_MM = 16
const MOST_STRING_MM = 13
/** A staff’s space on paper: no less than engravers print, no more than a child reads at arm’s length. From memory. */
export const STAFF_SPACE_MM = { least: 2, most: 3.4 } as const
const HAIRLINE_MM = 0.2
const FOOT_LINE_MM = 4

/**
 * A line of music with its fingers, and under it the board from the nut with every place of the line, drawn as long as the
 * paper allows. Lines that find no room go on to further pages; the board stands on the last.
 */
export function lineSheet(request: LineSheetRequest): Page[] {
  const { widthMm, heightMm } = PAPERS[request.paper]
  const foot = heightMm - FOOT_MM - FOOT_LINE_MM * request.words.foot.length
  const pages: PageItem[][] = []
  let y = Infinity
  // What would be left of a single page is given to its lines, then to the board.
  const width = widthMm - 2 * LINE_MARGIN_MM
  const count = request.lines.length
  const music = request.lines.reduce((sum, line) => sum + line.heightMm + BETWEEN_MM, 0)
  const spare = Math.max(0, foot - MUSIC_Y_MM - music - stripOf(request, width).heightMm)
  const between = BETWEEN_MM + Math.min(MOST_BETWEEN_MM - BETWEEN_MM, spare / Math.max(1, count))
  const left = spare - count * (between - BETWEEN_MM)
  const gaps = Math.max(1, request.strings.length - 1)
  const strip = stripOf(request, width, Math.min(MOST_STRING_MM, STRIP.stringMm + left / gaps))
  const room = (needs: number) => {
    if (y + needs <= foot) return
    const isFirst = pages.length === 0
    pages.push(isFirst ? head(request, widthMm) : [])
    pages.at(-1)!.push(...footer(request, heightMm))
    y = isFirst ? MUSIC_Y_MM : LINE_MARGIN_MM
  }
  for (const line of request.lines) {
    room(line.heightMm)
    pages.at(-1)!.push(...line.items.map((item) => moved(item, LINE_MARGIN_MM, y)))
    y += line.heightMm + between
  }
  room(strip.heightMm)
  pages.at(-1)!.push(...strip.items.map((item) => moved(item, LINE_MARGIN_MM, y)))
  return pages.map((items) => ({ widthMm, heightMm, items }))
}

/**
 * The staff's space for lines that are `heightMm` high altogether at the least one, so that they fill a page with their board: twice as large
 * they need about four times the room.
 *
 * @returns mm, between the least and the most
 */
export function fillingSpaceMm(lines: readonly DrawnLine[], paper: PaperId, strings: number): number {
  const { least, most } = STAFF_SPACE_MM
  const board = STRIP.headMm + STRIP.stringMm * (strings - 1) + 5
  const room = PAPERS[paper].heightMm - MUSIC_Y_MM - FOOT_MM - 2 * FOOT_LINE_MM - board
  const heightMm = lines.reduce((sum, line) => sum + line.heightMm + BETWEEN_MM, 0)
  return Math.min(most, Math.max(least, least * Math.sqrt(room / heightMm)))
}

function head({ title, subtitle }: LineSheetRequest, widthMm: number): PageItem[] {
  const room = widthMm - 2 * LINE_MARGIN_MM
  const name = fittedLine(title, room, 6, 3.5)
  const under = fittedLine(subtitle, room, 3.4, 2.4)
  return [
    { kind: 'text', x: LINE_MARGIN_MM, y: TITLE_Y_MM, sizeMm: name.size, text: name.text, isBold: true },
    { kind: 'text', x: LINE_MARGIN_MM, y: TITLE_Y_MM + 6, sizeMm: under.size, text: under.text },
  ]
}

function footer({ words }: LineSheetRequest, heightMm: number): PageItem[] {
  const top = heightMm - FOOT_MM - FOOT_LINE_MM * (words.foot.length - 1)
  return words.foot.map((text, i) => ({
    kind: 'text',
    x: LINE_MARGIN_MM,
    y: top + FOOT_LINE_MM * i,
    sizeMm: 2.9,
    text,
  }))
}

/** The nut at the left, the lowest string at the foot, as a player looks down on it; drawn `widthMm` wide. */
export function stripOf(
  { board, strings, places, words }: StripDrawing,
  widthMm: number,
  stringMm: number = STRIP.stringMm,
): DrawnLine {
  const farMm = Math.max(1, ...places.map(({ placeMm }) => placeMm))
  const lengthMm = widthMm - STRIP.leftMm - STRIP.tailMm
  // A line that stays low is drawn larger, never above the instrument's own size; one that climbs, smaller.
  const scale = Math.min(1, lengthMm / (farMm * 1.06))
  const height = stringMm * (strings.length - 1)
  const at = (placeMm: number) => STRIP.leftMm + placeMm * scale
  const yOf = (stringIndex: number) => STRIP.headMm + height - stringMm * stringIndex
  // Strings fan out towards the bridge; on paper they run level, and only the ends show by how much.
  const fan = stringSpreadMm(board, farMm) / stringSpreadMm(board, 0)
  const end = at(farMm * 1.06)
  // Neighbours leave each other room, as long as their figures can be read.
  const r = Math.max(STRIP.leastCircleMm, Math.min(STRIP.circleMm, (closest(places) * scale) / 2 - 0.1))
  const thick = (i: number) => HAIRLINE_MM + 0.07 * (strings.length - 1 - i)
  const items: PageItem[] = [
    { kind: 'text', x: 0, y: 3.2, sizeMm: 3.1, text: words.strip },
    {
      kind: 'line',
      x1: at(0),
      y1: STRIP.headMm - 3,
      x2: at(0),
      y2: STRIP.headMm + height + 3,
      widthMm: 1.1,
    },
    ...strings.flatMap((name, i): PageItem[] => [
      { kind: 'text', x: 2, y: yOf(i) + 1.3, sizeMm: 3.6, text: name, isBold: true },
      { kind: 'line', x1: at(0), y1: yOf(i), x2: end, y2: yOf(i), widthMm: thick(i) * Math.min(1.4, fan) },
    ]),
    ...places.flatMap(({ stringIndex, placeMm, finger }): PageItem[] => [
      {
        kind: 'circle',
        x: at(placeMm),
        y: yOf(stringIndex),
        r,
        widthMm: 0.3,
        fill: 'white',
      },
      {
        kind: 'text',
        x: at(placeMm),
        y: yOf(stringIndex) + 0.47 * r,
        sizeMm: 1.3 * r,
        text: finger,
        isBold: true,
        isCentred: true,
      },
    ]),
  ]
  return { heightMm: STRIP.headMm + height + 5, items }
}

/** mm between the two nearest places of one string. */
function closest(places: readonly StripPlace[]): number {
  return Math.min(
    ...places.flatMap((a) =>
      places.flatMap((b) =>
        a !== b && a.stringIndex === b.stringIndex ? [Math.abs(a.placeMm - b.placeMm)] : [],
      ),
    ),
  )
}

/** An item set down so far to the right and down, mm. */
export function moved(item: PageItem, dx: number, dy: number): PageItem {
  if (item.kind === 'line')
    return { ...item, x1: item.x1 + dx, x2: item.x2 + dx, y1: item.y1 + dy, y2: item.y2 + dy }
  return { ...item, x: item.x + dx, y: item.y + dy }
}
