import { randomNormal } from 'd3-random'
import { describe, expect, it } from 'vitest'
import { seededSource } from '../simulate'
import { familyOf } from '../instrument'
import { centsToRatio, equal, fifths, INTERVALS, note } from '../pitch'
import { placeOfRatio } from '../stop'
import { strung } from '../testing'
import {
  comfortableSize,
  firstPositionWidthMm,
  fitOfInstrument,
  fitOfWidth,
  frameAlongNeck,
  frameOnString,
  frameWidthMm,
  sizesToLend,
  growthOf,
  spanDoubt,
  handMeasureFault,
  narrowFrom,
  nextSize,
  octaveChecks,
  spanFault,
  theilSen,
  touching,
  widestFrameMm,
  whenSpanIs,
} from './index'

const frameOf = (family: 'violin' | 'cello' | 'bass', id: string) =>
  familyOf(family).frames.find((f) => f.id === id)!
const widthOf = (family: 'violin' | 'cello' | 'bass', id: string, lengthMm: number) =>
  firstPositionWidthMm(strung(family, lengthMm, equal), frameOf(family, id))

describe('the frame along the neck', () => {
  it('has the usual widths in first position (docs/trade.md § 4)', () => {
    expect(widthOf('violin', 'fourth', 328)).toBeCloseTo(73, 0)
    expect(widthOf('cello', 'closed', 690)).toBeCloseTo(98, 0)
    expect(widthOf('cello', 'extended', 690)).toBeCloseTo(134, 0)
    expect(widthOf('bass', 'one_two_four', 1050)).toBeCloseTo(102, 0)
  })

  it('shrinks by 5.6 % a semitone and halves at the octave (derived)', () => {
    expect(1 - frameWidthMm(328, 3, 5) / frameWidthMm(328, 2, 5)).toBeCloseTo(1 - 1 / centsToRatio(100), 12)
    expect(1 - frameWidthMm(328, 3, 5) / frameWidthMm(328, 2, 5)).toBeCloseTo(0.056, 3)
    expect(frameWidthMm(328, 14, 5) / frameWidthMm(328, 2, 5)).toBeCloseTo(0.5, 12)
  })

  it('puts the cello’s extended first finger half-way to the first tape, within 1.2 mm at 690 (docs/trade.md § 4)', () => {
    const eFlat = 690 * (1 - 2 ** (-1 / 12))
    const firstTape = placeOfRatio(690, 9 / 8)
    expect(Math.abs(eFlat - firstTape / 2)).toBeLessThan(1.2)
  })

  it('goes from half position to the octave, each place named by the family (docs/trade.md § 4)', () => {
    const names = (id: 'violin' | 'cello' | 'bass') =>
      frameAlongNeck(strung(id, 328), 0).map((row) => `${row.semitones} ${row.position?.id}`)
    expect(names('violin')).toEqual([
      '1 half',
      '2 first',
      '3 second',
      '4 second',
      '5 third',
      '6 third',
      '7 fourth',
      '8 fifth',
      '9 fifth',
      '10 sixth',
      '11 sixth',
      '12 seventh',
    ])
    expect(names('cello').slice(0, 7)).toEqual(names('violin').slice(0, 7))
    expect(names('bass').slice(0, 3)).toEqual(['1 half', '2 first', '3 semitone_3'])
  })

  it('says from where on a hand holds it at rest: there it is just as wide as the hand', () => {
    const places = frameAlongNeck(strung('violin', 308, equal), 1)
    const from = narrowFrom(places, 'fourth', 60)!
    // w = 60 solved for s: 12 log2(308 (1 − 2^(−5/12)) / 60), the next whole semitone (derived)
    expect(from.semitones).toBe(Math.ceil(12 * Math.log2((308 * (1 - 2 ** (-5 / 12))) / 60)))
    expect(from.widthsMm['fourth']).toBeLessThanOrEqual(60)
    expect(narrowFrom(places, 'fourth', 80)?.semitones).toBe(1)
    expect(narrowFrom(places, 'fourth', 10)).toBeUndefined()
  })

  it('on an instrument is the formula where the string is ideal and the system equal', () => {
    for (const s of [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]) {
      const { widthsMm } = frameAlongNeck(strung('cello', 690, equal), 1)[s - 1]!
      expect(widthsMm['closed']).toBeCloseTo(frameWidthMm(690, s, 3), 9)
      expect(widthsMm['extended']).toBeCloseTo(frameWidthMm(690, s, 4), 9)
    }
  })

  it('follows the tuning system, as the places of the same fingers do: a cello’s extension is wider by the ring', () => {
    // 1 on E♭, 256:243 above D; 4 on G, 4:3 above it: both published (Pythagorean limma, fourth)
    const rung = firstPositionWidthMm(strung('cello', 690), frameOf('cello', 'extended'))
    expect(rung).toBeCloseTo(placeOfRatio(690, 4 / 3) - placeOfRatio(690, 256 / 243), 6)
    expect(rung - widthOf('cello', 'extended', 690)).toBeGreaterThan(3)
  })

  it('is that of the widest string where strings differ, whatever moves their places', () => {
    const uneven = strung('violin', 328, fifths, {
      lengthsMm: [326, 328, 329, 331],
      pressing: { mode: 'typical', ...familyOf('violin').typicalPressing },
      finds: [{ stringIndex: 1, cents: 203.91, placeMm: 37.1, isTrusted: true }],
    })
    const frame = frameOf('violin', 'fourth')
    const widths = [0, 1, 2, 3].map((i) => frameOnString(uneven, i, INTERVALS.majorSecond, frame))
    expect(widths).toEqual([...widths].sort((a, b) => a - b))
    expect(widestFrameMm(uneven, INTERVALS.majorSecond, frame)).toBe(widths[3])
    expect(frameAlongNeck(uneven, 2)[1]!.widthsMm['fourth']).toBe(widths[2])
  })

  it('finds the octave of 1 and 4 on strings a fifth apart in the violin’s frame and in no frame of the cello', () => {
    const violin = octaveChecks(strung('violin', 328, equal), INTERVALS.majorSecond)
    expect(violin.map((c) => [c.semitones, c.frame?.id])).toEqual(Array(3).fill([5, 'fourth']))
    expect(violin[0]!.widthMm).toBeCloseTo(73, 0)
    expect(octaveChecks(strung('cello', 690, equal), INTERVALS.majorSecond)[0]).toMatchObject({
      frame: undefined,
    })
    expect(octaveChecks(strung('bass', 1050, equal), INTERVALS.majorSecond)[0]).toMatchObject({
      semitones: 7,
    })
    // A scordatura of a sixth between two strings asks only a third of the hand.
    const sixth = strung('cello', 690, equal, { tuning: ['C2', 'A2', 'D3', 'A3'].map(note) })
    const tuned = octaveChecks(sixth, INTERVALS.majorSecond)
    expect(tuned[0]).toMatchObject({ semitones: 3, frame: { id: 'closed' } })
  })
})

