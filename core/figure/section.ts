import type { HoldId } from '../instrument'
import type { FigureWord } from './words'
import {
  arrow,
  BODY_MM,
  body,
  joint,
  label,
  limb,
  line,
  patch,
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
  circle,
  heading,
  polyline,
  smooth,
  twoBones,
  type Point,
} from './geometry'

/** The neck cut across under the first finger, looking along the strings, with thumb and one finger. Full size, mm. */
export interface SectionPose {
  /** Base knuckle above the board’s surface. */
  readonly knuckleMm: number
  /** Between the neck’s underside and the web of thumb and first finger. */
  readonly gapMm: number
  /** Last joint of the finger to the board, degrees: 90 is upright. */
  readonly fingerAngle: number
  /** Thumb’s tip above the board’s edge; below it where negative. */
  readonly thumbTipMm: number
  /** The thumb’s last joint, degrees: soft where it is a little bent outwards; locked where it is straight or, negative, bent back. */
  readonly thumbBend: number
  /** String that is stopped, from the player’s thumb side: 0 is nearest to the thumb. */
  readonly string: number
  /** Of the forearm from upright: positive where the elbow has come under, towards the thumb’s side. */
  readonly elbow: number
  /** How far the last joint has given way, degrees; 0 is rounded. */
  readonly collapse: number
  /** One finger; two, apart at their roots or squashed; the last with the third beside it, or with the third left in the air. */
  readonly fingers: 'one' | 'two_apart' | 'two_stuck' | 'third_beside' | 'third_in_air'
  /** The finger’s tip above its string. */
  readonly liftMm: number
  /** Base knuckle from the board’s edge. */
  readonly reachMm: number
}

export const SECTION: SectionPose = {
  knuckleMm: 13,
  gapMm: 13,
  fingerAngle: 62,
  thumbTipMm: -2,
  thumbBend: 20,
  string: 1,
  elbow: 8,
  collapse: 0,
  fingers: 'one',
  liftMm: 0,
  reachMm: 19,
}

/** The neck in first position: width of the board and depth of board and neck, mm. From memory. */
interface NeckMeasures {
  readonly width: number
  readonly board: number
  readonly depth: number
  readonly strings: number
}
export const NECKS: Readonly<Record<HoldId, NeckMeasures>> = {
  shoulder: { width: 27, board: 6, depth: 22, strings: 4 },
  knees: { width: 36, board: 9, depth: 31, strings: 4 },
  standing: { width: 50, board: 12, depth: 44, strings: 4 },
}

const VIEWS = {
  shoulder: { x: -72, y: -68, width: 168, height: 126 },
  knees: { x: -76, y: -70, width: 196, height: 146 },
  standing: { x: -80, y: -72, width: 216, height: 160 },
} as const

/** What a section shows, by its joints: for drawing, and to be measured again. */
export interface SectionJoints {
  readonly knuckle: Point
  readonly middle: Point
  readonly last: Point
  readonly tip: Point
  readonly thumb: readonly [base: Point, knuckle: Point, joint: Point, tip: Point]
  readonly wrist: Point
  readonly elbow: Point
  /** Lowest point of the neck’s wood. */
  readonly underside: Point
}

