import { expect, it } from 'vitest'
import { familyOf } from '#core'
import { A_HAND, A_STUDENT } from '../../testing'
import { fingertipOf } from './fingertip'

it('is as wide as it was measured, else as at its age, else as on hands for the instrument’s size', () => {
  const violin = familyOf('violin')
  const unknown = { ...A_STUDENT, birthYear: null }
  const tip = (student: Parameters<typeof fingertipOf>[0], sizeId = '1/2') =>
    Object.values(fingertipOf(student, 2026, violin, sizeId))
  expect(tip({ ...A_STUDENT, hand: A_HAND })).toEqual([11, 'measured'])
  expect(tip({ ...A_STUDENT, birthYear: 2017 })).toEqual([10, 'age'])
  expect(tip({ ...A_STUDENT, birthYear: 2021 })).toEqual([9, 'age'])
  expect(tip({ ...A_STUDENT, birthYear: 1990 }, '1/32')).toEqual([14, 'age'])
  expect(tip(unknown, '1/32')).toEqual([9, 'size'])
  expect(tip(unknown, '1/2')).toEqual([10, 'size'])
  expect(tip(undefined, '4/4')).toEqual([14, 'size'])
  expect(tip(undefined, 'none')).toEqual([14, 'nothing'])
})
