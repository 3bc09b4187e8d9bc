import type { FigureWord } from './words'
import type { HoldId } from '../instrument'
import { frameWidths } from './plan-frames'
import {
  body,
  joint,
  label,
  line,
  patch,
  spot,
  type Figure,
  type FigurePart,
  type HandInPlan,
} from './figure'
import { arc, at, away, between, circle, heading, polyline, smooth, type Point } from './geometry'
import { fingerFromAbove, FINGERS, FINGER_WIDTHS, tube, type FingerNo } from './hand'

/** What one finger does, seen from above: on its place, waiting over it, at rest, or curled up. */
export type FingerState = 'down' | 'hovers' | 'rests' | 'curls'

/**
 * The board from above with the hand at it, the nut at the left and the thinnest string on top: the left hand comes over from the
 * thin string’s side, its thumb is beyond the thick one. Full size, mm.
 */
export interface PlanPose {
  readonly fingers: Readonly<Partial<Record<FingerNo, FingerState>>>
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
  readonly shift: Readonly<Partial<Record<FingerNo, number>>>
  /** A dotted ghost of the fingers where they belong. */
  readonly ghost: boolean
  /** Whole hand along the string, the thumb left where it was. */
  readonly handMm: number
}

export const PLAN: PlanPose = {
  fingers: { 1: 'down', 2: 'down', 3: 'down', 4: 'down' },
  string: 2,
  thumbMm: 0,
  thumbOutMm: 12,
  turn: 4,
  knuckleMm: 20,
  awayMm: 30,
  shift: {},
  ghost: false,
  handMm: 0,
}

type Four = HandInPlan['bases']

export interface PlanJoints extends HandInPlan {
  readonly places: Readonly<Record<FingerNo, number>>
  /** Direction of the row of knuckles, from the first to the fourth, degrees. */
  readonly row: number
}

interface BoardPlan {
  readonly halfAtNut: number
  readonly halfAtEnd: number
  readonly length: number
}
const BOARDS: Record<HoldId, BoardPlan> = {
  shoulder: { halfAtNut: 12, halfAtEnd: 15.5, length: 152 },
  knees: { halfAtNut: 16, halfAtEnd: 21, length: 244 },
  standing: { halfAtNut: 22, halfAtEnd: 28, length: 270 },
}
/** How large a hand is drawn on its board. */
const SIZES: Record<HoldId, number> = { shoulder: 1, knees: 1.28, standing: 1.28 }
/** The knuckles of 2 and 3 stand a little further out than those of 1 and 4. */
const ARCH_MM = [0, 4, 3, 0] as const

export function planJoints(pose: PlanPose, hold: HoldId = 'shoulder', hand = 1): PlanJoints {
  const places = frameWidths(hold)
  const board = BOARDS[hold]
  const half = board.halfAtNut + (board.halfAtEnd - board.halfAtNut) * 0.4
  const y = half * (0.72 - (1.44 * pose.string) / 3)
  const placed = (f: FingerNo) => places[f] + (pose.shift[f] ?? 0) + pose.handMm
  const middle = (placed(1) + placed(4)) / 2
  const spread = Math.min(pose.knuckleMm * hand, ((placed(4) - placed(1)) / 3) * 1.15)
  const start = at(middle - spread * 1.5 + (hold === 'shoulder' ? 4 : 0), -half - pose.awayMm)
  const bases = FINGERS.map((_, i) => {
    const { x, y: across } = away(start, pose.turn, spread * i)
    return at(x, across - ARCH_MM[i]! * hand)
  }) as unknown as Four
  const tips = FINGERS.map((f, i) =>
    tipOf(pose.fingers[f] ?? 'down', at(placed(f), y), bases[i]!),
  ) as unknown as Four
  const thumbTip = at(places[1] + pose.thumbMm, half + pose.thumbOutMm)
  return { places, bases, tips, thumbTip, row: heading(bases[0], bases[3]), half }
}

function tipOf(state: FingerState, place: Point, base: Point): Point {
  switch (state) {
    case 'down':
      return place
    case 'hovers':
      return between(place, base, 0.14)
    case 'rests':
      return at(between(place, base, 0.35).x, between(place, base, 0.42).y)
    case 'curls':
      return at(base.x - 4, base.y + 13)
  }
}

