import { expect, it } from 'vitest'
import { familyOf } from '../instrument'
import { centsToRatio } from '../pitch'
import { placeOfRatio } from '../stop'
import { frameWidthMm } from './index'

const spanOf = (family: 'violin' | 'cello' | 'bass', frame: string) =>
  familyOf(family).frames.find((f) => f.id === frame)?.semitones ?? NaN

it('has the widths of the handbook in first position (common practice, no source)', () => {
  expect(frameWidthMm(328, 2, spanOf('violin', 'fourth'))).toBeCloseTo(73, 0)
  expect(frameWidthMm(690, 2, spanOf('cello', 'closed'))).toBeCloseTo(98, 0)
  expect(frameWidthMm(690, 1, spanOf('cello', 'extended'))).toBeCloseTo(134, 0)
  expect(frameWidthMm(1050, 2, spanOf('bass', 'one_two_four'))).toBeCloseTo(102, 0)
})

it('shrinks by 5.6 % a semitone and halves at the octave (derived)', () => {
  expect(1 - frameWidthMm(328, 3, 5) / frameWidthMm(328, 2, 5)).toBeCloseTo(1 - 1 / centsToRatio(100), 12)
  expect(1 - frameWidthMm(328, 3, 5) / frameWidthMm(328, 2, 5)).toBeCloseTo(0.056, 3)
  expect(frameWidthMm(328, 14, 5) / frameWidthMm(328, 2, 5)).toBeCloseTo(0.5, 12)
})

it('puts the cello’s extended first finger half-way to the first tape, within 1.2 mm at 690 (handbook)', () => {
  const eFlat = 690 * (1 - 2 ** (-1 / 12))
  const firstTape = placeOfRatio(690, 9 / 8)
  expect(Math.abs(eFlat - firstTape / 2)).toBeLessThan(1.2)
})
