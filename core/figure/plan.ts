import type { FigureWord } from './words'
import { frameWidths, type PlanFamily } from './plan-frames'
import { BODY_MM, body, label, limb, line, patch, spot, type Figure, type FigurePart } from './figure'
import { arc, at, away, between, capsule, circle, distance, heading, polyline, type Point } from './geometry'

/** What one finger does, seen from above: on its place, waiting over it, at rest, curled up, or flying. */
export type FingerState = 'down' | 'hovers' | 'rests' | 'curls' | 'flies'

/** The board from above with the hand at it, the nut at the left. Full size, mm. */
export interface PlanPose {
  readonly fingers: Readonly<Partial<Record<1 | 2 | 3 | 4, FingerState>>>
  /** String that is stopped, 0 nearest to the thumb’s side of the neck. */
  readonly string: number
  /** Of the thumb in front of the first finger, towards the bridge; behind it where negative. */
  readonly thumbMm: number
  /** How far the thumb’s tip shows beyond the neck; none where it stands behind it. */
  readonly thumbOutMm: number
  /** The row of base knuckles against the strings, degrees: positive turns the fourth away. */
  readonly turn: number
  /** Between base knuckles. */
  readonly knuckleMm: number
  /** From the board’s edge to the row of knuckles. */
  readonly awayMm: number
  /** Places moved from where the frame has them. */
  readonly shift: Readonly<Partial<Record<1 | 2 | 3 | 4, number>>>
  /** A dotted ghost of the fingers where they belong. */
  readonly ghost: boolean
  /** Whole hand along the string, the thumb left where it was. */
  readonly handMm: number
}

export const PLAN: PlanPose = {
  fingers: { 1: 'down', 2: 'down', 3: 'down', 4: 'down' },
  string: 2,
  thumbMm: 0,
  thumbOutMm: 7,
  turn: 4,
  knuckleMm: 20,
  awayMm: 30,
  shift: {},
  ghost: false,
  handMm: 0,
}

export interface PlanJoints {
  readonly places: Readonly<Record<1 | 2 | 3 | 4, number>>
  readonly bases: readonly [Point, Point, Point, Point]
  readonly tips: readonly [Point, Point, Point, Point]
  readonly thumbTip: Point
  /** Direction of the row of knuckles, from the first to the fourth, degrees. */
  readonly row: number
}

interface BoardPlan {
  readonly halfAtNut: number
  readonly halfAtEnd: number
  readonly length: number
}
const BOARDS: Record<PlanFamily, BoardPlan> = {
  upper: { halfAtNut: 12, halfAtEnd: 16.5, length: 178 },
  cello: { halfAtNut: 16, halfAtEnd: 22, length: 268 },
  bass: { halfAtNut: 22, halfAtEnd: 29, length: 300 },
}

const FINGERS = [1, 2, 3, 4] as const

export function planJoints(pose: PlanPose, family: PlanFamily = 'upper', hand = 1): PlanJoints {
  const places = frameWidths(family)
  const board = BOARDS[family]
  const half = board.halfAtNut + (board.halfAtEnd - board.halfAtNut) * 0.4
  const y = half * (-0.72 + (1.44 * pose.string) / 3)
  const placed = (f: 1 | 2 | 3 | 4) => places[f] + (pose.shift[f] ?? 0) + pose.handMm
  const middle = (placed(1) + placed(4)) / 2
  const spread = Math.min(pose.knuckleMm * hand, ((placed(4) - placed(1)) / 3) * 1.15)
  const start = at(middle - spread * 1.5 + (family === 'upper' ? 4 : 0), half + pose.awayMm)
  const bases = FINGERS.map((_, i) => away(start, -pose.turn, spread * i)) as unknown as PlanJoints['bases']
  const tips = FINGERS.map((f, i) =>
    tipOf(pose.fingers[f] ?? 'down', at(placed(f), y), bases[i]!),
  ) as unknown as PlanJoints['tips']
  const thumbTip = at(places[1] + pose.thumbMm, -half - pose.thumbOutMm)
  return { places, bases, tips, thumbTip, row: heading(bases[0], bases[3]) }
}

function tipOf(state: FingerState, place: Point, base: Point): Point {
  switch (state) {
    case 'down':
    case 'hovers':
      return place
    case 'rests':
      return at(between(place, base, 0.35).x, place.y + 12)
    case 'curls':
      return at(base.x - 6, base.y - 17)
    case 'flies':
      return at(place.x + 16, place.y - 34)
  }
}

