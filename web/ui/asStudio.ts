import { useSessionStorage } from '@vueuse/core'
import { computed, shallowReactive, type WritableComputedRef } from 'vue'
import { QUIET_LOUDNESS, type StudioSettings } from '#contracts'

type Shared = Pick<StudioSettings, 'a4Hz' | 'loudness' | 'boardFacing' | 'boardTurned' | 'paper'>

/** How the studio has it; whoever is not signed in has it as usual. */
const asStudio = shallowReactive<Shared>({
  a4Hz: 440,
  loudness: QUIET_LOUDNESS,
  boardFacing: false,
  boardTurned: 'auto',
  paper: 'a4',
})

export function setAsStudio({ a4Hz, loudness, boardFacing, boardTurned, paper }: Shared): void {
  Object.assign(asStudio, { a4Hz, loudness, boardFacing, boardTurned, paper })
}

/** A setting of the studio that a page may have otherwise, in this tab and until it is closed. */
export function useAsStudio<K extends keyof Shared>(name: K): WritableComputedRef<Shared[K]> {
  const own = useSessionStorage<{ value: Shared[K] | null }>(`jadefell.own.${name}`, { value: null })
  return computed({
    get: () => own.value.value ?? asStudio[name],
    // Back to what the studio has is no will of one's own.
    set: (value) => (own.value = { value: value === asStudio[name] ? null : value }),
  })
}
