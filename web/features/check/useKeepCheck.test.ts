import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'
import type { CheckDraft, Student } from '#contracts'
import { shaped } from '../../../core/testing'
import { useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import {
  A_STUDENT,
  AN_INSTRUMENT,
  fakeServer,
  freshStores,
  problem,
  signedIn,
  type Reply,
} from '../../testing'
import { useKeepCheck } from './useKeepCheck'
import { sheetPlaces, useReadings } from './useReadings'

const DRAFT: CheckDraft = {
  instrumentId: AN_INSTRUMENT.id,
  takenAt: '2026-11-28T09:41:00.000Z',
  exercise: { kind: 'shape', string: 'A4', shapeId: 'first' },
  system: 'fifths',
  readings: [{ finger: 1, shownCents: 5 }],
}
const KEPT = { status: 200, body: { id: 'the check', studentId: A_STUDENT.id } }
const AWAY = problem(503, 'database_unavailable')

function open(...replies: Reply[]) {
  const sent = fakeServer(...replies)
  const student = ref<Student | undefined>(A_STUDENT)
  const name = ref('on A')
  const scope = effectScope()
  const sheet = scope.run(() => useReadings(ref(sheetPlaces(shaped('violin'))), name))!
  const keeping = scope.run(() => useKeepCheck(student, name))!
  sheet.type('1', '5')
  return { sent, student, name, sheet, ...keeping }
}
const checksOf = (sent: ReturnType<typeof fakeServer>) => sent.filter((s) => s.path.endsWith('/checks'))

beforeEach(() => {
  localStorage.clear()
  freshStores()
  signedIn()
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

it('clears its own sheet, not the one that is looked at when the answer comes', async () => {
  const { name, sheet, keep, state } = open(AWAY, KEPT)
  const kept = keep(DRAFT)
  await vi.advanceTimersByTimeAsync(100)
  name.value = 'on D'
  sheet.type('1', '-9')
  expect(state.value).toBe('idle')
  await vi.runAllTimersAsync()
  await kept
  expect(sheet.rows.value[1]?.text).toBe('-9')
  name.value = 'on A'
  expect(sheet.readings.value).toEqual([])
})

it('keeps the readings when the server refuses them', async () => {
  const { sheet, keep, state } = open(problem(409, 'instrument_not_measured'))
  await expect(keep(DRAFT)).rejects.toMatchObject({ code: 'instrument_not_measured' })
  expect(sheet.readings.value).toHaveLength(1)
  expect(state.value).toBe('idle')
})

describe('the sound of a take', () => {
  const sound = { samples: Float32Array.from([0, 0.5, -0.5, 0]), sampleRateHz: 22_050 }
  const uploads = (sent: ReturnType<typeof fakeServer>) =>
    sent.filter((s) => s.path.includes('/attachments/'))
  const ALLOWED = { ...A_STUDENT, soundConsent: { on: '2026-11-28', by: 'Mrs Venn' } }

  it.each([
    ['the studio keeps none', false, ALLOWED, 0],
    ['nobody allowed it', true, A_STUDENT, 0],
    ['both allow it', true, ALLOWED, 1],
  ] as const)('where %s (keeps sound: %s) is sent or stays here', async (_, keepsSound, of, count) => {
    const { sent, student, keep } = open(KEPT, KEPT, KEPT)
    signedIn('hester', 'fifths', { keepsSound })
    student.value = of
    await keep({ ...DRAFT, sound })
    await flushPromises()
    expect(uploads(sent).map((s) => s.path)).toEqual(
      Array.from({ length: count }, () => '/api/v1/attachments/check/the%20check'),
    )
    // It never travels inside the check.
    expect(JSON.stringify(checksOf(sent)[0]?.body)).not.toContain('samples')
  })

  it('that the server does not take leaves the check kept, and says so', async () => {
    const refused = problem(403, 'sound_not_allowed')
    const { sent, student, keep } = open()
    vi.unstubAllGlobals()
    const all = fakeServer((request) => (request.path.includes('attachments') ? refused : KEPT))
    signedIn('hester', 'fifths', { keepsSound: true })
    student.value = ALLOWED
    expect(await keep({ ...DRAFT, sound })).toMatchObject({ id: 'the check' })
    await flushPromises()
    expect([sent.length, uploads(all).length]).toEqual([0, 1])
    expect(
      useNotices()
        .notices.map((n) => n.text)
        .join(),
    ).toContain('is kept, its sound is not')
  })
})

it('does not send twice while one is under way', async () => {
  const { sent, keep } = open(undefined)
  void keep(DRAFT)
  expect(await keep(DRAFT)).toBeUndefined()
  expect(sent).toHaveLength(1)
})

it('takes the save back when its sheet is changed while the server is away', async () => {
  const { sheet, keep, change, sent } = open(AWAY)
  const kept = keep(DRAFT)
  await vi.advanceTimersByTimeAsync(100)
  change()
  sheet.type('1', '6')
  expect(await kept).toBeUndefined()
  await vi.runAllTimersAsync()
  expect(checksOf(sent)).toHaveLength(1)
  expect(sheet.rows.value[1]?.text).toBe('6')
})

it('is kept though the lesson has gone on to somebody else, in the file of whose hand it was', async () => {
  const { student, keep, sent } = open(AWAY, KEPT)
  const kept = keep(DRAFT)
  await vi.advanceTimersByTimeAsync(100)
  student.value = { ...A_STUDENT, id: 'another', name: 'Finn Aske' }
  await vi.runAllTimersAsync()
  await kept
  await flushPromises()
  expect(new Set(checksOf(sent).map((s) => s.path))).toEqual(
    new Set([`/api/v1/students/${A_STUDENT.id}/checks`]),
  )
  expect(useOutbox().waiting).toEqual([])
})
