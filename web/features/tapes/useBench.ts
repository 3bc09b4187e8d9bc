import { computed, ref, watch, type Ref } from 'vue'
import {
  boardFor,
  DEFAULT_SYSTEM_ID,
  DEFAULT_TAPE_WIDTH_MM,
  familyOf,
  noteName,
  schoolOf,
  shapeOf,
  handTargets,
  planTapes,
  chartTapes,
  tuningSystem,
  equal,
  type FamilyId,
} from '#core'
import type { Instrument, Student } from '#contracts'
import type { BoardInstrument, BoardTape, BoardTarget } from '../../board/board'
import { shortFingerName } from '../../words/trade'
import { tuningOf } from '../check/useHand'
import { useTypedLength } from './useTypedLength'

/** The tape bench: what is on it, and the places that follow. With a student it starts from the student's instrument. */
export function useBench(student: Ref<Student | undefined>) {
  const familyId = ref<FamilyId>('violin')
  const sizeId = ref('4/4')
  const lengthText = ref('')
  const systemId = ref(DEFAULT_SYSTEM_ID)
  const schoolId = ref('')
  const tapeWidthMm = ref(DEFAULT_TAPE_WIDTH_MM)

  const instrument = computed(() => student.value?.instrument ?? undefined)
  const family = computed(() => familyOf(familyId.value))
  const typed = useTypedLength(lengthText, family, sizeId)

  watch(
    () => [student.value?.id, instrument.value?.id].join(' '),
    () => lay(student.value, instrument.value),
    { immediate: true },
  )
  watch(
    () => instrument.value?.sizeId,
    (id) => (sizeId.value = id ?? sizeId.value),
  )
  watch(familyId, () => {
    if (instrument.value?.family === familyId.value) return
    sizeId.value = family.value.sizes[0]?.id ?? ''
    schoolId.value = family.value.defaultSchoolId
  })

  function lay(of: Student | undefined, on: Instrument | undefined) {
    familyId.value = on?.family ?? of?.family ?? familyId.value
    sizeId.value = on?.sizeId ?? family.value.sizes[0]?.id ?? ''
    lengthText.value = on?.measurement ? String(Number(on.measurement.lengthMm.toFixed(1))) : ''
    schoolId.value = of?.tapeSchoolId ?? on?.tapeSet?.schoolId ?? family.value.defaultSchoolId
    systemId.value = on?.tapeSet?.system ?? DEFAULT_SYSTEM_ID
    tapeWidthMm.value = on?.tapeSet?.tapeWidthMm ?? DEFAULT_TAPE_WIDTH_MM
  }

  const tuning = computed(() => (instrument.value ? tuningOf(instrument.value) : family.value.tuning))
  const school = computed(() => schoolOf(family.value, schoolId.value) ?? family.value.schools[0]!)
  const system = computed(() => tuningSystem(systemId.value) ?? equal)
  /** Before anything is measured the bench shows what is typical, and says so. */
  const isTypical = computed(() => typed.value.usableMm === undefined)
  const lengthMm = computed(
    () =>
      typed.value.usableMm ??
      family.value.sizes.find((s) => s.id === sizeId.value)?.typicalLengthMm ??
      family.value.board.stringLengthMm,
  )
  const plan = computed(() =>
    planTapes({ family: family.value, tuning: tuning.value, system: system.value, school: school.value }),
  )
  const marks = computed(() => chartTapes(plan.value, lengthMm.value, tapeWidthMm.value))

  const boardInstrument = computed<BoardInstrument>(() => ({
    shape: boardFor(family.value, lengthMm.value),
    tuning: tuning.value,
  }))
  const boardTapes = computed<BoardTape[]>(() =>
    marks.value.map((mark) => ({
      ...mark,
      id: `${mark.shapeId}-${mark.finger}`,
      label: shortFingerName(mark.finger),
    })),
  )
  const boardTargets = computed<BoardTarget[]>(() => {
    // The string to lay by: the second from the bottom rings with its upper neighbours on every family.
    const stringIndex = Math.min(1, tuning.value.length - 1)
    const open = tuning.value[stringIndex]
    const shape = shapeOf(family.value, family.value.defaultShapeId)
    if (!open || !shape) return []
    return handTargets(lengthMm.value, open, shape, system.value).map(({ finger, placeMm, note: n }) => ({
      stringIndex,
      finger,
      placeMm,
      note: noteName(n),
    }))
  })

  return {
    familyId,
    sizeId,
    lengthText,
    systemId,
    schoolId,
    tapeWidthMm,
    instrument,
    family,
    tuning,
    typed,
    isTypical,
    lengthMm,
    marks,
    boardInstrument,
    boardTapes,
    boardTargets,
  }
}
