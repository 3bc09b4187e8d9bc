import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Finger } from '#core'
import type { History, PastCheck, VerdictCounts as Counts } from '#contracts'
import { seriesOf, spansOf, usualPair } from '../features/history/series'
import { besideOf } from '../charts/beside'
import { sideBySide } from '../features/history/side-by-side'
import LandingChart from '../features/students/LandingChart.vue'
import VerdictCounts from '../features/studio/VerdictCounts.vue'
import { mounted, type Mounted } from '../mounting'
import {
  aCheck,
  A_STUDENT,
  AN_INSTRUMENT,
  fakeServer,
  freshStores,
  known,
  signedIn,
  type Sent,
} from '../testing'
import HistoryPage from './HistoryPage.vue'

const SHAPE = { kind: 'shape', string: 'A4', shapeId: 'first' } as const
const DECIDED = { reason: null, by: 'Hester Lowe', at: '2026-10-03T10:00:00.000Z' } as const

/** A check a week from the first of September on, its frame widening by a fifth of a millimetre each. */
function past(week: number, more: Partial<PastCheck> = {}): PastCheck {
  return {
    id: `check-${week}`,
    takenAt: new Date(Date.UTC(2026, 8, 1 + 7 * week, 9)).toISOString(),
    exercise: SHAPE,
    decision: null,
    instrumentId: AN_INSTRUMENT.id,
    lengthMm: 284.5,
    toleranceCents: 15,
    tapesCovered: false,
    isRejudged: false,
    summary: {
      count: 8,
      biasCents: -4,
      scatterCents: week % 2 === 0 ? 4 : null,
      frameMm: -4 + week / 5,
      driftCents: 0,
      fingers: [],
    },
    ...more,
  }
}
const WEEKS = Array.from({ length: 10 }, (_, week) => past(week))
const HISTORY: History = {
  checks: WEEKS,
  loans: [{ instrumentId: AN_INSTRUMENT.id, label: 'no. 7', fromDate: '2026-09-01', toDate: null }],
  tapes: [
    { instrumentId: AN_INSTRUMENT.id, markId: '1.2', on: '2026-09-01', kind: 'laid' },
    { instrumentId: AN_INSTRUMENT.id, markId: '1.2', on: '2026-10-20', kind: 'removed' },
  ],
}

const check = (id: string, lengthMm: number, heard: readonly (readonly [Finger, number])[]) =>
  aCheck(id, '2026-09-01T09:00:00.000Z', heard, { lengthMm })

describe('a history', () => {
  it('has of every measure the checks that know it, and a trend where there are enough', () => {
    expect(seriesOf('frame', WEEKS).points).toHaveLength(10)
    expect(seriesOf('scatter', WEEKS).points).toHaveLength(5)
    const { trend } = seriesOf('frame', WEEKS)
    if (trend.outcome !== 'line') throw new Error('no trend')
    // a fifth of a millimetre a week, and 30.44 / 7 weeks a month
    expect(trend.perMonth).toBeCloseTo(0.2 * (30.4375 / 7), 6)
    expect(seriesOf('scatter', WEEKS).trend).toEqual({ outcome: 'too_few', weeks: 5 })
    expect(seriesOf('frame', [past(0, { summary: null })]).points).toEqual([])
  })

  it('lays checks of one studio day beside one another, in their order', () => {
    const morning = past(3)
    const noon = { ...morning, id: 'noon', takenAt: morning.takenAt.replace('T09', 'T11') }
    const { points } = seriesOf('bias', [past(2), morning, noon])
    expect(besideOf(points)).toEqual([0, -0.5, 0.5])
  })

  it('does so in the chart of a student’s file too', async () => {
    const checks = ['2026-09-01T09:00:00Z', '2026-09-01T09:10:00Z', '2026-11-20T09:00:00Z'].map(
      (takenAt, i) => aCheck(`c${i}`, takenAt, [[1, 3]]),
    )
    const { wrapper } = await mounted(LandingChart, { checks, toleranceCents: 15 })
    const at = wrapper.findAll('circle').map((circle) => Number(circle.attributes('cx')))
    expect(at).toHaveLength(3)
    expect(at[1]! - at[0]!).toBeGreaterThan(6.9)
    wrapper.unmount()
  })

  it('lays instruments, tapes and what was worked on on the same time', () => {
    const checks = WEEKS.map((one, week) =>
      week === 2 || week === 3 || week === 6
        ? {
            ...one,
            decision: {
              says: 'accepted',
              sentence: null,
              workOn: week < 6 ? 'Elbow' : 'Frame',
              ...DECIDED,
            } as const,
          }
        : one,
    )
    const { instruments, tapes, works } = spansOf({ ...HISTORY, checks }, '2026-11-27', (id) => `tape ${id}`)
    const days = (spans: typeof tapes) =>
      spans.map(({ name, from, to }) => [
        name,
        from.toISOString().slice(0, 10),
        to.toISOString().slice(0, 10),
      ])
    expect(days(instruments)).toEqual([['no. 7', '2026-09-01', '2026-11-27']])
    expect(days(tapes)).toEqual([['tape 1.2', '2026-09-01', '2026-10-20']])
    expect(days(works)).toEqual([
      ['Elbow', '2026-09-15', '2026-10-13'],
      ['Frame', '2026-10-13', '2026-11-27'],
    ])
  })

  it('holds the last check against the oldest of the same exercise', () => {
    const other = past(0, { exercise: { kind: 'free' } })
    expect(usualPair([other, past(1), past(2)])).toEqual(['check-1', 'check-2'])
    expect(usualPair([other, past(1)])).toEqual(['check-0', 'check-1'])
    expect(usualPair([past(1), past(2, { summary: null })])).toBeUndefined()
  })

  it('shows two checks on one board, on the strings of the later, by their cents', () => {
    const both = sideBySide(
      check('a', 284.5, [
        [1, 3],
        [4, -30],
      ]),
      check('b', 308, [
        [1, 0],
        [4, -10],
      ]),
    )!
    expect(both.isMoved).toBe(true)
    const rows = both.rows.map(({ finger, earlier, later }) =>
      [finger, earlier?.meanCents, later?.meanCents].map((n) => Math.round(n!)),
    )
    expect(rows).toEqual([
      [1, 3, 0],
      [4, -30, -10],
    ])
    // B lies at a ninth of the string (9:8), on the longer one
    expect(both.before[0]!.targetMm).toBeCloseTo(308 / 9, 1)
    expect(both.before[1]!.meanMm).toBeLessThan(both.after[1]!.meanMm)
    expect(
      sideBySide({ ...check('a', 284.5, [[1, 3]]), stringing: null }, check('b', 308, [[1, 0]])),
    ).toBeUndefined()
  })
})

