import type { Database } from '../db/database'
import { migrate, type MigrateOptions } from '../db/migrate'
import type { Report } from '../db/migrations/step'
import { seedDemo } from './seed'

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
      if (withDemo && (await seedDemo(database, new Date()))) say('made the demo studio')
    },
  })
  if (ran.length > 0) say(`migrated: ${ran.join(', ')}`)
}
