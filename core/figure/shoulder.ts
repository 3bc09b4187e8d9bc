import type { FigureWord } from './words'
import {
  arrow,
  BODY_MM,
  body,
  closeUp,
  label,
  limb,
  line,
  spot,
  type Figure,
  type FigurePart,
} from './figure'
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
  smooth,
  turned,
  twoBones,
  type Point,
} from './geometry'

/** A violin or viola on its player, from the front. Full size, mm and degrees. */
export interface ShoulderPose {
  /** Between the player’s neck and the instrument. */
  readonly gapMm: number
  /** Strings from level: the scroll hangs where positive. */
  readonly droop: number
  /** The head pressed down over the instrument, degrees. */
  readonly head: number
  /** The shoulder pushed up. */
  readonly hunch: number
  /** The shoulder rest under the instrument, from the chin rest’s feet outwards; negative where there is none. */
  readonly restMm: number
  /** Heights of the shoulder rest under the back: at the chin rest’s feet, and at its outer end. */
  readonly restNearMm: number
  readonly restFarMm: number
  /** Height of the chin rest. */
  readonly chinMm: number
  readonly hand: 'holds' | 'on_other_shoulder' | 'round_scroll'
  /** Of the left elbow from where it hangs under the instrument: towards the player’s middle where negative, mm. */
  readonly elbowMm: number
  /** Of the player’s arm beside a grown one’s, where the scroll is reached round. */
  readonly arm: number
}

export const SHOULDER: ShoulderPose = {
  gapMm: 4,
  droop: 0,
  head: 8,
  hunch: 0,
  restMm: 14,
  chinMm: 26,
  restNearMm: 20,
  restFarMm: 24,
  hand: 'holds',
  elbowMm: 0,
  arm: 1,
}

const NECK = at(0, 0)

export interface ShoulderJoints {
  readonly button: Point
  readonly scroll: Point
  readonly shoulder: Point
  readonly elbow: Point
  readonly hand: Point
}

export function shoulderJoints(pose: ShoulderPose, instrument = 1): ShoulderJoints {
  const shoulder = at(152, 58 - pose.hunch)
  const button = at(50 + pose.gapMm, -2 - pose.hunch * 0.5)
  const scroll = away(button, -pose.droop, 585 * instrument)
  const held = away(button, -pose.droop, 505 * instrument)
  const places = {
    holds: at(held.x, held.y + 24),
    on_other_shoulder: at(-128, 66),
    // The palm lies round the scroll, the wrist below it.
    round_scroll: at(scroll.x - 12, scroll.y + 44),
  }
  const hand = places[pose.hand]
  const bones: readonly [number, number] = [BODY_MM.upperArm * pose.arm, BODY_MM.forearm * pose.arm]
  const { joint } = twoBones(shoulder, hand, bones, pose.hand === 'on_other_shoulder' ? 'left' : 'right')
  // What leaves the plane of the drawing looks shorter.
  const elbow = at(joint.x + pose.elbowMm, joint.y - Math.abs(pose.elbowMm) * 0.12)
  return { button, scroll, shoulder, elbow, hand }
}

