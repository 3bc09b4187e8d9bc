import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Check, History, Instrument, Student, VerdictCounts } from '#contracts'
import { checkDraft, heardDraft, startHarness, type Client, type Harness } from './testing/harness'

let harness: Harness
let client: Client
let student: Student
let instrument: Instrument
beforeAll(async () => (harness = await startHarness()))
afterAll(() => harness.close())
beforeEach(async () => {
  client = await harness.studio('Verdict Studio')
  ;({ student, instrument } = await client.player('Tamsin Rook'))
})

type Reading = Readonly<Record<string, unknown>>
/** What an equal-tempered meter shows of the usual hand on A, right in pure fifths: 9:8, 81:64, 4:3 and 3:2 (published). */
const RIGHT = [4, 8, -2, 2]
const rounds = (times: number, off: (finger: number) => number): Reading[] =>
  Array.from({ length: times }, () =>
    RIGHT.map((shown, i) => ({ finger: i + 1, shownCents: shown + off(i + 1) })),
  ).flat()
const keep = (readings: readonly Reading[], more: object = {}) =>
  client.make<Check>('POST', `/students/${student.id}/checks`, {
    ...checkDraft(instrument.id),
    readings,
    ...more,
  })
const measure = (length: string) =>
  client.make<Instrument>('POST', `/instruments/${instrument.id}/measurements`, {
    length,
    measuredOn: '2026-11-29',
    keepAnyway: true,
  })
const NARROW = (finger: number) => (finger === 4 ? -36 : 1)
const read = (check: Check) => client.make<Check>('GET', `/checks/${check.id}`)

describe('readings', () => {
  it('may be millimetres by a ruler or what an eye saw, each as sure as it is', async () => {
    const { landings } = await keep([
      { finger: 1, offMm: 2 },
      { finger: 3, side: 'past' },
      { finger: 4, shownCents: 2 },
    ])
    expect(landings.map(({ source }) => source)).toEqual(['ruler', 'eye', 'meter'])
    const [ruled, seen, metered] = landings
    // 2 mm further up a half-size A string, whose B leaves 8/9 of 284.5 mm to sound: 1200 log2(252.9 / 250.9)
    expect(ruled!.cents).toBeCloseTo(1200 * Math.log2(252.889 / 250.889), 1)
    expect(seen!.cents).toBeGreaterThan(12)
    expect(seen!.sigmaCents).toBeGreaterThan(2 * metered!.sigmaCents)
  })

  it('of another pattern, and of too few notes, are kept with all that is said of them', async () => {
    const low = await keep(rounds(2, (finger) => (finger === 2 || finger === 3 ? -97 : 1)))
    expect((await read(low)).verdict).toMatchObject({
      outcome: 'other_exercise',
      finger: 2,
      with: [3],
      halfSteps: -1,
    })
    const few = await keep([14, 28, -24, -8].map((shownCents, i) => ({ finger: i + 1, shownCents })))
    const { verdict } = await read(few)
    expect(verdict.outcome).toBe('not_enough_notes')
    const { more, moreTo } = verdict as { more: number; moreTo: number }
    expect(moreTo).toBe(Math.ceil(2.5 * more))
  })

  it.each([
    [{ finger: 0, side: 'on' }, 'readings.0.finger', 'no place'],
    [{ finger: 1, side: 'on', offMm: 2 }, 'readings.0.shownCents', 'by a ruler'],
    [{ finger: 1 }, 'readings.0.shownCents', 'by a ruler'],
    [{ finger: 1, offMm: 300 }, 'readings.0.offMm', 'another note'],
  ])('%o is refused, and says why', async (reading, path, said) => {
    const { problem } = await client.send('POST', `/students/${student.id}/checks`, {
      ...checkDraft(instrument.id),
      readings: [reading],
    })
    expect(problem.fields?.[0]).toMatchObject({ path })
    expect(problem.fields?.[0]?.message).toContain(said)
  })
})

describe('what is heard beside where a finger lands', () => {
  it('is kept note by note, and told beside the verdict', async () => {
    const draft = heardDraft(instrument.id)
    const held = { wobbleCents: 9, brightnessDb: -3.5, lastsMs: 900 }
    const notes = Array.from({ length: 4 }, () => draft.heard.notes)
      .flat()
      .map((note, i) => ({ ...note, ...held, wobbleCents: 9 + (i % 3), atMs: 1000 * i }))
    const check = await client.make<Check>('POST', `/students/${student.id}/checks`, {
      ...draft,
      heard: { ...draft.heard, notes },
    })
    expect(check.landings[0]!.heard).toMatchObject({ brightnessDb: -3.5, wobbleCents: 9 })
    expect(check.landings[0]!.heard).not.toHaveProperty('vibratoTopCents')
    expect(await read(check)).toEqual(check)
    expect(check.verdict.beside).toEqual(
      expect.arrayContaining([expect.objectContaining({ code: 'wobble' }) as unknown]),
    )
  })
})

