import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { dayNumber, dayOf } from '#core'
import type { Plan, PlanDraft, PracticeEntry, PracticeSaid, Student } from '#contracts'
import { mounted, type Mounted } from '../mounting'
import { A_STUDENT, fakeServer, freshStores, known, signedIn, until, type Sent } from '../testing'
import { studioDay } from '../words/shown'
import PlanPage from './PlanPage.vue'

const TODAY = studioDay()
const day = (by: number) => dayOf(dayNumber(TODAY) + by)
const standing = {
  itemId: 'tension',
  answer: 'no',
  since: day(-9),
  seenOn: day(-9),
  measured: null,
  question: null,
}
const TENSE = {
  ...A_STUDENT,
  setup: { takenAt: `${day(-9)}T09:00:00.000Z`, stoppedAt: 'tension', standings: [standing] },
} as unknown as Student
/** Nothing is planned for a gate that stands open. */
const OPEN = ['fourth_finger', 'shifting'].map((gate) => ({ gate, item: 'gate', state: 'open' }))
const EVERY_DAY = [0, 1, 2, 3, 4, 5, 6]

const reason = { code: 'setup', itemId: 'tension', answer: 'no', on: day(-9) } as const
const planFrom = (startsOn: string, days: readonly number[]): Plan => ({
  id: `plan ${startsOn}`,
  studentId: A_STUDENT.id,
  startsOn,
  family: 'violin',
  instrumentId: null,
  minutesADay: 10,
  weekdays: EVERY_DAY,
  cards: days.map((by) => ({
    exerciseId: 'shake_out',
    on: dayOf(dayNumber(startsOn) + by),
    minutes: 5,
    reason,
    isFixed: false,
  })),
  pieces: ['Low Tide'],
  by: 'Hester Lowe',
  at: `${startsOn}T09:00:00.000Z`,
})