export function shoulderFigure(
  pose: ShoulderPose,
  instrument = 1,
  notes: readonly FigurePart[] = [],
): Figure {
  const joints = shoulderJoints(pose, instrument)
  const { button, shoulder, elbow, hand } = joints
  const tilt = (points: readonly Point[]) => turned(points, button, -pose.droop)
  const on = (x: number, y: number) => at(button.x + x * instrument, button.y + y * instrument)
  const headAt = at(16 + pose.head * 1.1, -124 + pose.head * 0.9)
  const violin: FigurePart[] = [
    ...(pose.restMm >= 0
      ? [
          body('rest', [
            smooth(
              tilt([
                on(pose.restMm + 4, 34),
                on(pose.restMm + 8, 38 + pose.restNearMm * 0.7),
                on(pose.restMm + 26, 38 + pose.restNearMm),
                on(pose.restMm + 78, 38 + pose.restFarMm),
                on(pose.restMm + 98, 40),
                on(pose.restMm + 78, 26 + pose.restFarMm),
                on(pose.restMm + 26, 26 + pose.restNearMm),
                on(pose.restMm + 16, 38),
              ]),
              true,
            ),
          ]),
        ]
      : []),
    body('neck', [
      polyline(tilt([on(330, 2), on(560, 4), on(560, 18), on(340, 22)]), true),
      ...[on(575, 14)].map((p) => circle(tilt([p])[0]!, 16 * instrument)),
    ]),
    body('wood', [
      smooth(
        tilt([
          on(0, 2),
          on(30, -5),
          on(180, -8),
          on(345, -3),
          on(352, 4),
          on(352, 30),
          on(345, 36),
          on(180, 40),
          on(30, 36),
          on(0, 30),
        ]),
        true,
      ),
    ]),
    body('board', [polyline(tilt([on(250, -16), on(556, -2), on(556, 4), on(250, -9)]), true)]),
    body('rest', [
      smooth(
        tilt([
          on(10, -4),
          on(14, -pose.chinMm),
          on(44, -pose.chinMm - 3),
          on(84, -pose.chinMm + 6),
          on(92, -6),
        ]),
        true,
      ),
    ]),
    line('string', tilt([on(196, -44), on(556, -5)])),
    line('detail', tilt([on(196, -44), on(196, -8)])),
  ]
  const arm = body('sleeve', [tube([shoulder, elbow, between(elbow, hand, 0.62)], [100, 82, 60])])
  const fist = body('skin', [tube([between(elbow, hand, 0.5), hand], [52, 40]), ...handAt(pose, hand)])
  const fingers = pose.hand === 'on_other_shoulder' ? [] : [body('skin', fingersAt(pose, hand, instrument))]
  return {
    x: -220,
    y: -300,
    width: 900,
    height: 640,
    parts: [
      body('sleeve', [
        smooth(
          [
            at(-64, 22),
            at(-150, 60),
            at(-196, 110),
            at(-176, 380),
            at(168, 380),
            at(198, 118 - pose.hunch),
            at(150, 54 - pose.hunch),
            at(64, 22 - pose.hunch * 0.4),
          ],
          true,
        ),
      ]),
      body('skin', [capsule(at(NECK.x, NECK.y + 36), 112, at(headAt.x * 0.6, -70), 96)]),
      arm,
      fist,
      ...violin,
      ...fingers,
      body('skin', [headOutline(headAt, pose.head)]),
      ...face(headAt, pose.head),
      ...notes,
    ],
  }
}

/** The back of the hand below the neck, or below the scroll. */
function handAt({ hand: does }: ShoulderPose, { x, y }: Point): string[] {
  if (does === 'on_other_shoulder') return [circle(at(x, y - 16), 27)]
  return [capsule(at(x, y), 44, at(x + (does === 'holds' ? 0 : 10), y - 26), 40)]
}

/** What of the fingers shows over the neck, or round the scroll. */
function fingersAt({ hand: does, arm }: ShoulderPose, { x, y }: Point, instrument: number): string[] {
  const tops = does === 'holds' ? [-15, -1, 13, 26] : [-10, 4, 18]
  const reach = does === 'holds' ? 46 : 52 * Math.min(1, arm)
  return tops.map((dx) =>
    capsule(
      at(x + dx, y - 26),
      15 * instrument,
      at(x + dx + (does === 'holds' ? -3 : -8), y - reach - 8),
      12 * instrument,
    ),
  )
}

function headOutline(centre: Point, turn: number): string {
  const r = BODY_MM.head
  const points = [
    at(-0.66, -0.8),
    at(0, -1.12),
    at(0.66, -0.8),
    at(0.78, -0.1),
    at(0.6, 0.66),
    at(0.2, 1),
    at(-0.2, 1),
    at(-0.6, 0.66),
    at(-0.78, -0.1),
  ]
  return smooth(
    turned(
      points.map(({ x, y }) => at(centre.x + x * r, centre.y + y * r)),
      centre,
      -turn,
    ),
    true,
  )
}

function face(centre: Point, turn: number): FigurePart[] {
  const on = (x: number, y: number) => turned([at(centre.x + x, centre.y + y)], centre, -turn)[0]!
  return [
    line('detail', smooth([on(-46, -18), on(-32, -24), on(-20, -18)])),
    line('detail', smooth([on(30, -18), on(44, -24), on(56, -18)])),
    line('detail', smooth([on(6, -20), on(16, 16), on(2, 20)])),
    line('detail', smooth([on(-16, 54), on(6, 58), on(28, 52)])),
  ]
}

/** Strings against the level, and by how much they hang. */
export function levelNote(pose: ShoulderPose, says: FigureWord): FigurePart[] {
  const { button } = shoulderJoints(pose)
  const start = at(button.x + 60, button.y)
  return [
    line('compare', [at(button.x, button.y), at(670, button.y)]),
    ...(Math.abs(pose.droop) > 2
      ? [line('mark', arc(start, 330, Math.min(0, -pose.droop), Math.max(0, -pose.droop)))]
      : []),
    label(says, {
      value: Math.abs(Math.round(pose.droop)),
      unit: 'degrees',
    }),
  ]
}

