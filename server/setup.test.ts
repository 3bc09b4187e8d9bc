import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { BodyFit, Check, GateMark, Pain, SetupRound, Student, Studio } from '#contracts'
import { checkDraft, setupRound, startHarness, type Client, type Harness } from './testing/harness'

let harness: Harness
let teacher: Client
beforeAll(async () => {
  harness = await startHarness()
  teacher = await harness.studio('Pencil Studio')
})
afterAll(() => harness.close())

const read = (student: Student) => teacher.make<Student>('GET', `/students/${student.id}`)
const keep = (student: Student, round: object, who = teacher) =>
  who.make<SetupRound>('POST', `/students/${student.id}/setup-rounds`, round)

describe('a setup round', () => {
  it('is kept with where it stopped; what is nearly right counts from the first of an unbroken row', async () => {
    const { student } = await teacher.player('Wenna Row')
    for (const [day, gap] of [
      ['2026-09-05', 'no'],
      ['2026-10-10', 'nearly'],
      ['2026-11-21', 'nearly'],
    ] as const)
      await keep(student, {
        ...setupRound({ pain: 'yes', tension: 'yes', gap }),
        takenAt: `${day}T09:00:00Z`,
      })
    const { setup } = await read(student)
    expect(setup).toMatchObject({ takenAt: '2026-11-21T09:00:00.000Z', stoppedAt: null })
    expect(setup?.standings).toMatchObject([
      { itemId: 'gap', answer: 'nearly', since: '2026-10-10', seenOn: '2026-11-21' },
    ])
    const [newest, , first] = await teacher.make<SetupRound[]>('GET', `/students/${student.id}/setup-rounds`)
    expect(first).toMatchObject({ stoppedAt: 'gap', by: 'Teacher of Pencil Studio' })
    // Taken out, the round before it is the newest again; put back, nothing is missing.
    await teacher.make('DELETE', `/setup-rounds/${newest!.id}`)
    expect((await read(student)).setup?.standings[0]?.seenOn).toBe('2026-10-10')
    await teacher.make('POST', `/setup-rounds/${newest!.id}/restore`)
    expect((await read(student)).setup).toEqual(setup)
  })

  it('loses no answer where two teachers answer at once', async () => {
    const { student } = await teacher.player('Twice Asked')
    const items = ['gap', 'squeeze', 'wrist', 'palm', 'knuckles', 'elbow']
    await Promise.all(items.map((item) => keep(student, setupRound({ pain: 'yes', [item]: 'no' }))))
    const { setup } = await read(student)
    expect(setup?.standings.map((one) => one.itemId).sort()).toEqual(items.sort())
  })

  it('is kept for the family it was asked of, and counts for none other', async () => {
    const { student } = await teacher.player('Moved On')
    await teacher.make('PATCH', `/students/${student.id}`, { version: student.version, family: 'cello' })
    const round = await keep(student, setupRound({ pain: 'yes', gap: 'no' }))
    expect(round).toMatchObject({ family: 'violin', stoppedAt: 'gap' })
    expect((await read(student)).setup?.standings).toEqual([])
  })

  it('stands by what the studio asks now: an item that is left out, or is another family’s own, is told no more', async () => {
    const owner = await harness.studio('Changing Lists')
    const { student } = await owner.player('Still Nearly')
    const own = { id: 'own-rosin', families: ['violin'], question: 'Rosin?', reason: 'It squeaks.' }
    const arrange = async (setup: object) => {
      const { version, settings } = await owner.make<Studio>('GET', '/studio')
      await owner.make('PATCH', '/studio', { version, settings: { ...settings, setup } })
    }
    await arrange({ own: [own] })
    const answers = [
      { itemId: 'gap', answer: 'nearly' },
      { itemId: 'own-rosin', answer: 'nearly', question: 'Rosin?' },
    ]
    await keep(student, { ...setupRound(), answers }, owner)
    const standing = async () =>
      (await owner.make<Student>('GET', `/students/${student.id}`)).setup?.standings.map((one) => one.itemId)
    expect(await standing()).toEqual(['gap', 'own-rosin'])
    await arrange({ own: [own], hidden: ['gap'] })
    expect(await standing()).toEqual(['own-rosin'])
    await arrange({ own: [{ ...own, families: ['cello'] }] })
    expect(await standing()).toEqual(['gap'])
  })

  it('refuses what nobody can have seen, item by item', async () => {
    const { student } = await teacher.player('Odd Answers')
    const path = `/students/${student.id}/setup-rounds`
    const refusal = async (answers: object[]) => {
      const reply = await teacher.send('POST', path, { ...setupRound(), answers })
      expect(reply.status).toBe(422)
      return reply.problem.fields?.map((field) => `${field.path}: ${field.message}`).join()
    }
    expect(await refusal([{ itemId: 'cello_wrist', answer: 'yes' }])).toContain('not asked of a violin')
    expect(await refusal([{ itemId: 'gap', answer: 'yes', measured: 400 }])).toContain('give 0 to 40 mm')
    expect(await refusal([{ itemId: 'squeeze', answer: 'yes', measured: 3 }])).toContain('judged by eye')
    expect(await refusal([{ itemId: 'pain', answer: 'no' }])).toContain('Name the place that hurts')
    const muddled = { ...setupRound({ pain: 'yes' }), pain: { place: 'jaw' } }
    expect((await teacher.send('POST', path, muddled)).problem.fields?.[0]?.path).toBe('pain')
    expect(
      await refusal([
        { itemId: 'gap', answer: 'yes' },
        { itemId: 'gap', answer: 'no' },
      ]),
    ).toContain('answered twice')
    expect((await read(student)).setup).toBeNull()
  })
})

