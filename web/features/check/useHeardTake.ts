import { least } from 'd3-array'
import { computed, ref, watch, type Ref } from 'vue'
import {
  isSamePlace,
  landingAtCents,
  landingsOf,
  parseNote,
  pitchOfExpected,
  placesOf,
  playedNotes,
  readFreeTake,
  readTake,
  snapshotOf,
  recordedNote,
  type Exercise,
  type ExpectedNote,
  type HandFaults,
  type HeardBeside,
  type HeardNote,
  type HeardWholeTake,
  type Landing,
  type PitchTrack,
  type PlayerLevel,
  type Stringing,
  type TakeReading,
} from '#core'
import type { ExerciseDraft as CheckExercise, HeardTake } from '#contracts'
import { codedTrack, trackOf } from '../../charts/coded-track'
import { useListening, type HeardSource, type ListenParts } from '../../listen/useListening'
import { useDrafts } from '../../stores/drafts'
import { useKeptCheck } from '../../stores/kept-check'
import { useAsStudio } from '../../ui/asStudio'
import { takeSentence } from '../../words/listening'
import { noteLabel } from '../../words/notes'

/** Field of a sheet's draft in which a heard take lies beside what is typed. */
export const TAKE_FIELD = 'take'

/** A pitch that is further from every note of the exercise is on its way, or something else. */
const NEAR_CENTS = 75
/** Two places of one pitch differ by less: by a comma. */
const SAME_PITCH_CENTS = 25
/** How sure the pitch of one moment is, for what is drawn of it; nothing is judged by it. */
const SIGMA_OF_A_MOMENT = 4

/** A take of more notes is read in steps, between which the page may do something else. */
const LONG_NOTES = 200
const breath = () => new Promise((resolve) => setTimeout(resolve))

interface Asked {
  /** Undefined until the strings are measured. */
  readonly stringing: Ref<Stringing | undefined>
  readonly exercise: Ref<Exercise>
  /** What a simulated student plays where nobody says what. */
  readonly improvised: Ref<Exercise>
  /** Of the draft. */
  readonly sheet: Ref<string>
}

/**
 * A take that is played to the ear: each note is a landing as soon as it sounds. Once over it is a draft like what is typed,
 * and stays in this browser until it is kept.
 */
