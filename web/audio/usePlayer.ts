import { onScopeDispose, ref } from 'vue'
import { frequencyHz } from '#core'
import { useAsStudio } from '../ui/asStudio'
import { playTone, type PlayerParts, type Tone } from './tone'

/** A tone ends a little before the next begins, so that two of the same pitch are two. */
const SOUNDING_SHARE = 0.92

/** Plays a line of pitches one after the other in tempo, and tells which one sounds. */
export function usePlayer(
  { newContext, play }: PlayerParts = { newContext: () => new AudioContext(), play: playTone },
) {
  const a4Hz = useAsStudio('a4Hz')
  const loudness = useAsStudio('loudness')
  /** Index of the pitch that sounds; undefined in silence. */
  const at = ref<number>()
  let context: AudioContext | undefined
  /** What sounds: one tone, or two of a double stop. */
  let tones: readonly Tone[] = []
  let timer: number | undefined
  /** Counts starts and stops: only the newest start goes on once the sound is there. */
  let newest = 0

  function stop() {
    newest++
    window.clearTimeout(timer)
    for (const tone of tones) tone.stop()
    tones = []
    at.value = undefined
  }

  /**
   * Starts from the first pitch. `line` is read anew for every note, so that tempo, tuning system and loop can be changed
   * while it plays.
   */
  async function start(
    line: () => {
      readonly centsAboveA4: readonly number[]
      /** Of each note the upper one that sounds with it, if one does. */
      readonly upperCents?: readonly (number | undefined)[]
      readonly noteMs: number
      readonly isLoop: boolean
    },
  ) {
    stop()
    const own = newest
    context ??= newContext()
    await context.resume()
    if (own !== newest) return
    let due = performance.now()
    const step = (index: number) => {
      const { centsAboveA4, upperCents, noteMs, isLoop } = line()
      const next = index < centsAboveA4.length ? index : isLoop ? 0 : -1
      const cents = centsAboveA4[next]
      for (const tone of tones) tone.stop()
      if (cents === undefined || !context) return stop()
      at.value = next
      const sounds = context
      const both = [cents, upperCents?.[next]].filter((c) => c !== undefined)
      // Two together are no louder than one.
      const each = loudness.value / both.length
      const sounding = both.map((c) => play(sounds, frequencyHz(c, a4Hz.value), each))
      tones = sounding
      window.setTimeout(() => {
        if (tones === sounding) {
          for (const tone of sounding) tone.stop()
          tones = []
        }
      }, noteMs * SOUNDING_SHARE)
      // From when it was due, not from when the timer came: the beat does not drift.
      due += noteMs
      timer = window.setTimeout(() => step(next + 1), Math.max(0, due - performance.now()))
    }
    step(0)
  }

  onScopeDispose(() => {
    stop()
    void context?.close()
  })
  return { a4Hz, loudness, at, start, stop }
}