describe('pain', () => {
  const told = { ...setupRound({ pain: 'no' }), pain: { place: 'left wrist', since: 'a week' } }

  it('is marked in the file until somebody says who cleared it, and again when that was a mistake', async () => {
    const { student } = await teacher.player('Sore Wrist')
    await keep(student, told)
    const [pain] = (await read(student)).pains
    expect(pain).toMatchObject({ place: 'left wrist', since: 'a week', toldOn: '2026-11-28' })
    const early = await teacher.send('POST', `/pains/${pain!.id}/clear`, {
      on: '2026-11-20',
      note: 'Rested.',
    })
    expect(early.problem.fields?.[0]?.message).toContain('cannot be over before')
    const unsaid = await teacher.send('POST', `/pains/${pain!.id}/clear`, { on: '2026-11-28', note: ' ' })
    expect(unsaid.problem.fields?.[0]?.path).toBe('note')
    await teacher.make('POST', `/pains/${pain!.id}/clear`, {
      on: '2026-11-28',
      note: 'The doctor says play.',
    })
    expect((await read(student)).pains).toEqual([])
    await teacher.make('POST', `/pains/${pain!.id}/reopen`)
    expect((await read(student)).pains).toHaveLength(1)
    expect(await teacher.make<Pain[]>('GET', `/students/${student.id}/pains`)).toHaveLength(1)
  })

  it('told by mistake goes with its round, and comes back with it', async () => {
    const { student } = await teacher.player('Only Joking')
    const round = await keep(student, told)
    await teacher.make('DELETE', `/setup-rounds/${round.id}`)
    expect(await read(student)).toMatchObject({ pains: [], setup: null })
    await teacher.make('POST', `/setup-rounds/${round.id}/restore`)
    expect((await read(student)).pains).toHaveLength(1)
  })

  it('told on a Sunday evening is of that Sunday, and is cleared the same evening, wherever the studio is', async () => {
    const away = await harness.studio('Studio Far West')
    const now = await away.make<Studio>('GET', '/studio')
    await away.make('PATCH', '/studio', {
      version: now.version,
      settings: { ...now.settings, timeZone: 'America/Los_Angeles' },
    })
    const { student } = await away.player('Evening')
    const at = harness.clock
    // Half past eight in the evening there; Monday by the clock of the world.
    harness.clock = new Date('2026-11-30T04:30:00Z')
    await keep(student, { ...told, takenAt: harness.clock.toISOString() }, away)
    const [pain] = (await away.make<Student>('GET', `/students/${student.id}`)).pains
    expect(pain?.toldOn).toBe('2026-11-29')
    await away.make('POST', `/pains/${pain!.id}/clear`, { on: '2026-11-29', note: 'Gone after a rest.' })
    harness.clock = at
    const wrong = await away.send('PATCH', '/studio', {
      version: now.version + 1,
      settings: { ...now.settings, timeZone: 'Port Ellery' },
    })
    expect([wrong.status, JSON.stringify(wrong.body).includes('Pacific/Auckland')]).toEqual([422, true])
  })

  it('told at any time is in every list until it is cleared, and taken back it is in none', async () => {
    const { student } = await teacher.player('Aching Jaw')
    const tell = (place: string) =>
      teacher.make<Pain>('POST', `/students/${student.id}/pains`, { toldOn: '2026-11-28', place })
    const [jaw, back] = [await tell('jaw'), await tell('back')]
    const inRoster = async () => (await teacher.roster('q=aching')).rows[0]?.pains.map(({ place }) => place)
    expect(await inRoster()).toEqual(['back', 'jaw'])
    await teacher.make('DELETE', `/pains/${jaw.id}`)
    await teacher.make('POST', `/pains/${back.id}/clear`, { on: '2026-11-28', note: 'Gone after a rest.' })
    expect(await inRoster()).toEqual([])
    const path = `/students/${student.id}/pains`
    expect(await teacher.make<Pain[]>('GET', path)).toMatchObject([
      { place: 'back', clearedNote: 'Gone after a rest.' },
    ])
    await teacher.make('POST', `/pains/${jaw.id}/restore`)
    expect(await inRoster()).toEqual(['jaw'])
  })

  it('that was told twice by one key is there once', async () => {
    const { student } = await teacher.player('Told Once')
    const draft = { toldOn: '2026-11-28', place: 'thumb' }
    for (const _ of [1, 2])
      await teacher.send('POST', `/students/${student.id}/pains`, draft, {
        key: '01900000-0000-7000-8000-00000000aaaa',
      })
    expect((await read(student)).pains).toHaveLength(1)
  })
})

