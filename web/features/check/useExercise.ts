import { storeToRefs } from 'pinia'
import { computed, ref, watch, type Ref } from 'vue'
import {
  exerciseOf,
  familyOf,
  isSamePlace,
  judgeTake,
  landedPlaces,
  landingOfReading,
  lineOf,
  marksWithIds,
  noteName,
  notesWithoutPlace,
  notesOf,
  placementContext,
  placeOnString,
  strayLandings,
  parseKey,
  placesOf,
  shapeExercise,
  shapeOf,
  stringsThatPlay,
  targetOf,
  DEFAULT_TAPE_WIDTH_MM,
  recordedName,
  recordedNote,
  type EarlierTake,
  type Exercise,
  type ExerciseName as CoreName,
  type ExpectedNote,
  type Family,
  type Landing,
  type Note,
  type ScaleSchool,
  type Stringing,
  type Target,
  type Take,
  type Verdict,
  techniqueOf,
} from '#core'
import type { ExerciseDraft, ExerciseName, Instrument, Reading, Student } from '#contracts'
import type { BoardLanding, BoardTape, BoardTarget } from '../../board/board'
import { dotsOf } from '../../board/landings'
import { useBench } from '../../stores/bench'
import { useExerciseChoice, type ExerciseChoice } from '../../stores/exercise-choice'
import { useFingeringsOf } from '../../stores/fingerings'
import { useSettings } from '../../stores/settings'
import { useStudio } from '../../stores/studio'
import { studioStringing } from '../../stores/stringing'
import { exerciseFaultSentence } from '../../words/exercises'
import { noPlaceSentence } from '../../words/places'
import { markName } from '../../words/trade'
import { noteLabel } from '../../words/notes'

/**
 * What is played on the student's instrument, with the places of its notes. Without a student it is played on what lies on
 * the bench.
 */
