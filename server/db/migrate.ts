import { QueryTypes, type Sequelize } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import * as firstSlice from './migrations/0001-first-slice'
import * as tapeBench from './migrations/0002-tape-bench'
import * as handsAndPatterns from './migrations/0003-hands-and-patterns'
import * as takes from './migrations/0004-takes'
import type { Report, Step } from './migrations/step'

/** In order; what has landed is never changed, only added to. */
const MIGRATIONS: Readonly<Record<string, { readonly steps: readonly Step[] }>> = {
  '0001-first-slice': firstSlice,
  '0002-tape-bench': tapeBench,
  '0003-hands-and-patterns': handsAndPatterns,
  '0004-takes': takes,
}

/**
 * Brings the schema up to date; returns the names of the migrations that ran. Safe to call from several servers in turn.
 * `report` hears of every row that could not be moved over.
 */
export async function migrate(sequelize: Sequelize, report: Report = () => {}): Promise<string[]> {
  const umzug = new Umzug({
    migrations: Object.entries(MIGRATIONS).map(([name, { steps }]) => ({
      name,
      async up() {
        for (const step of steps)
          if (typeof step === 'string') await sequelize.query(step, { type: QueryTypes.RAW })
          else await step(sequelize, report)
      },
    })),
    context: {},
    storage: new SequelizeStorage({ sequelize, tableName: 'migration' }),
    logger: undefined,
  })
  return withLock(sequelize, async () => (await umzug.up()).map((migration) => migration.name))
}

/** One server migrates at a time, also where several share a database. */
async function withLock<T>(sequelize: Sequelize, work: () => Promise<T>): Promise<T> {
  return sequelize.transaction(async (transaction) => {
    await sequelize.query("SELECT GET_LOCK('jadefell-migrate', 60) AS held", {
      type: QueryTypes.SELECT,
      transaction,
    })
    try {
      return await work()
    } finally {
      await sequelize.query("SELECT RELEASE_LOCK('jadefell-migrate') AS released", {
        type: QueryTypes.SELECT,
        transaction,
      })
    }
  })
}
