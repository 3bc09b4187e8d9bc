import { group } from 'd3-array'
import { computed, ref, watch, type Ref } from 'vue'
import {
  familyOf,
  judgeHand,
  landingFromMeter,
  marksWithIds,
  notesWithoutPlace,
  notesOf,
  placeOnString,
  shapeExercise,
  shapeOf,
  targetsOf,
  DEFAULT_TAPE_WIDTH_MM,
  type Landing,
  type Stringing,
  type Target,
  type Take,
  type Verdict,
} from '#core'
import type { Instrument, MeterReading, Student } from '#contracts'
import type { BoardLanding, BoardTape, BoardTarget } from '../../board/board'
import { useBench } from '../../stores/bench'
import { useStudio } from '../../stores/studio'
import { noPlaceSentence } from '../../words/places'
import { markName } from '../../words/trade'
import { noteLabel } from '../../words/notes'

/**
 * What is played: a hand shape on a string of the student's instrument, with the places of its notes. Without a student it
 * is played on what lies on the bench.
 */
export function useExercise(student: Ref<Student | undefined>) {
  const studio = useStudio()
  const bench = useBench()
  const instrument = computed(() =>
    student.value ? (student.value.instrument ?? undefined) : bench.instrument,
  )
  const family = computed(() =>
    student.value ? familyOf(instrument.value?.family ?? student.value.family) : bench.family,
  )
  const tuning = computed(() => {
    if (!student.value) return bench.tuning
    return instrument.value ? notesOf(instrument.value.tuning) : family.value.tuning
  })

  const stringIndex = ref(0)
  const shapeId = ref('')
  const ownSystemId = ref('')
  const systemId = computed({
    get: () => (student.value ? ownSystemId.value : bench.setup.systemId),
    set: (id) => (student.value ? (ownSystemId.value = id) : (bench.setup.systemId = id)),
  })
  watch(
    () => [student.value?.id, instrument.value?.id, family.value.id],
    () => {
      const last = student.value?.lastCheck?.exercise
      const names = tuning.value.map((n) => noteLabel(n))
      const lastIndex = last ? names.indexOf(last.string) : -1
      // The second string from the top is where hands are shaped first.
      stringIndex.value = lastIndex >= 0 ? lastIndex : Math.max(0, names.length - 2)
      shapeId.value = last && shapeOf(family.value, last.shapeId) ? last.shapeId : family.value.defaultShapeId
      ownSystemId.value = studio.systemOf(instrument.value, student.value)
    },
    { immediate: true },
  )

  const shape = computed(() => shapeOf(family.value, shapeId.value) ?? family.value.shapes[0]!)
  const exercise = computed(() =>
    shapeExercise(tuning.value, Math.min(stringIndex.value, tuning.value.length - 1), shape.value),
  )
  /** Undefined until the strings are measured. */
  const stringing = computed(() => {
    if (!student.value) return bench.stringing.isMeasured ? bench.stringing : undefined
    return instrument.value?.measurement ? studio.stringingOf(instrument.value, systemId.value) : undefined
  })
  const targets = computed(() => (stringing.value ? targetsOf(stringing.value, exercise.value) : []))
  return {
    instrument,
    family,
    tuning,
    stringIndex,
    shapeId,
    systemId,
    shape,
    exercise,
    stringing,
    targets,
    /** Asked for, and nowhere to be pressed; the board aims at the place of a string that is not. */
    noPlace: computed(() =>
      noPlaceSentence(
        (stringing.value ? notesWithoutPlace(stringing.value, targets.value) : []).map((n) =>
          noteLabel(n.note),
        ),
      ),
    ),
    open: computed(() => exercise.value.notes[0]!.note),
    toleranceCents: computed(() => student.value?.toleranceCents ?? 20),
  }
}

export type ExerciseChoice = ReturnType<typeof useExercise>

