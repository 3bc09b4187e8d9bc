import type { HoldId } from '../instrument'
import type { FigureWord } from './words'
import { arrow, body, closeUp, joint, label, line, patch, spot, type Figure, type FigurePart } from './figure'
import { tube } from './hand'
import {
  arc,
  at,
  away,
  between,
  capsule,
  chain,
  circle,
  distance,
  heading,
  polyline,
  smooth,
  type Point,
} from './geometry'

/** Between the knees or standing: the instrument upright beside the player. */
export type SeatedHold = Exclude<HoldId, 'shoulder'>

/**
 * A cellist or bassist with the instrument, from the side, facing left: the near arm is the left one, the neck is on the near side of
 * the head. Full size, mm and degrees.
 */
export interface PlayerPose {
  readonly hold: SeatedHold
  /** What shows of the endpin. */
  readonly endpinMm: number
  /** Of the instrument from upright, towards the player. */
  readonly lean: number
  /** The back bent forwards. */
  readonly slump: number
  /** The left shoulder pushed up, mm. */
  readonly hunch: number
  /** How far the left elbow has dropped from where it carries to the ribs: 0 to 1. */
  readonly drop: number
  /** Height of the seat; null stands. */
  readonly seatMm: number | null
  /** The left hand is away: nothing but the body holds the instrument. */
  readonly handAway: boolean
}

export const CELLIST: PlayerPose = {
  hold: 'knees',
  endpinMm: 330,
  lean: 28,
  slump: 0,
  hunch: 0,
  drop: 0,
  seatMm: 450,
  handAway: false,
}
export const BASSIST: PlayerPose = {
  hold: 'standing',
  endpinMm: 190,
  lean: 12,
  slump: 0,
  hunch: 0,
  drop: 0,
  seatMm: null,
  handAway: false,
}

/** Lengths from the endpin’s socket, the greatest depth, where the endpin stands in front, where the left hand does. From memory, mm. */
const INSTRUMENTS = {
  knees: { body: 755, bridge: 330, peg: 1120, scroll: 1215, depth: 118, x: -640, hand: 950 },
  standing: { body: 1040, bridge: 430, peg: 1410, scroll: 1535, depth: 205, x: -395, hand: 1270 },
} as const
/** Where an elbow is that carries, and one that has dropped to the ribs: from the shoulder, and from the hip. */
const ELBOWS = {
  knees: { carries: at(-196, 92), dropped: at(-20, 262) },
  standing: { carries: at(-150, 96), dropped: at(6, 276) },
} as const

const VIEWS = {
  knees: { x: -1160, y: -1450, width: 1900, height: 1490 },
  standing: { x: -1320, y: -1800, width: 2400, height: 1850 },
} as const

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
  /** Of the far arm, with the bow. */
  readonly bowHand: Point
  readonly scroll: Point
}

const TORSO = 520
const NECK_TO_EAR = 165
const THIGH = 430
const SHIN = 450

type Along = (mm: number, front?: number) => Point

/** A place on the instrument: so far from the endpin’s socket, and so far in front of its middle. */
function alongOf(pose: PlayerPose, player: number, instrument: number): Along {
  const floorPin = at(INSTRUMENTS[pose.hold].x * player, 0)
  const up = 90 - pose.lean
  return (mm, front = 0) =>
    away(away(floorPin, up, pose.endpinMm + mm * instrument), up + 90, front * instrument)
}

