import { computed, type Ref } from 'vue'
import {
  DOUBLE_STOP_KINDS,
  doubleStops,
  drillNotes,
  drillsFor,
  fingerScale,
  harmonicsFor,
  lineOf,
  placeOfNote,
  scoreOf,
  techniqueOf,
  type AlternativeId,
  type DoubleStopKind,
  type DrillId,
  type FigureId,
  type FingeredNote,
  type FingeringOptions,
  type HarmonicPart,
  type LineNote,
  type Lock,
  type Note,
  type NoteValue,
} from '#core'
import type { BoardFinger } from '../../board/board'
import { useBench } from '../../stores/bench'
import { useSettings } from '../../stores/settings'
import { useOfStudent } from '../../stores/useOfStudent'
import { noteLabel } from '../../words/notes'
import { drillFaultSentence } from '../../words/drills'
import { lockFaultSentence } from '../../words/fingerings'
import { useAlternatives } from './useAlternatives'
import { useOwnFingering } from './useOwnFingering'
import type { Patterns } from './usePatterns'

export type PlayedFigure = FigureId | DrillId | DoubleStopKind

/** What is practised, and how. */
export interface LineChoice {
  figure: PlayedFigure
  octaves: 1 | 2 | 3
  openStrings: 'prefer' | 'avoid'
  value: NoteValue
  /** Quarter notes a minute. */
  tempo: number
  isLoop: boolean
}

export const FIRST_LINE: LineChoice = {
  figure: 'scale',
  octaves: 1,
  openStrings: 'prefer',
  value: 'quarter',
  tempo: 60,
  isLoop: false,
}

const MS_PER_MINUTE = 60_000

/** A note of the line, on its string. */
export type PlayedNote = LineNote & { readonly stringIndex: number; readonly semitones: number }

interface Run {
  readonly notes: readonly PlayedNote[]
  readonly fault: string
}

/** A scale, an arpeggio, double stops or a drill as notes with fingers, on paper, on the board and in pitches. */
export function useLine(choice: Ref<LineChoice>, patterns: Patterns) {
  const bench = useBench()
  const settings = useSettings()
  const { atlas } = patterns
  const drills = computed(() => drillsFor(atlas.family.value.id))
  const drill = computed(() => drills.value.find((d) => d.id === choice.value.figure))
  const doubled = computed(() => DOUBLE_STOP_KINDS.find((kind) => kind === choice.value.figure))
  const isScale = computed(() => !drill.value && !doubled.value)
  const figure = computed<FigureId>(() => (choice.value.figure === 'arpeggio' ? 'arpeggio' : 'scale'))
  /** Those that this hand can play; the chosen one stays and says why it cannot. */
  const offered = computed(() => drills.value.filter((d) => d.id === choice.value.figure || drilled(d, 1).ok))
  const offeredDoubles = computed(() =>
    DOUBLE_STOP_KINDS.filter((kind) => kind === doubled.value || doublesOf(kind).length > 0),
  )

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

  function drilled(one: (typeof drills.value)[number], times: number) {
    return drillNotes(
      atlas.context.value,
      one,
      atlas.key.value,
      atlas.stringIndex.value,
      atlas.position.value,
      times,
    )
  }
  function doublesOf(kind: DoubleStopKind) {
    return doubleStops(atlas.context.value, bench.stringing, {
      key: atlas.key.value,
      kind,
      position: atlas.position.value,
      reachMm: patterns.student?.hand?.comfortableSpanMm ?? null,
    })
  }
  const doubles = computed(() => (doubled.value ? doublesOf(doubled.value) : []))
  /** Those that are wider than the hand measured. */
  const tooWide = computed(() => doubles.value.filter(({ isInReach }) => isInReach === false))

  const run = computed<Run>(() => {
    if (drill.value) {
      const made = drilled(drill.value, 1)
      return made.ok ? { notes: made.notes, fault: '' } : { notes: [], fault: drillFaultSentence(made.code) }
    }
    if (doubled.value)
      return doubles.value.length > 0
        ? {
            notes: doubles.value.map(({ lower, upper }) => ({ ...lower, second: upper })),
            fault: '',
          }
        : { notes: [], fault: drillFaultSentence('fingers_missing') }
    return scaled(own.locks.value)
  })

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

  /** Every place of the line on the board, the one that sounds in full. */
  function fingersAt(at: number | undefined): BoardFinger[] {
    const now = at === undefined ? undefined : notes.value[at]
    const seen = new Map<string, BoardFinger>()
    const stopped = notes.value.flatMap((n) =>
      n.second ? [n, { ...n.second, stringIndex: n.stringIndex + 1 }] : [n],
    )
    for (const n of stopped) {
      if (n.finger === 0) continue
      const isNow = now !== undefined && (n === now || n.note === now.second?.note)
      const id = `${n.stringIndex} ${n.note.letter}${n.note.accidental}${n.note.octave}`
      if (seen.has(id) && !isNow) continue
      seen.set(id, {
        stringIndex: n.stringIndex,
        finger: n.finger,
        placeMm: placeOfNote(bench.stringing, n.stringIndex, n.note),
        note: noteLabel(n.note, { octave: false }),
        widthMm: patterns.fingertip.widthMm,
        isResting: false,
        isMarked: false,
        isPale: !isNow,
      })
    }
    return [...seen.values()]
  }

  return {
    offered,
    offeredDoubles,
    drill,
    doubled,
    tooWide,
    isScale,
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
    fingersAt,
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
