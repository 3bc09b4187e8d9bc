// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'
import { IDEMPOTENCY_HEADER, type CheckDraft, type Student } from '#contracts'
import { useNotices } from '../../stores/notices'
import { A_STUDENT, AN_INSTRUMENT, fakeServer, freshStores, type Reply } from '../../testing'
import { useKeepCheck } from './useKeepCheck'
import { useReadings } from './useReadings'

const DRAFT: CheckDraft = {
  instrumentId: AN_INSTRUMENT.id,
  takenAt: '2026-11-28T09:41:00.000Z',
  string: 'A4',
  shapeId: 'first',
  system: 'fifths',
  readings: [{ finger: 1, shownCents: 5 }],
}
const KEPT = { status: 200, body: { id: 'the check', studentId: A_STUDENT.id } }
const AWAY = { status: 503, body: { status: 503, code: 'database_unavailable', title: 'Away' } }

function open(...replies: Reply[]) {
  const sent = fakeServer(...replies)
  const student = ref<Student | undefined>(A_STUDENT)
  const scope = effectScope()
  const sheet = scope.run(() => useReadings(ref([0, 1, 2, 3, 4] as const), ref('the sheet')))!
  const keeping = scope.run(() => useKeepCheck(student, sheet))!
  sheet.type(1, '5')
  return { sent, student, sheet, ...keeping }
}

beforeEach(() => {
  localStorage.clear()
  freshStores()
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('clears the sheet only once the server has said that the check is kept, and offers to undo it', async () => {
  const { sheet, keep, state } = open(AWAY, KEPT)
  const kept = keep(DRAFT)
  await vi.advanceTimersByTimeAsync(100)
  expect(state.value).toBe('waiting')
  expect(sheet.readings.value).toHaveLength(1)
  await vi.advanceTimersByTimeAsync(2000)
  expect(await kept).toMatchObject({ id: 'the check' })
  expect(sheet.readings.value).toEqual([])
  expect(state.value).toBe('idle')
  expect(useNotices().notices[0]).toMatchObject({
    text: 'Kept in the file of Orla Venn.',
    action: { label: 'Undo' },
  })
})

it('sends the same save with the same key after a reload, even minutes later', async () => {
  const first = open(undefined)
  void first.keep(DRAFT).catch(() => {})
  await vi.advanceTimersByTimeAsync(100)
  const again = open(KEPT)
  again.sheet.setPending({ key: first.sent[0]?.headers[IDEMPOTENCY_HEADER] ?? '', body: DRAFT })
  await again.keep({ ...DRAFT, takenAt: '2026-11-28T10:00:00.000Z' })
  expect(again.sent[0]?.headers[IDEMPOTENCY_HEADER]).toBe(first.sent[0]?.headers[IDEMPOTENCY_HEADER])
  expect(again.sent[0]?.body).toEqual(DRAFT)
})

it('keeps the readings when the server refuses them', async () => {
  const { sheet, keep, state } = open({
    status: 409,
    body: { status: 409, code: 'instrument_not_measured', title: 'No' },
  })
  await expect(keep(DRAFT)).rejects.toMatchObject({ code: 'instrument_not_measured' })
  expect(sheet.readings.value).toHaveLength(1)
  expect(state.value).toBe('idle')
})

it('does not send twice while one is under way', async () => {
  const { sent, keep } = open(undefined)
  void keep(DRAFT).catch(() => {})
  expect(await keep(DRAFT)).toBeUndefined()
  expect(sent).toHaveLength(1)
})

it('stops trying when the lesson has gone on to somebody else', async () => {
  const { student, keep, sent } = open(undefined)
  const kept = keep(DRAFT).catch((e: unknown) => e)
  await vi.advanceTimersByTimeAsync(100)
  student.value = undefined
  await vi.advanceTimersByTimeAsync(5000)
  expect(await kept).toMatchObject({ code: 'unreachable' })
  expect(sent.length).toBeLessThanOrEqual(2)
})
