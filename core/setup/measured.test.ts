import { describe, expect, it } from 'vitest'
import { readMeasure } from './index'

const value = (text: string, unit: 'mm' | 'degrees' | 'times' = 'mm') => {
  const read = readMeasure(text, unit)
  return read.code === 'value' ? read.value : read.code
}

describe('what was measured, as it is typed', () => {
  it.each([
    ['25', 25],
    ['2.5 cm', 25],
    ['−18', -18],
    ['-1,8 cm', -18],
    ['1/2 in', 12.7],
    ['−1/2 in', -12.7],
    ['0', 0],
    ['0.0 mm', 0],
    ['-0', 0],
    ['  7 ', 7],
  ])('a length %s is %f mm', (text, mm) => {
    expect(value(text)).toBeCloseTo(mm, 9)
  })

  it.each([
    ['31', 31],
    ['−6,5', -6.5],
    ['31°', 31],
    ['31 °', 31],
    ['0', 0],
  ])('an angle %s is %f degrees', (text, degrees) => {
    expect(value(text, 'degrees')).toBe(degrees)
  })

  it('is nothing where nothing is typed, and never a guess where it is no number', () => {
    expect(value('   ')).toBe('empty')
    for (const text of ['about 3', '--3', '3 kg', '°', '1e999']) expect(value(text)).toBe('unreadable')
    for (const text of ['2.5 cm', 'thirty', '°']) expect(value(text, 'degrees')).toBe('unreadable')
    expect(value('4', 'times')).toBe(4)
  })
})