export function sectionJoints(pose: SectionPose, hold: HoldId = 'shoulder', hand = 1): SectionJoints {
  const neck = NECKS[hold]
  const half = neck.width / 2
  const stringX = -half + (neck.width * (pose.string + 0.7)) / (neck.strings + 0.4)
  const tip = at(stringX + pose.liftMm * 0.3, -2 - pose.liftMm)
  const knuckle = at(half + pose.reachMm * hand, -pose.knuckleMm)
  const [proximal, middleBone, end] = BODY_MM.finger.map((mm) => mm * hand) as [number, number, number]
  // The last bone stands on the string at its angle, its joint on the side of the hand.
  const last = away(tip, pose.fingerAngle - pose.collapse, end)
  const { joint: middle } = twoBones(knuckle, last, [proximal, middleBone], 'right')
  const isHeld = hold === 'shoulder'
  const down = (isHeld ? -90 : -58) + pose.elbow * 0.5
  const wrist = away(knuckle, down, BODY_MM.palm * hand)
  const elbow = away(wrist, (isHeld ? -90 : -50) - pose.elbow, 120)
  const inner = heading(knuckle, wrist) - 90
  const base = away(between(wrist, knuckle, 0.02), inner, (isHeld ? 11 : 18) * hand)
  // Along the thumb to its tip: up beside a violin’s neck, across behind that of a cello or a bass; its pad is on the right of that.
  const main = isHeld ? 90 : 180
  const lean = pose.thumbBend * (pose.thumbBend < 0 ? 0.8 : 0.5)
  const bone = BODY_MM.thumb[2] * hand
  // Bent back, its joint lies on the neck and the tip stands off.
  const off = 6.5 + Math.max(0, -Math.sin((lean * Math.PI) / 180)) * bone
  const thumbTip = isHeld
    ? at(-half - off, -pose.thumbTipMm + neck.board * 0.4)
    : at(-half * 0.25, neck.depth + off - pose.thumbTipMm)
  const joint = away(thumbTip, main - lean + 180, bone)
  const thumbKnuckle = away(joint, main - lean + pose.thumbBend + 180, BODY_MM.thumb[1] * hand)
  return {
    knuckle,
    middle,
    last,
    tip,
    thumb: [base, thumbKnuckle, joint, thumbTip],
    wrist,
    elbow,
    underside: at(0, neck.depth),
  }
}

/** Angle of the finger’s last bone to the board, degrees, as drawn. */
export function fingertipAngle({ tip, last }: SectionJoints): number {
  return heading(tip, last)
}

export function sectionFigure(
  pose: SectionPose,
  hold: HoldId = 'shoulder',
  hand = 1,
  notes: readonly FigurePart[] = [],
): Figure {
  const neck = NECKS[hold]
  const { knuckle, middle, last, tip, thumb, wrist, elbow } = sectionJoints(pose, hold, hand)
  const widths = BODY_MM.fingerWidths.map((mm) => mm * hand)
  const thumbKnuckle = thumb[1]
  const web = at(2, neck.depth + pose.gapMm)
  const webShape = `${smooth([
    away(between(thumbKnuckle, thumb[2], 0.25), heading(thumbKnuckle, thumb[2]) - 90, 7 * hand),
    at(web.x - 7 * hand, web.y - 1),
    at(web.x + 5 * hand, web.y),
    at(knuckle.x - 11 * hand, knuckle.y + 22 * hand),
  ])}L${polyline([knuckle, wrist, thumb[0], thumbKnuckle], true).slice(1)}`
  const wide = widths[0]!
  return {
    ...VIEWS[hold],
    parts: [
      ...secondFinger(pose, knuckle, tip, hand),
      body(
        'skin',
        [
          tube([knuckle, between(knuckle, middle, 0.5), middle], [wide + 2, wide, widths[1]!]),
          ...limb([knuckle, wrist], [24 * hand, BODY_MM.wrist * 0.9 * hand]),
          ...limb([wrist, elbow], [BODY_MM.wrist * 0.9 * hand, 58 * hand]),
          // The thumb’s ball, and the thumb.
          tube(
            [
              away(thumb[0], heading(thumb[0], wrist), 8 * hand),
              between(thumb[0], thumbKnuckle, 0.45),
              thumbKnuckle,
            ],
            [34 * hand, 33 * hand, 21 * hand],
          ),
          tube(
            thumb.slice(1),
            [21.5, 19, 13].map((mm) => mm * hand),
          ),
          webShape,
        ],
        [thumbKnuckle, thumb[2]],
      ),
      ...thumbNail(thumb[2], thumb[3], hand),
      body('neck', [neckOutline(neck)]),
      body('board', [boardOutline(neck)]),
      ...stringDots(neck),
      body('skin', [tube([middle, last, tip], widths.slice(1))]),
      // The finger grows out of the hand: no line between them.
      patch('skin', limb([knuckle, middle], [widths[0]! - 1.4, widths[1]! - 1.6])),
      joint(knuckle),
      joint(middle),
      joint(last),
      nail(last, tip, hand),
      ...notes,
    ],
  }
}

