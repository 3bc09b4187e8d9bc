import { Op, QueryTypes } from 'sequelize'
import type { Logger } from 'pino'
import type { Database } from './db/database'
import { keepRules } from './retention'
import { clearUnfinished } from './features/attachments/repository'

const EVERY_MS = 3600_000
/** A save is sent again within minutes, or by a tablet that was shut over a holiday. */
const KEEP_KEYS_MS = 21 * 24 * 3600_000
/** No upload takes a day. */
const KEEP_UNFINISHED_MS = 24 * 3600_000

/** Clears what has run out, now and every hour. Returns how to stop. */
export function startHousekeeping(database: Database, logger: Logger): () => void {
  const sweep = () =>
    clearExpired(database, new Date()).catch(() => logger.warn('housekeeping did not reach the database'))
  void sweep()
  const timer = setInterval(() => void sweep(), EVERY_MS)
  timer.unref()
  return () => clearInterval(timer)
}

export async function clearExpired(database: Database, now: Date): Promise<void> {
  const { models, sequelize } = database
  await clearUnfinished(database, new Date(now.getTime() - KEEP_UNFINISHED_MS))
  await models.session.destroy({ where: { expiresAt: { [Op.lt]: now } } })
  await models.rateLimit.destroy({ where: { resetAt: { [Op.lt]: now } } })
  await sequelize.query('DELETE FROM idempotency_key WHERE created_at < :before', {
    type: QueryTypes.BULKDELETE,
    replacements: { before: new Date(now.getTime() - KEEP_KEYS_MS) },
  })
  await keepRules(database, now)
}
