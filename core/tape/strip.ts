import { fittedLine, fittedLines, PAPERS, type Page, type PageItem, type PaperId } from '../paper'

/** A tape as it is ruled on paper. */
export interface StripMark {
  readonly name: string
  readonly notes: string
  readonly nearEdgeMm: number
  readonly middleMm: number
  readonly farEdgeMm: number
}

export interface StripRequest {
  /** Whose it is: a line or two. */
  readonly title: string
  readonly subtitle: string
  readonly marks: readonly StripMark[]
  readonly paper: PaperId
  readonly words: StripWords
}

/** Every sentence on the sheet; the wording is the page's, the layout is here. */
export interface StripWords {
  /** The line that everything is measured from, and which edge it is. */
  readonly nut: readonly [name: string, edge: string]
  readonly proof: string
  readonly howTo: readonly string[]
  page(at: number, of: number): string
  join(placeMm: number): string
}

/** Printers leave this much white. */
const MARGIN_MM = 12
/** Room over the nut line, and under the last place. */
const NUT_Y_MM = 26
const TAIL_MM = 10
/** From the left end of a column. */
const STRIP_X_MM = 10
const STRIP_WIDTH_MM = 34
const LABEL_X_MM = STRIP_X_MM + STRIP_WIDTH_MM + 8
/** Of one sheet glued over the next. */
const OVERLAP_MM = 12
/** Between a join and the edge of a tape: a knife and an eye tell them apart. */
const JOIN_CLEAR_MM = 2
const HAIRLINE_MM = 0.1
const PROOF_MM = 100
const PROOF_ACROSS_MM = 80
/** Between two columns of a page. */
const GAP_MM = 6
/** A strip that ends here leaves room below for the line to prove the printer by. */
const SHORT_MM = 128

/** A strip's own part of the page: its left end and how broad it is. */
interface Column {
  readonly x: number
  readonly widthMm: number
}

/**
 * The strip that is laid against the strings, at 1:1: ruled in mm from the nut, every tape with both edges and its middle,
 * and a line to prove the printer by. A strip longer than the paper goes on over further sheets, with the same line ruled
 * on both where they are joined. Sizes and places in mm.
 */
export function stripPages(request: StripRequest): Page[] {
  const { words } = request
  const paper = PAPERS[request.paper]
  const lengthMm = lengthOf(request)
  const room = paper.heightMm - NUT_Y_MM - MARGIN_MM
  const sheets = sheetsOf(lengthMm, room, request.marks)
  const count = sheets.length
  const column = { x: MARGIN_MM, widthMm: NOTES_X_MM - MARGIN_MM - GAP_MM }
  return sheets.map(([fromMm, toMm], index) => ({
    ...paper,
    items: [
      ...heading(request, { ...column, widthMm: paper.widthMm - 2 * MARGIN_MM - (count > 1 ? 34 : 0) }),
      ...(count > 1
        ? [label(paper.widthMm - MARGIN_MM - 30, MARGIN_MM + 3, 3.6, words.page(index + 1, count))]
        : []),
      ...strip(request, column, fromMm, toMm, index === count - 1),
      ...proof(words.proof, paper.widthMm - MARGIN_MM - PROOF_ACROSS_MM, 50, PROOF_Y_MM),
      ...howTo(words.howTo, NOTES_X_MM, NOTES_Y_MM),
    ],
  }))
}

/** From where to where each sheet goes: as far as the paper does, and less where the join would lie on a tape. */
function sheetsOf(
  lengthMm: number,
  room: number,
  marks: readonly StripMark[],
): (readonly [fromMm: number, toMm: number])[] {
  const fromTheEnd = [...marks].sort((a, b) => b.nearEdgeMm - a.nearEdgeMm)
  const sheets: (readonly [number, number])[] = []
  let from = 0
  while (lengthMm - from > room) {
    const furthest = from + room - OVERLAP_MM / 2
    const free = fromTheEnd.reduce(
      (at, { nearEdgeMm, farEdgeMm }) =>
        at > nearEdgeMm - JOIN_CLEAR_MM && at < farEdgeMm + JOIN_CLEAR_MM ? nearEdgeMm - JOIN_CLEAR_MM : at,
      furthest,
    )
    // Tape beside tape over half a sheet is no strip that anybody lays; it is joined where the paper ends.
    const join = free > from + room / 2 ? free : furthest
    sheets.push([from, join + OVERLAP_MM / 2])
    from = join - OVERLAP_MM / 2
  }
  return [...sheets, [from, lengthMm]]
}

/**
 * The strips of several instruments: two on a page where both are short, with what there is to heed below them; a long one
 * has pages of its own. All on the paper of the first.
 */
