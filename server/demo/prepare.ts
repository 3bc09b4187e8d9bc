import { keepAppendOnly } from '../db/append-only'
import type { Database } from '../db/database'
import { migrate, type MigrateOptions } from '../db/migrate'
import type { Report } from '../db/migrations/step'
import { seedDemo } from './seed'

/** Said where the database would not be told to keep the trail by itself. */
export const NOT_APPEND_ONLY =
  'who saw and changed what is kept, but the database would let it be changed: it needs log_bin_trust_function_creators = 1'

/**
 * Brings a database up to date and, `withDemo`, makes the demo studio in an empty one. Of several servers that start at once,
 * one does it.
 */
export async function prepareDatabase(
  database: Database,
  withDemo: boolean,
  say: Report,
  options: Pick<MigrateOptions, 'lockWaitS' | 'tellEveryS'> = {},
): Promise<void> {
  const ran = await migrate(database.sequelize, {
    ...options,
    report: say,
    async then() {
      if (!(await keepAppendOnly(database.sequelize))) say(NOT_APPEND_ONLY)
      if (withDemo && (await seedDemo(database, new Date()))) say('made the demo studio')
    },
  })
  if (ran.length > 0) say(`migrated: ${ran.join(', ')}`)
}
