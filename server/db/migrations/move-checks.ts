import { QueryTypes, type Sequelize, type Transaction } from 'sequelize'
import {
  FAMILY_IDS,
  familyOf,
  landingFromMeter,
  noteName,
  parseNote,
  shapeExercise,
  shapeOf,
  snapshotOf,
  stringingOf,
  tuningSystem,
  type FamilyId,
  type Landing,
  type Note,
} from '#core'
import type { Report } from './step'

/** A check as versions before this one kept it: one hand shape on one ideal string of its own length. */
interface OldCheck {
  id: string
  studioId: string
  string: string
  shapeId: string
  system: string
  lengthMm: number
  outcome: string
  detail: unknown
  family: string
  sizeId: string
  tuning: unknown
}
interface OldReading {
  checkId: string
  finger: number
  shownCents: number
}
interface OldFinding {
  checkId: string
  isAlternative: number
  code: string
  data: unknown
}

type Moved =
  | {
      readonly ok: true
      readonly exercise: object
      readonly stringing: object
      readonly landings: readonly Landing[]
    }
  | { readonly ok: false; readonly reason: string }

/** Checks moved in one transaction. */
const BATCH = 200

/**
 * Makes of every check of the old shape an exercise with its landings, and keeps with it the ideal string it was judged by.
 * One that names something nobody knows keeps its verdict and its old row, and is reported. What was done is not done again.
 */
export async function moveChecks(sequelize: Sequelize, report: Report): Promise<void> {
  const [column] = await sequelize.query<{ name: string }>(
    `SELECT column_name AS name FROM information_schema.columns
     WHERE table_schema = DATABASE() AND table_name = 'hand_check' AND column_name = 'shape_id'`,
    { type: QueryTypes.SELECT },
  )
  if (!column) return
  for (;;) {
    const checks = await sequelize.query<OldCheck>(
      `SELECT c.id, c.studio_id AS studioId, c.string, c.shape_id AS shapeId, c.system, c.length_mm AS lengthMm,
              c.outcome, c.detail, i.family, i.size_id AS sizeId, i.tuning
       FROM hand_check c JOIN instrument i ON i.id = c.instrument_id
       WHERE c.verdict IS NULL ORDER BY c.id LIMIT ${BATCH}`,
      { type: QueryTypes.SELECT },
    )
    if (checks.length === 0) return
    await sequelize.transaction((transaction) => moveBatch(sequelize, transaction, checks, report))
  }
}

async function moveBatch(
  sequelize: Sequelize,
  transaction: Transaction,
  checks: readonly OldCheck[],
  report: Report,
): Promise<void> {
  const of = { type: QueryTypes.SELECT as const, transaction, replacements: { ids: checks.map((c) => c.id) } }
  const readings = await sequelize.query<OldReading>(
    `SELECT check_id AS checkId, finger, shown_cents AS shownCents FROM reading
     WHERE check_id IN (:ids) ORDER BY position`,
    of,
  )
  const findings = await sequelize.query<OldFinding>(
    `SELECT check_id AS checkId, is_alternative AS isAlternative, code, data FROM finding
     WHERE check_id IN (:ids) ORDER BY position`,
    of,
  )
  for (const check of checks) {
    const own = readings.filter((r) => r.checkId === check.id)
    const moved = movedCheck(check, own)
    if (!moved.ok)
      report(
        `the check ${check.id} could not be moved over: ${moved.reason}. It is kept as it was, to be read only.`,
      )
    const { landings = [], exercise = null, stringing = null } = moved.ok ? moved : {}
    const unmoved = moved.ok ? null : { reason: moved.reason, row: { ...check, readings: own } }
    await sequelize.query(
      `UPDATE hand_check SET exercise = :exercise, stringing = :stringing, verdict = :verdict, unmoved = :unmoved
       WHERE id = :id`,
      {
        type: QueryTypes.UPDATE,
        transaction,
        replacements: {
          id: check.id,
          exercise: exercise && JSON.stringify(exercise),
          stringing: stringing && JSON.stringify(stringing),
          verdict: JSON.stringify(
            verdictOf(
              check,
              findings.filter((f) => f.checkId === check.id),
            ),
          ),
          unmoved: unmoved && JSON.stringify(unmoved),
        },
      },
    )
    if (landings.length > 0)
      await sequelize.query(
        `INSERT INTO landing (check_id, studio_id, position, string_index, finger, note, place_mm, cents, sigma_cents,
           at_ms, source) VALUES ${landings.map(() => '(?)').join(', ')}`,
        {
          type: QueryTypes.INSERT,
          transaction,
          replacements: landings.map((l, position) => [
            check.id,
            check.studioId,
            position,
            l.stringIndex,
            l.finger,
            noteName(l.note),
            l.placeMm,
            l.cents,
            l.sigmaCents,
            l.atMs,
            l.source,
          ]),
        },
      )
  }
}

