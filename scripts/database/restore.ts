import { existsSync } from 'node:fs'
import type { Connection } from 'mariadb'
import { DROP_TRIGGERS_OF, keepAppendOnly } from '../../server/db/append-only'
import { openDatabase } from '../../server/db/database'
import { withLease } from '../../server/db/lease'
import { standingOf } from '../../server/db/standing'
import { NOT_APPEND_ONLY } from '../../server/demo/prepare'
import { freeze, FREEZE_MS, thaw } from '../../server/maintenance'
import { carryOver, whatReturns } from './carry-over'
import { readBackup, type SignedBy } from './backup-file'
import { bringUpToDate, connect, emptySchemas, insistOnCounts, load, tablesOf } from './beside'

const LOCK = 'jadefell restore'
/** A save under way is waited for; one that hangs does not hang us. */
const SWAP_WAIT_S = 60

/** Schemas beside the one in use: what is loaded, and what it replaces until that is thrown away. */
function schemasOf(url: URL) {
  const live = url.pathname.slice(1)
  return { live, scratch: `${live}_restore`, before: `${live}_before` }
}

export interface RestoreOptions {
  readonly say?: (line: string) => void
  /** Hears, a sentence each, what comes back, what does not and what is lost; nothing is changed where it answers no. */
  readonly agree?: (sentences: readonly string[]) => Promise<boolean>
  /** Of this installation: a backup that it did not sign is told of before it is agreed to. */
  readonly ownKey?: string
  /** May give rights on the schemas beside. */
  readonly allow?: (schemas: readonly string[]) => Promise<void>
}

/**
 * Puts a backup in place of the database of `url`. It is loaded beside it, brought up to date and counted. Once that is agreed to,
 * a running server refuses to save; what outlives a backup is carried over, and the two change places, in one statement. Whatever
 * goes wrong, the old data are untouched.
 */
export async function restore(
  url: URL,
  file: string,
  {
    say = () => {},
    agree = () => Promise.resolve(true),
    allow = () => Promise.resolve(),
    ownKey,
  }: RestoreOptions = {},
): Promise<void> {
  if (!existsSync(file)) throw new Error(`There is no ${file}. Nothing was changed.`)
  const backup = await readBackup(file, ownKey)
  if (!backup.ok) throw new Error(`${file} is not restored: ${backup.reason}. Nothing was changed.`)
  const { seal, signedBy } = backup
  if (!seal)
    say(`${file} is of an earlier version: that every row is in it cannot be counted, only that it loads.`)
  const { live, scratch, before } = schemasOf(url)
  await allow([scratch, before])
  const connection = await connect(url)
  try {
    await alone(url, connection, putInPlace)
    for (const schema of [before, scratch]) await connection.query(`DROP DATABASE \`${schema}\``)
  } finally {
    await connection.end()
  }

  async function putInPlace() {
    const tables = await tablesOf(connection, live)
    let frozen: Frozen | undefined
    try {
      await emptySchemas(connection, [scratch, before])
      say('loading beside the database in use')
      await load(url, scratch, file)
      await insistOnCounts(connection, scratch, seal)
      await bringUpToDate(url, scratch, say)
      const over = { connection, live, scratch, isKnown: tables.includes('sound_removal') }
      const returns = [...strange(signedBy, ownKey), ...(await whatReturns(over))]
      if (returns.length > 0 && !(await agree(returns))) throw new Error('It was not agreed to.')
      // An empty database has nobody who saves.
      frozen = tables.includes('maintenance') ? await keepFrozen(url) : undefined
      await carryOver(over)
      await frozen?.insist()
      await swap(connection, { live, scratch, before })
      await protect(url, say)
    } catch (error) {
      throw new Error(`${(error as Error).message}\n${await undo(connection, { scratch, before })}`, {
        cause: error,
      })
    } finally {
      await frozen?.end()
    }
  }
}

