import { body, line, type FigurePart } from './figure'
import { at, away, between, distance, heading, smooth, type Point } from './geometry'

/** Fingers of a hand; the thumb is apart. */
export type FingerNo = 1 | 2 | 3 | 4
export const FINGERS = [1, 2, 3, 4] as const

/**
 * Mean lengths of an adult’s finger bones, proximal to distal, mm. Source: A. Buryanov and V. Kotiuk, Proportions of hand segments,
 * Int. J. Morphol. 28 (2010) 755; from memory.
 */
export const FINGER_BONES_MM: Readonly<Record<FingerNo, readonly [number, number, number]>> = {
  1: [39.8, 22.4, 15.8],
  2: [44.6, 26.3, 17.4],
  3: [41.4, 25.7, 17.3],
  4: [32.7, 18.1, 16],
}

/** How wide each finger is beside the first. From memory. */
export const FINGER_WIDTHS: Readonly<Record<FingerNo, number>> = { 1: 1, 2: 1.03, 3: 0.98, 4: 0.86 }

/** The bones’ own length without the pad, mm. */
export function fingerLengthMm(finger: FingerNo): number {
  return FINGER_BONES_MM[finger].reduce((sum, mm) => sum + mm)
}

const STEPS = 6
/** Between two joints a limb is so much narrower than at them. */
const WAIST = 0.07

/**
 * The outline of a limb that bends softly through its joints: as wide at each of them as told, narrower between, round at both
 * ends. SVG path data, mm.
 */
export function tube(joints: readonly Point[], widths: readonly number[]): string {
  const spine: { readonly place: Point; readonly half: number }[] = []
  joints.slice(1).forEach((end, i) => {
    const start = joints[i]!
    for (let k = i === 0 ? 0 : 1; k <= STEPS; k++) {
      const share = k / STEPS
      const wide = widths[i]! + (widths[i + 1]! - widths[i]!) * share
      spine.push({
        place: through(joints[i - 1] ?? start, start, end, joints[i + 2] ?? end, share),
        half: (wide / 2) * (1 - WAIST * Math.sin(Math.PI * share)),
      })
    }
  })
  const along = (i: number) =>
    heading(spine[Math.max(0, i - 1)]!.place, spine[Math.min(spine.length - 1, i + 1)]!.place)
  const side = (turn: 90 | -90) => spine.map(({ place, half }, i) => away(place, along(i) + turn, half))
  const cap = (i: number, from: number) =>
    [45, 90, 135].map((turn) => away(spine[i]!.place, from - turn, spine[i]!.half))
  const last = spine.length - 1
  return smooth(
    [...side(90), ...cap(last, along(last) + 90), ...side(-90).toReversed(), ...cap(0, along(0) - 90)],
    true,
  )
}

/** On the curve between two joints, its neighbours being known (Catmull–Rom). */
function through(before: Point, a: Point, b: Point, after: Point, t: number): Point {
  const of = (p: number, q: number, r: number, s: number) =>
    0.5 * (2 * q + (r - p) * t + (2 * p - 5 * q + 4 * r - s) * t ** 2 + (3 * q - p - 3 * r + s) * t ** 3)
  return at(of(before.x, a.x, b.x, after.x), of(before.y, a.y, b.y, after.y))
}

/** The nail on the back of a last bone that is looked at from above it, its free edge at the tip. */
export function nailPlate(joint: Point, tip: Point, width: number): FigurePart {
  const along = heading(joint, tip)
  const [half, length] = [width * 0.31, width * 0.74]
  const end = away(tip, along, width * 0.26)
  const on = (back: number, across: number) =>
    away(away(end, along, -back * length), along + 90, across * half)
  return body('nail', [
    smooth(
      [
        on(0, 0),
        on(0.14, 0.78),
        on(0.5, 1),
        on(0.88, 0.8),
        on(1, 0),
        on(0.88, -0.8),
        on(0.5, -1),
        on(0.14, -0.78),
      ],
      true,
    ),
  ])
}

/** The folds of the skin over a joint, seen from the back. */
export function folds(joint: Point, along: number, width: number): FigurePart[] {
  return [-1.3, 1.3].map((mm) => {
    const middle = away(joint, along, mm)
    const ends = [90, -90].map((turn) => away(middle, along + turn, width * 0.27))
    return line('detail', smooth([ends[0]!, away(middle, along, mm * 0.8), ends[1]!]))
  })
}

/** A finger from its base to its tip, seen from above its back: a silhouette, its nail and the folds over its joints. */
export function fingerFromAbove(base: Point, tip: Point, finger: FingerNo, size: number): FigurePart[] {
  const [proximal, middle] = FINGER_BONES_MM[finger]
  const whole = fingerLengthMm(finger)
  const way = heading(base, tip)
  const belly = Math.min(4, distance(base, tip) * 0.05)
  const joint = away(between(base, tip, proximal / whole), way + 90, belly)
  const last = away(between(base, tip, (proximal + middle) / whole), way + 90, belly * 0.8)
  const wide = size * FINGER_WIDTHS[finger]
  const widths = [18.5, 17, 15, 12.5].map((mm) => mm * wide)
  const isLong = distance(base, tip) > 30 * size
  return [
    body('skin', [tube([base, joint, last, tip], widths)]),
    ...(isLong ? folds(joint, heading(base, joint), 17 * wide) : []),
    nailPlate(last, tip, 12.5 * wide),
  ]
}
