import { beforeEach, describe, expect, it } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import type { Student } from '#contracts'
import { A_STUDENT, AN_INSTRUMENT, freshStores } from '../../testing'
import { useBench } from './useBench'

function bench(student?: Student) {
  const chosen = ref(student)
  return { chosen, bench: effectScope().run(() => useBench(chosen))! }
}

beforeEach(freshStores)

describe('the tape bench', () => {
  it('starts from the student’s instrument and its measured length', () => {
    const { bench: b } = bench(A_STUDENT)
    expect([b.familyId.value, b.sizeId.value, b.lengthText.value]).toEqual(['violin', '1/2', '284.5'])
    // a ninth and a quarter of 284.5 mm (Helmholtz's whole-number places)
    expect(b.marks.value.map((m) => m.middleMm.toFixed(1))).toEqual(['31.6', '71.1'])
    expect(b.isTypical.value).toBe(false)
  })

  it('says that its places are only typical until a usable length is typed', () => {
    const { bench: b } = bench()
    expect(b.isTypical.value).toBe(true)
    expect(b.lengthMm.value).toBe(328)
    b.lengthText.value = '328 cm'
    expect(b.isTypical.value).toBe(true)
    b.lengthText.value = '12 7/8 in'
    expect(b.isTypical.value).toBe(false)
    expect(b.lengthMm.value).toBeCloseTo(327.025, 3)
  })

  it('takes the size and the school of a family that is chosen', async () => {
    const { bench: b } = bench()
    b.familyId.value = 'cello'
    await nextTick()
    expect([b.sizeId.value, b.schoolId.value]).toEqual(['4/4', 'first_and_fourth'])
    expect(b.marks.value.map((m) => m.finger)).toEqual([1, 4])
    expect(b.boardInstrument.value.tuning).toHaveLength(4)
  })

  it('follows the student’s own school before the tapes that lie there', () => {
    const tapeSet = {
      id: 't',
      instrumentId: AN_INSTRUMENT.id,
      schoolId: 'every',
      system: 'equal',
      lengthMm: 284.5,
      tapeWidthMm: 2,
      marks: [],
      laidOn: '2026-10-03',
      by: '',
    }
    const instrument = { ...AN_INSTRUMENT, tapeSet }
    expect(bench({ ...A_STUDENT, instrument }).bench.schoolId.value).toBe('every')
    const own = bench({ ...A_STUDENT, instrument, tapeSchoolId: 'first' }).bench
    expect([own.schoolId.value, own.systemId.value, own.tapeWidthMm.value]).toEqual(['first', 'equal', 2])
  })

  it('is laid anew when the lesson goes on to somebody else, and not when a row is saved', async () => {
    const { chosen, bench: b } = bench(A_STUDENT)
    b.lengthText.value = '286'
    chosen.value = { ...A_STUDENT, version: 9, instrument: { ...AN_INSTRUMENT, version: 2, sizeId: '3/4' } }
    await nextTick()
    expect([b.lengthText.value, b.sizeId.value]).toEqual(['286', '3/4'])
    chosen.value = {
      ...A_STUDENT,
      id: 'another',
      instrument: { ...AN_INSTRUMENT, id: 'other', measurement: null },
    }
    await nextTick()
    expect(b.lengthText.value).toBe('')
  })
})
