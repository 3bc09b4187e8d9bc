import { closeSync, openSync } from 'node:fs'
import mariadb, { type Connection } from 'mariadb'
import { QueryTypes } from 'sequelize'
import { openDatabase } from '../../server/db/database'
import { isKnownMigration, migrate } from '../../server/db/migrate'
import type { BackupSeal } from './backup-file'
import { runClient } from './client-programs'

/** A backup in schemas beside the one in use: loaded, counted, brought up to date. */

export function connect(url: URL): Promise<Connection> {
  return mariadb.createConnection({
    host: url.hostname,
    port: Number(url.port || 3306),
    user: decodeURIComponent(url.username),
    password: decodeURIComponent(url.password),
    database: url.pathname.slice(1),
  })
}

export async function emptySchemas(connection: Connection, schemas: readonly string[]): Promise<void> {
  try {
    for (const schema of schemas) {
      await connection.query(`DROP DATABASE IF EXISTS \`${schema}\``)
      await connection.query(`CREATE DATABASE \`${schema}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`)
    }
  } catch (error) {
    if ((error as { code?: string }).code !== 'ER_DBACCESS_DENIED_ERROR') throw error
    const rights = schemas.map((schema) => `GRANT ALL ON \`${schema}\`.* TO …;`).join(' ')
    throw new Error(`The user of DATABASE_URL may not make the schemas beside it. Allow it:\n  ${rights}`, {
      cause: error,
    })
  }
}

export async function load(url: URL, schema: string, file: string): Promise<void> {
  const input = openSync(file, 'r')
  try {
    await runClient(['mariadb', 'mysql'], url, [schema], { input })
  } finally {
    closeSync(input)
  }
}

export async function tablesOf(connection: Connection, schema: string): Promise<string[]> {
  const rows = await connection.query<{ name: string }[]>(
    'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = ? ORDER BY table_name',
    [schema],
  )
  return rows.map((row) => row.name)
}

/** Every table of the backup is there with as many rows as were written. */
export async function insistOnCounts(
  connection: Connection,
  schema: string,
  seal: BackupSeal | undefined,
): Promise<void> {
  const tables = await tablesOf(connection, schema)
  if (!tables.includes('studio') || !tables.includes('migration'))
    throw new Error('This is no backup of Jadefell.')
  if (!seal) return
  for (const table of new Set([...tables, ...Object.keys(seal.rows)])) {
    const expected = seal.rows[table] ?? 0
    const [row] = tables.includes(table)
      ? await connection.query<{ n: bigint }[]>(`SELECT COUNT(*) AS n FROM \`${schema}\`.\`${table}\``)
      : [{ n: -1n }]
    if (Number(row!.n) !== expected)
      throw new Error(`The table ${table} has ${row!.n} rows in place of ${expected}.`)
  }
}

export async function bringUpToDate(url: URL, schema: string, say: (line: string) => void): Promise<void> {
  const beside = new URL(url)
  beside.pathname = `/${schema}`
  const database = openDatabase(beside.href, { poolSize: 4 })
  try {
    const rows = await database.sequelize.query<{ name: string }>('SELECT name FROM migration', {
      type: QueryTypes.SELECT,
    })
    const later = rows.find(({ name }) => !isKnownMigration(name))
    if (later)
      throw new Error(`The backup is of a later version of Jadefell (${later.name}). Install that one first.`)
    const ran = await migrate(database.sequelize, { report: say })
    if (ran.length > 0) say(`migrated: ${ran.join(', ')}`)
  } finally {
    await database.close()
  }
}