export function planFigure(
  pose: PlanPose,
  hold: HoldId = 'shoulder',
  hand = 1,
  notes: readonly FigurePart[] = [],
): Figure {
  const joints = planJoints(pose, hold, hand)
  const { bases, tips, half, thumbTip } = joints
  // A hand further up takes the picture with it.
  const shown = BOARDS[hold].length + 12
  const right = Math.max(BOARDS[hold].length, tips[3].x + 56)
  const board = longer(BOARDS[hold], right)
  const size = SIZES[hold] * hand
  const fingers = FINGERS.filter((f) => pose.fingers[f] !== undefined || hold !== 'standing')
  const waiting = fingers.filter((f) => pose.fingers[f] === 'hovers')
  const y = half * (0.72 - (1.44 * pose.string) / 3)
  const thumb = thumbOf(joints, hold, size)
  const isUpper = hold === 'shoulder'
  const top = Math.min(
    isUpper ? -half - 58 : -half - 128,
    ...bases.map(({ y: knuckle }) => knuckle - 20 * size),
  )
  const bottom = isUpper ? half + 40 : half + 42
  return {
    x: right - shown,
    y: top,
    width: shown,
    height: bottom - top,
    hand: joints,
    parts: [
      ...(isUpper ? forearmBelow(bases, half, size) : []),
      body('skin', [thumb]),
      ...(isUpper ? [body('nail', thumbNail(thumbTip, size))] : []),
      ...(isUpper ? standingHand(bases, half, size) : []),
      body('board', [boardShape(board)]),
      body('neck', [nut(board)]),
      ...strings(board),
      ...(pose.ghost ? FINGERS.map((f) => line('motion', circle(at(joints.places[f], y), 6))) : []),
      ...(isUpper ? [] : levelHand(bases, size)),
      ...waiting.map((f) => line('motion', circle(at(joints.places[f] + pose.handMm, y), 4.5))),
      ...fingers.flatMap((f) => fingerFromAbove(bases[f - 1]!, tips[f - 1]!, f, size)),
      // The fingers grow out of the hand: no line between them.
      ...fingers.map((f) =>
        patch('skin', [circle(bases[f - 1]!, (18.5 * size * FINGER_WIDTHS[f]) / 2 + (isUpper ? 0.2 : 0.6))]),
      ),
      ...(pose.thumbOutMm <= 0 ? [line('compare', thumb)] : []),
      ...fingers.map((f) => joint(bases[f - 1]!)),
      ...notes,
    ],
  }
}

/** From its root under the hand to its tip: beyond the thick string of a violin, behind the neck of a cello or a bass. */
function thumbOf({ bases, thumbTip, half }: PlanJoints, hold: HoldId, size: number): string {
  if (hold === 'shoulder') {
    const root = at(thumbTip.x + 12 * size, -half)
    return tube([root, at(thumbTip.x + 5 * size, half * 0.4), thumbTip], [22 * size, 18 * size, 14 * size])
  }
  const root = at(bases[0].x + 8 * size, bases[0].y - 20 * size)
  const out = at((root.x + thumbTip.x) / 2 - 9 * size, -half - 8 * size)
  return tube([root, out, thumbTip], [26 * size, 20 * size, 15 * size])
}

/** The thumb’s nail looks back along the neck. */
function thumbNail(tip: Point, size: number): string[] {
  const on = (x: number, y: number) => at(tip.x + x * size, tip.y + y * size)
  return [smooth([on(-6.6, -4), on(-4.2, -4.6), on(-2.6, 0), on(-3.4, 5), on(-6.2, 3)], true)]
}

/** Violin and viola: the hand stands beside the neck, its back turned away; what is seen is the crest of its knuckles. */
function standingHand(bases: Four, half: number, size: number): FigurePart[] {
  const [one, two, three, four] = bases
  const edge = -half + 4
  return [
    body('skin', [
      smooth(
        [
          at(one.x - 7 * size, edge),
          at(one.x - 12 * size, one.y + 8 * size),
          at(one.x - 9.5 * size, one.y - 8 * size),
          at(two.x - 2, two.y - 12 * size),
          at(three.x + 2, three.y - 12 * size),
          at(four.x + 8 * size, four.y - 8 * size),
          at(four.x + 10.5 * size, four.y + 6 * size),
          at(four.x + 4 * size, edge),
        ],
        true,
      ),
    ]),
    // Between the fingers one looks down into the palm.
    patch('far_skin', [
      smooth(
        [
          at(one.x, edge),
          at(one.x, one.y + 8 * size),
          at(two.x, two.y + 7 * size),
          at(three.x, three.y + 7 * size),
          at(four.x, four.y + 8 * size),
          at(four.x, edge),
        ],
        true,
      ),
    ]),
  ]
}

/** Violin and viola: wrist and forearm leave under the neck, towards the player. */
function forearmBelow(bases: Four, half: number, size: number): FigurePart[] {
  const x = (bases[0].x + bases[3].x) / 2
  const wrist = at(x + 12, half + 14)
  const end = at(x + 74, half + 110)
  const cuff = between(wrist, end, 0.3)
  return [
    body('far_skin', [tube([at(x, -half), wrist, end], [58 * size, 42 * size, 56 * size])]),
    body('sleeve', [tube([cuff, end], [54 * size, 66 * size])]),
  ]
}

