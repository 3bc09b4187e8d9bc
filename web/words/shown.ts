import { shallowReactive } from 'vue'
import { isoDay } from '#core'
import type { StudioSettings } from '#contracts'

/** How lengths and notes are written, as the studio has it; whoever writes one is told of a change. */
export const shown = shallowReactive<
  Pick<StudioSettings, 'lengthUnit' | 'noteNames' | 'bassPositions' | 'timeZone'>
>({
  timeZone: null,
  lengthUnit: 'mm',
  noteNames: 'letters',
  bassPositions: 'numerals',
})

export function showAs({
  lengthUnit,
  noteNames,
  bassPositions = 'numerals',
  timeZone = null,
}: Pick<StudioSettings, 'lengthUnit' | 'noteNames'> &
  Partial<Pick<StudioSettings, 'bassPositions' | 'timeZone'>>): void {
  shown.timeZone = timeZone
  shown.lengthUnit = lengthUnit
  shown.noteNames = noteNames
  shown.bassPositions = bassPositions
}

/** The studio’s day of an instant, as an ISO date; of now where none is given. Until the studio has said, this machine’s. */
export function studioDay(at: Date = new Date()): string {
  return isoDay(at, shown.timeZone)
}