describe('a hand against a size', () => {
  const violin = familyOf('violin')

  it('goes from comfortable over reaching back and the pivot to too big', () => {
    const span = { comfortableSpanMm: 60, reachedSpanMm: 66 }
    expect([58, 60, 64, 66, 70, 73.3, 74].map((widthMm) => fitOfWidth(widthMm, span))).toEqual([
      'comfortable',
      'comfortable',
      'reach_back',
      'reach_back',
      'thumb_or_pivot',
      'thumb_or_pivot',
      'too_big',
    ])
  })

  it('says how many millimetres are over or lacking, frame by frame', () => {
    const { fit, frames } = fitOfInstrument(strung('cello', 690, equal), {
      comfortableSpanMm: 105,
      reachedSpanMm: 120,
    })
    expect(fit).toBe('comfortable')
    expect(frames.map((f) => [f.frame.id, f.fit])).toEqual([
      ['closed', 'comfortable'],
      ['extended', 'too_big'],
    ])
    expect(frames[0]!.spareMm).toBeCloseTo(105 - 98, 0)
  })

  it('finds the largest size held at rest and what the next one asks', () => {
    const span = { comfortableSpanMm: 64, reachedSpanMm: null }
    expect(comfortableSize(violin, equal, span)).toBe('1/2')
    expect(nextSize(violin, '1/2', equal)?.sizeId).toBe('3/4')
    expect(nextSize(violin, '1/2', equal)?.spanMm).toBeCloseTo(frameWidthMm(308, 2, 5), 9)
    expect(nextSize(violin, '4/4', equal)).toBeUndefined()
    expect(comfortableSize(violin, equal, { comfortableSpanMm: 31, reachedSpanMm: null })).toBeUndefined()
  })

  it('lends the largest size held at rest, one above that it holds somehow, one below', () => {
    const lent = (comfortableSpanMm: number, reachedSpanMm: number | null = null) =>
      sizesToLend(violin, equal, { comfortableSpanMm, reachedSpanMm })
    expect(lent(64)).toEqual(['3/4', '1/2', '1/4'])
    expect(lent(64, 60)).toEqual(['1/2', '1/4'])
    expect(lent(90)).toEqual(['4/4', '7/8'])
    expect(lent(31)).toEqual(['1/16', '1/32'])
  })

  it('refuses a span that no hand has, and names the slip that it probably was', () => {
    expect(handMeasureFault('span', 400)).toMatchObject({ code: 'hand_impossible', likely: undefined })
    expect(handMeasureFault('span', 7.3)).toMatchObject({ likely: { unit: 'cm', valueMm: 73 } })
    expect(handMeasureFault('span', 2.9)).toMatchObject({ likely: { unit: 'in' } })
    expect(handMeasureFault('span', 73)).toBeUndefined()
    expect(spanFault(73, 70)).toMatchObject({ code: 'reach_below_comfort' })
    expect(spanFault(73, 80)).toBeUndefined()
  })
})

