import { gunzipSync } from 'node:zlib'
import { request } from 'node:http'
import { buffer } from 'node:stream/consumers'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { API_BASE, type Answer, type Instrument, type Student } from '#contracts'
import { checkDraft, startHarness, type Client, type Harness } from './testing/harness'

let harness: Harness
let client: Client
beforeAll(async () => {
  harness = await startHarness()
  client = await harness.studio('Lists')
  const { student, instrument } = await client.player('Zoë 100%')
  await client.make('POST', `/students/${student.id}/checks`, checkDraft(instrument.id))
  for (const [name, weekday, time] of [
    ['Orla Venn', 6, '09:40'],
    ['Finn_Aske', 6, '09:00'],
    ['Beck Tarn', 1, '16:00'],
    ['Nell Farrow', 0, '11:00'],
  ] as const)
    await client.make('POST', '/students', { name, family: 'cello', lesson: { weekday, time } })
  for (const [label, family, sizeId, length] of [
    ['no. 10', 'violin', '1/4', '257'],
    ['no. 2', 'violin', '1/2', '285'],
    ['No. 1', 'cello', '3/4', ''],
  ] as const) {
    const made = await client.make<Instrument>('POST', '/instruments', { label, family, sizeId })
    if (length !== '')
      await client.make('POST', `/instruments/${made.id}/measurements`, { length, measuredOn: '2026-11-28' })
  }
})
afterAll(() => harness.close())

const names = async (query: string) => (await client.roster(query)).rows.map((s) => s.name)
const labels = async (query: string) => (await client.cupboard(query)).rows.map((i) => i.label)