/** Cello and bass: back of the hand, wrist and forearm, level with the board. */
function levelHand(bases: Four, size: number): FigurePart[] {
  const [one, two, three, four] = bases
  const wrist = at((one.x + four.x) / 2 + 16 * size, (one.y + four.y) / 2 - 72 * size)
  const end = away(wrist, 52, 130 * size)
  const cuff = away(wrist, 52, 26 * size)
  const [left, right] = [away(wrist, 142, 23 * size), away(wrist, -38, 23 * size)]
  return [
    body('skin', [
      tube([wrist, end], [46 * size, 60 * size]),
      smooth(
        [
          at(one.x - 2 * size, one.y + 13 * size),
          at(one.x - 11 * size, one.y + 4 * size),
          at(one.x - 11 * size, one.y - 12 * size),
          left,
          away(wrist, 52, 12 * size),
          right,
          at(four.x + 12 * size, four.y - 16 * size),
          at(four.x + 9.5 * size, four.y + 4 * size),
          at(four.x + 2 * size, four.y + 12 * size),
          at((two.x + three.x) / 2, two.y + 14 * size),
        ],
        true,
      ),
    ]),
    // Tendons from the wrist to the knuckles.
    ...bases.map((base) =>
      line('detail', [between(base, wrist, 0.2), between(base, at(wrist.x, wrist.y), 0.55)]),
    ),
    body('sleeve', [tube([cuff, end], [58 * size, 72 * size])]),
  ]
}

/** The same board as far as another place on it. */
function longer({ halfAtNut, halfAtEnd, length }: BoardPlan, mm: number): BoardPlan {
  return { halfAtNut, halfAtEnd: halfAtNut + ((halfAtEnd - halfAtNut) * mm) / length, length: mm }
}

function boardShape({ halfAtNut, halfAtEnd, length }: BoardPlan): string {
  return polyline([at(0, -halfAtNut), at(length, -halfAtEnd), at(length, halfAtEnd), at(0, halfAtNut)], true)
}

function nut({ halfAtNut }: BoardPlan): string {
  const half = halfAtNut + 0.6
  return polyline([at(-7, -half), at(0, -half), at(0, half), at(-7, half)], true)
}

function strings({ halfAtNut, halfAtEnd, length }: BoardPlan): FigurePart[] {
  return [0, 1, 2, 3].map((i) => {
    const share = 0.72 - (1.44 * i) / 3
    return line('string', [at(-7, halfAtNut * share), at(length, halfAtEnd * share)])
  })
}

/** Lines across the board at the thumb and at the first finger, and how far apart they are. */
export function thumbNote(pose: PlanPose, hold: HoldId, says: FigureWord): FigurePart[] {
  const { tips, thumbTip, half } = planJoints(pose, hold)
  const first = tips[0].x
  const bottom = half + 32
  return [
    line('compare', [at(first, -half), at(first, bottom)]),
    line('compare', [at(thumbTip.x, half), at(thumbTip.x, bottom)]),
    ...(Math.abs(thumbTip.x - first) > 4
      ? [line('mark', [at(first, bottom - 3), at(thumbTip.x, bottom - 3)])]
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
  hold: HoldId,
  fingers: readonly FingerNo[],
  says: FigureWord,
  hand = 1,
): FigurePart[] {
  const { tips } = planJoints(pose, hold, hand)
  return [...fingers.map((f) => spot(tips[f - 1]!, 10)), label(says)]
}

/** The first finger slides freely beside the neck, or is jammed between it and its own base. */
export function slideNote(pose: PlanPose, isFree: boolean, says: FigureWord, hand = 1): FigurePart[] {
  const { tips, bases, half } = planJoints(pose, 'shoulder', hand)
  if (!isFree) return [spot(at(bases[0].x, -half - 4), 9), label(says)]
  const y = tips[0].y + 13
  const head = (x: number, way: number) => `M${x - way * 4} ${y - 3}L${x} ${y}L${x - way * 4} ${y + 3}`
  const [from, to] = [tips[0].x - 15, tips[0].x + 15]
  return [line('motion', `M${from} ${y}L${to} ${y}${head(from, -1)}${head(to, 1)}`), label(says)]
}

/** The row of base knuckles against the strings. */
export function rowNote(pose: PlanPose, hold: HoldId, says: FigureWord, hand = 1): FigurePart[] {
  const { bases, row } = planJoints(pose, hold, hand)
  const end = away(bases[3], row, 30)
  return [
    line('compare', [at(bases[0].x - 14, bases[0].y), at(end.x + 4, bases[0].y)]),
    line('mark', [bases[0], end]),
    ...(Math.abs(row) > 6 ? [line('mark', arc(bases[0], 44, Math.min(0, row), Math.max(0, row)))] : []),
    label(says, {
      value: Math.round(row),
      unit: 'degrees',
    }),
  ]
}
