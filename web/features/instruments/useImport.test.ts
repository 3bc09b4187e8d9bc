// @vitest-environment happy-dom
import { beforeEach, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import { IMPORT_BATCH } from '#core'
import { parseInstruments } from '../../files/parse-instruments'
import { lists, AN_INSTRUMENT, fakeServer, freshStores, until } from '../../testing'
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
  const ok = { status: 200, body: { count: 1 } }
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
  fakeServer({ status: 200, body: [] })
  const table = await imported(rows)
  const saving = table.save()
  table.stop()
  await saving
  expect(table.saved.value).toBe(IMPORT_BATCH)
})