describe('a tape', () => {
  const lay = (placeMm: number) =>
    client.make('POST', `/instruments/${instrument.id}/tape-events`, {
      kind: 'laid',
      markId: '1.2',
      placeMm,
      on: '2026-11-20',
      reason: '',
      keepAnyway: true,
    })

  it('that lies wrong is blamed in place of the finger that follows it, unless it was covered', async () => {
    // B lies at a ninth of 284.5 mm: 31.6
    await lay(34.6)
    const off = (finger: number) => (finger === 1 ? 21 : 0)
    const { verdict, tapesMm } = await keep(rounds(3, off))
    expect(tapesMm).toEqual([34.6])
    expect(verdict).toMatchObject({ outcome: 'tape_misplaced', finger: 1, tapeMm: 34.6 })
    const covered = await keep(rounds(3, off), { tapesCovered: true })
    expect(covered.verdict.outcome).not.toBe('tape_misplaced')
    // An eye sees the tape: on it is as far off as the tape.
    const seen = await keep([{ finger: 1, side: 'on' }])
    expect(seen.landings[0]!.cents).toBeCloseTo(20.7, 0)
  })
})

describe('what a teacher says to a verdict', () => {
  it('is kept beside it, counted by kind and tolerance, and taken back', async () => {
    const [one, other] = [await keep(rounds(3, NARROW)), await keep(rounds(3, NARROW))]
    const decided = await client.make<Check>('PATCH', `/checks/${one.id}/decision`, {
      says: 'overruled',
      reason: 'too_strict',
      sentence: 'Her 4 is new.',
      workOn: 'Fourth finger laid out',
    })
    expect(decided.verdict).toEqual(one.verdict)
    expect(decided.decision).toMatchObject({
      says: 'overruled',
      reason: 'too_strict',
      by: 'Teacher of Verdict Studio',
    })
    await client.make('PATCH', `/checks/${other.id}/decision`, { says: 'accepted', reason: 'tape' })
    expect((await read(other)).decision).toMatchObject({ says: 'accepted', reason: null })
    // One of more than a year ago says nothing of how strict it is now.
    await keep(rounds(3, NARROW), { takenAt: '2025-11-14T09:00:00Z' })
    await keep(rounds(3, NARROW), { takenAt: '2025-12-12T09:00:00Z' })
    expect(await client.make<VerdictCounts>('GET', '/verdicts')).toEqual([
      { toleranceCents: 20, told: 'frame', count: 3, accepted: 1, overruled: 1, tooStrict: 1 },
    ])
    const stands = await client.make<Check>('DELETE', `/checks/${one.id}/decision`)
    expect(stands.decision).toBeNull()
    const file = await client.make<Student>('GET', `/students/${student.id}`)
    expect(file.lastCheck?.decision?.says).toBe('accepted')
  })

  it('names one thing, which stands through checks that say nothing of it, until another is named or it is mended', async () => {
    const standing = async () => {
      const file = await client.make<Student>('GET', `/students/${student.id}`)
      const [row] = (await client.roster()).rows.filter(({ id }) => id === student.id)
      expect(row?.workingOn).toEqual(file.workingOn)
      return file.workingOn?.workOn ?? null
    }
    const agree = (check: Check, workOn: string | null) =>
      client.make<Check>('PATCH', `/checks/${check.id}/decision`, { says: 'accepted', workOn })
    expect(await standing()).toBeNull()
    const first = await keep(rounds(3, NARROW), { takenAt: '2026-11-14T09:00:00Z' })
    await agree(first, 'Fourth finger laid out')
    expect(await standing()).toBe('Fourth finger laid out')
    // Too few notes, a hand in tune, and a verdict accepted without a thing of its own.
    await keep(rounds(3, NARROW).slice(0, 2), { takenAt: '2026-11-16T09:00:00Z' })
    const well = await keep(
      rounds(3, () => 0),
      { takenAt: '2026-11-18T09:00:00Z' },
    )
    await agree(well, null)
    expect(await standing()).toBe('Fourth finger laid out')
    const mend = (check: Check, isMended: boolean) =>
      client.send('PATCH', `/checks/${check.id}/work`, { isMended })
    expect((await mend(well, true)).status).toBe(200)
    expect(await standing()).toBe('Fourth finger laid out')
    await mend(first, true)
    expect(await standing()).toBeNull()
    expect((await read(first)).decision).toMatchObject({ workOn: 'Fourth finger laid out', isMended: true })
    await mend(first, false)
    expect(await standing()).toBe('Fourth finger laid out')
    await agree(well, 'Elbow')
    expect(await standing()).toBe('Elbow')
    // Mended, the older one does not come back.
    await mend(well, true)
    expect(await standing()).toBeNull()
  })

  it('against it needs a reason', async () => {
    const check = await keep(rounds(2, NARROW))
    const { problem } = await client.send('PATCH', `/checks/${check.id}/decision`, { says: 'overruled' })
    expect(problem.fields).toMatchObject([{ path: 'reason', message: 'Say why the verdict is overruled.' }])
  })
})

