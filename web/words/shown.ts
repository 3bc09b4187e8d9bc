import { shallowReactive } from 'vue'
import type { StudioSettings } from '#contracts'

/** How lengths and notes are written, as the studio has it; whoever writes one is told of a change. */
export const shown = shallowReactive<Pick<StudioSettings, 'lengthUnit' | 'noteNames'>>({
  lengthUnit: 'mm',
  noteNames: 'letters',
})

export function showAs({ lengthUnit, noteNames }: Pick<StudioSettings, 'lengthUnit' | 'noteNames'>): void {
  shown.lengthUnit = lengthUnit
  shown.noteNames = noteNames
}