export function planFigure(
  pose: PlanPose,
  family: PlanFamily = 'upper',
  hand = 1,
  notes: readonly FigurePart[] = [],
): Figure {
  const board = BOARDS[family]
  const joints = planJoints(pose, family, hand)
  const { bases, tips, thumbTip } = joints
  const size = (family === 'upper' ? 1 : 1.28) * hand
  const widths = [18.5 * size, 16 * size, 13 * size]
  const wrist = at((bases[0].x + bases[3].x) / 2 - 6, bases[0].y + BODY_MM.palm * size)
  const fingers = FINGERS.filter((f) => pose.fingers[f] !== undefined || family !== 'bass')
  const outline = (f: 1 | 2 | 3 | 4) =>
    limb([bases[f - 1]!, bent(bases[f - 1]!, tips[f - 1]!), tips[f - 1]!], widths)
  const lifted = fingers.filter((f) => pose.fingers[f] === 'hovers' || pose.fingers[f] === 'flies')
  const isHidden = pose.thumbOutMm <= 0
  const thumbRoot = at(bases[0].x + 2, bases[0].y + 34 * size)
  const thumb = limb(
    [thumbRoot, between(thumbRoot, thumbTip, 0.55), thumbTip],
    [27 * size, 20 * size, 14 * size],
  )
  return {
    x: -16,
    y: -board.halfAtEnd - 44,
    width: board.length + 22,
    height: (board.length + 22) * 0.92,
    parts: [
      ...(isHidden ? [] : [body('skin', thumb)]),
      body('board', [boardShape(board)]),
      body('neck', [
        polyline(
          [
            at(-7, -board.halfAtNut - 0.6),
            at(0, -board.halfAtNut - 0.6),
            at(0, board.halfAtNut + 0.6),
            at(-7, board.halfAtNut + 0.6),
          ],
          true,
        ),
      ]),
      ...strings(board),
      ...(pose.ghost
        ? FINGERS.map((f) => line('compare', circle(at(joints.places[f], tips[f - 1]!.y), 6)))
        : []),
      body('skin', [...palm(bases, wrist, size), ...fingers.flatMap(outline)], []),
      ...fingers.map((f) => nailMark(bent(bases[f - 1]!, tips[f - 1]!), tips[f - 1]!, size)),
      ...lifted.map((f) => line('motion', arc(tips[f - 1]!, 11 * size, 40, 140))),
      ...(isHidden
        ? [line('compare', capsule(between(thumbRoot, thumbTip, 0.4), 19 * size, thumbTip, 15 * size))]
        : []),
      patch('skin', []),
      ...bases
        .filter((_, i) => fingers.includes((i + 1) as 1))
        .map((base): FigurePart => ({ kind: 'joint', at: base })),
      ...notes,
    ],
  }
}

/** A finger seen from above bends a little to the outside of its way. */
function bent(base: Point, tip: Point): Point {
  return away(between(base, tip, 0.52), heading(base, tip) - 90, Math.min(4, distance(base, tip) * 0.06))
}

function nailMark(middle: Point, tip: Point, size: number): FigurePart {
  const centre = away(tip, heading(tip, middle), 1.5 * size)
  const along = heading(middle, tip)
  return line('detail', arc(centre, 4.4 * size, along - 75, along + 75))
}

function palm(bases: PlanJoints['bases'], wrist: Point, size: number): string[] {
  return [
    ...bases.slice(1).map((base, i) => capsule(bases[i]!, 19 * size, base, 19 * size)),
    polyline(
      [
        at(bases[0].x - 9 * size, bases[0].y),
        at(bases[3].x + 9 * size, bases[3].y),
        at(wrist.x + 27 * size, wrist.y),
        at(wrist.x - 27 * size, wrist.y),
      ],
      true,
    ),
    capsule(wrist, 54 * size, at(wrist.x - 4, wrist.y + 90), 58 * size),
  ]
}

function boardShape({ halfAtNut, halfAtEnd, length }: BoardPlan): string {
  return polyline([at(0, -halfAtNut), at(length, -halfAtEnd), at(length, halfAtEnd), at(0, halfAtNut)], true)
}

function strings({ halfAtNut, halfAtEnd, length }: BoardPlan): FigurePart[] {
  return [0, 1, 2, 3].map((i) => {
    const share = -0.72 + (1.44 * i) / 3
    return line('string', [at(-7, halfAtNut * share), at(length, halfAtEnd * share)])
  })
}

/** Lines across the board at the thumb and at the first finger, and how far apart they are. */
export function thumbNote(pose: PlanPose, family: PlanFamily, says: FigureWord): FigurePart[] {
  const { tips, thumbTip } = planJoints(pose, family)
  const first = tips[0].x
  const top = -BOARDS[family].halfAtEnd - 24
  return [
    line('compare', [at(first, top + 4), at(first, 40)]),
    line('compare', [at(thumbTip.x, top + 4), at(thumbTip.x, 10)]),
    ...(Math.abs(thumbTip.x - first) > 4
      ? [line('mark', [at(first, top + 8), at(thumbTip.x, top + 8)])]
      : []),
    label(says, {
      value: Math.abs(thumbTip.x - first),
      unit: 'mm',
    }),
  ]
}

/** Rings round the places, named. */
export function fingerNote(
  pose: PlanPose,
  family: PlanFamily,
  fingers: readonly (1 | 2 | 3 | 4)[],
  says: FigureWord,
  hand = 1,
): FigurePart[] {
  const { tips } = planJoints(pose, family, hand)
  return [...fingers.map((f) => spot(tips[f - 1]!, 10)), label(says)]
}

/** The row of base knuckles against the strings. */
export function rowNote(pose: PlanPose, family: PlanFamily, says: FigureWord, hand = 1): FigurePart[] {
  const { bases, row } = planJoints(pose, family, hand)
  const end = away(bases[3], row, 34)
  return [
    line('compare', [at(bases[0].x - 14, bases[0].y), at(end.x + 4, bases[0].y)]),
    line('mark', [bases[0], end]),
    label(says, {
      value: Math.round(-row),
      unit: 'degrees',
    }),
  ]
}
