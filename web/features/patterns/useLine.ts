import { computed, type Ref } from 'vue'
import {
  fingerScale,
  harmonicsFor,
  lineOf,
  scoreOf,
  techniqueOf,
  type AlternativeId,
  type FigureId,
  type FingeredNote,
  type FingeringOptions,
  type HarmonicPart,
  type Lock,
  type Note,
} from '#core'
import { useBench } from '../../stores/bench'
import { useSettings } from '../../stores/settings'
import { useOfStudent } from '../../stores/useOfStudent'
import { lockFaultSentence } from '../../words/fingerings'
import { fingersOfLine } from './line-board'
import type { LineChoice, Run } from './line-choice'
import { useAlternatives } from './useAlternatives'
import { useDrills } from './useDrills'
import { useOwnFingering } from './useOwnFingering'
import type { Patterns } from './usePatterns'

const MS_PER_MINUTE = 60_000

/** A scale, an arpeggio, double stops or a drill as notes with fingers, on paper, on the board and in pitches. */
export function useLine(choice: Ref<LineChoice>, patterns: Patterns) {
  const bench = useBench()
  const settings = useSettings()
  const { atlas } = patterns
  const drills = useDrills(choice, patterns)
  const { isScale } = drills
  const figure = computed<FigureId>(() => (choice.value.figure === 'arpeggio' ? 'arpeggio' : 'scale'))
  const options = computed<Partial<FingeringOptions>>(() => {
    const { climbing, chromatic_scales } = settings.schoolsOf(patterns.student)
    return { openStrings: choice.value.openStrings, climb: climbing, chromatic: chromatic_scales }
  })
  const line = computed(() =>
    isScale.value
      ? lineOf(atlas.context.value, {
          key: atlas.key.value,
          figure: figure.value,
          octaves: choice.value.octaves,
        })
      : undefined,
  )
  const own = useOwnFingering(patterns, line)
  /** Asked for once the usual one is on the page, and never beside a teacher’s own. */
  const alternatives = useAlternatives(
    computed(
      () =>
        line.value && {
          family: line.value.family,
          tuning: atlas.tuning.value,
          frameId: line.value.frameId,
          keyId: line.value.keyId,
          figure: line.value.figure,
          octaves: line.value.octaves,
          locks: own.isChanged.value ? own.locks.value : [],
          kept: own.shorter.value,
          options: options.value,
        },
    ),
  )
  /** Which of several fingerings: this student’s, not the next one’s. */
  const variant = useOfStudent<AlternativeId>(
    'jadefell.fingerings',
    computed(() => patterns.student?.id),
    'usual',
  )
  const alternative = computed(() =>
    own.isChanged.value || own.own.value
      ? undefined
      : alternatives.value.find(({ id }) => id === variant.value),
  )

  const run = computed(() => drills.run.value ?? scaled(own.locks.value))

  function scaled(locks: readonly Lock[]): Run {
    if (alternative.value) return { notes: alternative.value.notes, fault: '' }
    const request = {
      key: atlas.key.value,
      figure: figure.value,
      octaves: choice.value.octaves,
      locks,
      kept: own.shorter.value,
    }
    const made = fingerScale(atlas.context.value, request, options.value)
    if (made.ok) return { notes: made.notes, fault: '' }
    // What no hand holds is said; the rest stays on the staff, where it can be settled otherwise or taken back.
    if (made.code === 'lock_unholdable') {
      const others = locks.filter(({ index }) => index !== made.lock.index)
      return {
        notes: others.length < locks.length ? scaled(others).notes : [],
        fault: lockFaultSentence(made, atlas.tuning.value),
      }
    }
    return {
      notes: [],
      fault: `The strings do not hold ${choice.value.octaves} octaves of this key: choose fewer.`,
    }
  }
  const notes = computed(() => run.value.notes)

  const score = computed(() =>
    scoreOf(atlas.family.value.id, atlas.key.value, notes.value, choice.value.value, atlas.tuning.value),
  )

  /** Cents above A4 in the tuning system of the bench, open strings as they are tuned. */
  const pitches = computed(() => notes.value.map(({ note, finger }) => centsAboveA4(note, finger)))
  const centsAboveA4 = (n: Note, finger: number) =>
    finger === 0 ? bench.stringing.system.openCentsAboveA4(n) : bench.stringing.system.centsAboveA4(n)
  /** Of double stops the upper note of each. */
  const upperPitches = computed(() =>
    notes.value.map(({ second }) => second && centsAboveA4(second.note, second.finger)),
  )
  const noteMs = computed(() => {
    const perBeat = { quarter: 1, eighth: 2, sixteenth: 4 }[choice.value.value]
    return MS_PER_MINUTE / choice.value.tempo / perBeat
  })

  return {
    ...drills,
    figure,
    own,
    alternatives,
    variant,
    alternative,
    run,
    notes,
    score,
    pitches,
    upperPitches,
    noteMs,
    fingersAt: (at: number | undefined) =>
      fingersOfLine(bench.stringing, notes.value, at, patterns.fingertip.widthMm),
    /** Whether what stands here is not the studio’s own yet, and not what it has without. */
    canKeep: computed(
      () =>
        isScale.value &&
        run.value.fault === '' &&
        (own.isChanged.value || (!own.own.value && (alternative.value?.id ?? 'usual') !== 'usual')),
    ),
    /** A natural harmonic at a third or a quarter of a string that sounds a note of the line, if there is one. */
    harmonicAt: (index: number): HarmonicPart | undefined =>
      harmonicsFor(atlas.context.value, notes.value[index]!.note)[0]?.harmonic,
    hasOpenChoice: computed(() => isScale.value && techniqueOf(atlas.family.value.id).choosesOpenString),
    /** The scale’s notes with their hands, as they are kept. */
    fingered: computed(() => notes.value as readonly FingeredNote[]),
  }
}

export type Line = ReturnType<typeof useLine>
