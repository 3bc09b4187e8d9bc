import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Check, Plan, PracticeEntry, Student } from '#contracts'
import { checkDraft, startHarness, weekPlan, type Client, type Harness } from './testing/harness'

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
/** What a meter shows of 1 to 4 on the A string: the whole hand too far up, and where it belongs. */
const UP = [40, 46, 40, 48]
const RIGHT = [4, 8, -2, 2]
const DONE = { exerciseId: 'shake_out', on: '2026-11-28', isDone: true }

const ROCK = {
  id: 'own-rock',
  name: 'Rocking boat',
  how: 'Rock the hand.',
  part: 'hold',
  families: ['violin'],
  minutes: 3,
  notes: 'D4 E F#/2',
  writtenFor: 'violin',
}

describe('what followed an exercise', () => {
  afterEach(() => void (harness.clock = new Date('2026-11-28T09:00:00.000Z')))

  it('is counted from plans, logs and later checks, page by page, and of no other studio', async () => {
    harness.clock = new Date('2026-12-05T10:00:00.000Z')
    const owner = await harness.studio('Gull Studio')
    const { student: own, instrument } = await owner.player('Maren Holt')
    const post = <T>(path: string, body: object) => owner.make<T>('POST', `/students/${own.id}/${path}`, body)
    // The hand is told too far up, then it is not.
    const check = (day: string, cents: readonly number[]) => {
      const once = checkDraft(instrument.id, cents)
      const readings = [once, once, once, once].flatMap((one) => one.readings)
      return post<Check>('checks', { ...once, readings, takenAt: `${day}T09:00:00.000Z` })
    }
    const { verdict } = await check('2026-11-28', UP)
    const finding = 'findings' in verdict && verdict.findings[0]
    if (!finding) throw new Error(verdict?.outcome)
    const card = { exerciseId: 'one_finger', on: '2026-11-28', minutes: 2, isFixed: false }
    const reason = { code: 'finding', finding, on: '2026-11-28' }
    await post('plans', weekPlan({ cards: [{ ...card, reason }] }))
    const counts = (from: Client, query = '') =>
      from.make<{ total: number; counts: object[] }>('GET', `/practice/mends${query}`)
    const days = ['2026-11-29', '2026-11-30', '2026-12-01']
    const entries = days.map((on) => ({ ...DONE, exerciseId: 'one_finger', on }))
    await post('practice', { entries })
    expect(await counts(owner)).toEqual({ total: 1, counts: [] })
    await check('2026-12-05', RIGHT)
    expect(await counts(owner)).toEqual({
      total: 1,
      counts: [{ exerciseId: 'one_finger', reason: finding.code, tried: 1, mended: 1 }],
    })
    expect(await counts(owner, '?offset=1')).toMatchObject({ counts: [] })
    expect(await counts(await harness.studio('Shore Studio'))).toEqual({ total: 0, counts: [] })
  })
})

describe('an exercise of the studio’s own', () => {
  let owner: Client
  const keep = async (exercises: object[]) => {
    const { studio } = await owner.make<{ studio: { version: number } }>('GET', '/session')
    return owner.send('PATCH', '/studio', { version: studio.version, settings: { exercises } })
  }
  beforeAll(async () => {
    owner = await harness.studio('Boat Studio')
  })

  it('is given, said and taken off, and stays in the plans that have it; another studio has no such exercise', async () => {
    expect((await keep([ROCK])).status).toBe(200)
    const own = await owner.make<Student>('POST', '/students', { name: 'Maren Holt', family: 'violin' })
    const cello = await owner.make<Student>('POST', '/students', { name: 'Orla Venn', family: 'cello' })
    const [card] = weekPlan().cards
    const rock = weekPlan({ cards: [{ ...card, exerciseId: 'own-rock' }] })
    const { id } = await owner.make<Plan>('POST', `/students/${own.id}/plans`, rock)
    const entries = [{ ...DONE, exerciseId: 'own-rock', times: 4 }]
    await owner.make('POST', `/students/${own.id}/practice`, { entries })
    await keep([{ ...ROCK, isOffered: false }])
    expect(await owner.make<Plan[]>('GET', `/students/${own.id}/plans`)).toMatchObject([
      { id, cards: [{ exerciseId: 'own-rock' }] },
    ])
    for (const [who, studentId, words] of [
      [owner, cello.id, 'The cello has no such exercise'],
      [client, student.id, 'The studio has no such exercise'],
    ] as const) {
      const family = who === owner ? 'cello' : 'violin'
      const reply = await who.send('POST', `/students/${studentId}/plans`, { ...rock, family })
      expect(reply.problem.fields?.[0]?.message).toContain(words)
    }
    const said = await say({ exerciseId: 'own-rock' })
    expect(said.problem.fields?.[0]?.path).toBe('entries.0.exerciseId')
  })

  it.each([
    [{ notes: 'D4 E H' }, 'notes', 'by their letters'],
    [{ notes: 'D4 F3' }, 'notes', 'No hand on a violin plays F3'],
    [{ notes: 'D4 G3/3' }, 'notes', 'plays G3 as it is written'],
    [{ minutes: 0 }, 'minutes', 'a minute a day or more'],
    [{ id: 'rock' }, 'id', 'own-'],
    [{ how: ' ' }, 'how', 'how it is done'],
    [{ families: [] }, 'families', 'at least one family'],
  ])('is refused with %j, and nothing is lost', async (more, field, words) => {
    const reply = await keep([{ ...ROCK, ...more }])
    expect(reply.status).toBe(422)
    const fault = reply.problem.fields?.find(({ path }) => path.endsWith(field))
    expect(fault?.message).toContain(words)
  })
})

