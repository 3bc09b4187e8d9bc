import { ref, shallowRef } from 'vue'
import type { HeardNote, SoundLevel } from '#core'
import type { ListenReport } from './messages'

export type ListenPhase =
  /** Nobody listens. */
  | 'off'
  /** The browser asks, or a student warms up. */
  | 'opening'
  /** For the first note. */
  | 'waiting'
  | 'playing'
  /** A recording is heard. */
  | 'hearing'

export type HeardSource = 'microphone' | 'recording' | 'simulated'

type News = Extract<ListenReport, { readonly kind: 'news' }>['news']

/** What is seen of a take while it is listened to, and afterwards until the next. */
export function useHearing() {
  const phase = ref<ListenPhase>('off')
  const source = ref<HeardSource>('microphone')
  const notes = shallowRef<readonly HeardNote[]>([])
  const sounding = shallowRef<HeardNote | null>(null)
  /** The pitch of this moment, cents above 440 Hz. */
  const pitch = ref<number | null>(null)
  const level = shallowRef<SoundLevel>()
  /** Part of a recording that has been heard. */
  const progress = ref(0)
  const fault = ref('')
  /** Of the take that was listened to last; gone with the page. */
  const sound = shallowRef<{ readonly samples: Float32Array; readonly sampleRateHz: number }>()
  /** Notes of the take that sounds, of which it is sure that they are over. */
  let told: HeardNote[] = []

  return {
    shown: { phase, source, notes, sounding, pitch, level, progress, fault, sound },

    begin(of: HeardSource) {
      source.value = of
      notes.value = []
      told = []
      sounding.value = null
      level.value = undefined
      progress.value = 0
      fault.value = ''
      sound.value = undefined
      phase.value = 'opening'
    },

    show(news: News) {
      level.value = news.level
      sounding.value = news.sounding
      pitch.value = news.cents
      told.push(...news.notes)
      // What is over and not sure yet is shown, and kept when the lid is closed.
      const shown = told.length + news.pending.length
      if (news.notes.length > 0 || notes.value.length !== shown) notes.value = [...told, ...news.pending]
      if (news.phase === 'playing') phase.value = 'playing'
    },

    /** What was heard stays in sight. */
    end() {
      sounding.value = null
      pitch.value = null
      phase.value = 'off'
    },
  }
}
