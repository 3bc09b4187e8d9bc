import type { FigureWord } from './words'
import { body, label, line, spot, type Figure, type FigurePart } from './figure'
import { at, away, capsule, circle, polyline, smooth, turned, type Point } from './geometry'

/** A fingertip on its string, seen from the nail’s side, the thumb’s side at the left. Full size, mm. */
export interface TipPose {
  /** Of the string from the middle of the tip: towards the thumb’s side where negative. */
  readonly groove: number
  readonly finger: 1 | 4
}

/** So many degrees a finger leans for each mm that the string lies beside its middle. */
const LEAN_A_MM = 3.2
/** Where the board’s surface is. */
const BOARD_Y = 14.4
const STRING_MM = 1.1

export function tipFigure({ groove, finger }: TipPose, says: FigureWord): Figure {
  const wide = finger === 1 ? 8.4 : 7.2
  const on = at(groove, BOARD_Y - 2 * STRING_MM)
  const lean = -groove * LEAN_A_MM
  // Drawn upright with its end at the string, and leaned over it.
  const end = on.y - 0.4 + (groove / wide) ** 2 * 4
  const leaned = (points: readonly Point[]) => turned(points, on, lean)
  const tip = (x: number, y: number) => at(x * wide, end + y)
  const outline = [
    tip(-0.98, -14),
    tip(-0.97, -6.4),
    tip(-0.58, -1.2),
    tip(0, 0),
    tip(0.58, -1.2),
    tip(0.97, -6.4),
    tip(0.98, -14),
    tip(0.92, -27),
    tip(1.02, -40),
    tip(-1.02, -40),
    tip(-0.92, -27),
  ]
  // The nail’s free edge is next to the string; the pad is behind it.
  const nail = [
    tip(-0.6, -3),
    tip(0, -1.4),
    tip(0.6, -3),
    tip(0.68, -9),
    tip(0.5, -15.4),
    tip(0, -16.6),
    tip(-0.5, -15.4),
    tip(-0.68, -9),
  ]
  const fold = (y: number) => line('detail', smooth(leaned([tip(-0.4, y), tip(0, y + 0.8), tip(0.4, y)])))
  return {
    x: -26,
    y: -21,
    width: 52,
    height: 42,
    parts: [
      body('skin', [smooth(leaned(outline), true)]),
      body('nail', [smooth(leaned(nail), true)]),
      line('detail', smooth(leaned([tip(-0.3, -14.2), tip(0, -13), tip(0.3, -14.2)]))),
      fold(-25.6),
      fold(-27.6),
      body('board', [polyline([at(-26, BOARD_Y), at(26, BOARD_Y), at(26, 21), at(-26, 21)], true)]),
      line('compare', leaned([tip(0, -1), tip(0, -22)])),
      body('metal', [circle(at(on.x, BOARD_Y - STRING_MM), STRING_MM)]),
      spot(at(on.x, on.y), 3.6),
      label(says),
    ],
  }
}

/** A fingertip set upright on a table: whether the nail comes first. */
export function nailFigure(nailMm: number, says: FigureWord): Figure {
  const tip = at(0, 0)
  const last = away(tip, 74, 24)
  const back = 74 + 90
  const nailEnd = away(away(tip, back, 5.4), 254, nailMm)
  const parts: FigurePart[] = [
    body('ground', [polyline([at(-30, 7.2), at(36, 7.2), at(36, 15), at(-30, 15)], true)]),
    body('skin', [capsule(tip, 13.5, last, 15.5), capsule(last, 15.5, away(last, 40, 26), 17)]),
    body('nail', [
      polyline(
        [
          away(away(last, back, 7.4), 254, 4),
          nailEnd,
          away(nailEnd, 254 + 90, 2),
          away(away(last, back, 4.4), 254, 5),
        ],
        true,
      ),
    ]),
    { kind: 'joint', at: last },
    spot(nailMm > 2 ? nailEnd : at(0.5, 6.6), 4),
    label(says),
  ]
  return { x: -30, y: -44, width: 66, height: 60, parts }
}

/** A bass’s board end with a plucking hand. */
export function pluckFigure(isAnchored: boolean, says: FigureWord): Figure {
  const hand = isAnchored ? at(60, 96) : at(96, 122)
  const thumb = isAnchored ? at(10, 42) : at(64, 84)
  const tip = isAnchored ? at(58, 10) : at(84, 24)
  return {
    x: -70,
    y: -74,
    width: 240,
    height: 232,
    parts: [
      body('board', [polyline([at(-70, -36), at(110, -43), at(110, 43), at(-70, 36)], true)]),
      ...[-24, -8, 8, 24].map((y) => line('string', [at(-70, y * 0.9), at(170, y * 1.1)])),
      body('skin', [
        capsule(hand, 62, at(hand.x + 26, hand.y + 90), 58),
        ...[0, 1, 2].map((i) =>
          capsule(
            at(hand.x + 10 + i * 19, hand.y - 22),
            21,
            at(hand.x + 18 + i * 20, hand.y - 44 - (2 - i) * 2),
            18,
          ),
        ),
        capsule(at(hand.x - 12, hand.y - 18), 24, tip, 16),
        capsule(at(hand.x - 22, hand.y + 16), 30, thumb, 20),
      ]),
      line('compare', [at(10, 52), at(110, 52)]),
      ...(isAnchored ? [line('mark', [at(10, 52), at(110, 52)])] : [spot(thumb, 16)]),
      label(says, isAnchored ? { value: 100, unit: 'mm' } : undefined),
    ],
  }
}
