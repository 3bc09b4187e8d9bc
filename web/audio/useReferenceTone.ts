import { onScopeDispose, ref } from 'vue'
import { frequencyHz } from '#core'
import { useAsStudio } from '../ui/asStudio'
import { playTone, type PlayerParts, type Tone } from './tone'

/** Pitches of A4 that people tune to, Hz; the first is ISO 16:1975. */
export const A4_CHOICES = [440, 442, 443, 415, 432] as const

/** One reference tone at a time; pressing the one that sounds stops it. */
export function useReferenceTone(
  { newContext, play }: PlayerParts = { newContext: () => new AudioContext(), play: playTone },
) {
  const a4Hz = useAsStudio('a4Hz')
  const loudness = useAsStudio('loudness')
  const sounding = ref<string>()
  let context: AudioContext | undefined
  let tone: Tone | undefined
  /** What was asked for last, while the sound is awaited. */
  let wanted: string | undefined

  function stop() {
    wanted = undefined
    tone?.stop()
    tone = undefined
    sounding.value = undefined
  }

  async function toggle(id: string, centsAboveA4: number) {
    const wasSounding = (wanted ?? sounding.value) === id
    stop()
    if (wasSounding) return
    wanted = id
    context ??= newContext()
    await context.resume()
    if (wanted !== id) return
    wanted = undefined
    tone = play(context, frequencyHz(centsAboveA4, a4Hz.value), loudness.value)
    sounding.value = id
  }

  onScopeDispose(() => {
    stop()
    void context?.close()
  })
  return { a4Hz, loudness, sounding, toggle, stop }
}
