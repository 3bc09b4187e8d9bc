import type { BodyFit, GateMark, Pain, SetupNow, SetupRound } from '#contracts'
import { isoDay, isSetupItem, setupNow, SETUP_ITEMS, type FamilyId } from '#core'
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
): SetupNow | null {
  const newest = rounds.at(-1)
  if (!newest) return null
  const questions = new Map(
    rounds.flatMap(({ answers }) => answers).map(({ itemId, question }) => [itemId, question]),
  )
  const standings = setupNow(
    rounds.map(({ takenAt, answers }) => ({ takenOn: isoDay(takenAt), answers })),
  ).filter(({ answer }) => answer !== 'yes')
  return {
    takenAt: newest.takenAt.toISOString(),
    stoppedAt: newest.stoppedAt,
    standings: standings.map((one) => ({ ...one, question: questions.get(one.itemId) ?? null })),
  }
}

/** The same for a family: what was seen on another instrument that the student has left is in its rounds alone. */
export function setupNowFor(family: string, now: SetupNow | null): SetupNow | null {
  const isOfFamily = (id: string) =>
    !isSetupItem(id) || (SETUP_ITEMS[id].families as readonly string[]).includes(family)
  return now && { ...now, standings: now.standings.filter(({ itemId }) => isOfFamily(itemId)) }
}
