import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Plan, PracticeEntry, Student } from '#contracts'
import { startHarness, weekPlan, type Client, type Harness } from './testing/harness'

let harness: Harness
let client: Client
let student: Student

beforeAll(async () => {
  harness = await startHarness()
  client = await harness.studio('Tide Studio')
})
beforeEach(async () => {
  student = await client.make<Student>('POST', '/students', { name: 'Maren Holt', family: 'violin' })
})
afterAll(() => harness.close())

const give = (more: object = {}) => client.send('POST', `/students/${student.id}/plans`, weekPlan(more))
const plans = () => client.make<Plan[]>('GET', `/students/${student.id}/plans`)
const say = (...entries: object[]) =>
  client.send('POST', `/students/${student.id}/practice`, {
    entries: entries.map((e) => ({ ...DONE, ...e })),
  })
const DONE = { exerciseId: 'shake_out', on: '2026-11-28', isDone: true }

describe('a plan in the file', () => {
  it('is kept as it was given, with its week, and the one given last counts', async () => {
    const first = (await give()).body as Plan
    const { after: _, ...planned } = weekPlan()
    expect(first).toMatchObject({ ...planned, pieces: [], studentId: student.id })
    await give({ after: first.id, minutesADay: 20, pieces: ['Ferry Steps'] })
    await give({ startsOn: '2026-11-21', cards: [] })
    expect((await plans()).map(({ startsOn, minutesADay }) => [startsOn, minutesADay])).toEqual([
      ['2026-11-28', 20],
      ['2026-11-21', 15],
    ])
    const all = await client.make<Plan[]>('GET', '/plans?from=2026-11-28&to=2026-11-28')
    expect(all.filter(({ studentId }) => studentId === student.id)).toHaveLength(1)
  })

  it('of two teachers who plan one week at once keeps the first, and shows it to the second', async () => {
    const [one, other] = await Promise.all([give(), give({ minutesADay: 25 })])
    expect([one.status, other.status].sort()).toEqual([200, 409])
    const late = one.status === 409 ? one : other
    expect(late.problem).toMatchObject({ code: 'changed_meanwhile', data: { studentId: student.id } })
    expect(late.problem.detail).toContain('meanwhile: look at it first')
    expect(await plans()).toHaveLength(1)
  })

  it('is taken out, and comes back', async () => {
    const { id } = (await give()).body as Plan
    await client.make('DELETE', `/plans/${id}`)
    expect(await plans()).toEqual([])
    await client.make('POST', `/plans/${id}/restore`)
    expect((await plans())[0]?.id).toBe(id)
  })

  const [card] = weekPlan().cards
  it.each([
    [{ cards: [{ ...card, on: '2026-12-05' }] }, 'cards.0.on', '2026-11-28 to 2026-12-04'],
    [{ cards: [card, card] }, 'cards.1', 'twice on one day'],
    [{ cards: [{ ...card, exerciseId: 'roll_the_hand' }] }, 'cards.0.exerciseId', 'leave it out'],
    [{ cards: [{ ...card, minutes: 0 }] }, 'cards.0.minutes', 'a minute or more'],
    [{ weekdays: [] }, 'weekdays', 'a day of practice'],
    [{ family: 'cello' }, 'family', 'plays the violin now'],
  ])('refuses %j and says what to do', async (more, path, words) => {
    const reply = await give(more)
    expect(reply.status).toBe(422)
    expect(reply.problem.fields?.[0]).toMatchObject({
      path,
      message: expect.stringContaining(words) as string,
    })
  })

  it('is refused where its instrument was lent on, and nothing is kept', async () => {
    const { student: player, instrument } = await client.player('Ivo Quill')
    await client.make('POST', `/students/${player.id}/loans`, { instrumentId: null, on: '2026-11-28' })
    const reply = await client.send(
      'POST',
      `/students/${player.id}/plans`,
      weekPlan({ instrumentId: instrument.id }),
    )
    expect(reply.problem).toMatchObject({
      code: 'taken_meanwhile',
      detail: expect.stringContaining('no longer has') as string,
    })
    expect(await client.make<Plan[]>('GET', `/students/${player.id}/plans`)).toEqual([])
  })
})

describe('what was practised', () => {
  it('is what was said last of an exercise and a day, and can be taken back', async () => {
    await say({ minutes: 5 }, { on: '2026-11-27', times: 10 })
    const said = (await say({ minutes: 7 }, { on: '2026-11-27', isDone: false })).body as PracticeEntry[]
    expect(said).toMatchObject([{ on: '2026-11-28', minutes: 7, times: null }])
    const days = await client.make<PracticeEntry[]>('GET', '/practice?from=2026-11-22&to=2026-11-28')
    expect(days.filter(({ studentId }) => studentId === student.id)).toMatchObject([{ minutes: 7 }])
  })

  it('is refused of a day that has not come, with all that was said beside it', async () => {
    const reply = await say({}, { on: '2099-01-01' })
    expect(reply.problem.fields?.[0]).toMatchObject({
      path: 'entries.1.on',
      message: expect.stringContaining('not come yet') as string,
    })
    expect(await client.make('GET', `/students/${student.id}/practice`)).toEqual([])
    const wrong = await client.send('GET', '/practice?from=2026-11-28&to=2026-11-01')
    expect(wrong.problem.fields?.[0]?.message).toContain('swap them')
  })
})