describe('a fit and a gate', () => {
  it('keeps every fit of an instrument to a body, and refuses an endpin on a violin', async () => {
    const { student } = await teacher.player('Fitted Well')
    const path = `/students/${student.id}/body-fits`
    const draft = { family: 'violin', fittedOn: '2026-11-28', restNearMm: 32, restFarMm: 40, handsOff: 5 }
    await teacher.make('POST', path, draft)
    await teacher.make('POST', path, {
      ...draft,
      family: 'cello',
      restNearMm: null,
      restFarMm: null,
      handsOff: null,
      endpinMm: 310,
    })
    const fits = await teacher.make<BodyFit[]>('GET', path)
    expect(fits.map((fit) => [fit.family, fit.restNearMm, fit.endpinMm])).toEqual([
      ['cello', null, 310],
      ['violin', 32, null],
    ])
    const endpin = await teacher.send('POST', path, { ...draft, endpinMm: 310 })
    expect(endpin.problem.fields?.[0]?.message).toBe('This is not measured on a violin.')
    const nothing = await teacher.send('POST', path, { family: 'violin', fittedOn: '2026-11-28' })
    expect(nothing.problem.fields?.[0]?.message).toContain('Measure at least one thing')
  })

  it('of two teachers, each with a page of their own, has what both measured', async () => {
    const { student } = await teacher.player('Fitted Twice')
    const path = `/students/${student.id}/body-fits`
    const keep = (draft: object) =>
      teacher.make<BodyFit>('POST', path, { family: 'violin', fittedOn: '2026-11-28', ...draft })
    await keep({ restNearMm: 32, restFarMm: 40, note: 'flat rest' })
    await keep({ restNearMm: 36 })
    // Of a page that still shows 32: it says what was measured there, and no more.
    expect(await keep({ handsOff: 5 })).toMatchObject({
      restNearMm: 36,
      restFarMm: 40,
      handsOff: 5,
      note: 'flat rest',
    })
    expect(await keep({ restFarMm: null })).toMatchObject({ restNearMm: 36, restFarMm: null, handsOff: 5 })
  })

  it('taken out of the file is out of it, and comes back as it was', async () => {
    const { student } = await teacher.player('Out And In')
    const path = `/students/${student.id}/body-fits`
    const fit = await teacher.make<BodyFit>('POST', path, {
      family: 'violin',
      fittedOn: '2026-11-28',
      note: 'A flat rest, a pad of felt.',
    })
    await teacher.make('DELETE', `/body-fits/${fit.id}`)
    expect(await teacher.make<BodyFit[]>('GET', path)).toEqual([])
    expect(await teacher.make<BodyFit>('POST', `/body-fits/${fit.id}/restore`)).toEqual(fit)
    expect(await teacher.make<BodyFit[]>('GET', path)).toEqual([fit])
  })

  it('remembers what was said of a gate last', async () => {
    const { student } = await teacher.player('Steady Bow')
    const path = `/students/${student.id}/gate-marks`
    const say = (state: string) =>
      teacher.make<GateMark[]>('POST', path, { gate: 'vibrato', item: 'gate', state })
    await say('open')
    await say('reckoned')
    expect(await say('shut')).toMatchObject([{ gate: 'vibrato', item: 'gate', state: 'shut' }])
    const muddled = await teacher.send('POST', path, { gate: 'vibrato', item: 'steady_bow', state: 'open' })
    expect(muddled.status).toBe(422)
  })
})