describe('earlier takes of the same hand', () => {
  const thin = rounds(1, NARROW)
  it('help a thin one, unless they are not to, the strings changed or a teacher overruled them', async () => {
    const days = ['2026-11-07T09:00:00Z', '2026-11-14T09:00:00Z', '2026-11-21T09:00:00Z']
    const before = []
    for (const takenAt of days) before.push(await keep(rounds(4, NARROW), { takenAt }))
    const helped = await keep(thin)
    expect(helped.verdict).toMatchObject({
      outcome: 'explained',
      findings: [{ code: 'frame' }],
      earlier: { count: 3 },
    })
    const alone = await keep(thin, { withEarlier: false })
    expect(alone.verdict.earlier).toBeUndefined()
    for (const { id } of [...before, helped, alone])
      await client.make('PATCH', `/checks/${id}/decision`, { says: 'overruled', reason: 'seen_otherwise' })
    expect((await keep(thin)).verdict.earlier).toBeUndefined()
  })

  it('are of another hand on other lengths, and are judged anew when the instrument is measured again', async () => {
    const check = await keep(rounds(3, NARROW), { takenAt: '2026-11-21T09:00:00Z' })
    await measure('291')
    expect((await keep(thin)).verdict.earlier).toBeUndefined()
    const kept = await read(check)
    expect(kept.verdict).toEqual(check.verdict)
    expect(kept.stringing).toEqual(check.stringing)
    expect(kept.rejudged).toMatchObject({
      measuredOn: '2026-11-29',
      verdict: { outcome: 'explained', findings: [{ code: 'frame' }] },
    })
    expect(kept.rejudged!.lengthsMm[0]).toBe(291)
    // Cents stay, so the same error is longer on the longer string, as 291 to 284.5.
    const [was, is] = [check.verdict, kept.rejudged!.verdict].map(
      (v) => (v as unknown as { findings: { errorMm: number }[] }).findings[0]!.errorMm,
    )
    expect(is! / was!).toBeCloseTo(291 / 284.5, 2)
    await measure('284.5')
    expect((await read(check)).rejudged).toBeNull()
    // What was believed when it was judged is believed still: only the length is another.
    const helped = await keep(thin, { takenAt: '2026-11-28T10:00:00Z' })
    expect(helped.verdict.earlier?.count).toBe(1)
    await measure('286')
    const again = (await read(helped)).rejudged!.verdict
    expect(again.earlier).toEqual(helped.verdict.earlier)
    expect(again.outcome).toBe(helped.verdict.outcome)
  })
})

describe('a history', () => {
  it('has every check in its numbers, oldest first, with what was held and taped', async () => {
    await keep(rounds(3, NARROW), { takenAt: '2026-11-21T09:00:00Z' })
    await keep(
      rounds(3, () => 6),
      { takenAt: '2026-10-03T09:00:00Z' },
    )
    await client.make('POST', `/instruments/${instrument.id}/tape-events`, {
      kind: 'laid',
      markId: '1.2',
      placeMm: 31.6,
      on: '2026-10-01',
      reason: '',
    })
    const { checks, loans, tapes } = await client.make<History>('GET', `/students/${student.id}/history`)
    expect(checks.map(({ takenAt }) => takenAt.slice(0, 10))).toEqual(['2026-10-03', '2026-11-21'])
    // 9:8 is 203.91 cents, of which the table above shows 4: what stands is 6 off, give or take its rounding.
    expect(checks[0]!.summary!.biasCents).toBeCloseTo(6, 0)
    expect(checks[0]!.summary!.frameMm).toBeCloseTo(0, 0)
    expect(checks[1]!.summary!.frameMm).toBeLessThan(-2)
    expect(checks[1]).toMatchObject({ lengthMm: 284.5, isRejudged: false, toleranceCents: 20 })
    expect(loans).toMatchObject([{ instrumentId: instrument.id, label: instrument.label, toDate: null }])
    expect(tapes).toEqual([{ instrumentId: instrument.id, markId: '1.2', on: '2026-10-01', kind: 'laid' }])
  })
})
