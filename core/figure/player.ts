import type { FigureWord } from './words'
import { BODY_MM, body, label, limb, line, spot, type Figure, type FigurePart } from './figure'
import {
  arc,
  at,
  away,
  between,
  chain,
  capsule,
  circle,
  distance,
  heading,
  polyline,
  smooth,
  twoBones,
  type Point,
} from './geometry'

/** A cellist or bassist with the instrument, from the side. Full size, mm and degrees. */
export interface PlayerPose {
  readonly plays: 'cello' | 'bass'
  /** What shows of the endpin. */
  readonly endpinMm: number
  /** Of the instrument from upright, towards the player. */
  readonly lean: number
  /** The back bent forwards. */
  readonly slump: number
  /** The left elbow below where it carries. */
  readonly drop: number
  /** Height of the seat; null stands. */
  readonly seatMm: number | null
  /** The left hand is away: nothing but the body holds the instrument. */
  readonly handAway: boolean
}

export const CELLIST: PlayerPose = {
  plays: 'cello',
  endpinMm: 330,
  lean: 28,
  slump: 0,
  drop: 0,
  seatMm: 450,
  handAway: false,
}
export const BASSIST: PlayerPose = {
  plays: 'bass',
  endpinMm: 190,
  lean: 12,
  slump: 0,
  drop: 0,
  seatMm: null,
  handAway: false,
}

/** Length from the endpin’s socket to the lowest peg or machine, and to the scroll’s end, with the greatest depth. From memory. */
const INSTRUMENTS = {
  cello: { body: 755, peg: 1120, scroll: 1215, depth: 118, x: 520 },
  bass: { body: 1040, peg: 1410, scroll: 1535, depth: 205, x: 430 },
} as const

const VIEW_OF_CELLO = { x: -360, y: -1470, width: 1180, height: 1520 }
const VIEW_OF_BASS = { x: -420, y: -1800, width: 1300, height: 1850 }

export interface PlayerJoints {
  readonly hip: Point
  readonly shoulder: Point
  readonly ear: Point
  /** The lowest peg of the cello, the lowest machine of the bass. */
  readonly peg: Point
  readonly floorPin: Point
  readonly elbow: Point
  readonly hand: Point
  readonly knee: Point
}

const TORSO = 520
const NECK_TO_EAR = 165
const THIGH = 430
const SHIN = 450

export function playerJoints(pose: PlayerPose, player = 1, instrument = 1): PlayerJoints {
  const made = INSTRUMENTS[pose.plays]
  const hipHeight = pose.seatMm === null ? (THIGH + SHIN) * player : pose.seatMm + 70
  const hip = at(0, -hipHeight)
  const [, shoulder, ear] = chain(hip, 90 - pose.slump, [
    { length: TORSO * player, bend: 0 },
    { length: NECK_TO_EAR * player, bend: -2 - pose.slump * 0.5 },
  ]) as [Point, Point, Point]
  const floorPin = at(made.x * player, 0)
  const up = 90 + pose.lean
  const peg = away(floorPin, up, pose.endpinMm + made.peg * instrument)
  const neck = away(
    floorPin,
    up,
    pose.endpinMm + (made.peg - (pose.plays === 'cello' ? 190 : 150)) * instrument,
  )
  const hand = pose.handAway ? at(shoulder.x + 150, shoulder.y + 420) : away(neck, up - 90, 22)
  const arms: readonly [number, number] = [BODY_MM.upperArm * player, (BODY_MM.forearm + 70) * player]
  const { joint } = twoBones(shoulder, hand, arms, pose.plays === 'cello' ? 'left' : 'right')
  const elbow = at(joint.x - pose.drop * 0.5, joint.y + pose.drop * 2.2)
  const foot = at(hip.x + THIGH * player + (pose.seatMm === null ? -THIGH * player + 60 : 40), -36)
  const { joint: knee } = twoBones(
    hip,
    foot,
    [THIGH * player, SHIN * player],
    pose.seatMm === null ? 'left' : 'left',
  )
  return { hip, shoulder, ear, peg, floorPin, elbow, hand, knee }
}

