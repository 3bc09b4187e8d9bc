import type { ExerciseId, FamilyId } from '#core'
import type { Plan, PracticeEntry } from '#contracts'
import type { PracticeEntryRow, PracticePlanRow } from '../../db/rows'
import type { By } from '../../db/studio-store'

export function planDto({
  recordedAt,
  removedAt: _,
  userId: __,
  studioId: ___,
  ...row
}: By<PracticePlanRow>): Plan {
  return { ...row, family: row.family as FamilyId, at: recordedAt.toISOString() }
}

export function entryDto(row: By<PracticeEntryRow>): PracticeEntry {
  return {
    studentId: row.studentId,
    exerciseId: row.exerciseId as ExerciseId,
    on: row.practisedOn,
    isDone: Boolean(row.isDone),
    minutes: row.minutes,
    times: row.times,
    by: row.by,
    at: row.recordedAt.toISOString(),
  }
}