function strange(signedBy: SignedBy, ownKey: string | undefined): string[] {
  if (ownKey === undefined || signedBy === 'this') return []
  return [
    signedBy === 'another'
      ? 'Another installation wrote this backup: be sure whose it is.'
      : 'Nobody has signed this backup: that nobody changed it is not shown.',
  ]
}

/** What a restore that failed has left, as far as it can still be asked: mostly nothing. */
async function undo(
  connection: Connection,
  { scratch, before }: Pick<ReturnType<typeof schemasOf>, 'scratch' | 'before'>,
): Promise<string> {
  try {
    if ((await tablesOf(connection, before)).length > 0)
      return `The backup is in place all the same; what was there before is in the schema ${before}.`
    for (const schema of [scratch, before]) await connection.query(`DROP DATABASE IF EXISTS \`${schema}\``)
    return 'Nothing was changed.'
  } catch {
    return `The database was lost on the way: if the schema ${before} has tables, they are the old ones, and the backup is in place.`
  }
}

/** Only one restores at a time, also where the database is a cluster, whose nodes know their own locks alone. */
async function alone(url: URL, connection: Connection, work: () => Promise<void>): Promise<void> {
  const fault = 'Another restore is under way. Nothing was changed.'
  const [row] = await connection.query<{ held: bigint | number | null }[]>('SELECT GET_LOCK(?, 0) AS held', [
    LOCK,
  ])
  if (Number(row?.held) !== 1) throw new Error(fault)
  const database = openDatabase(url.href, { poolSize: 1 })
  try {
    const { nodes } = await standingOf(database.sequelize)
    if (nodes === 0) await work()
    else
      await withLease(
        database.sequelize,
        'restore',
        { lockWaitS: 0, tellEveryS: 0, report: () => {}, fault },
        work,
      )
  } finally {
    await database.close()
  }
}

interface Frozen {
  /** Throws where saving was not held up all the time: what was saved meanwhile would be lost. */
  insist(): Promise<void>
  end(): Promise<void>
}

/** Saves are refused until it ends, or we are gone for a minute. */
export async function keepFrozen(url: URL, now: () => number = Date.now): Promise<Frozen> {
  const database = openDatabase(url.href, { poolSize: 1 })
  let until = Infinity
  let wasOpen = false
  async function renew() {
    const next = now() + FREEZE_MS
    await freeze(database, new Date(next))
    wasOpen ||= now() > until
    until = next
  }
  await renew()
  // One that fails is made up for by the next; `insist` finds out where none came in time.
  const timer = setInterval(() => void renew().catch(() => {}), FREEZE_MS / 4)
  return {
    async insist() {
      await renew()
      if (wasOpen)
        throw new Error('Saving could not be held up all the time: something may have been saved since.')
    },
    async end() {
      clearInterval(timer)
      await thaw(database)
      await database.close()
    },
  }
}

/** As the server does when it starts: what is in place now may not be changed either. */
async function protect(url: URL, say: (line: string) => void): Promise<void> {
  const database = openDatabase(url.href, { poolSize: 1 })
  try {
    if (!(await keepAppendOnly(database.sequelize))) say(NOT_APPEND_ONLY)
  } finally {
    await database.close()
  }
}

/** One statement: either every table has changed places, or none. */
async function swap(
  connection: Connection,
  { live, scratch, before }: ReturnType<typeof schemasOf>,
): Promise<void> {
  const [old, loaded] = [await tablesOf(connection, live), await tablesOf(connection, scratch)]
  const move = (table: string, from: string, to: string) =>
    `\`${from}\`.\`${table}\` TO \`${to}\`.\`${table}\``
  await connection.query(`SET SESSION lock_wait_timeout = ${SWAP_WAIT_S}`)
  const drops = await connection.query<{ statement: string }[]>(DROP_TRIGGERS_OF, [live])
  for (const { statement } of drops) await connection.query(statement)
  await connection.query(
    `RENAME TABLE ${[
      ...old.map((table) => move(table, live, before)),
      ...loaded.map((table) => move(table, scratch, live)),
    ].join(', ')}`,
  )
}
