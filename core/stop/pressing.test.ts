import { describe, expect, it } from 'vitest'
import { heightFault, placeOfCents, pressedPlace, pressingCents, type Pressing } from './index'

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

  it('moves places towards the nut, a few tenths of a mm near it and more higher up (handbook, derived)', () => {
    const shifts = [203.91, 701.955, 1200].map(
      (c) => pressedPlace(328, 270, c, VIOLIN) - placeOfCents(328, c),
    )
    expect(shifts.every((s) => s < 0)).toBe(true)
    expect(Math.abs(shifts[0]!)).toBeLessThan(0.3)
    expect(Math.abs(shifts[2]!)).toBeGreaterThan(Math.abs(shifts[0]!))
  })

  it('names heights that no fingerboard has', () => {
    expect(heightFault(-1)).toBe('height_negative')
    expect(heightFault(40)).toBe('height_too_large')
    expect(heightFault(NaN)).toBe('height_not_a_number')
    expect(heightFault(0)).toBeUndefined()
  })
})