describe('the page of a week', () => {
  let page: Mounted
  let sent: Sent[]
  let plans: Plan[]
  let practice: PracticeEntry[]
  let isAway = false

  async function open(student: Student = TENSE) {
    freshStores()
    signedIn()
    known({ students: [student] })
    page = await mounted(PlanPage, { studentId: student.id })
    await flushPromises()
  }
  beforeEach(() => {
    localStorage.clear()
    plans = [planFrom(day(-7), [0, 1, 2])]
    practice = []
    isAway = false
    sent = fakeServer(({ method, path, body }) => {
      if (method === 'POST' && path.endsWith('/plans')) {
        const { after: _, ...draft } = body as PlanDraft
        const plan = {
          ...planFrom(draft.startsOn, []),
          ...draft,
          id: 'given',
          pieces: draft.pieces ?? [],
        }
        plans = [plan, ...plans]
        return { status: 200, body: plan }
      }
      if (method === 'POST' && path.endsWith('/practice')) {
        if (isAway) return { status: 503, body: { code: 'unavailable', status: 503, title: 'Away' } }
        for (const said of (body as { entries: PracticeSaid[] }).entries) {
          practice = practice.filter(({ on, exerciseId }) => on !== said.on || exerciseId !== said.exerciseId)
          if (said.isDone)
            practice.push({ ...said, studentId: A_STUDENT.id, by: '', at: '' } as PracticeEntry)
        }
        return { status: 200, body: practice }
      }
      if (path.endsWith('/gate-marks')) return { status: 200, body: OPEN }
      if (path.endsWith('/plans')) return { status: 200, body: plans }
      if (path.endsWith('/practice')) return { status: 200, body: practice }
      return { status: 200, body: [] }
    })
  })
  afterEach(() => {
    page.wrapper.unmount()
    vi.unstubAllGlobals()
  })
  const posted = (what: string) => sent.filter(({ method, path }) => method === 'POST' && path.endsWith(what))
  const given = () => posted('/plans').map(({ body }) => body as PlanDraft)
  const cards = () =>
    page.wrapper.findAll('.item').map((item) => `${item.get('.what').text()} ${item.get('.how').text()}`)

  it('begins from the last one’s minutes, days and pieces, from today on, and gives it by one key', async () => {
    await open()
    expect(cards().filter((text) => text.startsWith('Shake out'))).toHaveLength(7)
    expect(page.text()).toContain(`Tension: tense on`)
    await page.press('g')
    await until(() => expect(given()).toHaveLength(1))
    const [draft] = given()
    expect(draft).toMatchObject({
      startsOn: TODAY,
      minutesADay: 10,
      weekdays: EVERY_DAY,
      pieces: ['Low Tide'],
      after: null,
    })
    expect(draft!.cards).toHaveLength(14)
    await until(() => expect(page.named(/^Given/).hasAttribute('disabled')).toBe(true))
    await page.press('g')
    expect(given()).toHaveLength(1)
  })

  it('is changed by keys and undone step by step, and what was changed is there after a reload', async () => {
    await open()
    const before = cards()
    await page.press('X')
    expect(cards()).toHaveLength(7)
    await page.press('u')
    expect(cards()).toEqual(before)
    await page.press('+')
    expect(cards()[0]).toBe('Shake out 6')
    // Seven minutes are more than ten hold beside a piece of five.
    await page.press('k')
    expect(cards()[0]).toBe('Shake out set 6')
    await page.press('x')
    expect(cards().filter((text) => text.startsWith('Shake out'))).toHaveLength(6)
    page.wrapper.unmount()
    await open()
    expect(cards().filter((text) => text.startsWith('Shake out 6'))).toHaveLength(6)
  })

  it('asks about each day of the last plan from the first that nothing was said of, and sends only what was done', async () => {
    practice = [{ exerciseId: 'shake_out', on: day(-7), minutes: 5 } as PracticeEntry]
    await open()
    await page.press('n')
    expect(posted('/practice')).toHaveLength(0)
    await page.press('y')
    await until(() => expect(posted('/practice')).toHaveLength(1))
    expect(posted('/practice')[0]?.body).toEqual({
      entries: [{ exerciseId: 'shake_out', on: day(-5), isDone: true, minutes: 5 }],
    })
    await until(() => expect(page.text()).toContain('2 days practised, 10 minutes in all.'))
  })

  it('ticks a day at once, also while the server is away', async () => {
    isAway = true
    await open()
    await page.press('y')
    await page.press('n')
    await page.press('y')
    expect(page.text()).toContain('2 days practised, 10 minutes in all.')
    await until(() => expect(posted('/practice').length).toBeGreaterThan(0))
    expect(page.text()).toContain('2 days practised, 10 minutes in all.')
  })

  it('keeps what was changed here when somebody else has given the week, and gives it in that one’s place', async () => {
    await open()
    await page.press('X')
    plans = [{ ...planFrom(TODAY, [0]), id: 'theirs' }, ...plans]
    page.wrapper.unmount()
    await open()
    await page.press('g')
    await until(() => expect(given()).toHaveLength(1))
    expect(given()[0]).toMatchObject({ after: 'theirs' })
    expect(given()[0]!.cards.map(({ exerciseId }) => exerciseId)).toEqual(Array(7).fill('review_piece'))
  })

  it('keeps all of a given week but what is changed, and is given again as it was after an undo', async () => {
    const asked = { exerciseId: 'long_notes', minutes: 4, reason: { code: 'asked' }, isFixed: false } as const
    const there = planFrom(TODAY, [0, 1, 3])
    plans = [{ ...there, cards: [...there.cards, { ...asked, on: day(1) }, { ...asked, on: day(2) }] }]
    await open()
    const before = cards()
    expect(before).toEqual(['Shake out 5', 'Shake out 5', 'Long notes 4', 'Long notes 4', 'Shake out 5'])
    await page.press('+')
    expect(cards()).toEqual(before.map((text) => text.replace('Shake out 5', 'Shake out 6')))
    await page.press('x')
    expect(cards()).toEqual(['Shake out 6', 'Long notes 4', 'Long notes 4', 'Shake out 6'])
    await page.press('u')
    await page.press('u')
    expect(cards()).toEqual(before)
    expect(page.named(/^Given/).hasAttribute('disabled')).toBe(true)
    // Anew is from the file: what was added by hand is asked for no more.
    await page.press('r')
    expect(cards().filter((text) => text.startsWith('Long'))).toEqual([])
  })

  it('plans nothing while a pain is marked, and names it', async () => {
    plans = [planFrom(TODAY, [0, 1])]
    await open({ ...TENSE, pains: [{ id: 'p', place: 'left wrist' }] } as unknown as Student)
    expect(cards()).toEqual([])
    expect(page.text()).toContain('A pain is marked: nothing is planned before it is cleared.')
    for (const key of 'gp') await page.press(key)
    expect(given()).toEqual([])
    expect(document.querySelector('dialog[open]')).toBeNull()
  })
})