describe('two fingertips a half step apart', () => {
  it('have room on a full-size cello, touch on a violin, overlap on a small one and high up', () => {
    expect(touching(frameWidthMm(690, 2, 1), 16).advice).toBe('room')
    expect(touching(frameWidthMm(328, 4, 1), 14).advice).toBe('touch')
    const half = touching(frameWidthMm(285, 4, 1), 14)
    expect(half.advice).toBe('roll')
    expect(half.overlapMm).toBeCloseTo(14 - half.stepMm, 12)
    expect(touching(frameWidthMm(328, 12, 1), 14).advice).toBe('lift')
    expect(touching(frameWidthMm(197, 14, 1), 12).advice).toBe('replace')
    expect(touching(11, 12)).toEqual({ stepMm: 11, gapMm: -1, overlapMm: 1, advice: 'roll' })
  })
})

describe('the line of Theil and Sen (Sen 1968), worked by hand', () => {
  /**
   * Seven points; the 21 slopes of their pairs in order are 1, 2½, 11/3, 26/7, 15/4, 23/6, 59/15, 63/16, 4, 4, 4, 4, 69/17,
   * 33/8, 29/7, 25/6, 46/11, 35/8, 5, 5, 6: the eleventh is the median. By Kendall's distribution for seven points
   * P(falling pairs < 4) = (1 + 6 + 20 + 49) / 5040 = 0.0151 and P(< 5) = 174 / 5040 = 0.0345, so the fourth slopes from
   * either end enclose it with 97.0 %, the fifth with 93.1 %.
   */
  const points = [
    [1, 9],
    [2, 15],
    [3, 19],
    [4, 20],
    [10, 45],
    [12, 55],
    [18, 78],
  ].map(([x, y]) => ({ x: x!, y: y! }))

  it('has the median slope, and the median of what it leaves', () => {
    const line = theilSen(points, 0.95)!
    expect(line.slope).toBe(4)
    // 5, 7, 7, 4, 5, 7, 6 are left: the fourth of them in order is 6.
    expect(line.intercept).toBe(6)
  })

  it('encloses it by the slopes of the right rank', () => {
    expect(theilSen(points, 0.95)!.slopeInterval).toEqual([26 / 7, 35 / 8])
    expect(theilSen(points, 0.97)!.slopeInterval?.[0]).toBeCloseTo(11 / 3, 12)
    const [low, high] = theilSen(points, 0.93)!.slopeInterval!
    expect(low).toBeCloseTo(15 / 4, 12)
    expect(high).toBeCloseTo(46 / 11, 12)
  })

  it('is not bent by one wrong point, and says nothing of one place', () => {
    const bent = points.map((p, i) => (i === 3 ? { ...p, y: 200 } : p))
    expect(theilSen(bent, 0.95)!.slope).toBeGreaterThan(3)
    expect(theilSen(bent, 0.95)!.slope).toBeLessThan(5)
    expect(theilSen([{ x: 1, y: 2 }], 0.8)).toBeUndefined()
    expect(
      theilSen(
        [
          { x: 1, y: 2 },
          { x: 1, y: 9 },
        ],
        0.8,
      ),
    ).toBeUndefined()
  })

  it('encloses the true slope as often as it says: counted over every order of five and six points', () => {
    for (const n of [5, 6])
      for (const confidence of [0.8, 0.9]) {
        let inside = 0
        const orders = permutations(Array.from({ length: n }, (_, i) => i))
        for (const order of orders) {
          // No growth at all, and errors in every order: the true slope is nought.
          const [low, high] = theilSen(
            order.map((rank, x) => ({ x, y: rank ** 1.5 })),
            confidence,
          )!.slopeInterval ?? [-Infinity, Infinity]
          if (low <= 0 && high >= 0) inside++
        }
        expect(inside / orders.length, `${n} points`).toBeGreaterThanOrEqual(confidence)
      }
  })

  it('gives four points an interval of four in five, and three none', () => {
    expect(theilSen(points.slice(0, 4), 0.8)!.slopeInterval).toBeDefined()
    expect(theilSen(points.slice(0, 3), 0.8)!.slopeInterval).toBeUndefined()
  })
})

