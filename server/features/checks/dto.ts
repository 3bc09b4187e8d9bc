import type { Finding, Finger, Verdict } from '#core'
import type { Check, CheckSummary, KeptVerdict } from '#contracts'
import type { TeacherNames } from '../instruments/dto'
import type { CheckFacts, JudgedCheck } from './repository'

/** What is kept of a verdict; its evidence is the readings. */
export function keptVerdict(verdict: Verdict): KeptVerdict {
  switch (verdict.outcome) {
    case 'not_enough_notes':
      return {
        outcome: verdict.outcome,
        fingersHeard: [...verdict.fingersHeard],
        fingersNeeded: verdict.fingersNeeded,
      }
    case 'string_out_of_tune':
      return { outcome: verdict.outcome, cents: verdict.cents }
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

/** Takes a verdict apart for the tables: findings are rows of their own. */
export function verdictRows(verdict: KeptVerdict) {
  const {
    outcome,
    findings = [],
    alternatives = [],
    ...detail
  } = {
    findings: undefined,
    alternatives: undefined,
    ...verdict,
  }
  const rows = [
    ...findings.map((finding) => ({ isAlternative: false, finding })),
    ...alternatives.map((finding) => ({ isAlternative: true, finding })),
  ].map(({ isAlternative, finding: { code, ...data } }, position) => ({
    position,
    isAlternative,
    code,
    data,
  }))
  return { outcome, detail, findings: rows }
}

function verdictDto({ check, findings }: JudgedCheck): KeptVerdict {
  const all = findings.map((row) => ({
    isAlternative: row.isAlternative,
    finding: { code: row.code, ...(row.data as object) } as Finding,
  }))
  const parts =
    check.outcome === 'explained' || check.outcome === 'several'
      ? {
          findings: all.filter((f) => !f.isAlternative).map((f) => f.finding),
          alternatives: all.filter((f) => f.isAlternative).map((f) => f.finding),
        }
      : {}
  return { outcome: check.outcome, ...(check.detail as object), ...parts } as KeptVerdict
}

export function checkSummaryDto(facts: JudgedCheck): CheckSummary {
  const { check } = facts
  return {
    id: check.id,
    takenAt: check.takenAt.toISOString(),
    string: check.string,
    shapeId: check.shapeId,
    verdict: verdictDto(facts),
  }
}

export function checkDto(facts: CheckFacts, names: TeacherNames): Check {
  const { check, readings } = facts
  return {
    ...checkSummaryDto(facts),
    studentId: check.studentId,
    instrumentId: check.instrumentId,
    system: check.system,
    lengthMm: check.lengthMm,
    toleranceCents: check.toleranceCents,
    readings: readings.map((row) => ({ finger: row.finger as Finger | 0, shownCents: row.shownCents })),
    note: check.note,
    by: names.get(check.userId) ?? '',
    removedAt: check.removedAt?.toISOString() ?? null,
  }
}