describe('the page of a history', () => {
  let page: Mounted
  let sent: Sent[]
  let history: History
  beforeEach(async () => {
    history = HISTORY
    sent = fakeServer(({ path }: Sent) => {
      if (path.includes('/history')) return { status: 200, body: history }
      if (/\/(plans|practice)$/.test(path)) return { status: 200, body: [] }
      const id = decodeURIComponent(/\/checks\/([^/?]+)/.exec(path)?.[1] ?? '')
      if (id)
        return {
          status: 200,
          body: check(id, 284.5, [
            [1, 3],
            [2, 4],
            [4, -30],
          ]),
        }
      return { status: 200, body: A_STUDENT }
    })
    freshStores()
    signedIn()
    known({ students: [A_STUDENT] })
    page = await mounted(HistoryPage, { studentId: A_STUDENT.id })
    await flushPromises()
  })
  afterEach(() => {
    page.wrapper.unmount()
    vi.unstubAllGlobals()
  })
  const asked = () =>
    sent.map(({ path }) => decodeURIComponent(path)).filter((path) => path.includes('/checks/check'))

  it('says each trend in words beside its chart, and walks the checks by the arrows', async () => {
    expect(page.text()).toContain('over time, 10 checks')
    expect(page.text()).toMatch(/Frame, mm.*\+0\.87 mm a month \(\+0\.\d\d to \+0\.\d\d\)/)
    expect(page.text()).toContain('Too few checks for a trend.')
    expect(asked().slice(-2)).toEqual(['/api/v1/checks/check-0', '/api/v1/checks/check-9'])
    await page.press('ArrowLeft')
    await flushPromises()
    expect(asked().slice(-1)).toEqual(['/api/v1/checks/check-8'])
    expect(page.text()).toMatch(/4 E.*−30/)
  })

  it('says once what a short history waits for, and draws no chart with nothing in it', async () => {
    history = {
      ...HISTORY,
      checks: WEEKS.slice(0, 2).map((one) => ({ ...one, summary: { ...one.summary!, driftCents: null } })),
    }
    page.wrapper.unmount()
    page = await mounted(HistoryPage, { studentId: A_STUDENT.id })
    await flushPromises()
    const said = page.text()
    expect(said.match(/trend/g)).toHaveLength(1)
    expect(said).toContain('A trend is drawn once 6 weeks have a check: so far 2 weeks.')
    expect(said).toContain('First to last waits for a check with six notes played in order.')
    expect(said).not.toContain('First to last, cents')
  })
})

describe('what was overruled', () => {
  it('is counted where tolerances are set, with what it says of them', async () => {
    const counts: Counts = [
      { toleranceCents: 10, told: 'frame', count: 9, accepted: 2, overruled: 4, tooStrict: 3 },
      { toleranceCents: 20, told: 'in_tune', count: 30, accepted: 0, overruled: 0, tooStrict: 0 },
    ]
    fakeServer(() => ({ status: 200, body: counts }))
    freshStores()
    const { text } = await mounted(VerdictCounts)
    await flushPromises()
    expect(text()).toMatch(/Frame wide or narrow\s?10\s?9\s?2\s?4/)
    expect(text()).not.toContain('In tune')
    expect(text()).toContain('Within 10 cents 3 verdicts were overruled as too strict.')
    vi.unstubAllGlobals()
  })
})
