import { PAPERS, type Page, type PageItem, type PaperId } from '../paper'

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
  readonly nut: string
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
const STRIP_X_MM = 22
const STRIP_WIDTH_MM = 34
/** Of one sheet glued over the next. */
const OVERLAP_MM = 12
const HAIRLINE_MM = 0.1
const PROOF_MM = 100
const PROOF_ACROSS_MM = 80

/**
 * The strip that is laid against the strings, at 1:1: ruled in mm from the nut, every tape with both edges and its middle,
 * and a line to prove the printer by. A strip longer than the paper goes on over further sheets, with the same line ruled
 * on both where they are joined. Sizes and places in mm.
 */
export function stripPages(request: StripRequest): Page[] {
  const { marks, words } = request
  const paper = PAPERS[request.paper]
  const lengthMm = Math.max(PROOF_MM, ...marks.map((mark) => mark.farEdgeMm)) + TAIL_MM
  const room = paper.heightMm - NUT_Y_MM - MARGIN_MM
  const step = room - OVERLAP_MM
  const count = lengthMm <= room ? 1 : Math.ceil((lengthMm - OVERLAP_MM) / step)
  return Array.from({ length: count }, (_, index) => {
    const fromMm = index * step
    const toMm = Math.min(lengthMm, fromMm + room)
    const y = (placeMm: number) => NUT_Y_MM + placeMm - fromMm
    const isLast = index === count - 1
    return {
      ...paper,
      items: [
        ...heading(request, paper, words.page(index + 1, count), count),
        ...ruler(fromMm, toMm, y),
        ...(index === 0
          ? nutLine(words.nut, y(0))
          : joint(words.join(fromMm + OVERLAP_MM / 2), y(fromMm + OVERLAP_MM / 2))),
        ...(isLast ? [] : joint(words.join(toMm - OVERLAP_MM / 2), y(toMm - OVERLAP_MM / 2))),
        ...marks.flatMap((mark) => tape(mark, fromMm, toMm, y)),
        ...proof(words.proof, paper.widthMm),
        ...words.howTo.map((text, row) => label(NOTES_X_MM, NOTES_Y_MM + row * 5.2, 3.4, text)),
      ],
    }
  })
}

const NOTES_X_MM = 114
const NOTES_Y_MM = 160
const PROOF_Y_MM = 40

function label(x: number, y: number, sizeMm: number, text: string, isBold = false): PageItem {
  return { kind: 'text', x, y, sizeMm, text, isBold }
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

function heading(
  { title, subtitle }: StripRequest,
  { widthMm }: { widthMm: number },
  page: string,
  count: number,
): PageItem[] {
  return [
    label(MARGIN_MM, MARGIN_MM + 3, 5, title, true),
    label(MARGIN_MM, MARGIN_MM + 8.5, 3.6, subtitle),
    ...(count > 1 ? [label(widthMm - MARGIN_MM - 30, MARGIN_MM + 3, 3.6, page)] : []),
  ]
}

/** Both long sides of the strip, and a tick a millimetre along the left one. */
function ruler(fromMm: number, toMm: number, y: (placeMm: number) => number): PageItem[] {
  const items: PageItem[] = [
    rule(STRIP_X_MM, y(fromMm), STRIP_X_MM, y(toMm)),
    rule(STRIP_X_MM + STRIP_WIDTH_MM, y(fromMm), STRIP_X_MM + STRIP_WIDTH_MM, y(toMm)),
  ]
  for (let place = Math.ceil(fromMm); place <= toMm; place++) {
    const length = place % 10 === 0 ? 5 : place % 5 === 0 ? 3.5 : 2
    items.push(rule(STRIP_X_MM, y(place), STRIP_X_MM + length, y(place)))
    if (place % 10 === 0 && place > 0) items.push(label(STRIP_X_MM - 7.5, y(place) + 0.9, 2.6, String(place)))
  }
  return items
}

function nutLine(name: string, y: number): PageItem[] {
  return [
    rule(STRIP_X_MM - 6, y, STRIP_X_MM + STRIP_WIDTH_MM + 6, y, 0.35, { placeMm: 0 }),
    label(STRIP_X_MM + STRIP_WIDTH_MM + 8, y + 1.2, 3.6, name, true),
  ]
}

/** A dashed line right across, with a cross at either end: laid over its twin on the other sheet, all three meet. */
function joint(name: string, y: number): PageItem[] {
  const [left, right] = [STRIP_X_MM - 8, STRIP_X_MM + STRIP_WIDTH_MM + 8]
  return [
    rule(left, y, right, y, 0.15, { isDashed: true }),
    ...[left, right].map((x) => rule(x, y - 3, x, y + 3, 0.15)),
    label(right + 3, y + 1.2, 3.2, name),
  ]
}

function tape(mark: StripMark, fromMm: number, toMm: number, y: (placeMm: number) => number): PageItem[] {
  const isHere = (placeMm: number) => placeMm >= fromMm && placeMm <= toMm
  const right = STRIP_X_MM + STRIP_WIDTH_MM
  const [top, bottom] = [Math.max(mark.nearEdgeMm, fromMm), Math.min(mark.farEdgeMm, toMm)]
  if (top >= bottom) return []
  const start = STRIP_X_MM + 8
  return [
    { kind: 'band', x: start, y: y(top), w: STRIP_WIDTH_MM - 8, h: bottom - top },
    ...[mark.nearEdgeMm, mark.farEdgeMm]
      .filter(isHere)
      .map((place) => rule(start, y(place), right, y(place), HAIRLINE_MM, { placeMm: place })),
    ...(isHere(mark.middleMm)
      ? [
          rule(start, y(mark.middleMm), right + 6, y(mark.middleMm), HAIRLINE_MM, { placeMm: mark.middleMm }),
          label(right + 8, y(mark.middleMm) + 0.4, 4, `${mark.name}  ${mark.middleMm.toFixed(1)} mm`, true),
          label(
            right + 8,
            y(mark.middleMm) + 4.6,
            2.9,
            `${mark.nearEdgeMm.toFixed(1)} – ${mark.farEdgeMm.toFixed(1)} · ${mark.notes}`,
          ),
        ]
      : []),
  ]
}

/** 100 mm along the strip, and 80 mm across it: a printer can stretch the one and not the other. */
function proof(words: string, widthMm: number): PageItem[] {
  const x = widthMm - MARGIN_MM - PROOF_MM / 2 - 20
  const [top, bottom] = [PROOF_Y_MM, PROOF_Y_MM + PROOF_MM]
  const left = widthMm - MARGIN_MM - PROOF_ACROSS_MM
  const across = bottom + 10
  return [
    rule(x, top, x, bottom, 0.2),
    ...[top, bottom].map((y) => rule(x - 4, y, x + 4, y, HAIRLINE_MM)),
    label(x + 4, (top + bottom) / 2, 3.4, words),
    rule(left, across, left + PROOF_ACROSS_MM, across, 0.2),
    ...[left, left + PROOF_ACROSS_MM].map((at) => rule(at, across - 3, at, across + 3, HAIRLINE_MM)),
  ]
}
