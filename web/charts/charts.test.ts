import fc from 'fast-check'
import { scaleLinear, scaleUtc } from 'd3-scale'
import { describe, expect, it } from 'vitest'
import { growthOf, dayNumber, noteName } from '#core'
import type { Check, HandMeasurement, TapeEvent } from '#contracts'
import { landed, shaped, strung } from '../../core/testing'
import TapeTimeline from '../features/log/TapeTimeline.vue'
import GrowthChart from '../features/students/GrowthChart.vue'
import LandingChart from '../features/students/LandingChart.vue'
import { mounted } from '../mounting'
import { anchorWithin, dateTicks } from './chart'
import ChartFrame from './ChartFrame.vue'
import { keptApart } from './keptApart'

const number = (element: Element | null | undefined, name: string) => Number(element?.getAttribute(name))
const all = (selector: string) => [...document.querySelectorAll(selector)]
const texts = () => all('svg text').map((text) => text.textContent?.trim())

describe('the frame of a chart', () => {
  const frame = () =>
    mounted(ChartFrame, {
      caption: 'Cents off the place',
      label: 'three landings',
      height: 200,
      margins: { top: 10, right: 20, bottom: 30, left: 40 },
      xScale: (range: [number, number]) => scaleLinear([0, 10], range),
      yScale: (range: [number, number]) => scaleLinear([-20, 20], range),
      xTicks: (x: (at: number) => number) => [0, 10].map((at) => ({ at: x(at), label: `at ${at}` })),
      yName: (cents: number) => `${cents} c`,
      hasZero: true,
    })

  it('has a caption, a name for who does not see it, and a ruled line for each value, nought its own', async () => {
    const { text, named } = await frame()
    expect(text()).toContain('Cents off the place')
    expect(named('three landings').getAttribute('role')).toBe('img')
    expect(texts()).toEqual(['-20 c', '-10 c', '0 c', '10 c', '20 c', 'at 0', 'at 10'])
    expect(all('.grid')).toHaveLength(4)
    expect(all('.zero')).toHaveLength(1)
  })

  it('lays its area within the margins, the largest value on top', async () => {
    await frame()
    const lines = all('.grid, .zero')
    expect([number(lines[0], 'x1'), number(lines[0], 'x2')]).toEqual([40, 280])
    expect(lines.map((line) => number(line, 'y1'))).toEqual([170, 130, 90, 50, 10])
  })
})

it('names as many dates as have room', () => {
  const x = scaleUtc([new Date('2026-01-01'), new Date('2026-12-31')], [0, 600])
  const [few, many] = [240, 900].map((width) => dateTicks(x, width, '%b', 110))
  expect(many!.length).toBeGreaterThan(few!.length)
  expect(many!.map((tick) => tick.label)).toContain('Mar')
  expect(many!.every((tick) => tick.at >= 0 && tick.at <= 600)).toBe(true)
})

it('keeps a word within the chart at either end', () => {
  expect([3, 40, 560, 592].map((at) => anchorWithin(at, 0, 600))).toEqual([
    'start',
    'middle',
    'middle',
    'end',
  ])
})

it('keeps labels apart in their order, and leaves those alone that do not touch', () => {
  const heights = fc.array(fc.double({ min: 0, max: 300, noNaN: true }), { maxLength: 8 })
  fc.assert(
    fc.property(heights, (ys) => {
      const kept = keptApart(
        ys.map((labelY, id) => ({ id, labelY })),
        15,
      )
      kept.forEach((one, i) => {
        expect(one.labelY).toBeGreaterThanOrEqual(ys[one.id]!)
        if (i > 0) expect(one.labelY - kept[i - 1]!.labelY).toBeGreaterThanOrEqual(15 - 1e-9)
      })
    }),
    { seed: 1 },
  )
  const apart = [10, 40, 90].map((labelY) => ({ labelY }))
  expect(keptApart(apart, 15)).toEqual(apart)
})

describe('what is drawn in it', () => {
  const take = { stringing: strung('violin', 328), exercise: shaped('violin') }
  const check = (takenAt: string, first: number, fourth: number) =>
    ({
      takenAt,
      landings: landed(take, [
        [1, first],
        [4, fourth],
      ]).map((landing) => ({ ...landing, note: noteName(landing.note) })),
    }) as unknown as Check

  it('is each finger over time, sharp above flat, its number at the end of its line', async () => {
    const checks = [check('2026-11-07T09:00:00Z', 0, -30), check('2026-11-21T09:00:00Z', 2, -10)]
    await mounted(LandingChart, { checks, toleranceCents: 15 })
    const [first, fourth] = all('.series')
    const heights = (series: Element | undefined) =>
      [...series!.querySelectorAll('circle')].map((circle) => number(circle, 'cy'))
    expect(heights(fourth)[0]).toBeGreaterThan(heights(first)[0]!)
    expect(heights(fourth)[1]).toBeLessThan(heights(fourth)[0]!)
    expect(all('.series .finger').map((text) => text.textContent?.trim())).toEqual(['1', '4'])
    // told apart without colour
    expect(new Set(all('.series path').map((path) => path.getAttribute('stroke-dasharray'))).size).toBe(2)
    const band = document.querySelector('.band')
    const zero = number(document.querySelector('.zero'), 'y1')
    expect(number(band, 'y') + number(band, 'height') / 2).toBeCloseTo(zero, 6)
  })

  it('is the span over time with the line that grows through it, and what the next size asks for', async () => {
    const history = [58, 60, 62, 64].map((comfortableSpanMm, i) => ({
      id: String(i),
      measuredOn: `202${3 + i}-11-07`,
      comfortableSpanMm,
      reachedSpanMm: i === 3 ? 70 : null,
    })) as unknown as HandMeasurement[]
    const growth = growthOf(
      history.map((m) => ({ day: dayNumber(m.measuredOn), spanMm: m.comfortableSpanMm })),
    )
    await mounted(GrowthChart, { history, growth, wantedMm: 68.4, wantedName: 'the ¾' })
    const spans = all('.span').map((circle) => [number(circle, 'cx'), number(circle, 'cy')] as const)
    expect(spans.every(([x, y], i) => i === 0 || (x > spans[i - 1]![0] && y < spans[i - 1]![1]))).toBe(true)
    const trend = document.querySelector('.trend')
    // two millimetres a year, exactly: the line meets the first and the last measurement
    expect(number(trend, 'y1')).toBeCloseTo(spans[0]![1], 0)
    expect(number(trend, 'y2')).toBeCloseTo(spans[3]![1], 0)
    expect(all('.reach')).toHaveLength(1)
    expect(texts()).toContain('the ¾')
  })

  it('is the life of each tape by its name, creeping towards the bridge further down', async () => {
    const event = (on: string, kind: TapeEvent['kind'], markId: string | null, placeMm: number | null) =>
      ({ id: on, on, kind, markId, placeMm }) as TapeEvent
    const events = [
      event('2026-01-03', 'laid', '1.2', 31.6),
      event('2026-06-06', 'crept', '1.2', 33),
      event('2026-09-05', 'bridge_changed', null, null),
    ]
    await mounted(TapeTimeline, { events, family: 'violin', today: '2026-11-28' })
    expect(texts()).toEqual(expect.arrayContaining(['33.0', '1', 'Bridge changed']))
    expect(document.querySelector('svg')?.getAttribute('aria-label')).toContain('1 tape, 3 notes in its log')
  })
})