export function stripSheets(requests: readonly StripRequest[]): Page[] {
  const pages: Page[] = []
  const short = requests.filter((request) => lengthOf(request) <= SHORT_MM)
  for (let i = 0; i < short.length; i += 2)
    pages.push(...(short[i + 1] ? [twoOnAPage(short[i]!, short[i + 1]!)] : stripPages(short[i]!)))
  return [...pages, ...requests.filter((request) => !short.includes(request)).flatMap(stripPages)]
}

function twoOnAPage(first: StripRequest, second: StripRequest): Page {
  const paper = PAPERS[first.paper]
  const widthMm = (paper.widthMm - 2 * MARGIN_MM - GAP_MM) / 2
  const columns = [first, second].map((request, i) => ({
    request,
    column: { x: MARGIN_MM + i * (widthMm + GAP_MM), widthMm },
  }))
  const below = NUT_Y_MM + SHORT_MM + 6
  return {
    ...paper,
    items: [
      ...columns.flatMap(({ request, column }) => [
        ...heading(request, column),
        ...strip(request, column, 0, lengthOf(request), true),
      ]),
      ...proof(first.words.proof, paper.widthMm - MARGIN_MM - PROOF_ACROSS_MM, 34, below),
      ...howTo(first.words.howTo, MARGIN_MM, below + 8),
    ],
  }
}

function lengthOf({ marks }: StripRequest): number {
  return Math.max(PROOF_MM, ...marks.map((mark) => mark.farEdgeMm)) + TAIL_MM
}

const NOTES_X_MM = 114
const NOTES_Y_MM = 160
const NOTE_MM = 3.4
const PROOF_Y_MM = 40

function label(x: number, y: number, sizeMm: number, text: string, isBold = false): PageItem {
  return { kind: 'text', x, y, sizeMm, text, isBold }
}

/** A label that ends before what stands at its right. */
function fitted(
  x: number,
  y: number,
  widthMm: number,
  [sizeMm, leastMm]: readonly [usual: number, least: number],
  text: string,
  isBold = false,
): PageItem {
  const line = fittedLine(text, widthMm, sizeMm, leastMm)
  return label(x, y, line.size, line.text, isBold)
}

function rule(
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  widthMm: number = HAIRLINE_MM,
  extra: { isDashed?: boolean; placeMm?: number } = {},
): PageItem {
  return { kind: 'line', x1, y1, x2, y2, widthMm, ...extra }
}

function heading({ title, subtitle }: StripRequest, { x, widthMm }: Column): PageItem[] {
  const one = fittedLine(subtitle, widthMm, 3.6, 3)
  const isOne = one.text === subtitle
  return [
    fitted(x, MARGIN_MM + 2, widthMm, [5, 3.4], title, true),
    ...(isOne
      ? [label(x, MARGIN_MM + 7.5, one.size, subtitle)]
      : fittedLines(subtitle, widthMm, 2.6, 3).map((text, row) =>
          label(x, MARGIN_MM + 5.2 + row * 2.9, 2.6, text),
        )),
  ]
}

/** The strip itself from one place to another, with its names at its right; what goes on is joined. */
function strip(
  { words, marks }: StripRequest,
  column: Column,
  fromMm: number,
  toMm: number,
  isLast: boolean,
): PageItem[] {
  const y = (placeMm: number) => NUT_Y_MM + placeMm - fromMm
  const joins = [
    ...(fromMm === 0 ? [] : [fromMm + OVERLAP_MM / 2]),
    ...(isLast ? [] : [toMm - OVERLAP_MM / 2]),
  ]
  const here = marks.filter(
    ({ nearEdgeMm, farEdgeMm }) => Math.max(nearEdgeMm, fromMm) < Math.min(farEdgeMm, toMm),
  )
  return [
    ...ruler(column, fromMm, toMm, y),
    ...(fromMm === 0 ? nutLine(column, y(0)) : []),
    ...joins.flatMap((place) => joint(column, y(place))),
    ...here.flatMap((mark) => tape(column, mark, fromMm, toMm, y)),
    ...names(column, [
      ...(fromMm === 0
        ? [
            {
              y: y(0),
              lines: [
                { text: words.nut[0], size: [3.6, 2.4], isBold: true },
                { text: words.nut[1], size: [2.9, 2.3] },
              ],
            } as const,
          ]
        : []),
      ...joins.map(
        (place) => ({ y: y(place), lines: [{ text: words.join(place), size: [3.2, 2.4] }] }) as const,
      ),
      ...here
        .filter(({ middleMm }) => middleMm >= fromMm && middleMm <= toMm)
        .map((mark) => nameOf(mark, y(mark.middleMm))),
    ]),
  ]
}

/** What is said of a line of the strip, at its height. */
interface Name {
  readonly y: number
  readonly lines: readonly {
    readonly text: string
    readonly size: readonly [usual: number, least: number]
    readonly isBold?: boolean
  }[]
}

