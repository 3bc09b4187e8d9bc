import { noteName, snapshotOf, type Finger, type Landing, type Verdict } from '#core'
import type { Check, CheckSummary, KeptVerdict } from '#contracts'
import type { CheckRow, LandingRow } from '../../db/rows'
import { exerciseName, keptExercise } from './exercise'

/** What is kept of a verdict; its evidence is the landings. */
export function keptVerdict(verdict: Verdict): KeptVerdict {
  switch (verdict.outcome) {
    case 'not_enough_notes':
      return {
        outcome: verdict.outcome,
        fingersHeard: [...verdict.fingersHeard],
        fingersNeeded: verdict.fingersNeeded,
        ...(verdict.more !== undefined && { more: verdict.more }),
        ...(verdict.maybe && { maybe: [...verdict.maybe] }),
      }
    case 'string_out_of_tune':
      return {
        outcome: verdict.outcome,
        cents: verdict.cents,
        ...(verdict.string !== undefined && { string: verdict.string }),
      }
    case 'in_tune':
      return {
        outcome: verdict.outcome,
        worst: { finger: verdict.worst.finger, meanCents: verdict.worst.meanCents },
      }
    default:
      return {
        outcome: verdict.outcome,
        findings: [...verdict.findings],
        alternatives: [...verdict.alternatives],
      }
  }
}

export function landingRows(checkId: string, landings: readonly Landing[]): Omit<LandingRow, 'studioId'>[] {
  return landings.map((landing, position) => ({
    checkId,
    position,
    stringIndex: landing.stringIndex,
    finger: landing.finger,
    note: noteName(landing.note),
    positionId: landing.positionId,
    placeMm: landing.placeMm,
    cents: landing.cents,
    sigmaCents: landing.sigmaCents,
    atMs: landing.atMs,
    source: landing.source,
    settledCents: landing.heard?.settledCents ?? null,
    settledSigmaCents: landing.heard?.settledSigmaCents ?? null,
    lastsMs: landing.heard?.lastsMs ?? null,
    confidence: landing.heard?.confidence ?? null,
  }))
}

export function checkSummaryDto(
  row: Pick<CheckRow, 'id' | 'takenAt' | 'exercise' | 'verdict'>,
): CheckSummary {
  const { id, takenAt, exercise, verdict } = row
  return { id, takenAt: takenAt.toISOString(), exercise: exercise && exerciseName(exercise), verdict }
}

/** A check with its landings, in order, and the name of who took it. */
export interface CheckFacts {
  readonly check: Omit<CheckRow, 'studioId'>
  readonly landings: readonly Omit<LandingRow, 'studioId'>[]
  readonly by: string
}

function heardBeside(row: Omit<LandingRow, 'studioId'>): Check['landings'][number]['heard'] {
  const { settledCents, settledSigmaCents, lastsMs, confidence } = row
  if (settledCents === null || settledSigmaCents === null || lastsMs === null || confidence === null)
    return null
  return { settledCents, settledSigmaCents, lastsMs, confidence }
}

export function checkDto({ check, landings, by }: CheckFacts): Check {
  return {
    ...checkSummaryDto(check),
    studentId: check.studentId,
    instrumentId: check.instrumentId,
    exercise: check.exercise && keptExercise(check.exercise),
    stringing: check.stringing && stringingDto(check.stringing),
    toleranceCents: check.toleranceCents,
    tapesCovered: Boolean(check.tapesCovered),
    landings: landings.map((row) => ({
      stringIndex: row.stringIndex,
      finger: row.finger as Finger | 0,
      note: row.note,
      positionId: row.positionId,
      placeMm: row.placeMm,
      cents: row.cents,
      sigmaCents: row.sigmaCents,
      atMs: row.atMs,
      source: row.source,
      heard: heardBeside(row),
    })),
    hasTrack: Boolean(check.hasTrack),
    note: check.note,
    by,
    removedAt: check.removedAt?.toISOString() ?? null,
    unreadable: check.unmoved?.reason ?? null,
  }
}

function stringingDto(stringing: ReturnType<typeof snapshotOf>): Check['stringing'] {
  return { ...stringing, tuning: [...stringing.tuning], lengthsMm: [...stringing.lengthsMm] }
}
