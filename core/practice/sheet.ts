import { fittedLine, fittedLines, PAPERS, type Page, type PageItem, type PaperId } from '../paper'
import { moved, type DrawnLine } from '../score'

/** One exercise of the week, as a child reads it. */
export interface SheetRow {
  readonly name: string
  readonly minutes: string
  /** How it is done, and why: two or three sentences. */
  readonly how: string
  /** For each day of the week whether it has a box to tick. */
  readonly days: readonly boolean[]
}

export interface PracticeSheetRequest {
  readonly title: string
  readonly subtitle: string
  readonly paper: PaperId
  /** Names of the days. */
  readonly days: readonly string[]
  readonly rows: readonly SheetRow[]
  /** What is played: each line with its name, in the order of the rows. */
  readonly music: readonly { readonly name: string; readonly lines: readonly DrawnLine[] }[]
  /** The board with the places that are played; left out where nothing is. */
  readonly strip: DrawnLine | undefined
  readonly foot: readonly string[]
}

export const SHEET_MARGIN_MM = 14
const TITLE_Y_MM = 20
const TABLE_Y_MM = 33
const DAY_MM = 12
const BOX_MM = 6
const HAIRLINE_MM = 0.2
const FOOT_MM = 10
const FOOT_LINE_MM = 4
const HOW_MM = 3.5
const HOW_LINE_MM = 4.4
const ROW_GAP_MM = 3.4
const MOST_HOW_LINES = 3

/**
 * A week’s practice on one page: exercises with boxes to tick, their sentences, the notes and the board. What finds no room is left
 * off from the end, the board before the notes: boxes and sentences are always there, smaller if they must.
 *
 * @returns the page, and how many lines of music found no room
 */
export function practiceSheet(request: PracticeSheetRequest): { page: Page; left: number } {
  const { widthMm, heightMm } = PAPERS[request.paper]
  const room = widthMm - 2 * SHEET_MARGIN_MM
  const foot = heightMm - FOOT_MM - FOOT_LINE_MM * request.foot.length
  const scale = scaleOf(request, room, foot - TABLE_Y_MM - 2)
  const items: PageItem[] = [...head(request, room), ...footer(request, heightMm, room)]
  let y = TABLE_Y_MM
  for (const row of request.rows) {
    items.push(...rowItems(row, y, widthMm, room, scale))
    y += rowHeight(row, room, scale)
  }
  let left = 0
  let isFull = false
  for (const { name, lines } of request.music) {
    const height = lines.reduce((sum, line) => sum + line.heightMm, 0) + NAME_MM
    isFull ||= y + height > foot
    if (isFull) {
      left += lines.length
      continue
    }
    items.push({
      kind: 'text',
      x: SHEET_MARGIN_MM,
      y: y + 3,
      sizeMm: 3.1,
      text: fittedLine(name, room, 3.1, 2.4).text,
      isBold: true,
    })
    y += NAME_MM
    for (const line of lines) {
      items.push(...line.items.map((item) => moved(item, SHEET_MARGIN_MM, y)))
      y += line.heightMm
    }
  }
  if (request.strip && y + request.strip.heightMm <= foot)
    items.push(...request.strip.items.map((item) => moved(item, SHEET_MARGIN_MM, y + 2)))
  return { page: { widthMm, heightMm, items }, left }
}

const NAME_MM = 5

function head({ title, subtitle, days, paper }: PracticeSheetRequest, room: number): PageItem[] {
  const name = fittedLine(title, room, 6.4, 3.5)
  const under = fittedLine(subtitle, room - 7 * DAY_MM, 3.3, 2.2)
  const right = PAPERS[paper].widthMm - SHEET_MARGIN_MM
  return [
    { kind: 'text', x: SHEET_MARGIN_MM, y: TITLE_Y_MM, sizeMm: name.size, text: name.text, isBold: true },
    { kind: 'text', x: SHEET_MARGIN_MM, y: TABLE_Y_MM - 5, sizeMm: under.size, text: under.text },
    ...days.map((day, i): PageItem => ({
      kind: 'text',
      x: right - DAY_MM * (days.length - i - 0.5),
      y: TABLE_Y_MM - 5,
      sizeMm: 3.4,
      text: day,
      isBold: true,
      isCentred: true,
    })),
  ]
}

