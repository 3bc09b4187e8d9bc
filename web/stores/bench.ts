import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, markRaw, ref, watch } from 'vue'
import { familyOf, noteName, parseNote, centsAboveOpen } from '#core'
import type { RingFind } from '#contracts'
import { call } from '../api/client'
import { saveSurely } from '../api/saving'
import { bareSetup, setupFor, type BenchSetup } from '../features/tapes/setup'
import { useBench, type BenchFind } from '../features/tapes/useBench'
import { knownSystem } from '../features/check/useHand'
import { isoDay } from '../words/dates'
import { useLesson } from './lesson'
import { useStudio } from './studio'

/** What lies on the bench. It stays while the teacher looks elsewhere, and over a reload. */
export const useBenchStore = defineStore('bench', () => {
  const lesson = useLesson()
  const studio = useStudio()
  const setup = useSessionStorage<BenchSetup>('jadefell.bench', bareSetup('violin'), { mergeDefaults: true })
  const looseFinds = useSessionStorage<BenchFind[]>('jadefell.bench.finds', [])
  const keptFinds = ref<RingFind[]>([])

  const student = computed(() => (lesson.instrumentId === '' ? lesson.student : undefined))
  const instrument = computed(() =>
    lesson.instrumentId === ''
      ? (lesson.student?.instrument ?? undefined)
      : studio.instruments?.find((i) => i.id === lesson.instrumentId),
  )
  const finds = computed<readonly BenchFind[]>(() => {
    if (!instrument.value) return looseFinds.value
    // A changed bridge makes what rang before it history.
    const since = instrument.value.bridgeChangedOn ?? ''
    return keptFinds.value.filter((find) => find.foundOn >= since)
  })
  // Its refs stay refs: what the store hands out is not unwrapped.
  const bench = markRaw(useBench(setup, instrument, finds))

  /** Whose bench this was set for: when that changes it is laid out anew, and not because a row was saved. */
  const laidFor = useSessionStorage('jadefell.bench.for', '')
  /** After a reload it is known who is in the lesson before it is known who that is. */
  const isAwaited = computed(() =>
    lesson.instrumentId === '' ? lesson.studentId !== '' && !studio.students : !studio.instruments,
  )
  if (lesson.instrumentId !== '' && !studio.instruments) void studio.loadInstruments()
  watch(
    () => (isAwaited.value ? undefined : [student.value?.id ?? '', instrument.value?.id ?? ''].join(' ')),
    (whose) => {
      if (whose === undefined || whose === laidFor.value) return
      laidFor.value = whose
      if (student.value || instrument.value) setup.value = setupFor(instrument.value, student.value)
      else setup.value = { ...setup.value, instrumentId: '' }
    },
    { immediate: true },
  )
  watch(
    () => instrument.value?.sizeId,
    (id) => (setup.value.sizeId = id ?? setup.value.sizeId),
  )
  watch(
    () => setup.value.familyId,
    (familyId, before) => {
      if (familyId === before || instrument.value?.family === familyId) return
      setup.value = { ...bareSetup(familyId), systemId: setup.value.systemId }
      looseFinds.value = []
    },
  )
  watch(
    () => instrument.value?.id,
    async (instrumentId) => {
      keptFinds.value = []
      if (instrumentId) keptFinds.value = await call('ringFinds.list', { params: { instrumentId } })
    },
    { immediate: true },
  )

  async function addFind(string: string, note: string, placeMm: number): Promise<void> {
    const [open, stopped] = [parseNote(string), parseNote(note)]
    if (!open || !stopped) return
    const foundOn = isoDay(new Date())
    const system = setup.value.systemId
    if (instrument.value) {
      const made = await saveSurely('ringFinds.create', {
        params: { instrumentId: instrument.value.id },
        body: { string: noteName(open), note: noteName(stopped), system, placeMm, foundOn },
      })
      keptFinds.value = [...keptFinds.value, made]
      return
    }
    const cents = centsAboveOpen(knownSystem(system), open, stopped)
    const find = {
      id: crypto.randomUUID(),
      string: noteName(open),
      note: noteName(stopped),
      cents,
      placeMm,
      foundOn,
    }
    looseFinds.value = [...looseFinds.value, { ...find, isTrusted: false }]
  }

  async function removeFind(id: string): Promise<() => Promise<void>> {
    if (!instrument.value) {
      const before = looseFinds.value
      looseFinds.value = before.filter((find) => find.id !== id)
      return () => {
        looseFinds.value = before
        return Promise.resolve()
      }
    }
    await call('ringFinds.remove', { params: { findId: id } })
    keptFinds.value = keptFinds.value.filter((find) => find.id !== id)
    return async () => {
      const restored = await call('ringFinds.restore', { params: { findId: id } })
      if (restored.instrumentId === instrument.value?.id) keptFinds.value = [...keptFinds.value, restored]
    }
  }

  async function trustFind(id: string, isTrusted: boolean): Promise<void> {
    if (!instrument.value) {
      looseFinds.value = looseFinds.value.map((find) => (find.id === id ? { ...find, isTrusted } : find))
      return
    }
    const changed = await call('ringFinds.update', { params: { findId: id }, body: { isTrusted } })
    keptFinds.value = keptFinds.value.map((find) => (find.id === id ? changed : find))
  }

  return {
    bench,
    setup,
    student,
    instrument,
    finds,
    addFind,
    removeFind,
    trustFind,
    /** Lays an instrument of the cupboard on the bench, whoever has it. */
    async choose(instrumentId: string) {
      if (!studio.instruments) await studio.loadInstruments()
      lesson.instrumentId = instrumentId
    },
    /** An empty bench of the same family. */
    clear() {
      lesson.end()
      setup.value = bareSetup(familyOf(setup.value.familyId).id)
      looseFinds.value = []
    },
  }
})
