import { setTimeout as pause } from 'node:timers/promises'
import mariadb from 'mariadb'
import { QueryTypes, Sequelize, type Options, type QueryOptions, type Transaction } from 'sequelize'
import { within } from '../within'
import { defineModels, type Models } from './models'

/** The open database: its tables, and transactions on it. */
export interface Database {
  readonly sequelize: Sequelize
  readonly models: Models
  /** Runs `work` in one transaction; resolves once it is committed. A deadlock is tried again, `work` from its start. */
  inTransaction<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>
  isAlive(): Promise<boolean>
  close(): Promise<void>
}

export interface DatabaseOptions {
  /** Called with every statement sent and what is bound to its question marks. */
  readonly onStatement?: (sql: string, bound: readonly unknown[]) => void
  readonly poolSize?: number
}

const DEADLOCK_TRIES = 8
/** Two that met wait for times of their own, longer with each meeting, so that they do not meet again. */
const APART_MS = 12
/** Nothing of the transaction was kept, and it may well be another time: it lost a deadlock, or read what was just replaced. */
const TRIED_AGAIN = new Set(['ER_LOCK_DEADLOCK', 'ER_CHECKREAD'])
/** A database that says nothing for so long is as good as away. */
const ALIVE_MS = 1500

export function openDatabase(url: string, options: DatabaseOptions = {}): Database {
  const { onStatement } = options
  const sequelize = new InUtc(url.replace(/^mysql:/, 'mariadb:'), {
    dialect: 'mariadb',
    dialectModule: mariadb,
    timezone: '+00:00',
    logging: onStatement
      ? (sql, options) => onStatement(sql, (options as { bind?: readonly unknown[] } | undefined)?.bind ?? [])
      : false,
    pool: { max: options.poolSize ?? 10, min: 1, acquire: 10_000, idle: 60_000 },
    dialectOptions: {
      connectTimeout: 3000,
      charset: 'utf8mb4',
      // An update counts the rows it found, also those that were already as wanted.
      foundRows: true,
      // Once a connection, in place of a statement before every transaction.
      initSql: ['SET SESSION TRANSACTION ISOLATION LEVEL READ COMMITTED'],
    },
  } satisfies Options)
  return {
    sequelize,
    models: defineModels(sequelize),
    async inTransaction(work) {
      for (let attempt = 1; ; attempt++)
        try {
          return await sequelize.transaction(work)
        } catch (error) {
          if (attempt >= DEADLOCK_TRIES || !TRIED_AGAIN.has(errorCodeOf(error) ?? '')) throw error
          await pause(Math.random() * APART_MS * attempt)
        }
    },
    async isAlive() {
      const asked = sequelize.query('SELECT 1', { type: QueryTypes.SELECT }).then(
        () => true,
        () => false,
      )
      return (await within(ALIVE_MS, asked)) ?? false
    },
    close: () => sequelize.close(),
  }
}

/**
 * Instants named in a statement written by hand are sent in UTC, as all others are. Sequelize's own replacing knows no zone and
 * writes them in the machine's: on a server in Auckland a session then ended half a day before its time.
 */
class InUtc extends Sequelize {
  // Its many overloads differ in what they return, which is handed on untouched.
  override query = ((sql: string, options?: QueryOptions) =>
    super.query(
      sql,
      options?.replacements ? { ...options, replacements: utcOf(options.replacements) } : options,
    )) as Sequelize['query']
}

function utcOf(
  replacements: NonNullable<QueryOptions['replacements']>,
): NonNullable<QueryOptions['replacements']> {
  const utc = (value: unknown): unknown =>
    value instanceof Date
      ? value.toISOString().replace('T', ' ').replace('Z', '')
      : Array.isArray(value)
        ? value.map(utc)
        : value
  return Array.isArray(replacements)
    ? replacements.map(utc)
    : Object.fromEntries(Object.entries(replacements).map(([name, value]) => [name, utc(value)]))
}

/** The server's or connector's own code behind an error, as in `ER_DUP_ENTRY`. */
export function errorCodeOf(error: unknown): string | undefined {
  for (let e: unknown = error; e instanceof Error; e = nested(e)) {
    const { code } = e as { code?: unknown }
    if (typeof code === 'string') return code
  }
  return undefined
}

/** True when the database could not be reached, or went away in the middle: nothing is known to be wrong with the request. */
export function isUnavailable(error: unknown): boolean {
  if (!isOfDatabase(error)) return false
  if (error.name.startsWith('SequelizeConnection')) return true
  const code = errorCodeOf(error)
  return code !== undefined && UNAVAILABLE.has(code)
}

/** True where nothing could be kept for want of room. */
export function isFull(error: unknown): boolean {
  return isOfDatabase(error) && FULL.has(errorCodeOf(error) ?? '')
}

/** True where two saves met and the other was quicker: a key is taken, or what it pointed at is gone. */
export function isConflict(error: unknown): boolean {
  return isOfDatabase(error) && CONFLICTS.has(errorCodeOf(error) ?? '')
}

/** A file that is missing and a caller who hangs up have codes of the same names. */
function isOfDatabase(error: unknown): error is Error {
  for (let e: unknown = error; e instanceof Error; e = nested(e))
    if (e.name.startsWith('Sequelize') || e.name === 'SqlError') return true
  return false
}

const CONFLICTS = new Set(['ER_DUP_ENTRY', 'ER_NO_REFERENCED_ROW', 'ER_NO_REFERENCED_ROW_2'])

const UNAVAILABLE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOENT',
  'ER_SOCKET_UNEXPECTED_CLOSE',
  'ER_CMD_CONNECTION_CLOSED',
  'ER_CONNECTION_TIMEOUT',
  'ER_GET_CONNECTION_TIMEOUT',
  'ER_SOCKET_BAD_PORT',
  'ER_SERVER_SHUTDOWN',
  'ER_SOCKET_TIMEOUT',
  'ER_CONNECTION_ALREADY_CLOSED',
  'ER_CONNECTION_KILLED',
  'ER_LOCK_WAIT_TIMEOUT',
  ...TRIED_AGAIN,
])

/** The disk is full, a table may not grow, or a file of it could not be written: the outbox tries again until somebody has made room. */
const FULL = new Set(['ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ER_ERROR_ON_WRITE', 'ENOSPC', 'EDQUOT'])

function nested(error: Error): unknown {
  const { parent, original, cause } = error as Error & {
    parent?: unknown
    original?: unknown
    cause?: unknown
  }
  return [parent, original, cause].find((e) => e instanceof Error && e !== error)
}