function nameOf(mark: StripMark, y: number): Name {
  const edges = `${mark.nearEdgeMm.toFixed(1)} – ${mark.farEdgeMm.toFixed(1)}`
  return {
    y,
    lines: [
      { text: `${mark.name}  ${mark.middleMm.toFixed(1)} mm`, size: [4, 2.6], isBold: true },
      { text: `${edges} · ${mark.notes}`, size: [2.9, 2.3] },
    ],
  }
}

const NAME_ROW_MM = 4.3

/** Names beside their lines; where they would lie on one another the lower one moves down, led to from its line. */
function names({ x, widthMm }: Column, of: readonly Name[]): PageItem[] {
  const room = widthMm - LABEL_X_MM
  let free = -Infinity
  return [...of]
    .sort((a, b) => a.y - b.y)
    .flatMap(({ y, lines }) => {
      const at = Math.max(y, free)
      free = at + lines.length * NAME_ROW_MM
      const line = x + STRIP_X_MM + STRIP_WIDTH_MM + 6
      return [
        ...(at - y > 1 ? [rule(line, y, x + LABEL_X_MM - 0.6, at - 0.8)] : []),
        ...lines.map(({ text, size, isBold }, row) =>
          fitted(x + LABEL_X_MM, at + 0.8 + row * NAME_ROW_MM, room, size, text, isBold),
        ),
      ]
    })
}

/** Both long sides of the strip, and a tick a millimetre along the left one. */
function ruler({ x }: Column, fromMm: number, toMm: number, y: (placeMm: number) => number): PageItem[] {
  const left = x + STRIP_X_MM
  const items: PageItem[] = [
    rule(left, y(fromMm), left, y(toMm)),
    rule(left + STRIP_WIDTH_MM, y(fromMm), left + STRIP_WIDTH_MM, y(toMm)),
  ]
  for (let place = Math.ceil(fromMm); place <= toMm; place++) {
    const length = place % 10 === 0 ? 5 : place % 5 === 0 ? 3.5 : 2
    items.push(rule(left, y(place), left + length, y(place)))
    if (place % 10 === 0 && place > 0) items.push(label(left - 7.5, y(place) + 0.9, 2.6, String(place)))
  }
  return items
}

function nutLine({ x }: Column, y: number): PageItem[] {
  const left = x + STRIP_X_MM
  return [rule(left - 6, y, left + STRIP_WIDTH_MM + 6, y, 0.35, { placeMm: 0 })]
}

/** A dashed line right across, with a cross at either end: laid over its twin on the other sheet, all three meet. */
function joint({ x }: Column, y: number): PageItem[] {
  const [left, right] = [x + STRIP_X_MM - 8, x + STRIP_X_MM + STRIP_WIDTH_MM + 5]
  return [
    rule(left, y, right, y, 0.15, { isDashed: true }),
    ...[left, right].map((at) => rule(at, y - 3, at, y + 3, 0.15)),
  ]
}

function tape(
  { x }: Column,
  mark: StripMark,
  fromMm: number,
  toMm: number,
  y: (placeMm: number) => number,
): PageItem[] {
  const isHere = (placeMm: number) => placeMm >= fromMm && placeMm <= toMm
  const start = x + STRIP_X_MM + 8
  const right = x + STRIP_X_MM + STRIP_WIDTH_MM
  const [top, bottom] = [Math.max(mark.nearEdgeMm, fromMm), Math.min(mark.farEdgeMm, toMm)]
  return [
    { kind: 'band', x: start, y: y(top), w: STRIP_WIDTH_MM - 8, h: bottom - top },
    ...[mark.nearEdgeMm, mark.farEdgeMm]
      .filter(isHere)
      .map((place) => rule(start, y(place), right, y(place), HAIRLINE_MM, { placeMm: place })),
    ...[mark.middleMm]
      .filter(isHere)
      .map((place) => rule(start, y(place), right + 6, y(place), HAIRLINE_MM, { placeMm: place })),
  ]
}

function howTo(lines: readonly string[], x: number, y: number): PageItem[] {
  return lines.map((text, row) => label(x, y + row * 5.2, NOTE_MM, text))
}

/**
 * 100 mm along the strip at `left` + `upright`, and 80 mm across it from `left` on, both from `top` down: a printer can
 * stretch the one and not the other.
 */
function proof(words: string, left: number, upright: number, top: number): PageItem[] {
  const x = left + upright
  const bottom = top + PROOF_MM
  const across = bottom + 6
  return [
    rule(x, top, x, bottom, 0.2),
    ...[top, bottom].map((y) => rule(x - 4, y, x + 4, y, HAIRLINE_MM)),
    label(x + 4, (top + bottom) / 2, NOTE_MM, words),
    rule(left, across, left + PROOF_ACROSS_MM, across, 0.2),
    ...[left, left + PROOF_ACROSS_MM].map((at) => rule(at, across - 3, at, across + 3, HAIRLINE_MM)),
  ]
}
