import { computed, ref, watch, type Ref } from 'vue'
import {
  landingsOf,
  playedNotes,
  snapshotOf,
  type Exercise,
  type HandFaults,
  type HeardWholeTake,
  type Landing,
  type PitchTrack,
  type PlayerLevel,
  type Stringing,
  type TakeReading,
} from '#core'
import type { HeardSource } from '../../listen/useHearing'
import { useListening, type ListenParts } from '../../listen/useListening'
import { useDrafts } from '../../stores/drafts'
import { useKeptCheck } from '../../stores/kept-check'
import { useAsStudio } from '../../ui/asStudio'
import { takeSentence } from '../../words/listening'
import { noteLabel } from '../../words/notes'
import { heardDraftOf, parseHeard, TAKE_FIELD } from './heard-draft'
import { readingOf, useShownTake } from './useShownTake'

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
  const { phase, notes, source } = listening
  /** Whose take it is: what is chosen meanwhile is another sheet. */
  let of = { sheet: '', line: exercise.value, stringing: stringing.value, before: '' }

  async function over(whole: HeardWholeTake, from: HeardSource) {
    const own = of
    const strings = own.stringing
    if (!strings) return
    const isLong = whole.notes.length > LONG_NOTES
    if (isLong) await breath()
    const reading = readingOf(whole.notes, strings, own.line, a4Hz.value)
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
        ? JSON.stringify({ ...heardDraftOf(heard, from, track, own.line), ...(told && { told }) })
        : own.before
    drafts.type(own.sheet, TAKE_FIELD, text)
  }

  // Note by note: a lid that is closed in the middle of a take loses the note that sounds.
  watch(notes, (heard) => {
    const strings = of.stringing
    if (phase.value === 'playing' && strings)
      keepDraft(
        of,
        heardLandings(readingOf(heard, strings, of.line, a4Hz.value), strings, source.value),
        source.value,
        null,
      )
  })

  /** What was heard and is not kept yet, or was kept last as long as its verdict stays. */
  const draft = computed(() => parseHeard(drafts.textsOf(sheet.value)[TAKE_FIELD]))
  const judged = computed(() => {
    const { kept } = keptCheck
    return draft.value ?? (kept?.sheet === sheet.value ? parseHeard(kept.texts[TAKE_FIELD]) : undefined)
  })

  const { line, landings, finger, track } = useShownTake({ stringing, exercise, judged, a4Hz }, listening)

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
