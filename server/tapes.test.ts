import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { scaleId } from '#core'
import type { Answer, Instrument, RingFind, Student, TapeEvent } from '#contracts'
import { startHarness, type Client, type Harness } from './testing/harness'

let harness: Harness
let client: Client
let path: string
beforeAll(async () => (harness = await startHarness()))
afterAll(() => harness.close())
beforeEach(async () => {
  client = await harness.studio('Tape Studio')
  path = `/instruments/${(await client.player('Pia Weir')).instrument.id}`
})

const LAID = { schoolId: 'first_and_third', system: 'fifths', tapeWidthMm: 3, laidOn: '2026-11-28' }
const kinds = async () =>
  (await client.make<TapeEvent[]>('GET', `${path}/tape-events`)).map((e) =>
    `${e.kind} ${e.markId ?? ''}`.trim(),
  )
const log = (body: object) =>
  client.make<Instrument>('POST', `${path}/tape-events`, { on: '2026-11-28', ...body })

describe('laying tapes', () => {
  it('remembers every tape where a ninth and a quarter of the string are (Helmholtz)', async () => {
    const { tapes } = await client.make<Instrument>('POST', `${path}/tape-sets`, LAID)
    expect(tapes.map((t) => [t.markId, Number(t.placeMm.toFixed(2))])).toEqual([
      ['1.2', 31.61],
      ['3.5', 71.13],
    ])
    expect(await kinds()).toEqual(['laid 1.2', 'laid 3.5'])
  })

  it('keeps what was found at the instrument instead, and calls a tape on a taped place a replacement', async () => {
    await client.make('POST', `${path}/tape-sets`, LAID)
    const marks = [
      { markId: '1.2', placeMm: 32.2 },
      { markId: '2.3', placeMm: 46 },
    ]
    const { tapes } = await client.make<Instrument>('POST', `${path}/tape-sets`, {
      ...LAID,
      schoolId: 'by_hand',
      marks,
    })
    expect(tapes.map((t) => t.placeMm.toFixed(1))).toEqual(['32.2', '46.0', '71.1'])
    expect(await kinds()).toEqual(['laid 1.2', 'laid 3.5', 'replaced 1.2', 'laid 2.3'])
  })

  it('refuses a mark that the family has not, one named twice, and a place beyond the string', async () => {
    const fieldOf = async (marks: object[]) => {
      const reply = await client.send('POST', `${path}/tape-sets`, { ...LAID, marks })
      return [reply.status, reply.problem.fields?.[0]?.path]
    }
    expect(await fieldOf([{ markId: '9.9', placeMm: 40 }])).toEqual([422, 'marks.0.markId'])
    expect(await fieldOf([{ markId: '1.2', placeMm: 300 }])).toEqual([422, 'marks.0.placeMm'])
    expect(await fieldOf([{ markId: '1.2', placeMm: -4 }])).toEqual([422, 'marks.0.placeMm'])
    const twice = [
      { markId: '1.2', placeMm: 31 },
      { markId: '1.2', placeMm: 32 },
    ]
    expect(await fieldOf(twice)).toEqual([422, 'marks.1.markId'])
    expect(await kinds()).toEqual([])
  })

  it('takes a scale of one’s own as the system', async () => {
    const system = scaleId(
      'twelve alike',
      'D',
      Array.from({ length: 12 }, (_, i) => 100 * (i + 1)),
    )
    const { tapeSet, tapes } = await client.make<Instrument>('POST', `${path}/tape-sets`, { ...LAID, system })
    expect(tapeSet?.system).toBe(system)
    expect(tapes[0]?.placeMm).toBeCloseTo(284.5 * (1 - 2 ** (-2 / 12)), 6)
    const faulty = await client.send('POST', `${path}/tape-sets`, { ...LAID, system: 'scale:D:x:1,2' })
    expect(faulty.problem.fields?.[0]?.path).toBe('system')
  })
})

