import { least } from 'd3-array'
import { computed, ref, watch, type Ref } from 'vue'
import {
  landingAtCents,
  landingsOf,
  pitchOfExpected,
  readTake,
  snapshotOf,
  playedNotes,
  type Exercise,
  type HandFaults,
  type HeardNote,
  type HeardWholeTake,
  type Landing,
  type PitchTrack,
  type PlayerLevel,
  type Stringing,
} from '#core'
import type { HeardTake } from '#contracts'
import { codedTrack, trackOf } from '../../charts/coded-track'
import { useListening, type HeardSource, type ListenParts } from '../../listen/useListening'
import { useDrafts } from '../../stores/drafts'
import { useKeptCheck } from '../../stores/kept-check'
import { useAsStudio } from '../../ui/asStudio'
import { takeSentence } from '../../words/listening'

/** Field of a sheet's draft in which a heard take lies beside what is typed. */
export const TAKE_FIELD = 'take'

/** A pitch that is further from every note of the exercise is on its way, or something else. */
const NEAR_CENTS = 75
/** How sure the pitch of one moment is, for what is drawn of it; nothing is judged by it. */
const SIGMA_OF_A_MOMENT = 4

interface Asked {
  /** Undefined until the strings are measured. */
  readonly stringing: Ref<Stringing | undefined>
  readonly exercise: Ref<Exercise>
  /** Of the draft. */
  readonly sheet: Ref<string>
}

/**
 * A take that is played to the ear: each note is a landing as soon as it sounds. Once over it is a draft like what is typed,
 * and stays in this browser until it is kept.
 */
export function useHeardTake({ stringing, exercise, sheet }: Asked, parts?: ListenParts) {
  const drafts = useDrafts()
  const keptCheck = useKeptCheck()
  const a4Hz = useAsStudio('a4Hz')
  const loudness = useAsStudio('loudness')
  const said = ref('')
  const listening = useListening(over, parts)
  const { phase, notes, sounding, source } = listening
  /** Whose take it is: what is chosen meanwhile is another sheet. */
  let of = { sheet: '', line: exercise.value, stringing: stringing.value, before: '' }

  function readingOf(heard: readonly HeardNote[], strings: Stringing, line: Exercise) {
    return readTake(heard, strings, playedNotes(line), a4Hz.value)
  }

  function over(whole: HeardWholeTake, from: HeardSource) {
    const reading = keepDraft(whole.notes, from, whole.track)
    if (!reading) return
    if (of.sheet === sheet.value) said.value = takeSentence(reading, whole.hasClipped)
    // What is in memory is another string’s, or another player’s, than who is looked at by now.
    else listening.sound.value = undefined
  }

  /** What was heard so far, as a draft; where it is none of the exercise, the draft is what it was before. */
  function keepDraft(heard: readonly HeardNote[], from: HeardSource, track: PitchTrack | null) {
    const strings = of.stringing
    if (!strings) return undefined
    const reading = readingOf(heard, strings, of.line)
    const landings = reading.isOther ? [] : landingsOf(strings, reading, from)
    if (landings.length > 0 && of.sheet === sheet.value) keptCheck.forget()
    const text = landings.length > 0 ? JSON.stringify(draftOf(landings, from, track)) : of.before
    drafts.type(of.sheet, TAKE_FIELD, text)
    return reading
  }

  // Note by note: a lid that is closed in the middle of a take loses the note that sounds.
  watch(notes, (heard) => phase.value === 'playing' && keepDraft(heard, source.value, null))

  /** What was heard and is not kept yet, or was kept last as long as its verdict stays. */
  const draft = computed(() => parse(drafts.textsOf(sheet.value)[TAKE_FIELD]))
  const judged = computed(() => {
    const { kept } = keptCheck
    return draft.value ?? (kept?.sheet === sheet.value ? parse(kept.texts[TAKE_FIELD]) : undefined)
  })

  /** Of the take that sounds, else of the one that was heard last. */
  const landings = computed<Landing[]>(() => {
    const strings = stringing.value
    if (!strings) return []
    if (phase.value === 'playing') {
      const heard = sounding.value ? [...notes.value, sounding.value] : notes.value
      return landingsOf(strings, readingOf(heard, strings, exercise.value), source.value)
    }
    return (judged.value?.notes ?? []).flatMap(
      ({ finger, landingCents, landingSigmaCents, atMs, ...heard }): Landing[] => {
        const expected = exercise.value.notes.find((n) => n.finger === finger)
        if (!expected) return []
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
    const near = least(
      exercise.value.notes.map((expected) => {
        const off = cents - pitchOfExpected(strings, expected) - reference
        return { expected, off: off - 1200 * Math.round(off / 1200) }
      }),
      ({ off }) => Math.abs(off),
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

  function begin() {
    said.value = ''
    const before = drafts.textsOf(sheet.value)[TAKE_FIELD] ?? ''
    of = { sheet: sheet.value, line: exercise.value, stringing: stringing.value, before }
  }

  // Another string or another player: nobody plays on.
  watch(sheet, () => {
    if (phase.value !== 'off') listening.stop()
    said.value = ''
    // The sound in memory is another string's by now.
    listening.sound.value = undefined
  })

  return {
    ...listening,
    landings,
    finger,
    draft,
    track,
    /** What stands in the way of a verdict, or is to be known beside it. */
    said,
    listen(deviceId = '') {
      begin()
      return listening.listen(deviceId)
    },
    hear(file: Blob) {
      begin()
      return listening.hear(file)
    },
    play(level: PlayerLevel, faults: Partial<HandFaults>, seed: number) {
      begin()
      if (!stringing.value) return
      const line = { ...exercise.value, notes: playedNotes(exercise.value) }
      listening.play(
        {
          stringing: snapshotOf(stringing.value),
          exercise: line,
          level,
          faults,
          stroke: 'bow',
          seed,
          a4Hz: a4Hz.value,
        },
        loudness.value,
      )
    },
    /** Says no more of it; the draft is cleared with what is typed. */
    forget: () => void (said.value = ''),
  }
}

/** A draft of another version is none. */
function parse(text: string | undefined): HeardTake | undefined {
  if (!text) return undefined
  try {
    const take = JSON.parse(text) as HeardTake
    return Array.isArray(take.notes) ? take : undefined
  } catch {
    return undefined
  }
}

/** Finer than anything is known; a take of half an hour stays small. */
function rounded(value: number): number {
  return Number(value.toFixed(3))
}

function draftOf(landings: readonly Landing[], source: HeardSource, track: PitchTrack | null): HeardTake {
  return {
    source,
    notes: landings.map(({ finger, cents, sigmaCents, atMs, heard }) => ({
      finger,
      landingCents: rounded(cents),
      landingSigmaCents: rounded(sigmaCents),
      atMs: atMs ?? 0,
      settledCents: rounded(heard!.settledCents),
      settledSigmaCents: rounded(heard!.settledSigmaCents),
      lastsMs: heard!.lastsMs,
      confidence: rounded(heard!.confidence),
    })),
    track: track && codedTrack(track),
  }
}
