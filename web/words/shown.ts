import { shallowReactive } from 'vue'
import type { StudioSettings } from '#contracts'

/** How lengths and notes are written, as the studio has it; whoever writes one is told of a change. */
export const shown = shallowReactive<Pick<StudioSettings, 'lengthUnit' | 'noteNames' | 'bassPositions'>>({
  lengthUnit: 'mm',
  noteNames: 'letters',
  bassPositions: 'numerals',
})

export function showAs({
  lengthUnit,
  noteNames,
  bassPositions = 'numerals',
}: Pick<StudioSettings, 'lengthUnit' | 'noteNames'> & Partial<Pick<StudioSettings, 'bassPositions'>>): void {
  shown.lengthUnit = lengthUnit
  shown.noteNames = noteNames
  shown.bassPositions = bassPositions
}
