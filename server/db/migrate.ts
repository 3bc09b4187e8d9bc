import { QueryTypes, type Sequelize } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import * as firstSlice from './migrations/0001-first-slice'
import * as tapeBench from './migrations/0002-tape-bench'
import * as handsAndPatterns from './migrations/0003-hands-and-patterns'

const MIGRATIONS = {
  '0001-first-slice': firstSlice,
  '0002-tape-bench': tapeBench,
  '0003-hands-and-patterns': handsAndPatterns,
}

/** Brings the schema up to date; returns the names of the migrations that ran. Safe to call from several servers in turn. */
export async function migrate(sequelize: Sequelize): Promise<string[]> {
  const umzug = new Umzug({
    migrations: Object.entries(MIGRATIONS).map(([name, { up }]) => ({
      name,
      async up() {
        for (const statement of up) await sequelize.query(statement, { type: QueryTypes.RAW })
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
