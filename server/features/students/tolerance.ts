import type { StudioSettings } from '#contracts'
import type { StudentRow } from '../../db/rows'

/** Cents within which a student is in tune: of the level, as the studio has it, unless the student has a tolerance of their own. */
export function toleranceOf(
  { level, toleranceCents }: Pick<StudentRow, 'level' | 'toleranceCents'>,
  { tolerances }: Pick<StudioSettings, 'tolerances'>,
): number {
  return level === null ? toleranceCents : tolerances[level]
}
