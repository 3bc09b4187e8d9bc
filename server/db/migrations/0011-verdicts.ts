import { QueryTypes, type Sequelize } from 'sequelize'
import { judge, summaryOf, takeOfRecord, type TakeRecord } from '#core'
import type { Step } from './step'

type Stored<Row> = { [Key in keyof Row]: Row[Key] | string | null }
type Landing = TakeRecord['landings'][number]
interface OldCheck extends Stored<Pick<TakeRecord, 'stringing' | 'exercise'>> {
  readonly id: string
  readonly toleranceCents: number
}

/** Checks moved in one transaction. */
const BATCH = 200

/**
 * A check keeps where tapes lay, what its teacher said to the verdict, the few numbers that a history draws of it, and what was believed before it and
 * what it makes likely for later ones; a note how its pitch was held.
 */
export const steps: readonly Step[] = [
  `ALTER TABLE hand_check
    ADD COLUMN IF NOT EXISTS tapes_mm JSON NULL,
    ADD COLUMN IF NOT EXISTS decision JSON NULL,
    ADD COLUMN IF NOT EXISTS summary JSON NULL,
    ADD COLUMN IF NOT EXISTS likely JSON NULL,
    ADD COLUMN IF NOT EXISTS belief JSON NULL`,
  `ALTER TABLE landing
    ADD COLUMN IF NOT EXISTS wobble_cents DOUBLE NULL,
    ADD COLUMN IF NOT EXISTS brightness_db DOUBLE NULL,
    ADD COLUMN IF NOT EXISTS vibrato_width_cents DOUBLE NULL,
    ADD COLUMN IF NOT EXISTS vibrato_top_cents DOUBLE NULL`,
  summarise,
]

async function summarise(sequelize: Sequelize): Promise<void> {
  for (let last = ''; ;) {
    const checks = await sequelize.query<OldCheck>(
      `SELECT id, tolerance_cents AS toleranceCents, stringing, exercise FROM hand_check
       WHERE id > :last AND exercise IS NOT NULL ORDER BY id LIMIT ${BATCH}`,
      { type: QueryTypes.SELECT, replacements: { last } },
    )
    if (checks.length === 0) return
    last = checks.at(-1)!.id
    const landings = await sequelize.query<Landing & { checkId: string }>(
      `SELECT check_id AS checkId, string_index AS stringIndex, finger, note, position_id AS positionId,
         place_mm AS placeMm, cents, sigma_cents AS sigmaCents, at_ms AS atMs, source
       FROM landing WHERE check_id IN (:ids) ORDER BY position`,
      { type: QueryTypes.SELECT, replacements: { ids: checks.map(({ id }) => id) } },
    )
    await sequelize.transaction(async (transaction) => {
      for (const check of checks) {
        const take = takeOfRecord({
          stringing: parsed(check.stringing),
          exercise: parsed(check.exercise),
          landings: landings
            .filter(({ checkId }) => checkId === check.id)
            .map((l) => ({ ...l, heard: null })),
        })
        if (!take) continue
        const judged = { ...take, toleranceCents: check.toleranceCents }
        await sequelize.query('UPDATE hand_check SET summary = :summary, likely = :likely WHERE id = :id', {
          type: QueryTypes.UPDATE,
          transaction,
          replacements: {
            id: check.id,
            summary: asJson(summaryOf(judged)),
            likely: asJson(judge(judged).likely),
          },
        })
      }
    })
  }
}

function asJson(value: unknown): string | null {
  return value == null ? null : JSON.stringify(value)
}

/** MariaDB’s JSON is text to some of its drivers. */
function parsed<Value>(stored: Value | string | null): Value | null {
  return typeof stored === 'string' ? (JSON.parse(stored) as Value) : stored
}
