import { setTimeout as pause } from 'node:timers/promises'
import mariadb from 'mariadb'
import { QueryTypes, Sequelize, type Options, type QueryOptions, type Transaction } from 'sequelize'
import { within } from '../within'
import { errorCodeOf, isUnavailable, TRIED_AGAIN } from './errors'
import { addressOf, connectorOver, readAddress } from './hosts'
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
/** A database that says nothing for so long is as good as away. */
const ALIVE_MS = 1500

export function openDatabase(url: string, options: DatabaseOptions = {}): Database {
  const { onStatement } = options
  const hosts = readAddress(url)?.hosts ?? []
  const oneHost = hosts[0] ? addressOf(url, hosts[0]) : url
  const sequelize = new InUtc(oneHost.replace(/^mysql:/, 'mariadb:'), {
    dialect: 'mariadb',
    dialectModule: hosts.length > 1 ? connectorOver(hosts) : mariadb,
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
  sequelize.hostCount = hosts.length
  return {
    sequelize,
    models: defineModels(sequelize),
    async inTransaction(work) {
      for (let attempt = 1, lost = 0; ; attempt++) {
        let isKept = false
        try {
          return await sequelize.transaction(async (transaction) => {
            const done = await work(transaction)
            isKept = true
            return done
          })
        } catch (error) {
          const isApart = attempt < DEADLOCK_TRIES && TRIED_AGAIN.has(errorCodeOf(error) ?? '')
          // Lost in the middle nothing was kept; lost while it was kept, nobody knows: that is asked for again by its key.
          const isElsewhere = !isApart && !isKept && isUnavailable(error) && ++lost < hosts.length
          if (!isApart && !isElsewhere) throw error
          await pause(Math.random() * APART_MS * attempt)
        }
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
 *
 * A question outside a transaction that a node took with it is asked of the next.
 */
class InUtc extends Sequelize {
  hostCount = 1

  // Its many overloads differ in what they return, which is handed on untouched.
  override query = (async (sql: string, options?: QueryOptions) => {
    const inUtc = options?.replacements ? { ...options, replacements: utcOf(options.replacements) } : options
    const tries = options?.type === QueryTypes.SELECT && !options.transaction ? this.hostCount : 1
    for (let attempt = 1; ; attempt++)
      try {
        return await super.query(sql, inUtc)
      } catch (error) {
        if (attempt >= tries || !isUnavailable(error)) throw error
      }
  }) as Sequelize['query']
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
