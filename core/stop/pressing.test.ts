import { describe, expect, it } from 'vitest'
import {
  centsAtPlace,
  heightFault,
  placeOfCents,
  pressedPlace,
  pressingCents,
  STRING_MATERIALS,
  type Pressing,
} from './index'

const VIOLIN: Pressing = { nutHeightMm: 0.4, endHeightMm: 4, material: 'synthetic' }

describe('pressing', () => {
  it('sharpens by (600 / ln 2) δ / (L ε) with δ = (h²/2)(1/x + 1/(L − x)), worked by hand at the octave', () => {
    // h 3 mm at 164 of 328: δ = 4.5 · 2/164 = 0.054878; ε 0.04: 865.617 · 0.054878 / 13.12 = 3.6207
    const flat: Pressing = { nutHeightMm: 3, endHeightMm: 3, material: 'synthetic' }
    expect(pressingCents(328, 270, 164, flat)).toBeCloseTo(3.621, 3)
    expect(pressingCents(328, 270, 164, { ...flat, material: 'steel' })).toBeCloseTo(3.6207 * 8, 2)
  })

  it('is the stretch of the real path, to first order: Pythagoras on both legs', () => {
    const [length, place, h] = [328, 82, 1.5]
    const legs = Math.hypot(place, h) + Math.hypot(length - place, h)
    const strain = (legs - length) / length
    const exact = 600 * Math.log2(1 + strain / 0.04)
    expect(
      pressingCents(length, 270, place, { nutHeightMm: h, endHeightMm: h, material: 'synthetic' }),
    ).toBeCloseTo(exact, 2)
  })

  it('moves places towards the nut, a few tenths of a mm near it and more higher up (docs/trade.md § 2, derived)', () => {
    const shifts = [203.91, 701.955, 1200].map(
      (c) => pressedPlace(328, 270, c, VIOLIN)! - placeOfCents(328, c),
    )
    expect(shifts.every((s) => s < 0)).toBe(true)
    expect(Math.abs(shifts[0]!)).toBeLessThan(0.3)
    expect(Math.abs(shifts[2]!)).toBeGreaterThan(Math.abs(shifts[0]!))
  })

  it('finds a place exactly where there is one, against a search along the whole string', () => {
    for (const lengthMm of [178, 227, 328, 1050])
      for (const nutHeightMm of [0, 0.4, 1, 1.5])
        for (const material of STRING_MATERIALS)
          for (const cents of [90, 112, 203.91]) {
            const pressing: Pressing = { nutHeightMm, endHeightMm: 4, material }
            const board = lengthMm * 0.82
            const off = (x: number) =>
              centsAtPlace(lengthMm, x) + pressingCents(lengthMm, board, x, pressing) - cents
            const place = pressedPlace(lengthMm, board, cents, pressing)
            const along = Array.from({ length: 4000 }, (_, i) => lengthMm * (0.005 + i * 0.0001))
            if (place === undefined) expect(Math.min(...along.map(off))).toBeGreaterThan(-0.5)
            else {
              expect(off(place)).toBeCloseTo(0, 3)
              // Of two the one further from the nut: the other lies behind the lowest pitch.
              expect(off(place * 1.01)).toBeGreaterThan(0)
            }
          }
  })

  it('has no minor second on an eighth-size over a nut of a millimetre in steel, and says so', () => {
    expect(pressedPlace(227, 186, 100, { nutHeightMm: 1, endHeightMm: 4, material: 'steel' })).toBeUndefined()
  })

  it('leaves the open string alone, whatever the nut', () => {
    for (const nutHeightMm of [0, 0.5]) expect(pressedPlace(328, 270, 0, { ...VIOLIN, nutHeightMm })).toBe(0)
    expect(pressingCents(328, 270, 0, { ...VIOLIN, nutHeightMm: 0 })).toBe(0)
  })

  it('names heights that no fingerboard has', () => {
    expect(heightFault(-1)).toBe('height_negative')
    expect(heightFault(40)).toBe('height_too_large')
    expect(heightFault(NaN)).toBe('height_not_a_number')
    expect(heightFault(0)).toBeUndefined()
  })
})
