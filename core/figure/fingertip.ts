import type { FigureWord } from './words'
import { body, label, line, spot, type Figure, type FigurePart } from './figure'
import { at, away, capsule, circle, polyline, smooth } from './geometry'

/** A fingertip on its string, seen along the finger. Full size, mm. */
export interface TipPose {
  /** Of the string from the middle of the pad: towards the thumb’s side where negative. */
  readonly groove: number
  readonly finger: 1 | 4
}

export function tipFigure({ groove, finger }: TipPose, says: FigureWord): Figure {
  const wide = finger === 1 ? 8.4 : 7.2
  const pad = smooth(
    [
      at(-wide, -3),
      at(-wide * 0.94, 5),
      at(-wide * 0.5, 10.4),
      at(0, 11.6),
      at(wide * 0.5, 10.4),
      at(wide * 0.94, 5),
      at(wide, -3),
      at(wide * 0.86, -17),
      at(0, -21),
      at(-wide * 0.86, -17),
    ],
    true,
  )
  const x = groove
  const y = 11.4 - Math.abs(groove / wide) ** 2 * 4
  return {
    x: -24,
    y: -27,
    width: 48,
    height: 48,
    parts: [
      body('board', [polyline([at(-24, 14.4), at(24, 14.4), at(24, 24), at(-24, 24)], true)]),
      body('skin', [pad]),
      body('nail', [
        smooth(
          [
            at(-wide * 0.62, -8),
            at(-wide * 0.7, -16),
            at(0, -20),
            at(wide * 0.7, -16),
            at(wide * 0.62, -8),
            at(0, -5.6),
          ],
          true,
        ),
      ]),
      line('compare', [at(0, -4), at(0, 13)]),
      body('metal', [circle(at(x, y + 1.1), 1.1)]),
      spot(at(x, y), 3.4),
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

/** Open strings that stand still, and one that has slipped. */
export function stringsFigure(slipped: number | undefined, says: FigureWord): Figure {
  const strings = [0, 1, 2, 3].map((i) => {
    const y = -30 + i * 20
    const isOff = i === slipped
    const points = Array.from({ length: 41 }, (_, k) => {
      const share = k / 40
      const wave = isOff ? Math.sin(share * Math.PI * 9) * 5.5 : Math.sin(share * Math.PI) * 1.6
      return at(-90 + 180 * share, y + wave)
    })
    return line(isOff ? 'mark' : 'string', smooth(points))
  })
  return {
    x: -116,
    y: -66,
    width: 232,
    height: 132,
    parts: [
      body('neck', [polyline([at(-104, -44), at(-90, -44), at(-90, 44), at(-104, 44)], true)]),
      body('wood', [polyline([at(90, -44), at(100, -44), at(100, 44), at(90, 44)], true)]),
      ...strings,
      ...(slipped === undefined ? [] : [spot(at(-97, -30 + slipped * 20), 10)]),
      label(says),
    ],
  }
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