export function playerFigure(
  pose: PlayerPose,
  player = 1,
  instrument = 1,
  notes: readonly FigurePart[] = [],
): Figure {
  const joints = playerJoints(pose, player, instrument)
  const { hip, shoulder, ear, floorPin, elbow, hand, knee } = joints
  const made = INSTRUMENTS[pose.plays]
  const up = 90 + pose.lean
  const isSeated = pose.seatMm !== null
  const along = (mm: number, front = 0) =>
    away(away(floorPin, up, pose.endpinMm + mm * instrument), up - 90, front * instrument)
  const foot = at(isSeated ? hip.x + THIGH * player + 40 : 60, -36)
  const head = away(ear, 60 - pose.slump, 24)
  const neckBase = away(shoulder, 84 - pose.slump, 40)
  const d = made.depth
  const legs = body('sleeve', [
    ...limb([hip, knee, foot], [190 * player, 150 * player, 96 * player]),
    capsule(at(foot.x - 10, foot.y + 6), 60, at(foot.x + 120, foot.y + 12), 44),
  ])
  const cello: FigurePart[] = [
    line('mark', [floorPin, along(0)]),
    body('wood', [
      smooth(
        [
          along(0, 6),
          along(30, -d * 0.35),
          along(made.body * 0.3, -d * 0.5),
          along(made.body * 0.55, -d * 0.42),
          along(made.body, -d * 0.3),
          along(made.body + 6, d * 0.24),
          along(made.body * 0.6, d * 0.62),
          along(made.body * 0.28, d * 0.66),
          along(40, d * 0.4),
        ],
        true,
      ),
    ]),
    body('neck', [
      polyline(
        [
          along(made.body - 20, -26),
          along(made.peg - 40, -8),
          along(made.peg + 20, -20),
          along(made.scroll - 30, -16),
          along(made.scroll - 30, 26),
          along(made.peg - 30, 22),
          along(made.body, 40),
        ],
        true,
      ),
      circle(along(made.scroll, 4), 38 * instrument),
    ]),
    body('board', [
      polyline(
        [
          along(made.body * 0.7, d * 0.86),
          along(made.peg - 34, 26),
          along(made.peg - 34, 40),
          along(made.body * 0.7, d),
        ],
        true,
      ),
    ]),
    line('string', [along(made.body * 0.42, d * 1.02), along(made.peg - 30, 42)]),
    body('metal', [
      capsule(along(made.peg, -30), 13, along(made.peg, 34), 13),
      capsule(along(made.peg + 55, -26), 13, along(made.peg + 55, 34), 13),
    ]),
  ]
  const arm = [
    body(
      'sleeve',
      limb([shoulder, elbow, between(elbow, hand, 0.55)], [104 * player, 84 * player, 66 * player]),
    ),
    body('skin', [
      ...limb([between(elbow, hand, 0.5), hand], [56 * player, 44 * player]),
      capsule(hand, 46 * player, away(hand, up + 20, 44), 30 * player),
    ]),
  ]
  return {
    ...(pose.plays === 'cello' ? VIEW_OF_CELLO : VIEW_OF_BASS),
    parts: [
      line('compare', [at(-400, 0), at(pose.plays === 'cello' ? 800 : 860, 0)]),
      ...(isSeated
        ? [
            body('ground', [
              polyline(
                [
                  at(-150, -pose.seatMm),
                  at(150, -pose.seatMm),
                  at(150, -pose.seatMm + 34),
                  at(-150, -pose.seatMm + 34),
                ],
                true,
              ),
              capsule(at(-120, -pose.seatMm + 34), 26, at(-140, -14), 26),
              capsule(at(120, -pose.seatMm + 34), 26, at(134, -14), 26),
            ]),
          ]
        : []),
      legs,
      ...(pose.plays === 'bass' ? [] : cello),
      body('skin', [capsule(neckBase, 96 * player, ear, 90 * player)]),
      body('sleeve', [
        ...limb(
          [hip, between(hip, shoulder, 0.55), away(shoulder, -90, 20)],
          [220 * player, 230 * player, 190 * player],
        ),
      ]),
      body('skin', [
        smooth(
          [
            away(head, 90, 128 * player),
            away(head, 150, 108 * player),
            away(head, 205, 100 * player),
            away(head, 258, 118 * player),
            away(head, 300, 124 * player),
            away(head, 340, 100 * player),
            away(head, 358, 122 * player),
            away(head, 15, 100 * player),
            away(head, 48, 112 * player),
          ],
          true,
        ),
      ]),
      ...(pose.plays === 'bass' ? cello : []),
      circleOfEar(ear),
      ...arm,
      { kind: 'joint', at: elbow },
      { kind: 'joint', at: shoulder },
      ...notes,
    ],
  }
}

function circleOfEar(ear: Point): FigurePart {
  return line('detail', arc(ear, 24, 60, 300))
}

/** The height that the lowest peg is held against, and how far it is off. */
export function pegNote(pose: PlayerPose, says: FigureWord, player = 1, instrument = 1): FigurePart[] {
  const { ear, peg } = playerJoints(pose, player, instrument)
  const isBass = pose.plays === 'bass'
  return [
    line('compare', [at(ear.x - 240, ear.y), at(ear.x + (isBass ? 700 : 460), ear.y)]),
    spot(peg, isBass ? 60 : 44),
    label(says, {
      value: Math.round(ear.y - peg.y),
      unit: 'mm',
    }),
  ]
}

export function endpinNote(pose: PlayerPose, says: FigureWord): FigurePart[] {
  const { floorPin } = playerJoints(pose)
  const top = away(floorPin, 90 + pose.lean, pose.endpinMm)
  return [
    label(says, {
      value: Math.round(distance(floorPin, top)),
      unit: 'mm',
    }),
  ]
}

export function leanNote(pose: PlayerPose, says: FigureWord): FigurePart[] {
  const { floorPin, peg } = playerJoints(pose)
  const angle = heading(floorPin, peg)
  return [
    line('compare', [floorPin, at(floorPin.x, floorPin.y - 900)]),
    line('mark', arc(floorPin, 620, Math.min(90, angle), Math.max(90, angle))),
    label(says, { value: Math.round(pose.lean), unit: 'degrees' }),
  ]
}

export function elbowNote(pose: PlayerPose, says: FigureWord): FigurePart[] {
  const { elbow } = playerJoints(pose)
  return [spot(elbow, 80), label(says)]
}
