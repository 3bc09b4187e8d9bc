import type { FigureWord } from './words'
import { BODY_MM, body, label, line, patch, type Figure, type FigurePart } from './figure'
import { tube } from './hand'
import {
  angleAt,
  arc,
  at,
  away,
  between,
  capsule,
  circle,
  heading,
  polyline,
  turned,
  type Point,
} from './geometry'

/** Forearm, wrist and hand at the neck from the side. Full size, mm and degrees. */
export interface ArmPose {
  /** How far the hand is folded at the wrist, towards the neck; bulging outwards where negative. */
  readonly wrist: number
  /** The elbow below the line that carries; above it where negative. Degrees. */
  readonly drop: number
  readonly hold: 'under_chin' | 'upright'
}

export const ARM: ArmPose = { wrist: 0, drop: 0, hold: 'under_chin' }

export interface ArmJoints {
  readonly elbow: Point
  readonly wrist: Point
  readonly knuckle: Point
}

/** Where the forearm comes from when all is in line, degrees. */
const FOREARM = { under_chin: -48, upright: -28 } as const

export function armJoints({ wrist: bend, drop, hold }: ArmPose, hand = 1): ArmJoints {
  const isHeld = hold === 'under_chin'
  const knuckle = isHeld ? at(14, 2) : at(20, -12)
  // What is folded lies under the neck: the palm turns towards it, and the wrist with it.
  const direction = FOREARM[hold]
  const palm = direction + (isHeld ? bend : -bend)
  const wrist = away(knuckle, palm, BODY_MM.palm * 1.05 * hand)
  const elbow = away(wrist, direction - drop, 190 * hand)
  return { elbow, wrist, knuckle }
}

/**
 * The neck from the thumb’s side, nut at the left, the violin’s held level; the cello’s upright, its player at the right. The fingers come
 * over from behind, the thumb stands in front.
 */
export function armFigure(pose: ArmPose, hand = 1, notes: readonly FigurePart[] = []): Figure {
  const { elbow, wrist, knuckle } = armJoints(pose, hand)
  const isHeld = pose.hold === 'under_chin'
  const sleeveFrom = away(wrist, heading(wrist, elbow), 120)
  const fingers = isHeld ? heldFingers(knuckle, hand) : uprightFingers(knuckle, hand)
  const thumbTip = isHeld ? at(8, -7) : at(-14, 2)
  const ball = away(wrist, heading(wrist, knuckle), 30 * hand)
  return {
    ...(isHeld ? { x: -98, y: -84, width: 300, height: 216 } : { x: -150, y: -130, width: 330, height: 240 }),
    parts: [
      body('skin', [
        tube([knuckle, wrist], [44 * hand, 46 * hand]),
        tube([wrist, elbow], [45 * hand, 66 * hand]),
        ...fingers.map(({ back }) => back),
      ]),
      body('sleeve', [tube([sleeveFrom, away(elbow, heading(wrist, elbow), 60)], [66 * hand, 80 * hand])]),
      ...(isHeld ? heldNeck() : uprightNeck()),
      ...fingers.toReversed().map(({ front }) => body('skin', [front])),
      ...fingers.map(({ seam }) => patch('skin', [seam])),
      body('skin', [tube([ball, between(ball, thumbTip, 0.6), thumbTip], [30 * hand, 20 * hand, 15 * hand])]),
      patch('skin', [circle(ball, 14 * hand)]),
      { kind: 'joint', at: knuckle },
      { kind: 'joint', at: wrist },
      ...notes,
    ],
  }
}

/** A finger over the neck: what is behind it, what comes down in front, and where both meet. */
interface OverNeck {
  readonly back: string
  readonly front: string
  readonly seam: string
}
function overNeck([base, top, tip]: readonly [Point, Point, Point], wide: number): OverNeck {
  return {
    back: capsule(base, wide * 1.1, top, wide),
    front: capsule(top, wide, tip, wide * 0.78),
    seam: circle(top, wide / 2 - 1.2),
  }
}
const heldFingers = ({ x, y }: Point, hand: number) =>
  [0, 1, 2, 3].map((i) =>
    overNeck(
      [
        at(x - 12 + i * 15 * hand, y),
        at(x - 14 + i * 16 * hand, y - 40 * hand + i * 2),
        at(x - 21 + i * 18 * hand, -23),
      ],
      (i === 3 ? 12.5 : 14.5) * hand,
    ),
  )
const uprightFingers = ({ x, y }: Point, hand: number) =>
  [0, 1, 2, 3].map((i) =>
    overNeck(
      [
        at(x, y - 22 * hand + i * 17 * hand),
        at(x - 42 * hand, y - 34 * hand + i * 21 * hand),
        at(x - 47 - i * 1.5, y - 20 + i * 25 * hand),
      ].map((point, k) => (k === 2 ? at(point.x + 2, point.y) : point)) as unknown as readonly [
        Point,
        Point,
        Point,
      ],
      (i === 3 ? 15 : 18) * hand,
    ),
  )

function heldNeck(): FigurePart[] {
  return [
    body('neck', [
      polyline([at(-62, -12), at(112, -12), at(112, 6), at(40, 8), at(-58, 4)], true),
      circle(at(-78, -6), 11),
      polyline([at(-80, -15), at(-58, -12), at(-56, 5), at(-74, 6)], true),
    ]),
    body('wood', [polyline([at(112, -14), at(220, -14), at(220, 24), at(112, 24), at(104, 10)], true)]),
    body('board', [polyline([at(-56, -17), at(190, -17), at(190, -12), at(-56, -12)], true)]),
    line('string', [at(-56, -19), at(210, -20)]),
  ]
}

function uprightNeck(): FigurePart[] {
  const lean = (points: readonly Point[]) => turned(points, at(0, 0), -14)
  return [
    body('neck', [polyline(lean([at(12, -210), at(-14, -210), at(-14, 180), at(16, 180)]), true)]),
    body('board', [polyline(lean([at(-14, -130), at(-23, -130), at(-23, 190), at(-14, 190)]), true)]),
    line('string', lean([at(-26, -140), at(-27, 190)])),
  ]
}

/** The forearm’s line carried on through the wrist, and how far the hand leaves it. */
export function wristNote(pose: ArmPose, says: FigureWord, hand = 1): FigurePart[] {
  const { elbow, wrist, knuckle } = armJoints(pose, hand)
  const on = heading(elbow, wrist)
  const off = 180 - angleAt(wrist, elbow, knuckle)
  const to = heading(wrist, knuckle)
  const [from, until] = on < to ? [on, to] : [to, on]
  return [
    line('compare', [away(wrist, on + 180, 110), away(wrist, on, 120)]),
    ...(off > 2 && until - from < 180 ? [line('mark', arc(wrist, 58, from, until))] : []),
    label(says, {
      value: Math.round(off),
      unit: 'degrees',
    }),
  ]
}
