import { v4 as uuid } from 'uuid'
import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, watch } from 'vue'
import { centsAboveOpen, knownSystem, noteName, parseNote, type FamilyId } from '#core'
import type { Instrument, RingFind } from '#contracts'
import { call } from '../../api/client'
import { useLesson } from '../lesson'
import { useOutbox } from '../outbox'
import { useSettings } from '../settings'
import { useStudio } from '../studio'
import { bareSetup, setupFor, type BenchSetup } from './setup'
import { asManyAs, useBenchStrings, type BenchFind } from './strings'
import { studioDay } from '../../words/shown'

/** What lies on the bench, and its strings. It stays while the teacher looks elsewhere, and over a reload. */
export const useBench = defineStore('bench', () => {
  const lesson = useLesson()
  const studio = useStudio()
  const settings = useSettings()
  const outbox = useOutbox()
  const setup = useSessionStorage<BenchSetup>('jadefell.bench', bareSetup('violin'), { mergeDefaults: true })
  const looseFinds = useSessionStorage<BenchFind[]>('jadefell.bench.finds', [])

  const student = computed(() => (lesson.instrumentId === '' ? lesson.student : undefined))
  const instrument = computed(() =>
    lesson.instrumentId === '' ? (lesson.student?.instrument ?? undefined) : lesson.instrument,
  )
  const finds = computed<readonly BenchFind[]>(() => instrument.value?.ringFinds ?? looseFinds.value)
  const strings = useBenchStrings(setup, instrument, finds)

  /** Whose bench this was set for: when that changes it is laid out anew, and not because a row was saved. */
  const laidFor = useSessionStorage('jadefell.bench.for', '')
  /** After a reload it is known who is in the lesson before it is known who that is. */
  const isAwaited = computed(() =>
    lesson.instrumentId === '' ? lesson.studentId !== '' && !lesson.student : !lesson.instrument,
  )
  watch(
    () => (isAwaited.value ? undefined : [student.value?.id ?? '', instrument.value?.id ?? ''].join(' ')),
    (whose) => {
      if (whose === undefined || whose === laidFor.value) return
      const isFirst = laidFor.value === ''
      laidFor.value = whose
      setup.value = setupNow(isFirst)
    },
    { immediate: true },
  )
  /** Where the lesson ends the bench stays as it is; one that was never laid out begins in the studio's system. */
  function setupNow(isFirst: boolean): BenchSetup {
    if (instrument.value) {
      const player = student.value ?? studio.student(instrument.value.holder?.studentId ?? '')
      return setupFor(
        instrument.value,
        player,
        studio.systemOf(instrument.value, player),
        settings.tapeSchoolId(instrument.value.family),
      )
    }
    if (student.value)
      return bareSetup(
        student.value.family,
        studio.systemOf(undefined, student.value),
        settings.tapeSchoolId(student.value.family, student.value),
      )
    const { familyId } = setup.value
    return isFirst
      ? bareSetup(familyId, studio.systemOf(undefined, undefined), settings.tapeSchoolId(familyId))
      : { ...setup.value, instrumentId: '' }
  }
  watch(
    () => instrument.value?.sizeId,
    (id) => (setup.value.sizeId = id ?? setup.value.sizeId),
  )
  watch(
    () => strings.tuning.value.length,
    (count) => {
      const texts = setup.value.stringTexts
      if (texts.length !== count) setup.value.stringTexts = asManyAs(count, texts)
    },
  )

  function replaceFinds(of: Instrument, change: (finds: readonly RingFind[]) => RingFind[]) {
    const now = studio.instrument(of.id) ?? of
    studio.takeInstrument({ ...now, ringFinds: change(now.ringFinds) })
  }

  async function addFind(string: string, note: string, placeMm: number): Promise<void> {
    const [open, stopped] = [parseNote(string), parseNote(note)]
    if (!open || !stopped) return
    const foundOn = studioDay()
    const system = setup.value.systemId
    const of = instrument.value
    if (of) {
      const made = await outbox.send(
        'ringFinds.create',
        {
          params: { instrumentId: of.id },
          body: { string: noteName(open), note: noteName(stopped), system, placeMm, foundOn },
        },
        { what: `${noteName(stopped)} found by ring on ${of.label}` },
      )
      replaceFinds(of, (kept) => [...kept, made])
      return
    }
    looseFinds.value = [
      ...looseFinds.value,
      {
        id: uuid(),
        string: noteName(open),
        note: noteName(stopped),
        cents: centsAboveOpen(knownSystem(system), open, stopped),
        placeMm,
        foundOn,
        isTrusted: false,
      },
    ]
  }

  async function removeFind(id: string): Promise<() => Promise<void>> {
    const of = instrument.value
    if (!of) {
      const before = looseFinds.value
      looseFinds.value = before.filter((find) => find.id !== id)
      return () => {
        looseFinds.value = before
        return Promise.resolve()
      }
    }
    await call('ringFinds.remove', { params: { findId: id } })
    replaceFinds(of, (kept) => kept.filter((find) => find.id !== id))
    return async () => {
      const restored = await call('ringFinds.restore', { params: { findId: id } })
      replaceFinds(of, (kept) => [...kept, restored])
    }
  }

  async function trustFind(id: string, isTrusted: boolean): Promise<void> {
    const of = instrument.value
    if (!of) {
      looseFinds.value = looseFinds.value.map((find) => (find.id === id ? { ...find, isTrusted } : find))
      return
    }
    const changed = await call('ringFinds.update', { params: { findId: id }, body: { isTrusted } })
    replaceFinds(of, (kept) => kept.map((find) => (find.id === id ? changed : find)))
  }

  return {
    setup,
    student,
    instrument,
    finds,
    ...strings,
    addFind,
    removeFind,
    trustFind,
    /** Another family on a bare bench: its own size and school, in the system that was chosen. */
    chooseFamily(familyId: FamilyId) {
      if (familyId === setup.value.familyId) return
      setup.value = bareSetup(familyId, setup.value.systemId, settings.tapeSchoolId(familyId))
      looseFinds.value = []
    },
    /** Lays an instrument of the cupboard on the bench, whoever has it. */
    async choose(instrumentId: string) {
      if (!studio.instrument(instrumentId)) await studio.loadInstrument(instrumentId)
      lesson.instrumentId = instrumentId
    },
    /** An empty bench of the same family. */
    clear() {
      lesson.end()
      const { familyId } = setup.value
      setup.value = bareSetup(
        familyId,
        studio.systemOf(undefined, undefined),
        settings.tapeSchoolId(familyId),
      )
      looseFinds.value = []
    },
  }
})
