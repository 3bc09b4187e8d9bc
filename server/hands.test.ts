import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { HandMeasurement, Mastery, Student } from '#contracts'
import { startHarness, type Client, type Harness } from './testing/harness'

let harness: Harness
let client: Client
let student: Student

beforeAll(async () => {
  harness = await startHarness()
  client = await harness.studio('Tide Studio')
})
// Every test its own student: none leans on what another left.
beforeEach(async () => {
  student = await client.make<Student>('POST', '/students', { name: 'Maren Holt', family: 'violin' })
})
afterAll(() => harness.close())

const measure = (body: object) => client.send('POST', `/students/${student.id}/hands`, body)

describe('a hand in the file', () => {
  it('is kept with its history, and what was not measured again stays known', async () => {
    const lengths = { 1: 58, 2: 64, 3: 60, 4: 47 }
    await measure({
      measuredOn: '2026-03-07',
      comfortableSpanMm: 58,
      reachedSpanMm: 64.5,
      fingerLengthsMm: lengths,
      fingertipWidthMm: 11,
      thumb: 'double_jointed',
    })
    const last = await measure({ measuredOn: '2026-11-28', comfortableSpanMm: 61.5 })
    expect(last.status).toBe(200)
    const history = await client.make<HandMeasurement[]>('GET', `/students/${student.id}/hands`)
    expect(history.map((h) => h.comfortableSpanMm)).toEqual([61.5, 58])
    const file = await client.make<Student>('GET', `/students/${student.id}`)
    expect(file.hand).toMatchObject({
      measuredOn: '2026-11-28',
      comfortableSpanMm: 61.5,
      reachedSpanMm: null,
      fingerLengthsMm: lengths,
      fingertipWidthMm: 11,
      thumb: 'double_jointed',
    })
    const again = await measure({
      measuredOn: '2026-11-28',
      comfortableSpanMm: 61.5,
      fingerLengthsMm: { 3: 61 },
    })
    const { hand } = await client.make<Student>('GET', `/students/${student.id}`)
    expect(hand?.fingerLengthsMm).toEqual({ ...lengths, 3: 61 })
    await client.make('DELETE', `/hands/${(again.body as HandMeasurement).id}`)
  })

  it('counts the day it was measured on, not the day it was written down', async () => {
    await measure({ measuredOn: '2026-11-28', comfortableSpanMm: 61.5 })
    await measure({ measuredOn: '2025-09-06', comfortableSpanMm: 55 })
    const file = await client.make<Student>('GET', `/students/${student.id}`)
    expect(file.hand?.comfortableSpanMm).toBe(61.5)
  })

  it('goes back to what was measured before when a measurement is taken out, and comes back', async () => {
    await measure({ measuredOn: '2026-03-07', comfortableSpanMm: 58 })
    await measure({ measuredOn: '2026-11-28', comfortableSpanMm: 61.5 })
    const [newest] = await client.make<HandMeasurement[]>('GET', `/students/${student.id}/hands`)
    await client.make('DELETE', `/hands/${newest!.id}`)
    expect((await client.make<Student>('GET', `/students/${student.id}`)).hand?.comfortableSpanMm).toBe(58)
    await client.make('POST', `/hands/${newest!.id}/restore`)
    expect((await client.make<Student>('GET', `/students/${student.id}`)).hand?.comfortableSpanMm).toBe(61.5)
  })

  it.each([
    [{ comfortableSpanMm: 400 }, 'comfortableSpanMm', '30 to 190'],
    [{ comfortableSpanMm: 7.1 }, 'comfortableSpanMm', 'in mm'],
    [{ comfortableSpanMm: 70, reachedSpanMm: 60 }, 'reachedSpanMm', 'measure both again'],
    [{ comfortableSpanMm: 70, fingertipWidthMm: 40 }, 'fingertipWidthMm', '5 to 25'],
  ])('refuses %j and says what to give', async (body, path, words) => {
    const reply = await measure({ measuredOn: '2026-11-28', ...body })
    expect(reply.status).toBe(422)
    expect(reply.problem.fields?.[0]).toMatchObject({
      path,
      message: expect.stringContaining(words) as string,
    })
  })

  it('keeps a measurement once, however often it is sent', async () => {
    const body = { measuredOn: '2026-10-03', comfortableSpanMm: 60 }
    const key = 'the-same-measurement'
    const before = (await client.make<HandMeasurement[]>('GET', `/students/${student.id}/hands`)).length
    for (let i = 0; i < 3; i++) await client.send('POST', `/students/${student.id}/hands`, body, { key })
    expect((await client.make<HandMeasurement[]>('GET', `/students/${student.id}/hands`)).length).toBe(
      before + 1,
    )
  })
})

describe('mastery', () => {
  const path = () => `/students/${student.id}/mastery`
  const mark = (kind: string, item: string, state: string) =>
    client.send('POST', path(), { marks: [{ kind, item, state }] })

  it('is the teacher’s last word on each pattern and position', async () => {
    await mark('pattern', 'fourth/1234/212', 'learning')
    await mark('position', 'first', 'learning')
    await mark('pattern', 'fourth/1234/212', 'secure')
    const now = await client.make<Mastery[]>('GET', path())
    expect(now.map(({ kind, item, state }) => [kind, item, state])).toEqual([
      ['pattern', 'fourth/1234/212', 'secure'],
      ['position', 'first', 'learning'],
    ])
  })

  it('knows only what the student’s family has', async () => {
    for (const [kind, item] of [
      ['pattern', 'closed/134/21'],
      ['position', 'semitone_4'],
    ] as const) {
      const reply = await mark(kind, item, 'secure')
      expect(reply.status).toBe(422)
      expect(reply.problem.fields?.[0]?.message).toContain('violin')
    }
    const several = await client.send('POST', path(), {
      marks: [
        { kind: 'pattern', item: 'fourth/1234/122', state: 'secure' },
        { kind: 'pattern', item: 'nothing', state: 'secure' },
      ],
    })
    expect(several.problem.fields?.[0]?.path).toBe('marks.1.item')
    expect(JSON.stringify(await client.make('GET', path()))).not.toContain('fourth/1234/122')
  })
})