describe('a list', () => {
  it('answers a page, and how many rows there are in all', async () => {
    expect(await client.roster('limit=2&offset=1')).toMatchObject({
      total: 5,
      rows: [{ name: 'Finn_Aske' }, { name: 'Nell Farrow' }],
    })
    expect(await client.roster('offset=99')).toEqual({ total: 5, rows: [] })
  })

  it('is searched by words, each somewhere in the row, signs of the database’s own taken as they are', async () => {
    expect(await names('q=zoe')).toEqual(['Zoë 100%'])
    expect(await names('q=VIOLIN+100%25')).toEqual(['Zoë 100%'])
    expect(await names('q=%25')).toEqual(['Zoë 100%'])
    expect(await names('q=_')).toEqual(['Finn_Aske'])
    expect(await names(`q=${encodeURIComponent("' OR 1=1 --")}`)).toEqual([])
    expect(await labels('q=zoe')).toEqual(['the violin of Zoë 100%'])
  })

  it('counts labels as a person does, and puts what is missing last either way', async () => {
    expect(await labels('family=violin')).toEqual(['no. 2', 'no. 10', 'the violin of Zoë 100%'])
    expect(await labels('sort=length')).toEqual(['no. 10', 'the violin of Zoë 100%', 'no. 2', 'No. 1'])
    expect(await labels('sort=length&direction=down')).toEqual([
      'no. 2',
      'the violin of Zoë 100%',
      'no. 10',
      'No. 1',
    ])
    expect(await labels('sort=kind')).toEqual(['no. 2', 'the violin of Zoë 100%', 'no. 10', 'No. 1'])
    expect(await names('sort=checked')).toEqual([
      'Zoë 100%',
      'Beck Tarn',
      'Finn_Aske',
      'Nell Farrow',
      'Orla Venn',
    ])
    expect((await names('sort=lesson'))[0]).toBe('Beck Tarn')
    expect((await names('sort=lesson')).at(-1)).toBe('Zoë 100%')
  })

  it('of instruments is narrowed to those that are free, or due on a day', async () => {
    expect(await labels(`q=${encodeURIComponent('violin ½')}&holder=none`)).toEqual(['no. 2'])
    expect(await labels('family=violin&sizeId=1/4')).toEqual(['no. 10'])
    expect(await labels('holder=none')).toEqual(['No. 1', 'no. 2', 'no. 10'])
    expect(await labels('holder=some')).toEqual(['the violin of Zoë 100%'])
    const [two] = (await client.cupboard('q=no. 2')).rows
    await client.make('POST', `/instruments/${two!.id}/tape-sets`, {
      schoolId: 'first',
      system: 'fifths',
      tapeWidthMm: 3,
      laidOn: '2026-09-01',
      marks: [{ markId: '1.2', placeMm: 31.7 }],
    })
    expect(await client.cupboard('dueOn=2026-11-28')).toMatchObject({ total: 1, rows: [{ label: 'no. 2' }] })
    expect((await client.cupboard('dueOn=2026-09-02')).total).toBe(0)
  })

  it('leaves out an instrument that was taken out of the cupboard, until it is put back', async () => {
    const [cello] = (await client.cupboard('q=No. 1&family=cello')).rows
    await client.make('DELETE', `/instruments/${cello!.id}`)
    expect(await labels('family=cello')).toEqual([])
    expect(await labels('out=yes')).toEqual(['No. 1'])
    expect(await client.make('GET', '/instrument-labels')).not.toContain('No. 1')
    const [orla] = (await client.roster('q=orla')).rows
    const loan = { instrumentId: cello!.id, on: '2026-11-28' }
    const refused = await client.send('POST', `/students/${orla!.id}/loans`, loan)
    expect([refused.status, refused.problem.fields?.[0]?.message]).toEqual([
      422,
      'No. 1 is out of the cupboard: put it back there first.',
    ])
    await client.make('POST', `/instruments/${cello!.id}/restore`)
    expect(await labels('family=cello')).toEqual(['No. 1'])
  })

  it('of instruments keeps one that somebody has', async () => {
    const [lent] = (await client.cupboard('holder=some')).rows
    const refused = await client.send('DELETE', `/instruments/${lent!.id}`)
    expect([refused.status, refused.problem.code, refused.problem.detail]).toEqual([
      409,
      'instrument_lent',
      'It is lent to Zoë 100%: take it back first.',
    ])
    expect(await labels('holder=some')).toEqual(['the violin of Zoë 100%'])
  })

  it('says what is wrong with a page that cannot be', async () => {
    for (const [query, message] of [
      ['limit=201', '200 or less'],
      ['offset=-1', '0 or more'],
      ['limit=two', 'whole number'],
      ['sort=shoe', ''],
    ] as const) {
      const reply = await client.send('GET', `/students?${query}`)
      expect([query, reply.status, reply.problem.fields?.[0]?.message]).toEqual([
        query,
        422,
        expect.stringContaining(message),
      ])
    }
  })

  it('is compressed for whoever can read that; what is secret never is', async () => {
    const get = (path: string) =>
      new Promise<{ encoding: string | undefined; body: Buffer }>((resolve, reject) => {
        const headers = { cookie: client.cookie, 'accept-encoding': 'gzip' }
        request(`${harness.url}${API_BASE}${path}`, { headers }, (response) => {
          const encoding = response.headers['content-encoding']
          buffer(response).then((body) => resolve({ encoding, body }), reject)
        })
          .once('error', reject)
          .end()
      })
    const roster = await get('/students')
    expect(roster.encoding).toBe('gzip')
    expect(JSON.parse(gunzipSync(roster.body).toString())).toEqual(await client.roster())
    expect((await get('/session')).encoding).toBeUndefined()
  })
})

it('the next lessons are those of the first day that has some, by the clock', async () => {
  const from = (day: number) => client.make<Answer<'students.lessons'>>('GET', `/lessons?from=${day}`)
  const said = async (day: number) => {
    const { weekday, students } = await from(day)
    return [weekday, ...students.map((s: Student) => s.name)]
  }
  expect(await said(2)).toEqual([6, 'Finn_Aske', 'Orla Venn'])
  expect(await said(0)).toEqual([0, 'Nell Farrow'])
  expect(await said(1)).toEqual([1, 'Beck Tarn'])
  const page = await client.make<Answer<'students.lessons'>>('GET', '/lessons?from=2&offset=1&limit=1')
  expect([page.total, ...page.students.map((s) => s.name)]).toEqual([2, 'Orla Venn'])
  const idle = await harness.studio('Idle')
  expect(await idle.make('GET', '/lessons?from=3')).toEqual({ weekday: null, total: 0, students: [] })
})
