// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import type { Instrument, RingFind } from '#contracts'
import { A_STUDENT, AN_INSTRUMENT, fakeServer, freshStores } from '../testing'
import { useBenchStore } from './bench'
import { useLesson } from './lesson'
import { useStudio } from './studio'

const ANOTHER: Instrument = {
  ...AN_INSTRUMENT,
  id: '01900000-0000-7000-8000-000000000014',
  label: 'no. 14',
  family: 'cello',
  sizeId: '3/4',
  tuning: ['C2', 'G2', 'D3', 'A3'],
  measurement: { ...AN_INSTRUMENT.measurement!, lengthMm: 618 },
}
const FIND: RingFind = {
  id: '01900000-0000-7000-8000-000000000099',
  instrumentId: AN_INSTRUMENT.id,
  string: 'D4',
  note: 'E4',
  system: 'fifths',
  cents: 203.91,
  placeMm: 32.4,
  isTrusted: false,
  foundOn: '2026-10-03',
  by: 'Hester Lowe',
}

function lesson(student = A_STUDENT, finds: readonly RingFind[] = []) {
  const sent = fakeServer({ status: 200, body: finds })
  useStudio().students = [student]
  useStudio().instruments = [AN_INSTRUMENT, ANOTHER]
  useLesson().begin(student.id)
  return { store: useBenchStore(), sent }
}

beforeEach(() => {
  sessionStorage.clear()
  freshStores()
})

describe('what lies on the bench', () => {
  it('is the student’s instrument, then one from the cupboard, then the student’s again when the lesson goes on', async () => {
    const { store } = lesson()
    expect([store.setup.lengthText, store.student?.name]).toEqual(['284.5', 'Orla Venn'])
    await store.choose(ANOTHER.id)
    await nextTick()
    expect([store.setup.familyId, store.setup.lengthText, store.student]).toEqual(['cello', '618', undefined])
    useLesson().begin(A_STUDENT.id)
    await nextTick()
    expect([store.setup.familyId, store.setup.lengthText]).toEqual(['violin', '284.5'])
  })

  it('is laid anew when the instrument changes, and not when its row is saved', async () => {
    const { store } = lesson()
    store.setup.lengthText = '286'
    useStudio().takeInstrument({ ...AN_INSTRUMENT, version: 2, sizeId: '3/4' })
    await nextTick()
    expect([store.setup.lengthText, store.setup.sizeId]).toEqual(['286', '3/4'])
    useStudio().students = [
      { ...A_STUDENT, instrument: { ...AN_INSTRUMENT, id: ANOTHER.id, measurement: null } },
    ]
    await nextTick()
    expect(store.setup.lengthText).toBe('')
  })

  it('stays over a reload, typed words and loose finds included', async () => {
    fakeServer({ status: 200, body: [] })
    const before = useBenchStore()
    before.setup.lengthText = '327.5'
    await before.addFind('D4', 'E4', 37)
    await nextTick()
    freshStores()
    const after = useBenchStore()
    expect(after.setup.lengthText).toBe('327.5')
    expect(after.finds.map((find) => find.placeMm)).toEqual([37])
  })

  it('stays over a reload with somebody in the lesson, though their name comes later than the page', async () => {
    lesson().store.setup.lengthText = '286.5'
    await nextTick()
    freshStores()
    fakeServer({ status: 200, body: [] })
    const after = useBenchStore()
    expect(after.instrument).toBeUndefined()
    useStudio().students = [A_STUDENT]
    await nextTick()
    expect([after.instrument?.label, after.setup.lengthText]).toEqual(['no. 7', '286.5'])
  })
})

describe('places found by ring', () => {
  it('come with the instrument, and count no more once its bridge was changed', async () => {
    const { store } = lesson(A_STUDENT, [FIND])
    await flushPromises()
    expect(store.finds).toHaveLength(1)
    useStudio().takeInstrument({ ...AN_INSTRUMENT, version: 2, bridgeChangedOn: '2026-11-14' })
    await nextTick()
    expect(store.finds).toHaveLength(0)
    expect(store.bench.fit.value).toBeUndefined()
  })

  it('are taken out and put back, and the places with them', async () => {
    fakeServer({ status: 200, body: [] })
    const store = useBenchStore()
    store.setup.lengthText = '328'
    await store.addFind('D4', 'E4', 37)
    const moved = store.bench.marks.value[0]!.middleMm
    const undo = await store.removeFind(store.finds[0]!.id)
    expect(store.bench.marks.value[0]!.middleMm).toBeCloseTo(328 / 9, 9)
    await undo()
    expect(store.bench.marks.value[0]!.middleMm).toBe(moved)
  })
})