/** On the back of the thumb’s last bone, which is turned away from the neck. */
function thumbNail(last: Point, tip: Point, hand: number): FigurePart[] {
  const along = heading(last, tip)
  const start = away(between(last, tip, 0.45), along + 90, 6.6 * hand)
  const end = away(tip, along + 90, 5.6 * hand)
  return [
    line('detail', smooth([start, away(between(start, end), along + 90, 0.8), away(end, along, 2 * hand)])),
  ]
}

/** A second finger behind the one that is cut: squashed against it or free; or the bass’s third, by its fourth or in the air. */
function secondFinger(pose: SectionPose, knuckle: Point, tipOfFirst: Point, hand: number): FigurePart[] {
  if (pose.fingers === 'one') return []
  const isThird = pose.fingers === 'third_beside' || pose.fingers === 'third_in_air'
  const apart = pose.fingers === 'two_apart' ? 13 : isThird ? 6 : 2
  const base = at(knuckle.x + 5, knuckle.y - apart * hand)
  const isInAir = pose.fingers === 'third_in_air'
  const tip = isInAir
    ? at(tipOfFirst.x - 2, tipOfFirst.y - 44)
    : at(tipOfFirst.x + (isThird ? -4 : 4), tipOfFirst.y)
  const last = isInAir ? away(tip, -6, 18 * hand) : away(tip, pose.fingerAngle + 4, 18 * hand)
  const { joint } = twoBones(base, last, [42 * hand, 26 * hand], 'right')
  return [
    body(
      'far_skin',
      [
        tube(
          [base, joint, last, tip],
          BODY_MM.fingerWidths.map((mm) => mm * hand),
        ),
      ],
      [base],
    ),
    ...(isInAir ? [spot(tip, 9)] : []),
  ]
}

function neckOutline({ width, board, depth }: NeckMeasures): string {
  const half = width / 2
  return smooth(
    [
      at(-half, board * 0.4),
      at(-half * 0.98, depth * 0.5),
      at(-half * 0.72, depth * 0.85),
      at(0, depth),
      at(half * 0.72, depth * 0.85),
      at(half * 0.98, depth * 0.5),
      at(half, board * 0.4),
    ],
    true,
  )
}

function boardOutline({ width, board }: NeckMeasures): string {
  const half = width / 2
  const top = [-1, -0.5, 0, 0.5, 1].map((share) => at(share * half, share ** 2 * 2.6))
  return polyline([...top, at(half, board), at(-half, board)], true)
}

function stringDots(neck: NeckMeasures): FigurePart[] {
  const half = neck.width / 2
  const dots = Array.from({ length: neck.strings }, (_, i) => {
    const x = -half + (neck.width * (i + 0.7)) / (neck.strings + 0.4)
    return circle(at(x, -1.6 + (x / half) ** 2 * 2.4), 1.35 - i * 0.16)
  })
  return [body('metal', dots)]
}

/** The nail lies on the back of the last bone. */
export function nail(last: Point, tip: Point, hand = 1): FigurePart {
  const along = heading(last, tip)
  const back = along - 90
  const start = away(between(last, tip, 0.5), back, 6.2 * hand)
  const end = away(tip, back, 5.4 * hand)
  return line('detail', smooth([start, away(between(start, end), back, 0.9), away(end, along, 1.6 * hand)]))
}

/** The board’s surface carried on to the knuckle, and how high that stands. */
export function knuckleNote(pose: SectionPose, says: FigureWord, hold: HoldId = 'shoulder'): FigurePart[] {
  const { x, width } = VIEWS[hold]
  return [
    line('compare', [at(x + 6, 0), at(x + width - 6, 0)]),
    label(says, { value: pose.knuckleMm, unit: 'mm' }),
  ]
}

