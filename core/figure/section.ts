import type { FigureWord } from './words'
import { BODY_MM, body, joint, label, limb, line, patch, spot, type Figure, type FigurePart } from './figure'
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
  /** How far the thumb’s tip leans outwards; negative is bent back and pressing. */
  readonly thumbBend: number
  /** String that is stopped, from the player’s thumb side: 0 is nearest to the thumb. */
  readonly string: number
  /** Of the forearm from upright: positive where the elbow has come under, towards the thumb’s side. */
  readonly elbow: number
  /** How far the last joint has given way, degrees; 0 is rounded. */
  readonly collapse: number
  readonly fingers: 'one' | 'two_apart' | 'two_stuck'
  /** Base knuckle from the board’s edge. */
  readonly reachMm: number
}

export const SECTION: SectionPose = {
  knuckleMm: 13,
  gapMm: 13,
  fingerAngle: 62,
  thumbTipMm: -2,
  thumbBend: 12,
  string: 1,
  elbow: 8,
  collapse: 0,
  fingers: 'one',
  reachMm: 19,
}

/** The neck in first position: width of the board and depth of board and neck, mm. From memory. */
interface NeckMeasures {
  readonly width: number
  readonly board: number
  readonly depth: number
  readonly strings: number
}
export const NECKS: Readonly<Record<'upper' | 'cello' | 'bass', NeckMeasures>> = {
  upper: { width: 27, board: 6, depth: 22, strings: 4 },
  cello: { width: 36, board: 9, depth: 31, strings: 4 },
  bass: { width: 50, board: 12, depth: 44, strings: 4 },
}

