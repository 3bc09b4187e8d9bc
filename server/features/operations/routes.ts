import { QueryTypes } from 'sequelize'
import type { ServerState } from '#contracts'
import type { Database } from '../../db/database'
import type { OperationRow } from '../../db/rows'
import { standingOf } from '../../db/standing'
import type { Handlers } from '../../http/call'
import type { Metrics } from '../../http/metrics'
import type { SeenTrail } from '../../http/trail'
import { within } from '../../within'

export interface OperationsDeps {
  readonly database: Database
  readonly metrics: Metrics
  readonly seen: SeenTrail
  readonly version: string
  readonly since: Date
}

/** An answer without what the database would say, where it does not say it by then. */
const ASKED_MS = 2000
/** The page shows what is worth looking into. */
const MOST_ROUTES = 12

export function operationsRoutes(deps: OperationsDeps): Pick<Handlers, 'server.read'> {
  return { 'server.read': () => stateOf(deps) }
}

async function stateOf({ database, metrics, seen, version, since }: OperationsDeps): Promise<ServerState> {
  const { sequelize } = database
  const asked = <T>(work: Promise<T>) => within(ASKED_MS, work).catch(() => undefined)
  const [standing, counts, operations] = await Promise.all([
    asked(standingOf(sequelize)),
    asked(countsOf(database)),
    asked(lastOperations(database)),
  ])
  return {
    version,
    since: since.toISOString(),
    database: {
      isUp: standing !== undefined,
      version: counts?.version ?? null,
      nodes: standing?.nodes ?? 0,
      isReady: standing ? standing.nodes === 0 || standing.isReady : false,
      lastMigration: counts?.lastMigration ?? null,
    },
    queue: { ...poolOf(database), trail: seen.waiting() },
    routes: (await metrics.routes()).slice(0, MOST_ROUTES),
    counts: counts?.counts ?? null,
    backup: operations?.backup ?? null,
    drill: operations?.drill ?? null,
  }
}

function poolOf({ sequelize }: Database): { using: number; waiting: number } {
  const { connectionManager } = sequelize as unknown as {
    connectionManager: { pool?: { using?: number; waiting?: number } }
  }
  return { using: connectionManager.pool?.using ?? 0, waiting: connectionManager.pool?.waiting ?? 0 }
}

/** By estimates of the tables, where an exact count would read a million rows. */
async function countsOf({ sequelize }: Database) {
  const [row] = await sequelize.query<{
    version: string
    lastMigration: string
    studios: number
    students: number
    checks: number
    sessions: number
  }>(
    `SELECT VERSION() AS version, (SELECT MAX(name) FROM migration) AS lastMigration,
       (SELECT COUNT(*) FROM studio) AS studios, (SELECT COUNT(*) FROM session WHERE expires_at > UTC_TIMESTAMP()) AS sessions,
       (SELECT table_rows FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = 'student') AS students,
       (SELECT table_rows FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = 'hand_check') AS checks`,
    { type: QueryTypes.SELECT },
  )
  if (!row) return undefined
  const { version, lastMigration, ...counts } = row
  const whole = (n: number) => Number(n)
  return {
    version,
    lastMigration,
    counts: {
      studios: whole(counts.studios),
      students: whole(counts.students),
      checks: whole(counts.checks),
      sessions: whole(counts.sessions),
    },
  }
}

async function lastOperations({ models }: Database): Promise<Pick<ServerState, 'backup' | 'drill'>> {
  const last = async (kind: OperationRow['kind']) =>
    (await models.operation.findOne({
      where: { kind },
      order: [['at', 'DESC']],
      raw: true,
    })) as unknown as OperationRow | null
  const [backup, drill] = [await last('backup'), await last('drill')]
  return {
    backup: backup && {
      at: backup.at.toISOString(),
      ...(jsonOf(backup) as { rows: number; isLocked: boolean }),
    },
    drill: drill && {
      at: drill.at.toISOString(),
      isSound: Boolean(drill.isSound),
      steps: (jsonOf(drill) as NonNullable<ServerState['drill']>).steps,
    },
  }
}

function jsonOf({ report }: OperationRow): unknown {
  return typeof report === 'string' ? JSON.parse(report) : report
}
