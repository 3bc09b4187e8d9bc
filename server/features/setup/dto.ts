import type { BodyFit, GateMark, Pain, SetupNow, SetupRound } from '#contracts'
import { isoDay, roundItems, setupNow, type FamilyId, type SetupArrangement } from '#core'
import type { BodyFitRow, GateMarkRow, PainRow, SetupRoundRow } from '../../db/rows'
import type { By } from '../../db/studio-store'

export function roundDto(row: By<SetupRoundRow>): SetupRound {
  return {
    id: row.id,
    takenAt: row.takenAt.toISOString(),
    family: row.family as FamilyId,
    answers: row.answers,
    passed: row.passed,
    stoppedAt: row.stoppedAt,
    painId: row.painId,
    note: row.note,
    by: row.by,
    removedAt: row.removedAt?.toISOString() ?? null,
  }
}

export function painDto(row: By<PainRow>): Pain {
  return {
    id: row.id,
    toldOn: row.toldOn,
    place: row.place,
    since: row.since,
    note: row.note,
    by: row.by,
    clearedOn: row.clearedOn,
    clearedNote: row.clearedNote,
    removedAt: row.removedAt?.toISOString() ?? null,
  }
}

export function bodyFitDto(row: By<BodyFitRow>): BodyFit {
  return {
    id: row.id,
    family: row.family as FamilyId,
    fittedOn: row.fittedOn,
    ...row.measures,
    note: row.note,
    by: row.by,
    removedAt: row.removedAt?.toISOString() ?? null,
  }
}

export function gateMarkDto(row: By<GateMarkRow>): GateMark {
  return {
    gate: row.gate as GateMark['gate'],
    item: row.item as GateMark['item'],
    state: row.state as GateMark['state'],
    note: row.note,
    by: row.by,
    at: row.recordedAt.toISOString(),
  }
}

/** How a setup stands after these rounds, oldest first: what is not as it should be. Null before the first. */
export function setupNowOf(
  rounds: readonly Pick<SetupRoundRow, 'takenAt' | 'answers' | 'stoppedAt'>[],
  timeZone: string | null,
): SetupNow | null {
  const newest = rounds.at(-1)
  if (!newest) return null
  const questions = new Map(
    rounds.flatMap(({ answers }) => answers).map(({ itemId, question }) => [itemId, question]),
  )
  const standings = setupNow(
    rounds.map(({ takenAt, answers }) => ({ takenOn: isoDay(takenAt, timeZone), answers })),
  ).filter(({ answer }) => answer !== 'yes')
  return {
    takenAt: newest.takenAt.toISOString(),
    stoppedAt: newest.stoppedAt,
    standings: standings.map((one) => ({ ...one, question: questions.get(one.itemId) ?? null })),
  }
}

/**
 * The same as the studio asks it of a family now: what was seen on another instrument that the student has left, or of an item
 * that is no longer asked, is in its rounds alone.
 */
export function setupNowFor(
  family: FamilyId,
  now: SetupNow | null,
  arrangement: SetupArrangement,
): SetupNow | null {
  if (now === null || now.standings.length === 0) return now
  const asked = new Set(roundItems(family, arrangement).map(({ id }) => id))
  return { ...now, standings: now.standings.filter(({ itemId }) => asked.has(itemId)) }
}