function footer({ foot }: PracticeSheetRequest, heightMm: number, room: number): PageItem[] {
  const top = heightMm - FOOT_MM - FOOT_LINE_MM * (foot.length - 1)
  return foot.map((text, i) => {
    const line = fittedLine(text, room, 2.9, 2.2)
    return { kind: 'text', x: SHEET_MARGIN_MM, y: top + FOOT_LINE_MM * i, sizeMm: line.size, text: line.text }
  })
}

/** As large as the page has room for beside its music and its board; smaller where even the rows alone have none. */
function scaleOf({ rows, music, strip }: PracticeSheetRequest, room: number, heightMm: number): number {
  const beside =
    music.reduce((sum, { lines }) => sum + NAME_MM + lines.reduce((of, line) => of + line.heightMm, 0), 0) +
    (strip?.heightMm ?? 0) +
    2
  const heightAt = (scale: number) => rows.reduce((sum, row) => sum + rowHeight(row, room, scale), 0)
  let scale = MOST_SCALE
  while (scale > 1 && heightAt(scale) + beside > heightMm) scale -= SCALE_STEP
  while (scale > LEAST_SCALE && heightAt(scale) > heightMm) scale -= SCALE_STEP
  return scale
}

/** Beside letters of 3.5 mm: as large as a child reads from a stand, and as small as anybody reads in the hand. Chosen. */
const MOST_SCALE = 1.4
const LEAST_SCALE = 0.6
const SCALE_STEP = 0.05

function rowHeight({ how }: SheetRow, room: number, scale: number): number {
  return (
    scale *
    (BOX_MM + 1 + HOW_LINE_MM * fittedLines(how, room, HOW_MM * scale, MOST_HOW_LINES).length + ROW_GAP_MM)
  )
}

function rowItems(
  { name, minutes, how, days }: SheetRow,
  y: number,
  widthMm: number,
  room: number,
  scale: number,
): PageItem[] {
  const right = widthMm - SHEET_MARGIN_MM
  const box = BOX_MM * scale
  const wide = room - 7 * DAY_MM - 24
  const title = fittedLine(name, wide, 4.4 * scale, 2.6)
  const time = fittedLine(minutes, 22, 3.6 * scale, 2.4)
  const line = (x1: number, y1: number, x2: number, y2: number, thick: number): PageItem => ({
    kind: 'line',
    x1,
    y1,
    x2,
    y2,
    widthMm: thick,
  })
  const boxes = days.flatMap((has, i): PageItem[] => {
    if (!has) return []
    const x = right - DAY_MM * (days.length - i - 0.5) - box / 2
    return [
      line(x, y, x + box, y, 0.35),
      line(x + box, y, x + box, y + box, 0.35),
      line(x + box, y + box, x, y + box, 0.35),
      line(x, y + box, x, y, 0.35),
    ]
  })
  return [
    line(SHEET_MARGIN_MM, y - 1.7 * scale, right, y - 1.7 * scale, HAIRLINE_MM),
    {
      kind: 'text',
      x: SHEET_MARGIN_MM,
      y: y + 4.6 * scale,
      sizeMm: title.size,
      text: title.text,
      isBold: true,
    },
    { kind: 'text', x: SHEET_MARGIN_MM + wide + 2, y: y + 4.6 * scale, sizeMm: time.size, text: time.text },
    ...boxes,
    ...fittedLines(how, room, HOW_MM * scale, MOST_HOW_LINES).map((text, i): PageItem => ({
      kind: 'text',
      x: SHEET_MARGIN_MM,
      y: y + scale * (BOX_MM + 4.2 + HOW_LINE_MM * i),
      sizeMm: HOW_MM * scale,
      text,
    })),
  ]
}