export function playerJoints(pose: PlayerPose, player = 1, instrument = 1): PlayerJoints {
  const made = INSTRUMENTS[pose.hold]
  const isSeated = pose.seatMm !== null
  const along = alongOf(pose, player, instrument)
  const hip = at(0, -(isSeated ? pose.seatMm + 70 : (THIGH + SHIN) * player))
  const [, neck, ear] = chain(hip, 90 + pose.slump, [
    { length: TORSO * player, bend: 0 },
    { length: NECK_TO_EAR * player, bend: pose.slump * 0.6 },
  ]) as [Point, Point, Point]
  const shoulder = at(neck.x + 6, neck.y + 22 - pose.hunch)
  const { carries, dropped } = ELBOWS[pose.hold]
  const bent = between(carries, dropped, pose.drop)
  const elbow = pose.handAway
    ? at(shoulder.x - 10, shoulder.y + 270 * player)
    : at(shoulder.x + bent.x * player, shoulder.y + bent.y * player + pose.hunch * 0.4)
  const hand = pose.handAway ? at(elbow.x - 120, elbow.y + 190 * player) : along(made.hand, made.depth * 0.3)
  const knee = isSeated ? at(hip.x - THIGH * player, hip.y + 16) : at(hip.x - 34, hip.y + THIGH * player)
  return {
    hip,
    shoulder,
    ear,
    peg: along(made.peg),
    floorPin: at(made.x * player, 0),
    elbow,
    hand,
    knee,
    bowHand: along(made.body * 0.58, made.depth * 1.35),
    scroll: along(made.scroll),
  }
}

export function playerFigure(
  pose: PlayerPose,
  player = 1,
  instrument = 1,
  notes: readonly FigurePart[] = [],
): Figure {
  const joints = playerJoints(pose, player, instrument)
  const along = alongOf(pose, player, instrument)
  const isBass = pose.hold === 'standing'
  const floor = VIEWS[pose.hold]
  return {
    ...floor,
    parts: [
      line('compare', [at(floor.x + 60, 0), at(floor.x + floor.width - 60, 0)]),
      ...(pose.seatMm === null ? [] : chair(pose.seatMm)),
      ...leg(joints, pose, player, 'far_skin'),
      ...trunk(joints, pose, player),
      ...farArm(joints, player),
      ...instrumentOf(pose, along, joints.floorPin, instrument),
      ...bow(joints, along, INSTRUMENTS[pose.hold]),
      // A cello stands between the knees; a bass beside its player’s legs.
      ...(isBass ? [] : leg(joints, pose, player, 'skin')),
      ...nearArm(joints, pose, player),
      joint(joints.elbow),
      joint(joints.shoulder),
      ...notes,
    ],
  }
}

function chair(seatMm: number): FigurePart[] {
  return [
    body('ground', [
      polyline([at(-190, -seatMm), at(160, -seatMm), at(160, -seatMm + 34), at(-190, -seatMm + 34)], true),
      capsule(at(-160, -seatMm + 30), 26, at(-172, -12), 22),
      capsule(at(134, -seatMm + 30), 26, at(148, -12), 22),
    ]),
  ]
}

function leg(
  { hip, knee }: PlayerJoints,
  { seatMm }: PlayerPose,
  player: number,
  side: 'skin' | 'far_skin',
): FigurePart[] {
  const back = side === 'skin' ? 0 : seatMm === null ? 70 : 24
  const ankle = at(knee.x + (seatMm === null ? 26 : 34) + back, -54)
  const shoe = smooth(
    [
      at(ankle.x + 46, -50),
      at(ankle.x + 42, -4),
      at(ankle.x - 150, -4),
      at(ankle.x - 156, -26),
      at(ankle.x - 60, -66),
    ],
    true,
  )
  return [
    body('rest', [shoe]),
    body('sleeve', [
      tube(
        [at(hip.x + back, hip.y), at(knee.x + back, knee.y), ankle],
        [200 * player, 148 * player, 92 * player],
      ),
    ]),
  ]
}