function permutations(items: readonly number[]): number[][] {
  if (items.length < 2) return [[...items]]
  return items.flatMap((item, i) =>
    permutations([...items.slice(0, i), ...items.slice(i + 1)]).map((rest) => [item, ...rest]),
  )
}

it('finds no overlap where the step is as wide as the fingertip, to what can be read', () => {
  expect(touching(10.98, 11)).toMatchObject({ overlapMm: 0, advice: 'touch' })
  expect(touching(10.9, 11).overlapMm).toBeCloseTo(0.1, 9)
})

describe('how a hand grows', () => {
  const year = 365.25
  const history = [55, 57.2, 58.9, 61, 62.8].map((spanMm, i) => ({ day: (i * year) / 2, spanMm }))

  it('is measured once more where it shrank, shot up or stands alone; a wild one before does not count', () => {
    const year = 365.25
    const at = (years: number, spanMm: number) => ({ day: Math.round(years * year), spanMm })
    const of = (history: readonly ReturnType<typeof at>[], span: ReturnType<typeof at>) =>
      spanDoubt(history, span)?.code
    expect(of([], at(0, 40))).toBeUndefined()
    expect([50.1, 49.9].map((mm) => of([at(0, 55)], at(0.5, mm)))).toEqual([undefined, 'shrunk'])
    // Five of error and twelve a year.
    expect([65.9, 66.1].map((mm) => of([at(0, 55)], at(0.5, mm)))).toEqual([undefined, 'shot_up'])
    const steady = [at(0, 50), at(0.5, 51), at(1, 52), at(1.5, 53), at(2, 54)]
    expect(of(steady, at(5, 49.5))).toBe('alone')
    expect(of([...steady, at(2.5, 40)], at(3, 56))).toBeUndefined()
    // What was measured later says nothing of before.
    expect(of([at(2, 70)], at(1, 50))).toBeUndefined()
  })

  it('waits for four measurements over half a year', () => {
    expect(growthOf(history.slice(0, 3))).toEqual({ outcome: 'too_few', count: 3, needed: 4 })
    expect(growthOf([0, 1, 2, 3].map((day) => ({ day, spanMm: 60 + day })))).toMatchObject({
      outcome: 'too_close',
    })
    // Measured again on the same day, the last counts.
    expect(growthOf([...history.slice(0, 3), { day: 0, spanMm: 55.5 }])).toMatchObject({ count: 3 })
  })

  it('tells the growth a year with its interval, and when a span will probably be reached', () => {
    const growth = growthOf(history)
    if (growth.outcome !== 'line') throw new Error(growth.outcome)
    expect(growth.mmPerYear).toBeCloseTo(3.9, 1)
    const when = whenSpanIs(growth, 67, 2 * year)
    if (when.outcome !== 'on') throw new Error(when.outcome)
    expect(growth.spanOn(when.day)).toBeCloseTo(67, 9)
    expect(when.earliestDay).toBeLessThan(when.day)
    expect(when.latestDay).toBeGreaterThan(when.day)
    expect(whenSpanIs(growth, 60, 2 * year)).toEqual({ outcome: 'now' })
    expect(whenSpanIs(growth, 120, 2 * year)).toEqual({ outcome: 'far_off' })
  })

  it('says that a grown hand grows no more, and that it is too early where the growth is left open', () => {
    const grown = growthOf([80, 80.2, 79.9, 80.1, 79.8].map((spanMm, i) => ({ day: i * 100, spanMm })))
    expect(grown.outcome === 'line' && whenSpanIs(grown, 85, 400).outcome).toBe('not_growing')
    const open = growthOf([60, 62.4, 60.1, 62.2].map((spanMm, i) => ({ day: i * 90, spanMm })))
    expect(open.outcome === 'line' && open.mmPerYear).toBeGreaterThan(1)
    expect(open.outcome === 'line' && whenSpanIs(open, 65, 270)).toEqual({ outcome: 'too_early' })
  })

  it('leaves out a measurement that fits with none of the others, and says which', () => {
    const slipped = growthOf(history.map((m, i) => (i === 2 ? { ...m, spanMm: 85.9 } : m)))
    expect(slipped).toMatchObject({ outcome: 'line', wildDays: [history[2]!.day] })
    expect(slipped.outcome === 'line' && slipped.mmPerYear).toBeCloseTo(3.9, 1)
  })

  it.each([
    [6, 1],
    [8, 2],
    [12, 2],
  ])(
    'names a day within four-in-five bounds that hold four times in five: %i measurements over %i a',
    (n, years) => {
      const noise = randomNormal.source(seededSource(n))(0, 1)
      const due = (years + 0.9) * year
      let named = 0
      let held = 0
      for (let trial = 0; trial < 1500; trial++) {
        const spans = Array.from({ length: n }, (_, i) => {
          const day = (i * years * year) / (n - 1)
          return { day, spanMm: 55 + (4 * day) / year + noise() }
        })
        const growth = growthOf(spans)
        const when = growth.outcome === 'line' && whenSpanIs(growth, 55 + (4 * due) / year, years * year)
        if (!when || when.outcome !== 'on') continue
        named++
        if (when.earliestDay <= due && due <= when.latestDay) held++
      }
      expect(named).toBeGreaterThan(1000)
      expect(held / named).toBeGreaterThan(0.77)
      expect(held / named).toBeLessThan(0.83)
    },
  )
})