export function useExercise(
  student: Ref<Student | undefined>,
  /** False while it is not known yet who is in the lesson. */
  isPresent: Ref<boolean>,
) {
  const studio = useStudio()
  const bench = useBench()
  const settings = useSettings()
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

  const chosen = useExerciseChoice()
  const { choice, name } = storeToRefs(chosen)
  const isScale = computed(() => name.value.kind === 'scale' || name.value.kind === 'arpeggio')
  const fingerings = useFingeringsOf(computed(() => (isScale.value ? family.value.id : undefined)))
  const ownSystemId = ref('')
  const systemId = computed({
    get: () => (student.value ? ownSystemId.value : bench.setup.systemId),
    set: (id) => (student.value ? (ownSystemId.value = id) : (bench.setup.systemId = id)),
  })
  watch(
    () =>
      [isPresent.value, student.value?.id ?? 'walk-in', instrument.value?.id ?? '', family.value.id] as const,
    ([isKnown, ...of]) => {
      if (!isKnown) return
      chosen.settle(of.join(' '), () =>
        firstChoice(family.value, tuning.value, student.value?.lastCheck?.exercise ?? undefined),
      )
      ownSystemId.value = studio.systemOf(instrument.value, student.value)
    },
    { immediate: true },
  )

  const context = computed(() => {
    const frameId = techniqueOf(family.value.id).choosesFrame
      ? settings.schoolsOf(student.value).bass_fingering
      : undefined
    const frame = family.value.frames.find(({ id }) => id === frameId)?.id
    return placementContext(family.value, tuning.value, { frameId: frame })
  })
  const made = computed(() => {
    const asked = withinStrings(name.value)
    return exerciseOf(context.value, asked, scaleSchool(asked))
  })
  const playsOn = (asked: Extract<CoreName, { stringIndex: number }>) => stringsThatPlay(context.value, asked)
  /** Chosen on an instrument with more strings, or where a string has no other beside it: the nearest that can. */
  function withinStrings(asked: CoreName): CoreName {
    if (!('stringIndex' in asked)) return asked
    const isMatch = asked.kind === 'fourth' || asked.kind === 'octave'
    const most = (isMatch ? playsOn(asked).at(-1) : undefined) ?? tuning.value.length - 1
    return { ...asked, stringIndex: Math.min(asked.stringIndex, most) }
  }
  /** As the student’s school climbs, and in the studio’s own fingering where it keeps one. */
  function scaleSchool(asked: CoreName): ScaleSchool {
    if (asked.kind !== 'scale' && asked.kind !== 'arpeggio') return {}
    const { climbing, chromatic_scales } = settings.schoolsOf(student.value)
    const key = parseKey(asked.keyId)
    const { kind: figure, octaves } = asked
    const line = key.ok ? lineOf(context.value, { key: key.key, figure, octaves }) : undefined
    const locks = line ? fingerings.locksOf(line) : []
    const kept = line ? fingerings.shorterOf(line) : {}
    return { locks, kept, options: { climb: climbing, chromatic: chromatic_scales } }
  }
  const exercise = computed<Exercise>(() =>
    made.value.ok ? made.value.exercise : { name: name.value, notes: [] },
  )
  /** Undefined until the strings are measured. */
  const stringing = computed(() => {
    if (!student.value) return bench.stringing.isMeasured ? bench.stringing : undefined
    return instrument.value?.measurement ? studioStringing(instrument.value, systemId.value) : undefined
  })
  /** Each place once. */
  const targets = computed(() => {
    const strings = stringing.value
    return strings ? placesOf(exercise.value.notes).map((expected) => targetOf(strings, expected)) : []
  })
  return {
    instrument,
    family,
    tuning,
    context,
    choice,
    systemId,
    exercise,
    stringing,
    targets,
    /** The strings on which such an exercise can be played. */
    playsOn,
    /** What a simulated student plays where nothing is asked for: a scale of the key, or the usual hand. */
    improvised: computed<Exercise>(() => {
      const scale = exerciseOf(context.value, {
        kind: 'scale',
        keyId: choice.value.keyId,
        octaves: 1,
        openStrings: 'prefer',
      })
      if (scale.ok) return scale.exercise
      return shapeExercise(tuning.value, 0, family.value.shapes[0]!)
    }),
    /** Why there is nothing to be played; empty where there is. */
    fault: computed(() => (made.value.ok ? '' : exerciseFaultSentence(made.value.code, choice.value))),
    /** Asked for, and nowhere to be pressed; the board aims at the place of a string that is not. */
    noPlace: computed(() =>
      noPlaceSentence(
        (stringing.value ? notesWithoutPlace(stringing.value, targets.value) : []).map((n) =>
          noteLabel(n.note),
        ),
      ),
    ),
    toleranceCents: computed(() => student.value?.toleranceCents ?? 20),
  }
}

export type ChosenExercise = ReturnType<typeof useExercise>

/** What somebody played last, or else the family’s usual hand shape. */
function firstChoice(
  family: Family,
  tuning: readonly Note[],
  last: ExerciseName | undefined,
): Partial<ExerciseChoice> {
  const names = tuning.map((n) => noteName(n))
  const lastIndex = last && 'string' in last ? names.indexOf(last.string) : -1
  // The second string from the top is where hands are shaped first.
  const stringIndex = lastIndex >= 0 ? lastIndex : Math.max(0, names.length - 2)
  const shapeId = family.defaultShapeId
  if (!last || last.kind === 'free') return { kind: 'shape', stringIndex, shapeId }
  if (last.kind !== 'shape') return { ...last, stringIndex, shapeId }
  return { kind: 'shape', stringIndex, shapeId: shapeOf(family, last.shapeId) ? last.shapeId : shapeId }
}

/** What a take is judged with, beside its notes. */
interface JudgedBeside {
  readonly tapesCovered: Ref<boolean>
  readonly earlier: Ref<readonly EarlierTake[]>
  /** A take goes on: until it ends only the board speaks. */
  readonly isPlaying: Ref<boolean>
}