/** Back, chest, neck and head; the head looks ahead. */
function trunk(
  { hip, shoulder, ear }: PlayerJoints,
  { slump, hunch }: PlayerPose,
  player: number,
): FigurePart[] {
  const neck = at(shoulder.x - 6, shoulder.y - 22 + hunch)
  const head = away(ear, 118 + slump, 26)
  const on = (turn: number, mm: number) => away(head, turn + slump * 1.3, mm * player)
  return [
    body('skin', [capsule(at(neck.x, neck.y + 24), 104 * player, ear, 92 * player)]),
    body('sleeve', [
      tube(
        [
          at(hip.x, hip.y + 20),
          between(hip, neck, 0.34),
          between(hip, neck, 0.72),
          at(neck.x + 2, neck.y + 34),
        ],
        [226, 214, 236, 150].map((mm) => mm * player),
      ),
    ]),
    // The collar.
    line('detail', arc(at(neck.x, neck.y - 6), 58 * player, 200, 340)),
    body('skin', [
      smooth(
        [
          on(90, 128),
          on(30, 112),
          on(-25, 100),
          on(-78, 112),
          on(-118, 132),
          on(-138, 126),
          on(-160, 100),
          on(-178, 124),
          on(164, 100),
          on(132, 112),
        ],
        true,
      ),
    ]),
    line('detail', arc(ear, 24 * player, -120, 120)),
    line('detail', smooth([on(172, 86), on(168, 72), on(160, 62)])),
    line('detail', smooth([on(-146, 112), on(-140, 92)])),
  ]
}

function instrumentOf(pose: PlayerPose, along: Along, floorPin: Point, instrument: number): FigurePart[] {
  const { body: length, bridge, peg, scroll, depth: d } = INSTRUMENTS[pose.hold]
  const top = d * 0.5
  return [
    line('mark', [floorPin, along(0)]),
    body('neck', [
      polyline(
        [
          along(length - 30, top - 8),
          along(length - 8, -d * 0.2),
          along(length + 40, top * 0.45),
          along(peg - 60, top * 0.5),
          along(peg - 10, top * 0.2),
          along(scroll - 20, -top * 0.3),
          along(scroll - 10, top * 0.5),
          along(peg - 30, top + 10),
        ],
        true,
      ),
      circle(along(scroll, 0), 34 * instrument),
    ]),
    line('detail', arc(along(scroll, 0), 16 * instrument, 0, 300)),
    body('wood', [
      smooth(
        [
          along(0, 0),
          along(24, -d * 0.42),
          along(length * 0.25, -d * 0.52),
          along(length * 0.52, -d * 0.46),
          along(length * 0.8, -d * 0.46),
          along(length - 10, -d * 0.3),
          along(length, 0),
          along(length - 8, top * 0.84),
          along(length * 0.72, top * 1.12),
          along(length * 0.3, top * 1.16),
          along(20, top * 0.8),
        ],
        true,
      ),
    ]),
    // Where the ribs meet top and back.
    line(
      'detail',
      smooth([along(24, top * 0.5), along(length * 0.4, top * 0.72), along(length - 16, top * 0.5)]),
    ),
    line(
      'detail',
      smooth([along(28, -d * 0.26), along(length * 0.4, -d * 0.34), along(length - 16, -d * 0.2)]),
    ),
    body('neck', [
      polyline(
        [
          along(bridge - 12, top),
          along(bridge - 4, d * 1.22),
          along(bridge + 6, d * 1.22),
          along(bridge + 14, top),
        ],
        true,
      ),
    ]),
    body('board', [
      polyline(
        [
          along(length * 0.62, d * 0.86),
          along(length, top + 4),
          along(peg - 34, top + 8),
          along(peg - 34, top + 20),
          along(length * 0.62, d),
        ],
        true,
      ),
    ]),
    line('string', [along(46, top + 6), along(bridge, d * 1.25), along(peg - 32, top + 24)]),
    body(
      'metal',
      [0, 52].map((mm) =>
        capsule(along(peg + mm, -22), 14 * instrument, along(peg + mm, 34), 14 * instrument),
      ),
    ),
  ]
}

/** The far arm goes behind the instrument to the strings, between the board’s end and the bridge. */
function farArm({ shoulder, bowHand }: PlayerJoints, player: number): FigurePart[] {
  const start = at(shoulder.x - 40, shoulder.y + 30)
  const elbow = at((start.x + bowHand.x) / 2 - 10, Math.max(start.y, bowHand.y) + 20)
  return [
    body('far_sleeve', [
      tube([start, elbow, between(elbow, bowHand, 0.7)], [100 * player, 84 * player, 62 * player]),
    ]),
    body('far_skin', [
      tube([between(elbow, bowHand, 0.6), bowHand], [52 * player, 40 * player]),
      capsule(bowHand, 56 * player, away(bowHand, -120, 34), 40 * player),
    ]),
  ]
}