export function useHeardTake({ stringing, exercise, improvised, sheet }: Asked, parts?: ListenParts) {
  const drafts = useDrafts()
  const keptCheck = useKeptCheck()
  const a4Hz = useAsStudio('a4Hz')
  const loudness = useAsStudio('loudness')
  const said = ref('')
  const listening = useListening((whole, from) => void over(whole, from), parts)
  const { phase, notes, sounding, source } = listening
  /** Whose take it is: what is chosen meanwhile is another sheet. */
  let of = { sheet: '', line: exercise.value, stringing: stringing.value, before: '' }

  function readingOf(heard: readonly HeardNote[], strings: Stringing, line: Exercise) {
    return line.name.kind === 'free'
      ? readFreeTake(heard, strings, a4Hz.value)
      : readTake(heard, strings, playedNotes(line), a4Hz.value)
  }

  async function over(whole: HeardWholeTake, from: HeardSource) {
    const own = of
    const strings = own.stringing
    if (!strings) return
    const isLong = whole.notes.length > LONG_NOTES
    if (isLong) await breath()
    const reading = readingOf(whole.notes, strings, own.line)
    if (isLong) await breath()
    const landings = heardLandings(reading, strings, from)
    if (isLong) await breath()
    const told = takeSentence(reading, whole, (index) => {
      const note = (reading.readings.find((r) => r.index === index) ?? playedNotes(own.line)[index])?.note
      return note ? noteLabel(note) : ''
    })
    keepDraft(own, landings, from, whole.track, told)
    // Another take has begun meanwhile: this one is kept, and says nothing.
    if (own !== of) return
    if (own.sheet === sheet.value) said.value = told
    // What is in memory is another string’s, or another player’s, than who is looked at by now.
    else listening.sound.value = undefined
  }

  /** Where the fingers landed; nowhere in a take of something else. */
  function heardLandings(reading: TakeReading, strings: Stringing, from: HeardSource) {
    return reading.isOther ? [] : landingsOf(strings, reading, from)
  }

  /** What was heard so far, as a draft; where it is none of the exercise, the draft is what it was before. */
  function keepDraft(
    own: typeof of,
    heard: readonly Landing[],
    from: HeardSource,
    track: PitchTrack | null,
    told = '',
  ) {
    if (heard.length > 0 && own.sheet === sheet.value) keptCheck.forget()
    const text =
      heard.length > 0
        ? JSON.stringify({ ...draftOf(heard, from, track, own.line), ...(told && { told }) })
        : own.before
    drafts.type(own.sheet, TAKE_FIELD, text)
  }

  // Note by note: a lid that is closed in the middle of a take loses the note that sounds.
  watch(notes, (heard) => {
    const strings = of.stringing
    if (phase.value === 'playing' && strings)
      keepDraft(
        of,
        heardLandings(readingOf(heard, strings, of.line), strings, source.value),
        source.value,
        null,
      )
  })

  /** What was heard and is not kept yet, or was kept last as long as its verdict stays. */
  const draft = computed(() => parse(drafts.textsOf(sheet.value)[TAKE_FIELD]))
  const judged = computed(() => {
    const { kept } = keptCheck
    return draft.value ?? (kept?.sheet === sheet.value ? parse(kept.texts[TAKE_FIELD]) : undefined)
  })

  /** What is played: of a free take the places that were heard. */
  const line = computed<Exercise>(() => {
    if (exercise.value.name.kind !== 'free') return exercise.value
    const strings = stringing.value
    if (phase.value === 'playing' && strings)
      return { ...exercise.value, notes: placesOf(readingOf(notes.value, strings, exercise.value).readings) }
    return { ...exercise.value, notes: judged.value?.line?.flatMap(expectedOf) ?? [] }
  })

  /** Of the take that sounds, else of the one that was heard last. */
  const landings = computed<Landing[]>(() => {
    const strings = stringing.value
    if (!strings) return []
    if (phase.value === 'playing') {
      const heard = sounding.value ? [...notes.value, sounding.value] : notes.value
      return landingsOf(strings, readingOf(heard, strings, exercise.value), source.value)
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

  function begin() {
    said.value = ''
    const before = drafts.textsOf(sheet.value)[TAKE_FIELD] ?? ''
    // A take that was not kept has a way back.
    drafts.setAside(sheet.value)
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
    line,
    finger,
    draft,
    track,
    /** What stands in the way of a verdict, or is to be known beside it; after a reload as well. */
    said: computed(() => said.value || (phase.value === 'off' ? (draft.value?.told ?? '') : '')),
    listen(deviceId = '', droneHz?: number) {
      begin()
      return listening.listen(deviceId, droneHz)
    },
    hear(file: Blob) {
      begin()
      return listening.hear(file)
    },
    play(level: PlayerLevel, faults: Partial<HandFaults>, seed: number) {
      begin()
      if (!stringing.value) return
      const asked = exercise.value.name.kind === 'free' ? improvised.value : exercise.value
      const once = playedNotes(asked)
      // A hand is played twice over: one round says little of a finger.
      const notes = asked === exercise.value && once !== asked.notes ? [...once, ...once.slice(1)] : once
      const played = { ...asked, notes }
      listening.play(
        {
          stringing: snapshotOf(stringing.value),
          exercise: played,
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

/** A heard take as it lies here until it is kept; of a free one with the places it was heard on. */
export interface HeardDraft extends HeardTake {
  /** What was said of it: what was not heard, left out, or in the way. */
  readonly told?: string
  readonly line?: readonly SentNote[]
}
type SentNote = Exclude<CheckExercise, { readonly kind: 'shape' }>['notes'][number]

/** A note as it is sent to be kept. */
function expectedOf({ note: name, positionId = null, ...sent }: SentNote): ExpectedNote[] {
  const note = parseNote(name)
  return note ? [{ ...sent, note, positionId }] : []
}

/** A draft of another version is none. */
function parse(text: string | undefined): HeardDraft | undefined {
  if (!text) return undefined
  try {
    const take = JSON.parse(text) as HeardDraft
    return Array.isArray(take.notes) ? take : undefined
  } catch {
    return undefined
  }
}

/** Finer than anything is known; a take of half an hour stays small. */
function rounded(value: number): number {
  return Number(value.toFixed(3))
}

function draftOf(
  landings: readonly Landing[],
  source: HeardSource,
  track: PitchTrack | null,
  { name, notes }: Exercise,
): HeardDraft {
  const places = name.kind === 'free' ? placesOf(landings) : notes
  return {
    source,
    ...(name.kind === 'free' && { line: places.map((place) => recordedNote(place)) }),
    notes: landings.map(({ cents, sigmaCents, atMs, heard, ...expected }) => ({
      finger: expected.finger,
      index: places.findIndex((place) => isSamePlace(place, expected)),
      landingCents: rounded(cents),
      landingSigmaCents: rounded(sigmaCents),
      atMs: atMs ?? 0,
      // All that was heard beside, whatever comes to be told of it.
      ...(Object.fromEntries(
        Object.entries(heard!).map(([name, value]) => [name, rounded(value as number)]),
      ) as unknown as HeardBeside),
    })),
    track: track && codedTrack(track),
  }
}
