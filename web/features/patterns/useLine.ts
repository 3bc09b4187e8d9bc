import { computed, type Ref } from 'vue'
import {
  drillNotes,
  drillsFor,
  fingerScale,
  placeOfNote,
  type DrillId,
  type DrillNote,
  type FigureId,
} from '#core'
import type { BoardFinger } from '../../board/board'
import { scoreOf, type NoteValue } from '../../notation/score'
import { useBench } from '../../stores/bench'
import type { Patterns } from './usePatterns'
import { noteLabel } from '../../words/notes'

/** What is practised, and how. */
export interface LineChoice {
  figure: FigureId | DrillId
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

/** A scale, an arpeggio or a drill as notes with fingers, on paper, on the board and in pitches. */
export function useLine(choice: Ref<LineChoice>, patterns: Patterns) {
  const bench = useBench()
  const { atlas } = patterns
  const drills = computed(() => drillsFor(atlas.family.value.id))
  const drill = computed(() => drills.value.find((d) => d.id === choice.value.figure))
  /** Those that this hand can play; the chosen one stays and says why it cannot. */
  const offered = computed(() =>
    drills.value.filter(
      (d) =>
        d.id === choice.value.figure ||
        drillNotes(atlas.context.value, d, atlas.key.value, atlas.stringIndex.value, atlas.position.value, 1)
          .ok,
    ),
  )

  const run = computed<{ readonly notes: readonly DrillNote[]; readonly fault: string }>(() => {
    const { figure, octaves, openStrings } = choice.value
    const { context, key } = { context: atlas.context.value, key: atlas.key.value }
    if (drill.value) {
      const made = drillNotes(context, drill.value, key, atlas.stringIndex.value, atlas.position.value, 1)
      if (made.ok) return { notes: made.notes, fault: '' }
      return {
        notes: [],
        fault:
          made.code === 'no_hand'
            ? 'The key has no hand on this string in this position: choose another string, position or key.'
            : 'This hand has not the fingers for the drill: choose another string, position or key.',
      }
    }
    const made = fingerScale(
      context,
      { key, figure: figure === 'arpeggio' ? 'arpeggio' : 'scale', octaves },
      { openStrings },
    )
    if (made.ok) return { notes: made.notes, fault: '' }
    return { notes: [], fault: `The strings do not hold ${octaves} octaves of this key: choose fewer.` }
  })
  const notes = computed(() => run.value.notes)

  const score = computed(() =>
    scoreOf(atlas.family.value.id, atlas.key.value, notes.value, choice.value.value),
  )

  /** Cents above A4 in the tuning system of the bench, open strings as they are tuned. */
  const pitches = computed(() =>
    notes.value.map(({ note: n, finger }) =>
      finger === 0 ? bench.stringing.system.openCentsAboveA4(n) : bench.stringing.system.centsAboveA4(n),
    ),
  )
  const noteMs = computed(() => {
    const perBeat = { quarter: 1, eighth: 2, sixteenth: 4 }[choice.value.value]
    return MS_PER_MINUTE / choice.value.tempo / perBeat
  })

  /** Every place of the line on the board, the one that sounds in full. */
  function fingersAt(at: number | undefined): BoardFinger[] {
    const now = at === undefined ? undefined : notes.value[at]
    const seen = new Map<string, BoardFinger>()
    for (const n of notes.value) {
      if (n.finger === 0) continue
      const isNow = now?.stringIndex === n.stringIndex && now.semitones === n.semitones
      const id = `${n.stringIndex} ${n.semitones}`
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

  return { offered, drill, run, notes, score, pitches, noteMs, fingersAt }
}