function movedCheck(check: OldCheck, readings: readonly OldReading[]): Moved {
  const familyId = FAMILY_IDS.find((id) => id === check.family)
  if (!familyId) return { ok: false, reason: `nobody knows the family “${check.family}”` }
  const family = familyOf(familyId)
  const system = tuningSystem(check.system)
  if (!system) return { ok: false, reason: `the tuning system “${check.system}” cannot be read` }
  const shape = shapeOf(family, check.shapeId)
  if (!shape) return { ok: false, reason: `the ${familyId} has no hand shape “${check.shapeId}”` }
  const open = parseNote(check.string)
  const tuning = open && tuningWith(open, family.id, parsed(check.tuning))
  if (!open || !tuning)
    return { ok: false, reason: `there is no string “${check.string}” on this ${familyId}` }
  const stringIndex = tuning.findIndex((n) => noteName(n) === noteName(open))
  if (!(check.lengthMm > 0)) return { ok: false, reason: `${check.lengthMm} mm is no string length` }
  const stringing = stringingOf({ family, sizeId: check.sizeId, system, tuning, lengthsMm: [check.lengthMm] })
  const exercise = shapeExercise(tuning, stringIndex, shape)
  const landings: Landing[] = []
  for (const { finger, shownCents } of readings) {
    const expected = exercise.notes.find((n) => n.finger === finger)
    if (!expected) return { ok: false, reason: `finger ${finger} stops nothing in “${check.shapeId}”` }
    landings.push(landingFromMeter(stringing, expected, shownCents))
  }
  return {
    ok: true,
    exercise: {
      kind: 'shape',
      string: noteName(open),
      shapeId: shape.id,
      notes: exercise.notes.map((n) => ({ ...n, note: noteName(n.note) })),
    },
    stringing: snapshotOf(stringing),
    landings,
  }
}

/** The open strings the check was taken on: the instrument's, or the family's own where it was tuned otherwise since. */
function tuningWith(open: Note, familyId: FamilyId, stored: unknown): readonly Note[] | undefined {
  const own = Array.isArray(stored) ? stored.flatMap((text) => parseNote(String(text)) ?? []) : []
  return [own, familyOf(familyId).tuning].find((tuning) => tuning.some((n) => noteName(n) === noteName(open)))
}

/** Outcome, detail and findings lay in three places; now they are one document. */
function verdictOf({ outcome, detail }: OldCheck, findings: readonly OldFinding[]): object {
  const all = findings.map(({ isAlternative, code, data }) => ({
    isAlternative: Boolean(isAlternative),
    finding: { code, ...(parsed(data) as object) },
  }))
  const parts =
    outcome === 'explained' || outcome === 'several'
      ? {
          findings: all.filter((f) => !f.isAlternative).map((f) => f.finding),
          alternatives: all.filter((f) => f.isAlternative).map((f) => f.finding),
        }
      : {}
  return { outcome, ...(parsed(detail) as object), ...parts }
}

/** A JSON column, which comes as text or as what the text says. */
function parsed(value: unknown): unknown {
  return typeof value === 'string' ? (JSON.parse(value) as unknown) : value
}