describe('the log of an instrument’s tapes', () => {
  it('sees a check half a millimetre off as creep, and the tape where it was seen', async () => {
    await client.make('POST', `${path}/tape-sets`, LAID)
    await log({ kind: 'checked', markId: '1.2', placeMm: 31.9 })
    const { tapes } = await log({ kind: 'checked', markId: '3.5', placeMm: 72.4 })
    expect((await kinds()).slice(2)).toEqual(['checked 1.2', 'crept 3.5'])
    expect(tapes.map((t) => t.placeMm)).toEqual([31.9, 72.4])
    expect(tapes[1]?.laidMm).toBeCloseTo(71.125, 3)
  })

  it('tells fading, trials and a changed bridge, each with who and why, and takes an entry back', async () => {
    await client.make('POST', `${path}/tape-sets`, LAID)
    await log({ kind: 'faded', markId: '3.5', reason: 'ready' })
    await log({ kind: 'trial' })
    const now = await log({ kind: 'bridge_changed' })
    expect(now).toMatchObject({ bridgeChangedOn: '2026-11-28', triedWithoutOn: '2026-11-28' })
    expect(now.tapes.map((t) => t.markId)).toEqual(['1.2'])
    const events = await client.make<TapeEvent[]>('GET', `${path}/tape-events`)
    const faded = events.find((e) => e.kind === 'faded')
    expect(faded).toMatchObject({ reason: 'ready', by: 'Teacher of Tape Studio' })
    expect((await client.make<Instrument>('DELETE', `/tape-events/${faded?.id}`)).tapes).toHaveLength(2)
    expect((await client.make<Instrument>('POST', `/tape-events/${faded?.id}/restore`)).tapes).toHaveLength(1)
  })

  it('asks about a tape seen further off than tapes creep, and believes whoever looked again', async () => {
    await client.make('POST', `${path}/tape-sets`, LAID)
    const body = { kind: 'checked', markId: '3.5', placeMm: 24, on: '2026-11-28' }
    const doubted = await client.send('POST', `${path}/tape-events`, body)
    expect(doubted.problem).toMatchObject({ code: 'place_doubtful', fields: [{ path: 'placeMm' }] })
    expect(await kinds()).toHaveLength(2)
    await log({ ...body, keepAnyway: true })
    expect((await kinds()).at(-1)).toBe('crept 3.5')
  })

  it('takes no day that has not come, and none before anybody here was born', async () => {
    const on = async (day: string) =>
      (await client.send('POST', `${path}/tape-events`, { kind: 'trial', on: day })).problem.fields?.[0]
        ?.message
    expect(await on('2027-11-28')).toContain('has not come yet')
    expect(await on('1990-11-28')).toContain('more than 25 years ago')
    expect(await on('2010-11-28')).toBeUndefined()
    const hand = { measuredOn: '2027-01-01', comfortableSpanMm: 60 }
    const student = await client.make<Student>('POST', '/students', { name: 'Early', family: 'violin' })
    for (const [where, body] of [
      [`/students/${student.id}/hands`, hand],
      [`${path}/measurements`, { length: '284.5', measuredOn: '1990-01-01' }],
      [`/students/${student.id}/loans`, { instrumentId: null, on: '2027-01-01' }],
      [`${path}/tape-sets`, { ...LAID, laidOn: '2027-01-01' }],
    ] as const)
      expect([where, (await client.send('POST', where, body)).status]).toEqual([where, 422])
  })

  it('refuses to move or remove a tape that is not there, and an entry that names none', async () => {
    const field = async (body: object) =>
      (await client.send('POST', `${path}/tape-events`, { on: '2026-11-28', ...body })).problem.fields?.[0]
        ?.path
    expect(await field({ kind: 'removed', markId: '1.2' })).toBe('markId')
    expect(await field({ kind: 'checked', markId: '1.2' })).toBe('placeMm')
    expect(await field({ kind: 'laid', placeMm: 30 })).toBe('markId')
    expect(await field({ kind: 'trial', markId: '1.2' })).toBe('markId')
  })
})

