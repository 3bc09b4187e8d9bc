import { describe, expect, it } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { chartTapes, marksWithIds, planTapes, scaleId, stringingOfInstrument } from '#core'
import type { Instrument } from '#contracts'
import { A_STUDENT, AN_INSTRUMENT } from '../../testing'
import {
  bareSetup,
  setupFor,
  useBenchStrings,
  BY_HAND,
  type BenchFind,
  type BenchSetup,
} from '../../stores/bench'
import { useTapeChart } from './useTapes'

function laidOut(setup: BenchSetup, on?: Instrument, found: BenchFind[] = []) {
  const setupRef = ref({ ...setup })
  const finds = ref(found)
  return effectScope().run(() => {
    const strings = useBenchStrings(setupRef, ref(on), finds)
    return { setup: setupRef, finds, strings, tapes: useTapeChart(setupRef, strings.stringing) }
  })!
}

function find(id: string, note: string, cents: number, placeMm: number, string = 'D4'): BenchFind {
  return { id, string, note, cents, placeMm, isTrusted: false, foundOn: '2026-11-28' }
}

const HALF: BenchSetup = { ...bareSetup('violin'), sizeId: '1/2', lengthText: '284.5' }
const middles = ({ tapes }: ReturnType<typeof laidOut>) => tapes.marks.value.map((m) => m.middleMm.toFixed(1))

describe('what is laid out', () => {
  it('is the student’s instrument with its measured length, and the student’s own school before its tapes', () => {
    const setup = setupFor(AN_INSTRUMENT, A_STUDENT, 'fifths')
    expect([setup.familyId, setup.sizeId, setup.lengthText]).toEqual(['violin', '1/2', '284.5'])
    // a ninth and a quarter of 284.5 mm (Helmholtz's whole-number places)
    expect(middles(laidOut(setup, AN_INSTRUMENT))).toEqual(['31.6', '71.1'])
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
    const taped = { ...AN_INSTRUMENT, tapeSet }
    expect(setupFor(taped, A_STUDENT, 'equal')).toMatchObject({ schoolId: 'every', systemId: 'equal' })
    expect(setupFor(taped, { ...A_STUDENT, tapeSchoolId: 'first' }, 'equal').schoolId).toBe('first')
  })

  it('opens with the tapes that lie on it, which need not be what a school would lay', () => {
    const every = { schoolId: 'every', system: 'fifths', tapeWidthMm: 3 } as Instrument['tapeSet']
    const lying = (...ids: string[]): Instrument => ({
      ...AN_INSTRUMENT,
      tapeSet: every,
      tapes: ids.map((markId) => ({ markId, placeMm: 31.6 }) as Instrument['tapes'][number]),
    })
    const opened = (on: Instrument, tapeSchoolId: string | null) => {
      const setup = setupFor(on, { ...A_STUDENT, tapeSchoolId }, 'fifths')
      return [setup.schoolId, laidOut(setup, on).tapes.marks.value.map((m) => m.finger)]
    }
    // two of four were faded: 1 and 3 lie there
    expect(opened(lying('1.2', '3.5'), null)).toEqual(['first_and_third', [1, 3]])
    expect(opened(lying('1.2', '3.5'), 'every')).toEqual(['first_and_third', [1, 3]])
    expect(opened(lying('1.2', '4.7'), null)).toEqual([BY_HAND, [1, 4]])
    // another school's four on the violin of a student who is taught with 1 and 3
    expect(opened(lying('1.2', '2.4', '3.5', '4.7'), 'first_and_third')).toEqual(['first_and_third', [1, 3]])
    expect(opened(lying(), 'first')).toEqual(['first', [1]])
    expect(opened(lying(), null)).toEqual(['every', [1, 2, 3, 4]])
  })

  it('is a family’s own size and school on a bare bench', () => {
    expect(bareSetup('cello')).toMatchObject({ sizeId: '4/4', schoolId: 'first_and_fourth' })
    expect(laidOut(bareSetup('cello')).tapes.marks.value.map((m) => m.finger)).toEqual([1, 4])
  })

  it('has the same places as every other room, uneven, pressed and rung', () => {
    const instrument: Instrument = {
      ...AN_INSTRUMENT,
      measurement: { ...AN_INSTRUMENT.measurement!, stringLengthsMm: [286, 285.2, 284.4, 283.6] },
      pressing: { mode: 'typical', nutHeightMm: 0, endHeightMm: 0, material: 'steel' },
      ringFinds: [
        { ...find('a', 'E4', 203.91, 32.4), instrumentId: AN_INSTRUMENT.id, system: 'fifths', by: '' },
      ],
    }
    const bench = laidOut(setupFor(instrument, undefined, 'fifths'), instrument, [...instrument.ringFinds])
    const elsewhere = stringingOfInstrument(instrument, 'fifths')
    const marks = marksWithIds(elsewhere.family, ['1.2', '3.5'])
    const expected = chartTapes(elsewhere, planTapes(elsewhere, marks))
    expect(bench.tapes.marks.value.map((m) => m.middleMm)).toEqual(expected.map((m) => m.middleMm))
    expect(middles(bench)).not.toEqual(['31.6', '71.1'])
  })
})

