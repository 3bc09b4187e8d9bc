import { beforeEach, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import { IMPORT_BATCH } from '#core'
import { parseInstruments } from '../../files/parse-instruments'
import type { Instrument } from '#contracts'
import { toCsv } from '../../files/tables'
import {
  A_STUDENT,
  AN_INSTRUMENT,
  fakeServer,
  freshStores,
  known,
  lists,
  signedIn,
  until,
} from '../../testing'
import { useCupboard } from './useCupboard'
import { useImport } from './useImport'

/** The worker's work, on this thread. */
vi.mock('../../files/instruments.worker?worker', () => ({
  default: class {
    onmessage: ((event: { data: unknown }) => void) | undefined
    postMessage(bytes: ArrayBuffer) {
      queueMicrotask(() => this.onmessage?.({ data: parseInstruments(bytes) }))
    }
    terminate() {}
  },
}))

const LABELS = lists({ instruments: [AN_INSTRUMENT] })

beforeEach(freshStores)

function fileOf(rows: readonly string[]): File {
  return new File([['label,family,size', ...rows].join('\n')], 'a.csv')
}

async function imported(rows: readonly string[]) {
  const table = effectScope().run(() => useImport())!
  await table.read(fileOf(rows))
  await until(() => expect(table.state.value).not.toBe('reading'))
  return table
}

it('saves nothing before it is told to, and passes over what is in the cupboard already', async () => {
  const sent = fakeServer(LABELS)
  const table = await imported(['no. 7,violin,1/2', 'no. 8,violin,1/2', 'x,harp,1/2'])
  expect(table.good.value.map((row) => row.instrument.label)).toEqual(['no. 8'])
  expect(table.faulty.value.map((row) => row.faults[0]?.code)).toEqual(['label_taken', 'family_unknown'])
  expect(sent.map((s) => s.method)).toEqual(['GET'])
})

it('sends a long table in batches, each again with its own key until it is answered', async () => {
  const rows = Array.from({ length: IMPORT_BATCH + 1 }, (_, i) => `no. ${100 + i},violin,1/2`)
  const ok = { status: 200, body: { count: 1, ids: ['one'], notLent: [] } }
  const sent = fakeServer(LABELS, ok, undefined, ok, LABELS)
  const table = await imported(rows)
  vi.useFakeTimers({ toFake: ['setTimeout'] })
  const saving = table.save()
  await until(() => expect(table.isWaiting.value).toBe(true))
  await vi.runAllTimersAsync()
  await saving
  vi.useRealTimers()
  const posts = sent.filter((s) => s.method === 'POST')
  expect(posts.map((s) => (s.body as { rows: unknown[] }).rows.length)).toEqual([IMPORT_BATCH, 1, 1])
  const keys = posts.map((s) => s.headers['idempotency-key'])
  expect(keys[1]).toBe(keys[2])
  expect(keys[0]).not.toBe(keys[1])
  expect([table.saved.value, table.state.value]).toEqual([IMPORT_BATCH + 1, 'saved'])
})

it('stops where it is told to, and says how far it came', async () => {
  const rows = Array.from({ length: 2 * IMPORT_BATCH }, (_, i) => `no. ${100 + i},violin,1/2`)
  fakeServer(({ method }) => ({
    status: 200,
    body: method === 'POST' ? { count: 1, ids: ['one'], notLent: [] } : [],
  }))
  const table = await imported(rows)
  const saving = table.save()
  table.stop()
  await saving
  expect(table.saved.value).toBe(IMPORT_BATCH)
})

it('is taken back whole, part by part, the last first', async () => {
  const rows = Array.from({ length: IMPORT_BATCH + 1 }, (_, i) => `no. ${100 + i},violin,1/2`)
  let part = 0
  const sent = fakeServer(({ method, path }) => {
    if (method === 'GET') return { status: 200, body: [] }
    if (path.endsWith('/undo')) return { status: 204 }
    return { status: 200, body: { count: 1, ids: [`part ${++part}`], notLent: [] } }
  })
  const table = await imported(rows)
  await table.save()
  await table.undo()
  const undone = sent.filter(({ path }) => path.endsWith('/undo')).map(({ body }) => body)
  expect(undone).toEqual([{ ids: ['part 2'] }, { ids: ['part 1'] }])
  expect(table.state.value).toBe('empty')
})

const BESIDES = {
  method: 'strings',
  stringLengthsMm: [284, 284.3, 284.6, 285.1],
  pressing: { mode: 'measured', nutHeightMm: 0.4, endHeightMm: 4.2, material: 'steel' },
  warmHands: true,
  rings: [{ string: 'D4', note: 'E4', system: 'fifths', placeMm: 31.7, foundOn: '2026-10-12' }],
}

it('reads back what the cupboard writes: length, day, tapes, holder and all that is kept besides of every instrument', async () => {
  const tapes = [
    { markId: '1.2', placeMm: 31.04 },
    { markId: '3.5', placeMm: 71.1 },
  ]
  const taped = {
    ...AN_INSTRUMENT,
    tapes: tapes.map((tape) => ({ ...tape, since: '2026-10-10', seenOn: '2026-10-10' })),
    tapeSet: { tapeWidthMm: 2.5, laidOn: '2026-10-10' },
    holder: { studentId: A_STUDENT.id, name: 'Orla Venn' },
    measurement: {
      ...AN_INSTRUMENT.measurement!,
      method: 'strings',
      stringLengthsMm: [284, 284.3, 284.6, 285.1],
    },
    pressing: BESIDES.pressing,
    warmHands: true,
    ringFinds: BESIDES.rings.map((ring, i) => ({
      ...ring,
      id: `find ${i}`,
      cents: 204,
      isTrusted: true,
      by: 'x',
    })),
  } as unknown as Instrument
  const bare = {
    ...AN_INSTRUMENT,
    id: `${AN_INSTRUMENT.id.slice(0, -1)}8`,
    label: '=no. 8',
    measurement: null,
  }
  known({ instruments: [taped, bare] })
  signedIn()
  fakeServer(lists({ instruments: [taped, bare] }))
  const csv = toCsv(
    await effectScope()
      .run(() => useCupboard())!
      .table(),
  )
  const parsed = parseInstruments(new TextEncoder().encode(csv).buffer)
  if (!parsed.ok) throw new Error(parsed.fault.code)
  expect(parsed.unread).toEqual([])
  expect(parsed.rows.map((row) => row.ok && row.instrument)).toEqual([
    {
      label: 'no. 7',
      family: 'violin',
      sizeId: '1/2',
      length: '284.5',
      isDoubtful: false,
      tuning: ['G3', 'D4', 'A4', 'E5'],
      measuredOn: '2026-10-03',
      tapes,
      tapeWidthMm: 2.5,
      laidOn: '2026-10-10',
      holder: 'Orla Venn',
      besides: BESIDES,
    },
    { label: '=no. 8', family: 'violin', sizeId: '1/2', isDoubtful: false, tuning: ['G3', 'D4', 'A4', 'E5'] },
  ])
})

it('says which row of the file the server refused, and stays where it was', async () => {
  const fields = [{ path: 'rows.1.laidOn', message: '2031-01-01 has not come yet: look at the year.' }]
  fakeServer(({ method }) =>
    method === 'GET'
      ? { status: 200, body: [] }
      : { status: 422, body: { status: 422, code: 'invalid_request', title: 'No', fields } },
  )
  const table = await imported(['no. 8,violin,1/2', '', 'no. 9,violin,1/2'])
  await table.save()
  expect([table.state.value, table.saveFault.value]).toEqual([
    'read',
    'Row 4, no. 9: 2031-01-01 has not come yet: look at the year.',
  ])
})
