import { least } from 'd3-array'
import { computed, type Ref } from 'vue'
import {
  landingAtCents,
  landingsOf,
  pitchOfExpected,
  placesOf,
  playedNotes,
  readFreeTake,
  readTake,
  type Exercise,
  type HeardNote,
  type Landing,
  type PitchTrack,
  type Stringing,
} from '#core'
import { trackOf } from '../../charts/coded-track'
import type { Listening } from '../../listen/useListening'
import { expectedOf, type HeardDraft } from './heard-draft'

/** A pitch that is further from every note of the exercise is on its way, or something else. */
const NEAR_CENTS = 75
/** Two places of one pitch differ by less: by a comma. */
const SAME_PITCH_CENTS = 25
/** How sure the pitch of one moment is, for what is drawn of it; nothing is judged by it. */
const SIGMA_OF_A_MOMENT = 4

/** What was heard, laid against the notes of an exercise, or of a free take against all places. */
export function readingOf(heard: readonly HeardNote[], strings: Stringing, line: Exercise, a4Hz: number) {
  return line.name.kind === 'free'
    ? readFreeTake(heard, strings, a4Hz)
    : readTake(heard, strings, playedNotes(line), a4Hz)
}

interface Heard {
  /** Undefined until the strings are measured. */
  readonly stringing: Ref<Stringing | undefined>
  readonly exercise: Ref<Exercise>
  /** What was heard and is not kept yet, or was kept last as long as its verdict stays. */
  readonly judged: Ref<HeardDraft | undefined>
  readonly a4Hz: Ref<number>
}

/** What is seen of a take: of the one that sounds, else of the one that was heard last. */
export function useShownTake({ stringing, exercise, judged, a4Hz }: Heard, listening: Listening) {
  const { phase, notes, sounding, source } = listening

  /** What is played: of a free take the places that were heard. */
  const line = computed<Exercise>(() => {
    if (exercise.value.name.kind !== 'free') return exercise.value
    const strings = stringing.value
    if (phase.value === 'playing' && strings)
      return {
        ...exercise.value,
        notes: placesOf(readingOf(notes.value, strings, exercise.value, a4Hz.value).readings),
      }
    return { ...exercise.value, notes: judged.value?.line?.flatMap(expectedOf) ?? [] }
  })

  const landings = computed<Landing[]>(() => {
    const strings = stringing.value
    if (!strings) return []
    if (phase.value === 'playing') {
      const heard = sounding.value ? [...notes.value, sounding.value] : notes.value
      return landingsOf(strings, readingOf(heard, strings, exercise.value, a4Hz.value), source.value)
    }
    const { notes: expectedNotes } = line.value
    return (judged.value?.notes ?? []).flatMap(
      ({ finger, index, landingCents, landingSigmaCents, atMs, ...heard }): Landing[] => {
        const expected =
          typeof index === 'number' ? expectedNotes[index] : expectedNotes.find((n) => n.finger === finger)
        if (expected?.finger !== finger) return []
        const facts = { sigmaCents: landingSigmaCents, atMs, source: judged.value!.source, heard }
        return [landingAtCents(strings, expected, landingCents, facts)]
      },
    )
  })

  /** The finger that is down now, where its pitch is: before the note is long enough to be told as one. */
  const finger = computed<Landing | undefined>(() => {
    const strings = stringing.value
    const cents = listening.pitch.value
    if (!strings || cents === null || phase.value === 'off') return undefined
    const reference = 1200 * Math.log2(a4Hz.value / 440)
    // One pitch lies on several strings: the note that sounds was laid against the exercise, and goes before.
    const last = sounding.value ? landings.value.slice(-1) : []
    const near = least(
      [...last, ...line.value.notes].map((expected, i) => {
        const off = cents - pitchOfExpected(strings, expected) - reference
        return { expected, off: off - 1200 * Math.round(off / 1200), isLast: i < last.length }
      }),
      ({ off, isLast }) => Math.abs(off) - (isLast ? SAME_PITCH_CENTS : 0),
    )
    if (!near || Math.abs(near.off) > NEAR_CENTS) return undefined
    return landingAtCents(strings, near.expected, near.off, {
      sigmaCents: SIGMA_OF_A_MOMENT,
      atMs: null,
      source: source.value,
    })
  })

  const track = computed<PitchTrack | undefined>(() => {
    const coded = judged.value?.track
    if (!coded) return undefined
    try {
      return trackOf(coded)
    } catch {
      return undefined
    }
  })

  return { line, landings, finger, track }
}
