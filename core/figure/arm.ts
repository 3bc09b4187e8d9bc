import type { FigureWord } from './words'
import { BODY_MM, body, label, limb, line, patch, type Figure, type FigurePart } from './figure'
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
const FOREARM = { under_chin: -48, upright: -152 } as const

export function armJoints({ wrist: bend, drop, hold }: ArmPose, hand = 1): ArmJoints {
  const isHeld = hold === 'under_chin'
  const knuckle = isHeld ? at(14, 2) : at(-20, -12)
  // What is folded lies under the neck: the palm turns towards it, and the wrist with it.
  const direction = FOREARM[hold]
  const palm = direction + (isHeld ? bend : bend)
  const wrist = away(knuckle, palm, BODY_MM.palm * 1.05 * hand)
  const elbow = away(wrist, direction + (isHeld ? -drop : drop), 190 * hand)
  return { elbow, wrist, knuckle }
}

export function armFigure(pose: ArmPose, hand = 1, notes: readonly FigurePart[] = []): Figure {
  const { elbow, wrist, knuckle } = armJoints(pose, hand)
  const isHeld = pose.hold === 'under_chin'
  const neck = isHeld ? heldNeck() : uprightNeck()
  const tip = isHeld ? at(-7, -17) : at(20, -34)
  const middle = isHeld ? at(0, -40) : at(6, -58)
  const widths = BODY_MM.fingerWidths.map((mm) => mm * hand)
  const thumbTip = isHeld ? at(2, 12) : at(-16, -6)
  const sleeveFrom = away(wrist, heading(wrist, elbow), 120)
  return {
    ...(isHeld ? { x: -98, y: -84, width: 300, height: 276 } : { x: -250, y: -150, width: 330, height: 304 }),
    parts: [
      ...(isHeld ? [] : neck),
      body(
        'skin',
        [
          ...limb([wrist, elbow], [46 * hand, 62 * hand]),
          capsule(knuckle, 30 * hand, wrist, 48 * hand),
          ...limb(
            [away(wrist, heading(wrist, knuckle), 14), between(wrist, thumbTip, 0.62), thumbTip],
            [26 * hand, 20 * hand, 14 * hand],
          ),
          ...limb([knuckle, middle, tip], widths.slice(0, 3)),
        ],
        [],
      ),
      body('sleeve', limb([sleeveFrom, away(elbow, heading(wrist, elbow), 40)], [66 * hand, 76 * hand])),
      ...(isHeld
        ? [
            ...neck,
            body('skin', limb([middle, tip], widths.slice(1, 3))),
            patch('skin', [capsule(knuckle, widths[0]! - 1.4, middle, widths[1]! - 1)]),
          ]
        : []),
      { kind: 'joint', at: knuckle },
      { kind: 'joint', at: middle },
      { kind: 'joint', at: wrist },
      ...notes,
    ],
  }
}

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
  const lean = (points: readonly Point[]) => turned(points, at(0, 0), 14)
  return [
    body('neck', [polyline(lean([at(-12, -210), at(14, -210), at(14, 180), at(-16, 180)]), true)]),
    body('board', [polyline(lean([at(14, -130), at(23, -130), at(23, 190), at(14, 190)]), true)]),
    line('string', lean([at(26, -140), at(27, 190)])),
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
