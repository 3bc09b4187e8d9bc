import { describe, expect, it } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { scaleId } from '#core'
import type { Instrument } from '#contracts'
import { A_STUDENT, AN_INSTRUMENT } from '../../testing'
import { BY_HAND, bareSetup, setupFor, type BenchSetup } from './setup'
import { useBench, type BenchFind } from './useBench'

function benchOf(setup: BenchSetup, on?: Instrument, found: BenchFind[] = []) {
  const setupRef = ref(setup)
  const finds = ref(found)
  const bench = effectScope().run(() => useBench(setupRef, ref(on), finds))!
  return { setup: setupRef, finds, bench }
}

function find(id: string, note: string, cents: number, placeMm: number, string = 'D4'): BenchFind {
  return { id, string, note, cents, placeMm, isTrusted: false, foundOn: '2026-11-28' }
}

const HALF: BenchSetup = { ...bareSetup('violin'), sizeId: '1/2', lengthText: '284.5' }
const middles = ({ bench }: ReturnType<typeof benchOf>) => bench.marks.value.map((m) => m.middleMm.toFixed(1))

describe('what is laid out', () => {
  it('is the student’s instrument with its measured length, and the student’s own school before its tapes', () => {
    const setup = setupFor(AN_INSTRUMENT, A_STUDENT)
    expect([setup.familyId, setup.sizeId, setup.lengthText]).toEqual(['violin', '1/2', '284.5'])
    // a ninth and a quarter of 284.5 mm (Helmholtz's whole-number places)
    expect(middles(benchOf(setup, AN_INSTRUMENT))).toEqual(['31.6', '71.1'])
    const tapeSet = {
      id: 't',
      instrumentId: AN_INSTRUMENT.id,
      schoolId: 'every',
      system: 'equal',
      lengthMm: 284.5,
      tapeWidthMm: 2,
      laidOn: '2026-10-03',
      by: '',
    }
    expect(setupFor({ ...AN_INSTRUMENT, tapeSet }, A_STUDENT)).toMatchObject({
      schoolId: 'every',
      systemId: 'equal',
    })
    expect(setupFor({ ...AN_INSTRUMENT, tapeSet }, { ...A_STUDENT, tapeSchoolId: 'first' }).schoolId).toBe(
      'first',
    )
  })

  it('is a family’s own size and school on a bare bench', () => {
    expect(bareSetup('cello')).toMatchObject({ sizeId: '4/4', schoolId: 'first_and_fourth' })
    expect(benchOf(bareSetup('cello')).bench.marks.value.map((m) => m.finger)).toEqual([1, 4])
  })
})

describe('lengths', () => {
  it('are only typical until a usable one is typed', () => {
    const { bench, setup } = benchOf(bareSetup('violin'))
    expect([bench.isTypical.value, bench.lengthMm.value]).toEqual([true, 328])
    setup.value.lengthText = '328 cm'
    expect(bench.isTypical.value).toBe(true)
    setup.value.lengthText = '12 7/8 in'
    expect(bench.lengthMm.value).toBeCloseTo(327.025, 3)
  })

  it('to the octave harmonic count twice', () => {
    const { bench } = benchOf({ ...HALF, method: 'harmonic', lengthText: '142.4' })
    expect(bench.lengthMm.value).toBeCloseTo(284.8, 9)
  })

  it('string by string show a crooked bridge, and are not believed where they contradict each other', () => {
    const { bench, setup } = benchOf({
      ...HALF,
      method: 'strings',
      stringTexts: ['287', '286', '285', '284'],
    })
    expect(bench.bridge.value).toMatchObject({ code: 'askew', side: 'low' })
    expect(bench.marks.value[0]?.worst.remainderCents).not.toBeCloseTo(0, 1)
    setup.value.stringTexts = ['300', '600', '300', '300']
    expect(bench.isTypical.value).toBe(true)
    expect(bench.lengths.contradiction.value).toMatchObject({ shortestMm: 300, longestMm: 600 })
  })
})

describe('strings of one’s own', () => {
  it('bring a field for each length, and a fault in words where they cannot be', async () => {
    const { bench, setup } = benchOf({ ...HALF, tuningText: 'C3 G3 D4 A4 E5' })
    expect(bench.tuning.value).toHaveLength(5)
    setup.value.tuningText = 'C3 G3 D4 A4 E5 B5'
    await nextTick()
    expect(setup.value.stringTexts).toHaveLength(6)
    setup.value.tuningText = 'G3 D4 C4 E5'
    expect(bench.typedTuning.value).toMatchObject({
      ok: false,
      message: expect.stringContaining('C4 is not above D4') as string,
    })
    expect(bench.tuning.value).toHaveLength(4)
  })

  it('and marks by hand, low and high, follow a scale of one’s own', () => {
    const alike = scaleId(
      'alike',
      'D',
      Array.from({ length: 12 }, (_, i) => 100 * (i + 1)),
    )
    const { bench } = benchOf({ ...HALF, schoolId: BY_HAND, markIds: ['2.3', '3.6'], systemId: alike })
    expect(bench.marks.value.map((m) => [m.finger, m.form])).toEqual([
      [2, 'low'],
      [3, 'high'],
    ])
    expect(bench.marks.value[0]?.middleMm).toBeCloseTo(284.5 * (1 - 2 ** (-3 / 12)), 6)
  })

  it('a system that cannot be read is a fault, never quietly another', () => {
    const { bench } = benchOf({ ...HALF, systemId: 'just:H' })
    expect(() => bench.marks.value).toThrow('just:H')
  })
})

describe('places found by ring', () => {
  it('move every place; taking them out restores the old ones', () => {
    const one = benchOf(HALF, undefined, [find('a', 'E4', 203.91, 32.4)])
    const moved = one.bench.marks.value[0]!.middleMm
    expect(moved).toBeGreaterThan(31.9)
    expect(one.bench.marksBeforeRings.value[0]?.middleMm).toBeCloseTo(31.61, 2)
    one.finds.value = []
    expect(middles(one)).toEqual(['31.6', '71.1'])
  })

  it('that disagree with the rest are questioned and change nothing', () => {
    const good = [
      find('a', 'E4', 203.91, 31.9),
      find('b', 'A4', 701.955, 95.2),
      find('c', 'D5', 498.045, 71.5, 'A4'),
    ]
    const without = benchOf(HALF, undefined, good)
    const withSlip = benchOf(HALF, undefined, [...good, find('d', 'A3', 203.91, 38, 'G3')])
    expect(withSlip.bench.fit.value?.finds.map((f) => f.isQuestioned)).toEqual([false, false, false, true])
    expect(middles(withSlip)).toEqual(middles(without))
  })

  it('on a string that is no longer there say nothing', () => {
    const { bench } = benchOf(HALF, undefined, [find('a', 'D3', 200, 31, 'C3')])
    expect(bench.fit.value).toBeUndefined()
  })
})

describe('pressing', () => {
  it('moves places towards the nut and says by how much; heights no board has are a fault and move nothing', () => {
    const { bench, setup } = benchOf({ ...HALF, pressingMode: 'typical' })
    const shift = bench.marks.value[1]!.middleMm - bench.marksUnpressed.value[1]!.middleMm
    expect(shift).toBeLessThan(-0.01)
    setup.value = { ...setup.value, pressingMode: 'measured', nutHeightMm: -1 }
    expect(bench.pressingFault.value).toBe('height_negative')
    expect(bench.pressing.value).toBeUndefined()
  })
})