/** Seen nearly from its end: the stick comes towards the eye across the strings. */
function bow({ bowHand }: PlayerJoints, along: Along, made: (typeof INSTRUMENTS)[SeatedHold]): FigurePart[] {
  const at0 = along(made.bridge + 90, made.depth * 1.24)
  const end = at(at0.x + (at0.x - bowHand.x) * 0.5 - 30, at0.y + 70)
  return [line('string', [bowHand, end]), line('detail', [away(bowHand, 90, 12), away(end, 90, 12)])]
}

function nearArm(
  { shoulder, elbow, hand, scroll, floorPin }: PlayerJoints,
  pose: PlayerPose,
  player: number,
): FigurePart[] {
  const up = heading(floorPin, scroll)
  const wrist = pose.handAway ? hand : between(elbow, hand, 0.8)
  const tips = pose.handAway ? away(hand, -100, 60) : away(hand, up + 62, 40 * player)
  const cuff = between(elbow, wrist, 0.62)
  return [
    body('sleeve', [tube([shoulder, elbow], [132 * player, 90 * player])]),
    body('skin', [
      tube([between(elbow, wrist, 0.4), wrist, hand], [62 * player, 46 * player, 54 * player]),
      ...(pose.handAway
        ? [capsule(hand, 52 * player, tips, 34 * player)]
        : [-26, -8, 10, 28].map((mm) => {
            const root = away(hand, up, mm * player)
            const end = away(away(hand, up, mm * 1.7 * player), up + 80, 42 * player)
            return capsule(root, 21 * player, end, 16 * player)
          })),
    ]),
    // The forearm lies over the upper arm where the elbow hangs.
    body('sleeve', [tube([elbow, cuff], [90 * player, 66 * player])]),
    patch(
      'sleeve',
      [
        circle(elbow, 43 * player),
        tube([between(shoulder, elbow, 0.55), elbow], [98 * player, 82 * player]),
      ].slice(0, pose.drop > 0.5 ? 1 : 2),
    ),
  ]
}

/** Head, shoulders, the left arm and the pegs. */
export function upperBody(figure: Figure, pose: PlayerPose, player = 1): Figure {
  const { shoulder, elbow } = playerJoints(pose, player)
  return closeUp(figure, at((shoulder.x + elbow.x) / 2 - 40, shoulder.y - 20), 980 * player)
}

/** The head and what stands beside it. */
export function besideHead(figure: Figure, pose: PlayerPose): Figure {
  const { ear } = playerJoints(pose)
  return closeUp(figure, at(ear.x - 20, ear.y + 60), 820)
}

/** The height that the lowest peg is held against, and how far it is off. */
export function pegNote(pose: PlayerPose, says: FigureWord, player = 1, instrument = 1): FigurePart[] {
  const { ear, peg } = playerJoints(pose, player, instrument)
  return [
    line('compare', [at(ear.x - 330, ear.y), at(ear.x + 300, ear.y)]),
    spot(peg, 44),
    label(says, {
      value: Math.round(ear.y - peg.y),
      unit: 'mm',
    }),
  ]
}

export function endpinNote(pose: PlayerPose, says: FigureWord): FigurePart[] {
  const { floorPin } = playerJoints(pose)
  const top = away(floorPin, 90 - pose.lean, pose.endpinMm)
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
  return [spot(elbow, 62), label(says)]
}

/** How high the left shoulder stands over where it hangs. */
export function hunchNote(pose: PlayerPose, says: FigureWord): FigurePart[] {
  const { shoulder } = playerJoints(pose)
  const hangs = shoulder.y + pose.hunch
  const x = shoulder.x + 150
  return [
    line('compare', [at(x - 110, hangs - 62), at(x + 120, hangs - 62)]),
    ...(pose.hunch > 10 ? [arrow('mark', at(x, hangs - 62), at(x, shoulder.y - 62), 16)] : []),
    label(says),
  ]
}