/** The exercise with where the fingers landed, read from a meter and heard, and what that says of the hand. */
export function useTake(
  chosen: ChosenExercise,
  readings: Ref<readonly Reading[]>,
  heard: Ref<readonly Landing[]>,
  /** Of a free take, the notes that were heard. */
  line: Ref<Exercise>,
  { tapesCovered, earlier, isPlaying }: JudgedBeside,
) {
  const tapesMm = computed(() => chosen.instrument.value?.tapes.map(({ placeMm }) => placeMm) ?? [])
  const take = computed<Take | undefined>(() => {
    const strings = chosen.stringing.value
    if (!strings) return undefined
    const { notes } = chosen.exercise.value
    const landings = readings.value.flatMap(({ finger, index, ...reading }): Landing[] => {
      const expected = typeof index === 'number' ? notes[index] : notes.find((n) => n.finger === finger)
      return expected ? [landingOfReading(strings, expected, reading, { tapesMm: tapesMm.value })] : []
    })
    return {
      stringing: strings,
      exercise: line.value,
      landings: [...landings, ...heard.value],
      tapesMm: tapesMm.value,
    }
  })
  const judged = computed(
    () =>
      take.value &&
      !isPlaying.value && {
        ...take.value,
        toleranceCents: chosen.toleranceCents.value,
        tapesCovered: tapesCovered.value,
        earlier: earlier.value,
      },
  )
  const strays = computed(() => (judged.value ? strayLandings(judged.value) : new Set<Landing>()))
  return {
    take,
    strays,
    /** Undefined while it is played: of half a take a sound hand is blamed at some moment in every fourth or fifth. */
    verdict: computed<Verdict | undefined>(() => (judged.value ? judgeTake(judged.value) : undefined)),
    places: computed(() =>
      take.value ? landedPlaces(take.value.stringing, take.value.landings, strays.value) : [],
    ),
  }
}

/** An exercise as it is sent to be kept. */
export function draftExercise({ name, notes }: Exercise, tuning: readonly Note[]): ExerciseDraft {
  const recorded = recordedName(name, tuning)
  return recorded.kind === 'shape' ? recorded : { ...recorded, notes: notes.map(recordedNote) }
}

/** The last notes of a finger that are drawn one by one: of more nobody sees any. */
const MOST_DOTS = 24

/** The board’s layers for a take. */
export function useTakeOnBoard(
  { targets, instrument, toleranceCents }: ChosenExercise,
  { take, places }: ReturnType<typeof useTake>,
  sounding: Ref<Landing | undefined>,
  /** A note that is pointed at. */
  shown: Ref<ExpectedNote | undefined>,
) {
  const boardTargets = computed<BoardTarget[]>(() => {
    // What is played freely has its places where it was heard.
    const all = targets.value.length > 0 ? targets.value : places.value.map(({ target }) => target)
    return all.flatMap(({ stringIndex, finger, placeMm, note }) =>
      finger === 0 ? [] : [{ stringIndex, finger, placeMm, note: noteLabel(note) }],
    )
  })
  const tapes = computed<BoardTape[]>(() => tapesOnBoard(instrument.value))
  const landings = computed<BoardLanding[]>(() => {
    if (!take.value) return []
    const { stringing } = take.value
    const heard = places.value.flatMap(({ target, meanCents, meanMm, ...own }) =>
      target.finger === 0
        ? []
        : [
            onBoard(stringing, target, {
              finger: target.finger,
              meanMm: target.placeMm + meanMm,
              meanCents,
              ...dotsOf(own, MOST_DOTS),
            }),
          ],
    )
    const now = sounding.value
    if (!now || now.finger === 0 || places.value.some(({ target }) => isSamePlace(target, now))) return heard
    // A finger that comes down for the first time is there before its note is over.
    const first = { finger: now.finger, meanMm: now.placeMm, meanCents: now.cents, notesMm: [] }
    return [...heard, onBoard(stringing, targetOf(stringing, now), first)]
  })
  function onBoard(
    stringing: Stringing,
    target: Target,
    landed: Pick<BoardLanding, 'finger' | 'meanMm' | 'meanCents' | 'notesMm' | 'straysMm'>,
  ): BoardLanding {
    const { stringIndex, cents, placeMm } = target
    const placeAt = (off: number) => placeOnString(stringing, stringIndex, cents + off)
    const now = sounding.value
    return {
      ...landed,
      stringIndex,
      targetMm: placeMm,
      toleranceMm: [placeAt(-toleranceCents.value), placeAt(toleranceCents.value)] as const,
      isOff: Math.abs(landed.meanCents) > toleranceCents.value,
      isShown: shown.value !== undefined && isSamePlace(shown.value, target),
      soundingMm: now && isSamePlace(now, target) ? now.placeMm : undefined,
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
