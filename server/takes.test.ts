import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { note, placeOfNote, readSnapshot, stringingOfInstrument } from '#core'
import type { Check, Instrument, Student } from '#contracts'
import { openDatabase } from './db/database'
import { checkDraft, startHarness, type Client, type Harness } from './testing/harness'

let harness: Harness
let client: Client
let student: Student
let instrument: Instrument
const statements: string[] = []
beforeAll(async () => {
  const onStatement = (sql: string) => void statements.push(sql)
  harness = await startHarness({
    database: openDatabase(process.env['DATABASE_URL'] ?? '', { onStatement }),
    // Who looked is written a moment after the answer, and so into another’s count.
    seen: { saw: () => Promise.resolve(), waiting: () => 0, flush: () => Promise.resolve() },
  })
})
afterAll(() => harness.close())
beforeEach(async () => {
  client = await harness.studio('Take Studio')
  ;({ student, instrument } = await client.player('Maren Lisle'))
})

const kept = () => client.make<Instrument>('GET', `/instruments/${instrument.id}`)
const take = (cents?: readonly number[]) =>
  client.make<Check>('POST', `/students/${student.id}/checks`, checkDraft(instrument.id, cents))
const ring = (placeMm: number) =>
  client.make('POST', `/instruments/${instrument.id}/ring-finds`, {
    string: 'A4',
    note: 'B4',
    system: 'fifths',
    placeMm,
    foundOn: '2026-11-28',
  })

/** Uneven, pressed and rung. */
async function stringIt(): Promise<Instrument> {
  const { version } = await kept()
  await client.make('PATCH', `/instruments/${instrument.id}`, {
    version,
    pressing: { mode: 'measured', nutHeightMm: 0.5, endHeightMm: 4, material: 'synthetic' },
  })
  await client.make('POST', `/instruments/${instrument.id}/measurements`, {
    strings: ['286', '285.3', '284.6', '284'],
    measuredOn: '2026-11-28',
  })
  await ring(32.9)
  return kept()
}

describe('an instrument', () => {
  it('carries what its places follow from, and loses its rings with its bridge', async () => {
    const strung = await stringIt()
    expect(strung.ringFinds).toMatchObject([
      { string: 'A4', note: 'B4', placeMm: 32.9, by: 'Teacher of Take Studio' },
    ])
    const changed = await client.make<Instrument>('POST', `/instruments/${instrument.id}/tape-events`, {
      kind: 'bridge_changed',
      on: '2026-11-29',
    })
    expect(changed.ringFinds).toEqual([])
    const { instrument: lent } = await client.make<Student>('GET', `/students/${student.id}`)
    expect(lent).toEqual(changed)
  })

  it('is taped, checked and seen to creep by the same places', async () => {
    const strung = await stringIt()
    const places = stringingOfInstrument(strung, 'fifths')
    const { tapes } = await client.make<Instrument>('POST', `/instruments/${instrument.id}/tape-sets`, {
      schoolId: 'first',
      system: 'fifths',
      tapeWidthMm: 3,
      laidOn: '2026-11-28',
    })
    const wanted = [0, 1, 2, 3].map((i) => placeOfNote(places, i, note(['A3', 'E4', 'B4', 'F♯5'][i]!)))
    expect(tapes[0]!.placeMm).toBeGreaterThan(Math.min(...wanted))
    expect(tapes[0]!.placeMm).toBeLessThan(Math.max(...wanted))
    // An ideal string would have it elsewhere.
    expect(Math.abs(tapes[0]!.placeMm - 285 / 9)).toBeGreaterThan(0.3)
    // A meter that shows what it should: the finger stands exactly where that tape's string wants it.
    const check = await take([3.91])
    expect(check.landings[0]!.placeMm).toBeCloseTo(wanted[2]!, 2)
  })
})

describe('a check', () => {
  it('keeps the strings it was judged by: nothing in it changes when student and instrument do', async () => {
    await stringIt()
    const check = await take()
    expect(check.stringing).toMatchObject({ family: 'violin', lengthsMm: [286, 285.3, 284.6, 284] })
    expect(check.stringing?.calibration?.nutOffsetMm).not.toBe(0)
    const read = readSnapshot(check.stringing!)
    expect(read.ok && placeOfNote(read.stringing, 2, note('B4'))).toBeCloseTo(
      placeOfNote(stringingOfInstrument(await kept(), 'fifths'), 2, note('B4')),
      12,
    )

    const { version } = await client.make<Student>('GET', `/students/${student.id}`)
    await client.make('PATCH', `/students/${student.id}`, { version, family: 'bass' })
    await client.make('PATCH', `/instruments/${instrument.id}`, {
      version: (await kept()).version,
      tuning: ['C3', 'G3', 'D4', 'A4'],
    })
    await client.make('POST', `/instruments/${instrument.id}/tape-events`, {
      kind: 'bridge_changed',
      on: '2026-11-29',
    })
    expect(await client.make<Check[]>('GET', `/students/${student.id}/checks`)).toEqual([check])
    const file = await client.make<Student>('GET', `/students/${student.id}`)
    expect(file.lastCheck).toMatchObject({
      exercise: { kind: 'shape', string: 'A4', shapeId: 'first' },
      verdict: check.verdict,
    })
  })

  it('knows when each note was heard, where somebody held a clock', async () => {
    const draft = {
      ...checkDraft(instrument.id),
      readings: [
        { finger: 1, shownCents: 4, atMs: 250 },
        { finger: 2, shownCents: 8 },
      ],
    }
    const check = await client.make<Check>('POST', `/students/${student.id}/checks`, draft)
    expect(check.landings.map((l) => l.atMs)).toEqual([250, null])
    const early = { ...draft, readings: [{ finger: 1, shownCents: 4, atMs: -1 }] }
    const reply = await client.send('POST', `/students/${student.id}/checks`, early)
    expect(reply.problem.fields?.[0]?.path).toBe('readings.0.atMs')
  })
})

describe('a student', () => {
  it('may follow a tuning system of their own, that can be read', async () => {
    const { version, system } = await client.make<Student>('GET', `/students/${student.id}`)
    expect(system).toBeNull()
    const change = (to: string | null) =>
      client.send('PATCH', `/students/${student.id}`, { version, system: to })
    expect((await change('scale:D:x:1,2')).problem.fields?.[0]?.path).toBe('system')
    expect((await change('just:D')).body).toMatchObject({ system: 'just:D' })
  })
})

describe('statements', () => {
  const counted = async (work: () => Promise<unknown>) => {
    statements.length = 0
    await work()
    return statements.length
  }

  it('are at most eight for a student’s file and thirteen for a check that is saved, that of the trail among them', async () => {
    await stringIt()
    await take()
    expect(await counted(() => client.make('GET', `/students/${student.id}`))).toBeLessThanOrEqual(8)
    expect(await counted(() => take())).toBeLessThanOrEqual(13)
  })

  it('are no more for a roster of ten than for one of one', async () => {
    const before = await counted(() => client.make('GET', '/students'))
    for (let i = 0; i < 3; i++) await client.player(`Another ${i}`)
    expect(await counted(() => client.make('GET', '/students'))).toBe(before)
  })
})
