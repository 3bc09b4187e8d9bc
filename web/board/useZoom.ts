import { createSharedComposable, useLocalStorage } from '@vueuse/core'
import type { Zoom } from './board'

/** How far up boards are shown, remembered on this machine. */
export const useZoom = createSharedComposable(() => useLocalStorage<Zoom>('jadefell.board.zoom', 'playing'))
