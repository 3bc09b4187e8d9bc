import { mean } from 'd3-array'
import { heardOfRecord, recordedLanding, snapshotOf, type Digit, type Landing, type Verdict } from '#core'
import type { Check, CheckSummary, KeptVerdict, PastCheck } from '#contracts'
import type { CheckRow, LandingRow } from '../../db/rows'
import { exerciseName, keptExercise } from './exercise'

/** What is kept of a verdict; its evidence is the landings. */
export function keptVerdict({ fingers: _, ...verdict }: Verdict): KeptVerdict {
  if (verdict.outcome !== 'in_tune') return verdict as KeptVerdict
  const { finger, meanCents } = verdict.worst
  return { ...verdict, worst: { finger, meanCents } } as KeptVerdict
}

export function landingRows(checkId: string, landings: readonly Landing[]): Omit<LandingRow, 'studioId'>[] {
  return landings.map((landing, position) => ({ checkId, position, ...recordedLanding(landing) }))
}

export function checkSummaryDto(
  row: Pick<CheckRow, 'id' | 'takenAt' | 'exercise' | 'verdict' | 'decision'>,
): CheckSummary {
  const { id, takenAt, exercise, verdict, decision } = row
  return {
    id,
    takenAt: takenAt.toISOString(),
    exercise: exercise && exerciseName(exercise),
    verdict,
    decision,
  }
}

/** A check in the numbers of a history. */
export function pastCheckDto(row: Omit<CheckRow, 'studioId'>, isRejudged: boolean): PastCheck {
  const { instrumentId, toleranceCents, stringing, tapesCovered, summary } = row
  const { verdict: _, ...told } = checkSummaryDto(row)
  return {
    ...told,
    instrumentId,
    toleranceCents,
    lengthMm: stringing && (mean(stringing.lengthsMm) ?? null),
    tapesCovered: Boolean(tapesCovered),
    isRejudged,
    summary: summary && { ...summary, fingers: [...summary.fingers] },
  }
}

/** A check with its landings, in order, and the name of who took it. */
export interface CheckFacts {
  readonly check: Omit<CheckRow, 'studioId'>
  readonly landings: readonly Omit<LandingRow, 'studioId'>[]
  readonly by: string
}

export function landingOf(row: Omit<LandingRow, 'studioId'>): Check['landings'][number] {
  return {
    stringIndex: row.stringIndex,
    finger: row.finger as Digit,
    note: row.note,
    positionId: row.positionId,
    placeMm: row.placeMm,
    cents: row.cents,
    sigmaCents: row.sigmaCents,
    atMs: row.atMs,
    source: row.source,
    heard: heardOfRecord(row),
  }
}

/** A check, and what it says by lengths that were measured later. */
export function checkDto({ check, landings, by }: CheckFacts, rejudged: Check['rejudged'] = null): Check {
  return {
    ...checkSummaryDto(check),
    studentId: check.studentId,
    instrumentId: check.instrumentId,
    exercise: check.exercise && keptExercise(check.exercise),
    stringing: check.stringing && stringingDto(check.stringing),
    toleranceCents: check.toleranceCents,
    tapesCovered: Boolean(check.tapesCovered),
    tapesMm: [...(check.tapesMm ?? [])],
    landings: landings.map(landingOf),
    hasTrack: Boolean(check.hasTrack),
    note: check.note,
    by,
    removedAt: check.removedAt?.toISOString() ?? null,
    rejudged,
    likely: check.likely,
    unreadable: check.unmoved?.reason ?? null,
  }
}

function stringingDto(stringing: ReturnType<typeof snapshotOf>): Check['stringing'] {
  return { ...stringing, tuning: [...stringing.tuning], lengthsMm: [...stringing.lengthsMm] }
}