/** The exercise with where the fingers landed, read from a meter and heard, and what that says of the hand. */
export function useTake(
  choice: ExerciseChoice,
  readings: Ref<readonly MeterReading[]>,
  heard: Ref<readonly Landing[]>,
) {
  const take = computed<Take | undefined>(() => {
    const { stringing, exercise } = choice
    if (!stringing.value) return undefined
    const strings = stringing.value
    const landings = readings.value.flatMap(({ finger, shownCents }): Landing[] => {
      const expected = exercise.value.notes.find((n) => n.finger === finger)
      return expected ? [landingFromMeter(strings, expected, shownCents)] : []
    })
    return { stringing: strings, exercise: exercise.value, landings: [...landings, ...heard.value] }
  })
  const verdict = computed<Verdict | undefined>(
    () => take.value && judgeHand({ ...take.value, toleranceCents: choice.toleranceCents.value }),
  )
  return { take, verdict }
}

/** The board's layers for a take. */
export function useTakeOnBoard(
  { targets, instrument, toleranceCents }: ExerciseChoice,
  { take, verdict }: ReturnType<typeof useTake>,
  sounding: Ref<Landing | undefined>,
) {
  const boardTargets = computed<BoardTarget[]>(() =>
    targets.value.flatMap(({ stringIndex, finger, placeMm, note }) =>
      finger === 0 ? [] : [{ stringIndex, finger, placeMm, note: noteLabel(note) }],
    ),
  )
  const tapes = computed<BoardTape[]>(() => tapesOnBoard(instrument.value))
  const landings = computed<BoardLanding[]>(() => {
    if (!take.value) return []
    const { stringing } = take.value
    const byFinger = group(take.value.landings, (l) => l.finger)
    const heard = (verdict.value?.fingers ?? []).map(({ finger, target, meanCents, meanMm }) =>
      onBoard(stringing, target, {
        finger,
        meanMm: target.placeMm + meanMm,
        meanCents,
        notesMm: (byFinger.get(finger) ?? []).map((l) => l.placeMm),
      }),
    )
    const now = sounding.value
    const target = now && targets.value.find((t) => t.finger === now.finger)
    if (!target || now.finger === 0 || heard.some((h) => h.finger === now.finger)) return heard
    // A finger that comes down for the first time is there before its note is over.
    const first = { finger: now.finger, meanMm: now.placeMm, meanCents: now.cents, notesMm: [] }
    return [...heard, onBoard(stringing, target, first)]
  })
  function onBoard(
    stringing: Stringing,
    { stringIndex, cents, placeMm }: Target,
    landed: Pick<BoardLanding, 'finger' | 'meanMm' | 'meanCents' | 'notesMm'>,
  ): BoardLanding {
    const placeAt = (off: number) => placeOnString(stringing, stringIndex, cents + off)
    return {
      ...landed,
      stringIndex,
      targetMm: placeMm,
      toleranceMm: [placeAt(-toleranceCents.value), placeAt(toleranceCents.value)] as const,
      isOff: Math.abs(landed.meanCents) > toleranceCents.value,
      soundingMm: sounding.value?.finger === landed.finger ? sounding.value.placeMm : undefined,
    }
  }
  return { boardTargets, tapes, landings }
}

/** The tapes that lie on an instrument now, where they were seen last. */
export function tapesOnBoard(instrument: Instrument | undefined): BoardTape[] {
  if (!instrument) return []
  const half = (instrument.tapeSet?.tapeWidthMm ?? DEFAULT_TAPE_WIDTH_MM) / 2
  const marks = marksWithIds(
    familyOf(instrument.family),
    instrument.tapes.map((tape) => tape.markId),
  )
  return instrument.tapes.flatMap(({ markId, placeMm }) => {
    const mark = marks.find((m) => m.id === markId)
    if (!mark) return []
    return [
      {
        id: markId,
        label: markName(mark),
        nearEdgeMm: placeMm - half,
        middleMm: placeMm,
        farEdgeMm: placeMm + half,
      },
    ]
  })
}