/** A pencil goes through the gap; where there is none, the web lies at the wood. */
export function gapNote(pose: SectionPose, says: FigureWord, hold: HoldId = 'shoulder'): FigurePart[] {
  const { depth } = NECKS[hold]
  const radius = Math.min(4.2, pose.gapMm / 2 - 0.4)
  const middle = at(-3, depth + pose.gapMm / 2)
  return [
    ...(radius >= 2
      ? [body('wood', [circle(middle, radius)]), body('board', [circle(middle, radius * 0.36)])]
      : [spot(at(-1, depth + 2), 8)]),
    label(says, { value: pose.gapMm, unit: 'mm' }),
  ]
}

/** Thumb and first finger press towards each other, or there is air between. */
export function pressNote(pose: SectionPose, presses: boolean, says: FigureWord): FigurePart[] {
  const { thumb } = sectionJoints(pose)
  const half = NECKS.shoulder.width / 2
  if (!presses) return [spot(at(half + 5, 8), 6), label(says)]
  const left = at(thumb[2].x - 12, 4)
  const right = at(half + 30, 8)
  return [
    arrow('mark', at(left.x - 18, left.y), left, 6),
    arrow('mark', at(right.x + 18, right.y), right, 6),
    label(says),
  ]
}

/** The thumb pushes up into the neck, or rests. */
export function pushNote(pose: SectionPose, pushes: boolean, says: FigureWord, hand = 1): FigurePart[] {
  const [, , , tip] = sectionJoints(pose, 'knees', hand).thumb
  const start = at(tip.x, tip.y + 34)
  return [pushes ? arrow('mark', start, at(tip.x, tip.y + 12), 6) : spot(tip, 5), label(says)]
}

/** How high the finger waits over its string. */
export function liftNote(pose: SectionPose, says: FigureWord, hold: HoldId): FigurePart[] {
  const { tip } = sectionJoints(pose, hold)
  const x = tip.x - 14
  return [
    line('compare', [at(x - 22, -2), at(tip.x + 30, -2)]),
    arrow('mark', at(x, -2), at(x, tip.y), 4),
    label(says),
  ]
}

/** The thumb’s tip against the board’s edge. */
export function thumbTipNote(pose: SectionPose, says: FigureWord): FigurePart[] {
  const { thumb } = sectionJoints(pose)
  const { x } = VIEWS.shoulder
  const top = thumb[3].y - 7
  return [
    line('compare', [at(x + 6, 0), at(20, 0)]),
    ...(Math.abs(top) > 3 ? [line('mark', [at(thumb[3].x - 12, 0), at(thumb[3].x - 12, top)])] : []),
    label(says, { value: Math.round(pose.thumbTipMm), unit: 'mm' }),
  ]
}

export function tipAngleNote(pose: SectionPose, says: FigureWord, hold: HoldId = 'shoulder'): FigurePart[] {
  const { tip, last } = sectionJoints(pose, hold)
  const degrees = angleAt(tip, last, at(tip.x + 10, tip.y))
  return [
    line('compare', [at(tip.x - 30, tip.y), at(tip.x + 46, tip.y)]),
    line('mark', arc(tip, 30, 0, degrees)),
    label(says, { value: Math.round(degrees), unit: 'degrees' }),
  ]
}

/** A ring round the joint that is spoken of. */
export function sectionNote(
  pose: SectionPose,
  part: 'knuckle' | 'last' | 'thumb',
  says: FigureWord,
  hold: HoldId = 'shoulder',
  hand = 1,
): FigurePart[] {
  const joints = sectionJoints(pose, hold, hand)
  const places: Record<typeof part, Point> = {
    knuckle: joints.knuckle,
    last: joints.last,
    thumb: joints.thumb[2],
  }
  return [spot(places[part], 9), label(says)]
}