/** How high the left shoulder stands over the right one. */
export function shoulderUpNote(pose: ShoulderPose, says: FigureWord): FigurePart[] {
  const { shoulder } = shoulderJoints(pose)
  const hangs = shoulder.y + pose.hunch - 26
  return [
    line('compare', [at(-190, hangs), at(250, hangs)]),
    ...(pose.hunch > 10 ? [arrow('mark', at(216, hangs), at(216, hangs - pose.hunch), 12)] : []),
    label(says),
  ]
}

/** The elbow against a line that falls from the instrument’s middle. */
export function elbowUnderNote(pose: ShoulderPose, says: FigureWord): FigurePart[] {
  const { elbow, button } = shoulderJoints(pose)
  return [line('compare', [at(button.x + 300, -60), at(button.x + 300, 360)]), spot(elbow, 34), label(says)]
}

/** The elbow’s own angle. */
export function armAngleNote(pose: ShoulderPose, says: FigureWord, instrument: number): FigurePart[] {
  const { shoulder, elbow, hand } = shoulderJoints(pose, instrument)
  const [from, to] = [heading(elbow, shoulder), heading(elbow, hand)]
  return [
    line('compare', [shoulder, elbow, hand]),
    // Above the arm, from the hand round to the shoulder.
    line('mark', arc(elbow, 70, to, from < to ? from + 360 : from)),
    label(says, { value: Math.round(angleAt(elbow, shoulder, hand)), unit: 'degrees' }),
  ]
}

/** A part of the player from the front: about a place, so wide. */
export function shoulderPart(
  pose: Partial<ShoulderPose>,
  place: Point,
  width: number,
  note: (pose: ShoulderPose) => FigurePart[],
  instrument = 1,
): Figure {
  const whole: ShoulderPose = { ...SHOULDER, ...pose }
  return closeUp(shoulderFigure(whole, instrument, note(whole)), place, width)
}

export function shoulderNote(place: Point, says: FigureWord, radius = 26): FigurePart[] {
  return [spot(place, radius), label(says)]
}

/** Seen from above: where the instrument points. Degrees from straight ahead to the player’s left. */
export function aboveFigure(angle: number, says: FigureWord, instrument = 1): Figure {
  const left = at(-92, 6)
  // Straight ahead is up; the player’s left is to the left.
  const direction = 90 + angle
  const along = (mm: number, across: number) =>
    away(away(left, direction, mm * instrument), direction + 90, across * instrument)
  const half = [
    [0, 20],
    [10, 68],
    [60, 84],
    [110, 70],
    [150, 54],
    [190, 52],
    [215, 66],
    [270, 84],
    [330, 70],
    [352, 22],
  ] as const
  const outline = smooth(
    [...half.map(([x, y]) => along(x, y)), ...half.toReversed().map(([x, y]) => along(x, -y))],
    true,
  )
  const nose = away(at(0, 0), 90 + angle * 0.8, 88)
  const shoulder = at(-185, 30)
  const hand = along(510, -22)
  const { joint: elbow } = twoBones(shoulder, hand, [BODY_MM.upperArm * 0.9, BODY_MM.forearm], 'left')
  const length = 640
  return {
    x: -640,
    y: -620,
    width: 920,
    height: 780,
    parts: [
      body('sleeve', [
        smooth(
          [
            at(-225, 26),
            at(-170, -34),
            at(0, -52),
            at(170, -34),
            at(225, 26),
            at(170, 96),
            at(0, 112),
            at(-170, 96),
          ],
          true,
        ),
        ...limb([shoulder, elbow, between(elbow, hand, 0.6)], [96, 76, 60]),
      ]),
      body('skin', [...limb([between(elbow, hand, 0.5), hand], [50, 44])]),
      body('wood', [outline]),
      body('rest', [
        smooth([along(6, 30), along(20, 62), along(62, 66), along(64, 34), along(30, 20)], true),
      ]),
      body('board', [polyline([along(240, -20), along(556, -13), along(556, 13), along(240, 20)], true)]),
      body('neck', [
        circle(along(582, 0), 18),
        polyline([along(556, -12), along(590, -9), along(590, 9), along(556, 12)], true),
      ]),
      body('skin', [
        smooth(
          [
            away(nose, 90 + angle * 0.8, 10),
            ...[50, 110, 180, 250, 310].map((turn) => away(at(0, 0), 90 + angle * 0.8 + turn, 88)),
          ],
          true,
        ),
      ]),
      line('compare', [at(left.x, left.y), at(left.x, left.y - length)]),
      line('compare', [at(left.x, left.y), at(left.x - 520, left.y)]),
      line('mark', arc(left, 420, Math.min(90, direction), Math.max(90, direction))),
      label(says, { value: Math.round(angle), unit: 'degrees' }),
    ],
  }
}