describe('a studio’s settings', () => {
  it('are one for all its teachers; who changes an older state of them is told, and loses nothing', async () => {
    const owner = await harness.studio('Settled Studio')
    const studio = await owner.make<Studio>('GET', '/studio')
    expect(studio.settings).toMatchObject({ a4Hz: 440, noteNames: 'letters', lengthUnit: 'mm' })
    const settings = {
      ...studio.settings,
      noteNames: 'german',
      tolerances: { ...studio.settings.tolerances, beginner: 25 },
    }
    await owner.make('PATCH', '/studio', { version: studio.version, settings })
    const late = await owner.send('PATCH', '/studio', { version: studio.version, name: 'Too Late' })
    expect(late.status).toBe(409)
    expect(late.problem.data).toMatchObject({ name: 'Settled Studio', settings: { noteNames: 'german' } })
    await owner.signIn()
    expect(owner.session?.studio.settings.tolerances.beginner).toBe(25)
  })

  it('change by what is named, and by nothing else', async () => {
    const owner = await harness.studio('One Thing')
    const change = async (settings: object) => {
      const { version } = await owner.make<Studio>('GET', '/studio')
      return (await owner.make<Studio>('PATCH', '/studio', { version, settings })).settings
    }
    await change({ a4Hz: 442, keepsSound: true, schools: { tapes: 'none' } })
    expect(await change({ noteNames: 'german' })).toMatchObject({
      a4Hz: 442,
      keepsSound: true,
      schools: { tapes: 'none' },
      noteNames: 'german',
    })
  })

  it('of two teachers who save at once one is told, and both changes can be made', async () => {
    const owner = await harness.studio('Two Tablets')
    const { version, settings } = await owner.make<Studio>('GET', '/studio')
    const replies = await Promise.all(
      [{ a4Hz: 442 }, { noteNames: 'german' }].map((change) =>
        owner.send('PATCH', '/studio', { version, settings: { ...settings, ...change } }),
      ),
    )
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 409])
    const told = replies.find(({ status }) => status === 409)!.problem.data as Studio
    expect(told.version).toBe(version + 1)
  })

  it('that can no longer be read are as usual, one by one, and the others stay', async () => {
    const owner = await harness.studio('Old Settings')
    await harness.database.models.studio.update(
      { settings: { a4Hz: 443, noteNames: 'solfa of a later version', lengthUnit: 'cm' } },
      { where: { id: owner.studioId } },
    )
    const { settings } = await owner.make<Studio>('GET', '/studio')
    expect(settings).toMatchObject({ a4Hz: 443, noteNames: 'letters', lengthUnit: 'cm' })
    expect((await owner.signIn()).status).toBe(200)
  })

  it('set the tolerance of everybody at a level, in the file and in the next check', async () => {
    const owner = await harness.studio('Level Studio')
    const { student, instrument } = await owner.player('Level Headed')
    const changed = await owner.make<Student>('PATCH', `/students/${student.id}`, {
      version: 1,
      level: 'growing',
    })
    expect(changed).toMatchObject({ level: 'growing', toleranceCents: 15 })
    const { version, settings } = await owner.make<Studio>('GET', '/studio')
    await owner.make('PATCH', '/studio', {
      version,
      settings: { ...settings, tolerances: { ...settings.tolerances, growing: 12 } },
    })
    const check = await owner.make<Check>('POST', `/students/${student.id}/checks`, checkDraft(instrument.id))
    expect(check.toleranceCents).toBe(12)
    const own = await owner.make<Student>('PATCH', `/students/${student.id}`, {
      version: 2,
      toleranceCents: 18,
    })
    expect(own).toMatchObject({ level: null, toleranceCents: 18 })
  })

  it('say after how long tapes are looked at again, in the cupboard’s list too', async () => {
    const owner = await harness.studio('Patient Studio')
    const { instrument } = await owner.player('Taped Lately')
    await owner.make('POST', `/instruments/${instrument.id}/tape-sets`, {
      schoolId: 'first',
      system: 'fifths',
      tapeWidthMm: 3,
      laidOn: '2026-11-07',
    })
    const due = async () => (await owner.cupboard('dueOn=2026-11-28')).total
    expect(await due()).toBe(0)
    const { version, settings } = await owner.make<Studio>('GET', '/studio')
    const intervals = { ...settings.intervals, seenDays: 14 }
    await owner.make('PATCH', '/studio', { version, settings: { ...settings, intervals } })
    expect(await due()).toBe(1)
  })

  it('keep with a check whether the tapes were covered', async () => {
    const { student, instrument } = await teacher.player('Blind Player')
    const path = `/students/${student.id}/checks`
    await teacher.make('POST', path, { ...checkDraft(instrument.id), tapesCovered: true })
    await teacher.make('POST', path, { ...checkDraft(instrument.id), takenAt: '2026-11-27T09:00:00.000Z' })
    const checks = await teacher.make<Check[]>('GET', path)
    expect(checks.map((check) => check.tapesCovered)).toEqual([true, false])
  })

  it('refuse an item without a reason, a hidden pain, and a school that nobody teaches; keep markup as the text it is', async () => {
    const owner = await harness.studio('Own Items')
    const { version, settings } = await owner.make<Studio>('GET', '/studio')
    const own = { id: 'own-rosin', families: ['cello'], question: '<b>Rosin</b> on?', reason: 'It squeaks.' }
    const tried = async (change: object) =>
      (await owner.send('PATCH', '/studio', { version, settings: { ...settings, ...change } })).problem
        .fields?.[0]
    expect(await tried({ setup: { own: [{ ...own, reason: '' }] } })).toMatchObject({
      path: 'settings.setup.own.0.reason',
    })
    expect((await tried({ setup: { hidden: ['pain'] } }))?.message).toContain('cannot be hidden')
    expect((await tried({ schools: { contact: 'elbow' } }))?.message).toContain('tips_only')
    await owner.make('PATCH', '/studio', { version, settings: { ...settings, setup: { own: [own] } } })
    const kept = await owner.make<Studio>('GET', '/studio')
    expect(kept.settings.setup.own[0]?.question).toBe('<b>Rosin</b> on?')
  })
})