describe('the edges of an exercise of one’s own', () => {
  const many = (n: number) => Array.from({ length: n }, (_, i) => ({ ...ROCK, id: `own-rock-${i}` }))
  it.each<[what: string, most: object[], over: object[]]>([
    ['a name', [{ ...ROCK, name: 'x'.repeat(40) }], [{ ...ROCK, name: 'x'.repeat(41) }]],
    ['how', [{ ...ROCK, how: 'x'.repeat(400) }], [{ ...ROCK, how: 'x'.repeat(401) }]],
    ['what to stop at', [{ ...ROCK, stop: 'x'.repeat(160) }], [{ ...ROCK, stop: 'x'.repeat(161) }]],
    ['minutes', [{ ...ROCK, minutes: 60 }], [{ ...ROCK, minutes: 61 }]],
    ['times', [{ ...ROCK, times: 200 }], [{ ...ROCK, times: 201 }]],
    ['the least age', [{ ...ROCK, fromAge: 3 }], [{ ...ROCK, fromAge: 2 }]],
    ['the highest age', [{ ...ROCK, fromAge: 20 }], [{ ...ROCK, fromAge: 21 }]],
    ['notes', [{ ...ROCK, notes: 'D4 '.repeat(64) }], [{ ...ROCK, notes: 'D4 '.repeat(65) }]],
    ['exercises', many(60), many(61)],
    ['ids', many(1), [ROCK, ROCK]],
  ])('are kept to: %s', async (_, most, over) => {
    const owner = await harness.studio('Edge Studio')
    const keep = async (exercises: object[]) => {
      const { version } = await owner.make<{ version: number }>('GET', '/studio')
      return (await owner.send('PATCH', '/studio', { version, settings: { exercises } })).status
    }
    expect([await keep(most), await keep(over)]).toEqual([200, 422])
  })
})

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
  })

  it('is refused of a day that has not come, with all that was said beside it', async () => {
    const reply = await say({}, { on: '2099-01-01' })
    expect(reply.problem.fields?.[0]).toMatchObject({
      path: 'entries.1.on',
      message: expect.stringContaining('not come yet') as string,
    })
    expect(await client.make('GET', `/students/${student.id}/practice`)).toEqual([])
  })
})

describe('a class', () => {
  type Class = { total: number; rows: { student: Student; plan: Plan; done: PracticeEntry[] }[] }
  const classOf = (query = '') =>
    client.make<Class>('GET', `/practice?from=2026-11-15&to=2026-11-28&limit=200${query}`)
  const rowsOf = async (query = '') =>
    (await classOf(query)).rows.filter(({ student: { id } }) => id === student.id)

  it('is who has a plan, with the one that was given last and what was done since it began', async () => {
    await give({ startsOn: '2026-11-21', cards: [] })
    const older = (await give()).body as Plan
    await give({ after: older.id, minutesADay: 20 })
    await say({ on: '2026-11-27' }, { minutes: 5 })
    const [row] = await rowsOf()
    expect(row?.plan).toMatchObject({ startsOn: '2026-11-28', minutesADay: 20 })
    expect(row?.done.map(({ on }) => on)).toEqual(['2026-11-28'])
    expect(await rowsOf('&family=cello')).toEqual([])
    expect(await rowsOf('&family=violin')).toHaveLength(1)
    await client.make('DELETE', `/students/${student.id}`)
    expect(await rowsOf()).toEqual([])
  })

  it('is read page by page, by name', async () => {
    for (const name of ['Bryn Ammon', 'Ada Ammon']) {
      const { id } = await client.make<Student>('POST', '/students', { name, family: 'viola' })
      await client.send('POST', `/students/${id}/plans`, weekPlan({ family: 'viola' }))
    }
    const page = (offset: number) =>
      client.make<Class>(
        'GET',
        `/practice?from=2026-11-15&to=2026-11-28&family=viola&limit=1&offset=${offset}`,
      )
    const [first, second] = [await page(0), await page(1)]
    expect([first.total, first.rows[0]?.student.name, second.rows[0]?.student.name]).toEqual([
      2,
      'Ada Ammon',
      'Bryn Ammon',
    ])
  })

  it.each([
    ['from=2026-11-28&to=2026-11-01', 'swap them'],
    ['from=2026-10-27&to=2026-11-28', '31 days at once'],
  ])('is not read for %s, and says what to do', async (days, words) => {
    const reply = await client.send('GET', `/practice?${days}`)
    expect(reply.problem.fields?.[0]).toMatchObject({
      path: 'to',
      message: expect.stringContaining(words) as string,
    })
    expect((await client.send('GET', '/practice?from=2026-10-28&to=2026-11-28')).status).toBe(200)
  })
})
