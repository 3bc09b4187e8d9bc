import { QueryTypes, type Sequelize } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import * as firstSlice from './migrations/0001-first-slice'
import * as tapeBench from './migrations/0002-tape-bench'
import * as handsAndPatterns from './migrations/0003-hands-and-patterns'
import * as takes from './migrations/0004-takes'
import * as doors from './migrations/0005-doors'
import * as lists from './migrations/0006-lists'
import * as cupboard from './migrations/0007-cupboard'
import * as setup from './migrations/0008-setup'
import * as heardTakes from './migrations/0009-heard-takes'
import * as exercises from './migrations/0010-exercises'
import * as verdicts from './migrations/0011-verdicts'
import * as fingerings from './migrations/0012-fingerings'
import * as soundRemovals from './migrations/0013-sound-removals'
import * as toldChecks from './migrations/0014-told-checks'
import * as oneThing from './migrations/0015-one-thing'
import * as plans from './migrations/0016-plans'
import * as trust from './migrations/0017-trust'
import { untilHeld, withLease, type Waiting } from './lease'
import type { Report, Step } from './migrations/step'
import { standingOf } from './standing'

/** In order; what has landed is never changed, only added to. */
const MIGRATIONS: Readonly<Record<string, { readonly steps: readonly Step[] }>> = {
  '0001-first-slice': firstSlice,
  '0002-tape-bench': tapeBench,
  '0003-hands-and-patterns': handsAndPatterns,
  '0004-takes': takes,
  '0005-doors': doors,
  '0006-lists': lists,
  '0007-cupboard': cupboard,
  '0008-setup': setup,
  '0009-heard-takes': heardTakes,
  '0010-exercises': exercises,
  '0011-verdicts': verdicts,
  '0012-fingerings': fingerings,
  '0013-sound-removals': soundRemovals,
  '0014-told-checks': toldChecks,
  '0015-one-thing': oneThing,
  '0016-plans': plans,
  '0017-trust': trust,
}

/** The one before the last: what a server of the version before has. */
export const MIGRATION_BEFORE = Object.keys(MIGRATIONS).at(-2)!

/** Of this version or one before it. */
export function isKnownMigration(name: string): boolean {
  return name in MIGRATIONS
}

export interface MigrateOptions {
  /** Hears of every row that could not be moved over. */
  readonly report?: Report
  /** Done once the schema is up to date, before another server may look at it. */
  readonly then?: () => Promise<unknown>
  /** Only as far as this one, as a server of an earlier version did. */
  readonly upTo?: string
  /** How long to wait for a server that is at it already, s. */
  readonly lockWaitS?: number
  /** How often to say that it waits, s. */
  readonly tellEveryS?: number
}

/** The demo of a first start takes a slow machine minutes; a server that dies lets go at once. */
const LOCK_WAIT_S = 1800
const TELL_EVERY_S = 10

/**
 * Brings the schema up to date; returns the names of the migrations that ran. Safe to call from several servers at once: one
 * works, the others wait for it. Throws where another does not come to an end.
 */
export async function migrate(sequelize: Sequelize, options: MigrateOptions = {}): Promise<string[]> {
  const { report = () => {}, then, upTo, lockWaitS = LOCK_WAIT_S, tellEveryS = TELL_EVERY_S } = options
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
  return withLock(sequelize, { lockWaitS, tellEveryS, report }, async () => {
    const ran = (await umzug.up(upTo === undefined ? undefined : { to: upTo })).map(
      (migration) => migration.name,
    )
    await then?.()
    return ran
  })
}

/** One server migrates at a time, also where several share a database, or the nodes of one. */
async function withLock<T>(sequelize: Sequelize, waiting: Waiting, work: () => Promise<T>): Promise<T> {
  // A lock belongs to a connection, and a transaction keeps to one.
  return sequelize.transaction(async (transaction) => {
    const ask = async (seconds: number) => {
      const [lock] = await sequelize.query<{ held: number | null }>(
        `SELECT GET_LOCK(CONCAT('jadefell ', DATABASE()), ${seconds}) AS held`,
        { type: QueryTypes.SELECT, transaction },
      )
      return Number(lock?.held) === 1
    }
    await untilHeld(waiting, ask)
    try {
      // A node knows its own locks alone.
      return (await standingOf(sequelize)).nodes > 0
        ? await withLease(sequelize, 'migrate', waiting, work)
        : await work()
    } finally {
      await sequelize.query("SELECT RELEASE_LOCK(CONCAT('jadefell ', DATABASE())) AS released", {
        type: QueryTypes.SELECT,
        transaction,
      })
    }
  })
}