describe('places found by ring', () => {
  const find = { string: 'D4', note: 'E4', system: 'fifths', placeMm: 32.4, foundOn: '2026-11-28' }

  it('are kept with their pitch, stood by, taken out and put back', async () => {
    const made = await client.make<RingFind>('POST', `${path}/ring-finds`, find)
    expect(made.cents).toBeCloseTo(203.91, 2) // 9:8, published
    expect(await client.make('PATCH', `/ring-finds/${made.id}`, { isTrusted: true })).toMatchObject({
      isTrusted: true,
    })
    await client.make('DELETE', `/ring-finds/${made.id}`)
    expect(await client.make('GET', `${path}/ring-finds`)).toEqual([])
    await client.make('POST', `/ring-finds/${made.id}/restore`)
    expect(await client.make<RingFind[]>('GET', `${path}/ring-finds`)).toHaveLength(1)
  })

  it('on a string the instrument has not, or below it, are refused', async () => {
    const field = async (body: object) =>
      (await client.send('POST', `${path}/ring-finds`, { ...find, ...body })).problem.fields?.[0]?.path
    expect(await field({ string: 'C3' })).toBe('string')
    expect(await field({ string: 'A4' })).toBe('note')
    expect(await field({ placeMm: 500 })).toBe('placeMm')
  })
})

describe('lengths', () => {
  const measure = (body: object) =>
    client.send('POST', `${path}/measurements`, { measuredOn: '2026-11-28', ...body })

  it('may be given string by string, or to the octave harmonic', async () => {
    const strings = await measure({ strings: ['285.5', '285', '284.5', '28.4 cm'] })
    expect(strings.body).toMatchObject({
      measurement: { lengthMm: 284.75, stringLengthsMm: [285.5, 285, 284.5, 284], method: 'strings' },
    })
    const harmonic = await measure({ length: '142.4', method: 'harmonic' })
    expect(harmonic.body).toMatchObject({ measurement: { lengthMm: 284.8, stringLengthsMm: null } })
  })

  it('of 300 and 600 on one instrument are not believed, nor three for four strings', async () => {
    expect((await measure({ strings: ['300', '600', '300', '300'] })).problem.fields?.[0]?.path).toBe(
      'strings',
    )
    expect((await measure({ strings: ['284', '284', '284'] })).status).toBe(422)
    const doubtful = await measure({ strings: ['284', '284', '284', '296'] })
    expect(doubtful.problem).toMatchObject({ code: 'length_doubtful', fields: [{ path: 'strings.3' }] })
  })

  it('come with heights that a board can have', async () => {
    const { version } = await client.make<Instrument>('GET', path)
    const pressing = { mode: 'measured', nutHeightMm: 0.4, endHeightMm: 4, material: 'gut' }
    const negative = { version, pressing: { ...pressing, nutHeightMm: -1 } }
    expect((await client.send('PATCH', path, negative)).problem.fields?.[0]?.path).toBe(
      'pressing.nutHeightMm',
    )
    expect(await client.make('PATCH', path, { version, pressing })).toMatchObject({ pressing })
  })
})