const VIEWS = {
  upper: { x: -76, y: -76, width: 156, height: 156 },
  cello: { x: -62, y: -72, width: 166, height: 166 },
  bass: { x: -66, y: -74, width: 180, height: 180 },
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

export function sectionJoints(
  pose: SectionPose,
  family: keyof typeof NECKS = 'upper',
  hand = 1,
): SectionJoints {
  const neck = NECKS[family]
  const half = neck.width / 2
  const stringX = -half + (neck.width * (pose.string + 0.7)) / (neck.strings + 0.4)
  const tip = at(stringX, -2)
  const knuckle = at(half + pose.reachMm * hand, -pose.knuckleMm)
  const [proximal, middleBone, end] = BODY_MM.finger.map((mm) => mm * hand) as [number, number, number]
  // The last bone stands on the string at its angle, its joint on the side of the hand.
  const last = away(tip, pose.fingerAngle - pose.collapse, end)
  const { joint: middle } = twoBones(knuckle, last, [proximal, middleBone], 'right')
  const isHeld = family === 'upper'
  const down = (isHeld ? -90 : -58) + pose.elbow * 0.5
  const wrist = away(knuckle, down, BODY_MM.palm * hand)
  const elbow = away(wrist, (isHeld ? -90 : -50) - pose.elbow, 120)
  // A violin lies against the thumb’s side; behind the neck of a cello or a bass the thumb stands across.
  const thumbTip = isHeld
    ? at(-half - 6.5, -pose.thumbTipMm + neck.board * 0.4)
    : at(-half * 0.25, neck.depth + 6.5 - pose.thumbTipMm)
  const inner = heading(knuckle, wrist) - 90
  const base = away(between(wrist, knuckle, 0.02), inner, (isHeld ? 11 : 18) * hand)
  const lean = isHeld ? -102 + pose.thumbBend : -20 + pose.thumbBend
  const joint = away(thumbTip, lean, BODY_MM.thumb[2] * hand)
  const bones = [BODY_MM.thumb[0] * hand, BODY_MM.thumb[1] * hand] as const
  const { joint: thumbKnuckle } = twoBones(base, joint, bones, 'left')
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
  family: keyof typeof NECKS = 'upper',
  hand = 1,
  notes: readonly FigurePart[] = [],
): Figure {
  const neck = NECKS[family]
  const { knuckle, middle, last, tip, thumb, wrist, elbow } = sectionJoints(pose, family, hand)
  const widths = BODY_MM.fingerWidths.map((mm) => mm * hand)
  const thumbKnuckle = thumb[1]
  const web = at(2, neck.depth + pose.gapMm)
  const webShape = `${smooth([
    away(between(thumbKnuckle, thumb[2], 0.25), heading(thumbKnuckle, thumb[2]) - 90, 7 * hand),
    at(web.x - 7 * hand, web.y - 1),
    at(web.x + 5 * hand, web.y),
    at(knuckle.x - 11 * hand, knuckle.y + 22 * hand),
  ])}L${polyline([knuckle, wrist, thumb[0], thumbKnuckle], true).slice(1)}`
  return {
    ...VIEWS[family],
    parts: [
      ...secondFinger(pose, knuckle, tip, hand),
      body(
        'skin',
        [
          ...limb([knuckle, middle], widths),
          ...limb([knuckle, wrist], [24 * hand, BODY_MM.wrist * 0.9 * hand]),
          ...limb([wrist, elbow], [BODY_MM.wrist * 0.9 * hand, 58 * hand]),
          ...limb(
            thumb,
            BODY_MM.thumbWidths.map((mm) => mm * hand),
          ),
          webShape,
        ],
        [thumbKnuckle, thumb[2]],
      ),
      body('neck', [neckOutline(neck)]),
      body('board', [boardOutline(neck)]),
      ...stringDots(neck),
      body('skin', limb([middle, last, tip], widths.slice(1))),
      // The finger grows out of the hand: no line between them.
      patch('skin', limb([knuckle, middle], [widths[0]! - 1.4, widths[1]! - 0.7])),
      joint(knuckle),
      joint(middle),
      joint(last),
      nail(last, tip, hand),
      ...notes,
    ],
  }
}

function secondFinger(pose: SectionPose, knuckle: Point, tipOfFirst: Point, hand: number): FigurePart[] {
  if (pose.fingers === 'one') return []
  const apart = pose.fingers === 'two_apart' ? 13 : 2
  const base = at(knuckle.x + 5, knuckle.y - apart * hand)
  const tip = at(tipOfFirst.x + 4, tipOfFirst.y)
  const last = away(tip, pose.fingerAngle + 4, 18 * hand)
  const { joint } = twoBones(base, last, [42 * hand, 26 * hand], 'right')
  return [
    body(
      'far_skin',
      limb(
        [base, joint, last, tip],
        BODY_MM.fingerWidths.map((mm) => mm * hand),
      ),
      [base],
    ),
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

type Family = keyof typeof NECKS

/** The board’s surface carried on to the knuckle, and how high that stands. */
export function knuckleNote(pose: SectionPose, says: FigureWord, family: Family = 'upper'): FigurePart[] {
  const { x, width } = VIEWS[family]
  return [
    line('compare', [at(x + 6, 0), at(x + width - 6, 0)]),
    label(says, { value: pose.knuckleMm, unit: 'mm' }),
  ]
}

export function gapNote(pose: SectionPose, says: FigureWord, family: Family = 'upper'): FigurePart[] {
  const { depth } = NECKS[family]
  return [
    pose.gapMm >= 4
      ? line('mark', [at(-2, depth + 0.6), at(-2, depth + pose.gapMm)])
      : spot(at(-1, depth + 2), 8),
    label(says, { value: pose.gapMm, unit: 'mm' }),
  ]
}

/** The thumb’s tip against the board’s edge. */
export function thumbTipNote(pose: SectionPose, says: FigureWord): FigurePart[] {
  const { thumb } = sectionJoints(pose)
  const { x } = VIEWS.upper
  const top = thumb[3].y - 7
  return [
    line('compare', [at(x + 6, 0), at(20, 0)]),
    ...(Math.abs(top) > 3 ? [line('mark', [at(thumb[3].x - 12, 0), at(thumb[3].x - 12, top)])] : []),
    label(says, { value: Math.round(pose.thumbTipMm), unit: 'mm' }),
  ]
}

export function tipAngleNote(pose: SectionPose, says: FigureWord, family: Family = 'upper'): FigurePart[] {
  const { tip, last } = sectionJoints(pose, family)
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
  part: 'knuckle' | 'last' | 'tip' | 'thumb' | 'thumbTip' | 'web' | 'elbow' | 'base',
  says: FigureWord,
  family: Family = 'upper',
  hand = 1,
): FigurePart[] {
  const joints = sectionJoints(pose, family, hand)
  const places: Record<typeof part, Point> = {
    knuckle: joints.knuckle,
    last: joints.last,
    tip: joints.tip,
    thumb: joints.thumb[2],
    thumbTip: joints.thumb[3],
    web: at(0, NECKS[family].depth + 3),
    elbow: joints.wrist,
    base: at(NECKS[family].width / 2 + 4, 6),
  }
  return [spot(places[part], part === 'elbow' ? 14 : 9), label(says)]
}
