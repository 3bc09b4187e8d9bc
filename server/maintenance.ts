import { QueryTypes } from 'sequelize'
import type { Database } from './db/database'

/** Whoever freezes says again and again that it is still there: after so long without a word, saving goes on. */
export const FREEZE_MS = 60_000

/** The clocks of whoever freezes and of a server differ by less. What lies further ahead is of a clock that was put right since. */
const FURTHEST_AHEAD_MS = 10 * FREEZE_MS

export function isFrozenAt(until: Date | null, now: Date): boolean {
  return until !== null && until > now && until.getTime() - now.getTime() <= FURTHEST_AHEAD_MS
}

/** Every server on this database refuses to save until then. */
export async function freeze({ sequelize }: Database, until: Date): Promise<void> {
  await sequelize.query('REPLACE INTO maintenance (id, until_at) VALUES (1, :until)', {
    type: QueryTypes.INSERT,
    replacements: { until },
  })
}

export async function thaw({ sequelize }: Database): Promise<void> {
  await sequelize.query('DELETE FROM maintenance', { type: QueryTypes.BULKDELETE })
}