describe('a table of instruments', () => {
  const row = (label: string, more = {}) => ({
    label,
    family: 'violin',
    sizeId: '1/2',
    length: '284.5',
    ...more,
  })
  const send = (rows: object[], key?: string) =>
    client.send('POST', '/instruments/import', { measuredOn: '2026-11-28', rows }, key ? { key } : {})

  it('comes in whole, once, however often it is sent', async () => {
    const rows = [row('a'), row('b', { length: '300' }), row('c', { length: undefined })]
    const first = (await send(rows, 'the-same-table')).body as Answer<'instruments.import'>
    expect(first).toMatchObject({ count: 3, notLent: [] })
    expect((await send(rows, 'the-same-table')).body).toEqual(first)
    const all = (await client.cupboard()).rows
    expect(all.map((i) => [i.label, i.measurement?.lengthMm])).toEqual([
      ['a', 284.5],
      ['b', 300],
      ['c', undefined],
      ['the violin of Pia Weir', 284.5],
    ])
  })

  it('comes in with its days, its tapes and who has it, and says who has not; and goes out again whole', async () => {
    const pia = (await client.roster()).rows[0]!
    const enrol = (name: string, family = 'violin') =>
      client.make<Student>('POST', '/students', { name, family })
    const [ines] = [
      await enrol('Ines Moor'),
      await enrol('Two Alike'),
      await enrol('Two Alike'),
      await enrol('Low Reed', 'cello'),
    ]
    const tapes = [
      { markId: '1.2', placeMm: 31.04 },
      { markId: '3.5', placeMm: 71.12 },
    ]
    const { body } = await send([
      row('a', {
        measuredOn: '2025-03-01',
        tapes,
        tapeWidthMm: 2,
        laidOn: '2025-09-06',
        holder: 'ines moor',
      }),
      row('b', { holder: pia.name }),
      row('c', { holder: 'Nobody Here' }),
      row('d', { holder: 'Two Alike' }),
      row('e', { holder: 'Low Reed' }),
    ])
    const { ids, notLent } = body as Answer<'instruments.import'>
    expect(notLent.map(({ label, why }) => [label, why])).toEqual([
      ['b', 'has_one'],
      ['c', 'unknown'],
      ['d', 'several'],
      ['e', 'other_family'],
    ])
    expect(await client.make<Instrument>('GET', `/instruments/${ids[0]}`)).toMatchObject({
      measurement: { measuredOn: '2025-03-01' },
      tapeSet: { tapeWidthMm: 2, laidOn: '2025-09-06' },
      tapes,
      holder: { name: 'Ines Moor' },
    })
    const undo = () => client.send('POST', '/instruments/import/undo', { ids })
    const lent = (await undo()).problem
    expect([lent.code, lent.detail]).toEqual([
      'instrument_lent',
      expect.stringContaining('a is lent to Ines Moor'),
    ])
    expect((await client.cupboard()).total).toBe(6)
    await client.make('POST', `/students/${ines.id}/loans`, { instrumentId: null, on: '2026-11-28' })
    expect((await undo()).status).toBe(204)
    expect((await client.cupboard()).rows.map(({ label }) => label)).toEqual(['the violin of Pia Weir'])
  })

  it('comes in with what is kept besides, as it was written, and with nothing that an instrument cannot have', async () => {
    const besides = {
      stringLengthsMm: [284, 284.3, 284.6, 285.1],
      pressing: { mode: 'measured', nutHeightMm: 0.4, endHeightMm: 4.2, material: 'steel' },
      warmHands: true,
      rings: [{ string: 'D4', note: 'E4', system: 'fifths', placeMm: 31.7, foundOn: '2026-10-12' }],
    }
    const { ids } = (await send([row('a', { besides })])).body as Answer<'instruments.import'>
    expect(await client.make<Instrument>('GET', `/instruments/${ids[0]}`)).toMatchObject({
      measurement: { method: 'strings', stringLengthsMm: besides.stringLengthsMm },
      pressing: besides.pressing,
      warmHands: true,
      ringFinds: besides.rings,
    })
    for (const [wrong, path] of [
      [{ stringLengthsMm: [284, 284, 284, 284, 284] }, 'rows.0.besides'],
      [{ stringLengthsMm: [284, 284, 284, 2840] }, 'rows.0.besides'],
      [{ rings: [{ ...besides.rings[0], string: 'C2' }] }, 'rows.0.string'],
      [{ pressing: { mode: 'measured' } }, 'rows.0.besides.pressing.nutHeightMm'],
      [{ colour: 'brown' }, 'rows.0.besides'],
    ] as const)
      expect((await send([row('b', { besides: wrong })])).problem.fields?.[0]?.path).toBe(path)
    const bare = await send([
      row('b', { length: undefined, besides: { stringLengthsMm: besides.stringLengthsMm } }),
    ])
    expect(bare.problem.fields?.[0]?.path).toBe('rows.0.length')
    expect((await client.cupboard()).total).toBe(2)
  })

  it('with tapes beyond the string, or of a day to come, comes in not at all, and says which row', async () => {
    const tapes = [{ markId: '1.2', placeMm: 900 }]
    const beyond = await send([row('a'), row('b', { tapes })])
    expect(beyond.problem.fields).toMatchObject([{ path: 'rows.1.marks.0.placeMm' }])
    const ahead = await send([
      row('a'),
      row('b', { tapes: [{ markId: '1.2', placeMm: 31 }], laidOn: '2031-01-01' }),
    ])
    expect(ahead.problem.fields).toMatchObject([{ path: 'rows.1.laidOn' }])
    expect((await client.cupboard()).total).toBe(1)
  })

  it('with one impossible row comes in not at all, and says which', async () => {
    const reply = await send([row('a'), row('b', { length: '2845' })])
    expect(reply.problem).toMatchObject({ code: 'length_impossible', fields: [{ path: 'rows.1.length' }] })
    expect((await client.cupboard()).total).toBe(1)
  })
})