describe('lengths', () => {
  it('are only typical until a usable one is typed', () => {
    const { strings, setup } = laidOut(bareSetup('violin'))
    const { stringing } = strings
    expect([stringing.value.isMeasured, stringing.value.lengthMm]).toEqual([false, 328])
    setup.value.lengthText = '328 cm'
    expect(stringing.value.isMeasured).toBe(false)
    setup.value.lengthText = '12 7/8 in'
    expect(stringing.value.lengthMm).toBeCloseTo(327.025, 3)
  })

  it('to the octave harmonic count twice', () => {
    const { strings } = laidOut({ ...HALF, method: 'harmonic', lengthText: '142.4' })
    expect(strings.stringing.value.lengthMm).toBeCloseTo(284.8, 9)
  })

  it('string by string show a crooked bridge, and are not believed where they contradict each other', () => {
    const { strings, tapes, setup } = laidOut({
      ...HALF,
      method: 'strings',
      stringTexts: ['287', '286', '285', '284'],
    })
    expect(strings.bridge.value).toMatchObject({ code: 'askew', side: 'low' })
    expect(tapes.marks.value[0]?.worst.remainderCents).not.toBeCloseTo(0, 1)
    setup.value.stringTexts = ['300', '600', '300', '300']
    expect(strings.stringing.value.isMeasured).toBe(false)
    expect(strings.lengths.contradiction.value).toMatchObject({ shortestMm: 300, longestMm: 600 })
  })
})

describe('strings of one’s own', () => {
  it('bring a fault in words where they cannot be', () => {
    const { strings, setup } = laidOut({ ...HALF, tuningText: 'C3 G3 D4 A4 E5' })
    expect(strings.tuning.value).toHaveLength(5)
    setup.value.tuningText = 'G3 D4 C4 E5'
    expect(strings.typedTuning.value).toMatchObject({
      ok: false,
      message: expect.stringContaining('C4 is not above D4') as string,
    })
    expect(strings.tuning.value).toHaveLength(4)
  })

  it('and marks by hand, low and high, follow a scale of one’s own', () => {
    const alike = scaleId(
      'alike',
      'D',
      Array.from({ length: 12 }, (_, i) => 100 * (i + 1)),
    )
    const { tapes } = laidOut({ ...HALF, schoolId: BY_HAND, markIds: ['2.3', '3.6'], systemId: alike })
    expect(tapes.marks.value.map((m) => [m.finger, m.form])).toEqual([
      [2, 'low'],
      [3, 'high'],
    ])
    expect(tapes.marks.value[0]?.middleMm).toBeCloseTo(284.5 * (1 - 2 ** (-3 / 12)), 6)
  })

  it('a system that cannot be read is a fault, never quietly another', () => {
    const { tapes } = laidOut({ ...HALF, systemId: 'just:H' })
    expect(() => tapes.marks.value).toThrow('just:H')
  })
})

describe('places found by ring', () => {
  it('move every place; taking them out restores the old ones', () => {
    const one = laidOut(HALF, undefined, [find('a', 'E4', 203.91, 32.4)])
    const moved = one.tapes.marks.value[0]!.middleMm
    expect(moved).toBeGreaterThan(31.9)
    expect(one.tapes.marksBeforeRings.value[0]?.middleMm).toBeCloseTo(31.61, 2)
    one.finds.value = []
    expect(middles(one)).toEqual(['31.6', '71.1'])
  })

  it('that disagree with the rest are questioned and change nothing', () => {
    const good = [
      find('a', 'E4', 203.91, 31.9),
      find('b', 'A4', 701.955, 95.2),
      find('c', 'D5', 498.045, 71.5, 'A4'),
    ]
    const without = laidOut(HALF, undefined, good)
    const withSlip = laidOut(HALF, undefined, [...good, find('d', 'A3', 203.91, 38, 'G3')])
    const judged = withSlip.strings.stringing.value.calibration?.finds
    expect(judged?.map((f) => f.isQuestioned)).toEqual([false, false, false, true])
    expect(middles(withSlip)).toEqual(middles(without))
  })

  it('on a string that is no longer there say nothing', () => {
    const { strings } = laidOut(HALF, undefined, [find('a', 'D3', 200, 31, 'C3')])
    expect(strings.stringing.value.calibration).toBeUndefined()
  })
})

describe('pressing', () => {
  it('moves places towards the nut and says by how much; heights no board has are a fault and move nothing', () => {
    const { strings, tapes, setup } = laidOut({ ...HALF, pressingMode: 'typical' })
    const shift = tapes.marks.value[1]!.middleMm - tapes.marksUnpressed.value[1]!.middleMm
    expect(shift).toBeLessThan(-0.01)
    setup.value = { ...setup.value, pressingMode: 'measured', nutHeightMm: -1 }
    expect(strings.pressingFault.value).toBe('height_negative')
    expect(strings.stringing.value.pressing).toBeUndefined()
  })
})

describe('a piece of tape', () => {
  it('is that of a typical neck where no neck is as thick as what was typed', () => {
    const { tapes, setup } = laidOut(HALF)
    const typical = tapes.marks.value.map((mark) => tapes.pieceOf(mark).girthMm)
    setup.value.girthText = '9999'
    expect(tapes.girthMm.value).toBeUndefined()
    expect(tapes.marks.value.map((mark) => tapes.pieceOf(mark).girthMm)).toEqual(typical)
  })

  it('is as long as the girth at its own place, from the one that was measured at the first tape', async () => {
    const { tapes, setup } = laidOut(HALF)
    const typical = tapes.marks.value.map((mark) => tapes.pieceOf(mark).girthMm)
    setup.value.girthText = '72'
    await nextTick()
    const measured = tapes.marks.value.map((mark) => tapes.pieceOf(mark).girthMm)
    expect(measured[0]).toBeCloseTo(72, 9)
    expect(measured[1]! - measured[0]!).toBeCloseTo(typical[1]! - typical[0]!, 9)
    expect(typical[1]).toBeGreaterThan(typical[0]!)
  })
})
