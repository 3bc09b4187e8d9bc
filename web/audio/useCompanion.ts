import { useLocalStorage } from '@vueuse/core'
import { onScopeDispose } from 'vue'
import { frequencyHz } from '#core'
import { useAsStudio } from '../ui/asStudio'
import { playClicks } from './click'
import { playTone, type Tone } from './tone'

/** What a player hears in headphones while a take is listened to. */
export const COMPANIONS = ['nothing', 'drone', 'click'] as const
export type Companion = (typeof COMPANIONS)[number]

/** What plays it; handed in by tests. */
export interface CompanionParts {
  readonly newContext: () => AudioContext
  readonly playTone: typeof playTone
  readonly playClicks: typeof playClicks
}

/** A drone or a click beside a take; the choice is remembered on this machine. */
export function useCompanion(
  parts: CompanionParts = { newContext: () => new AudioContext(), playTone, playClicks },
) {
  const companion = useLocalStorage<Companion>('jadefell.companion', 'nothing')
  /** Clicks a minute. */
  const tempo = useLocalStorage('jadefell.companion.tempo', 60)
  const a4Hz = useAsStudio('a4Hz')
  const loudness = useAsStudio('loudness')
  let context: AudioContext | undefined
  let sounding: Tone | undefined
  let isWanted = false

  function stop() {
    isWanted = false
    sounding?.stop()
    sounding = undefined
  }

  onScopeDispose(() => {
    stop()
    void context?.close()
  })
  return {
    companion,
    tempo,
    stop,
    /** Begins what is chosen; returns the pitch of a drone, Hz, for whoever listens to leave it out. */
    start(droneCentsAboveA4: number): number | undefined {
      stop()
      if (companion.value === 'nothing') return undefined
      isWanted = true
      const droneHz = frequencyHz(droneCentsAboveA4, a4Hz.value)
      const ready = (context ??= parts.newContext())
      void ready.resume().then(() => {
        if (!isWanted) return
        sounding =
          companion.value === 'drone'
            ? parts.playTone(ready, droneHz, loudness.value)
            : parts.playClicks(ready, tempo.value, loudness.value)
      })
      return companion.value === 'drone' ? droneHz : undefined
    },
  }
}
