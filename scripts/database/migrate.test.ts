import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import mariadb, { type Connection } from 'mariadb'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import {
  familyOf,
  shapeOf,
  meterCents,
  note,
  placeOfCents,
  readSnapshot,
  tuningSystem,
  type FamilyId,
  type StringingSnapshot,
} from '#core'
import { openDatabase, type Database } from '../../server/db/database'
import { migrate, MIGRATION_BEFORE } from '../../server/db/migrate'
import { openDataDirectory } from './data-directory'
import { socketPath, startPrivateServer, type PrivateServer } from './private-server'
import { databasePrograms } from './programs'

/** The demo studio as version 0.1.0 kept it, before checks were exercises and landings. */
const DUMP = gunzipSync(readFileSync(new URL('../../server/db/fixtures/demo-0003.sql.gz', import.meta.url)))
const MOVE = '0004-takes'

let path: string
let server: PrivateServer
let bare: Connection
let database: Database

interface OldReading {
  readonly checkId: string
  readonly position: number
  readonly finger: number
  readonly shownCents: number
  readonly string: string
  readonly system: string
  readonly lengthMm: number
  readonly outcome: string
  readonly family: FamilyId
}
interface MovedCheck {
  readonly id: string
  readonly exercise: {
    readonly string: string
    readonly shapeId: string
    readonly notes: readonly { note: string; finger: number; positionId: string | null }[]
  } | null
  readonly stringing: StringingSnapshot | null
  readonly verdict: { readonly outcome: string; readonly findings?: readonly object[] }
  readonly unmoved: { readonly reason: string; readonly row: { readonly readings: readonly object[] } } | null
}
interface MovedLanding {
  readonly checkId: string
  readonly position: number
  readonly finger: number
  readonly note: string
  readonly positionId: string | null
  readonly placeMm: number
  readonly cents: number
  readonly source: string
}

const OLD_READINGS = `SELECT r.check_id AS checkId, r.position, r.finger, r.shown_cents AS shownCents, c.string, c.system,
    c.length_mm AS lengthMm, c.outcome, i.family
  FROM reading r JOIN hand_check c ON c.id = r.check_id JOIN instrument i ON i.id = c.instrument_id
  ORDER BY r.check_id, r.position`
const MOVED_LANDINGS = `SELECT check_id AS checkId, position, finger, note, position_id AS positionId, place_mm AS placeMm,
    cents, source
  FROM landing ORDER BY check_id, position`

const rows = <Row>(sql: string): Promise<Row[]> => bare.query(sql)
const checks = () => rows<MovedCheck>('SELECT id, exercise, stringing, verdict, unmoved FROM hand_check')

beforeAll(async () => {
  path = mkdtempSync(join(tmpdir(), 'jadefell-migrate-'))
  server = await startPrivateServer(openDataDirectory(path), databasePrograms, () => {})
  const { hostname, port, username, password, pathname } = new URL(server.url)
  bare = await mariadb.createConnection({
    host: hostname,
    port: Number(port),
    user: username,
    password: decodeURIComponent(password),
    database: pathname.slice(1),
    multipleStatements: true,
  })
  database = openDatabase(server.url)
})
afterAll(async () => {
  await database.close()
  await bare.end()
  await server.stop()
  rmSync(path, { recursive: true })
})
beforeEach(async () => {
  await bare.query('SET FOREIGN_KEY_CHECKS = 0; DROP TABLE IF EXISTS landing, attachment_chunk, attachment')
  await bare.query(DUMP.toString())
})

describe('moving checks over', () => {
  it('makes of every reading of the version before a landing: the same note, pitch and place, and the same verdict', async () => {
    const old = await rows<OldReading>(OLD_READINGS)
    const findings = await rows<{ checkId: string; n: bigint }>(
      'SELECT check_id AS checkId, COUNT(*) AS n FROM finding WHERE is_alternative = 0 GROUP BY check_id',
    )
    expect(old.length).toBeGreaterThan(200)
    const reports: string[] = []
    expect(await migrate(database.sequelize, { report: (line) => reports.push(line) })).toContain(MOVE)
    expect(reports).toEqual([])

    const landings = await rows<MovedLanding>(MOVED_LANDINGS)
    expect(landings.map((l) => [l.checkId, l.position, l.finger])).toEqual(
      old.map((r) => [r.checkId, r.position, r.finger]),
    )
    for (const [i, { shownCents, string, system: id, lengthMm }] of old.entries()) {
      const { cents, placeMm, note: stopped, source } = landings[i]!
      const system = tuningSystem(id)!
      // What the meter showed is what is off the note and what it should have shown, as before.
      expect(cents + meterCents(system, note(stopped))).toBeCloseTo(shownCents, 9)
      const above = system.centsAboveA4(note(stopped)) - system.openCentsAboveA4(note(string))
      expect(placeMm).toBeCloseTo(placeOfCents(lengthMm, above + cents), 9)
      expect(source).toBe('meter')
    }
    const moved = await checks()
    expect(moved).toHaveLength(new Set(old.map((r) => r.checkId)).size)
    for (const { id, exercise, stringing, verdict, unmoved } of moved) {
      const before = old.find((r) => r.checkId === id)!
      expect(unmoved).toBeNull()
      expect(exercise?.string).toBe(before.string)
      expect(exercise?.notes[0]).toMatchObject({ finger: 0, note: before.string })
      const { positionId } = shapeOf(familyOf(before.family), exercise!.shapeId)!
      for (const n of [...exercise!.notes, ...landings.filter((l) => l.checkId === id)])
        expect(n.positionId).toBe(n.finger === 0 ? null : positionId)
      expect(stringing).toMatchObject({ family: before.family, system: before.system, pressing: null })
      expect(stringing?.lengthsMm).toEqual([before.lengthMm])
      expect(readSnapshot(stringing!).ok).toBe(true)
      expect(verdict.outcome).toBe(before.outcome)
      expect(verdict.findings?.length ?? 0).toBe(Number(findings.find((f) => f.checkId === id)?.n ?? 0))
    }
    const gone = await rows<{ name: string }>(
      `SELECT table_name AS name FROM information_schema.tables
       WHERE table_schema = DATABASE() AND table_name IN ('reading', 'finding')`,
    )
    expect(gone).toEqual([])
    expect(await migrate(database.sequelize)).toEqual([])
  })

  it('gives each check the numbers of a history, and what it makes likely for later ones', async () => {
    await migrate(database.sequelize)
    const told = await rows<{
      id: string
      summary: { count: number; fingers: { finger: number; cents: number }[] } | null
      likely: Record<string, number> | null
    }>('SELECT id, summary, likely FROM hand_check')
    const landings = await rows<MovedLanding>(MOVED_LANDINGS)
    for (const { id, summary, likely } of told) {
      const own = landings.filter((l) => l.checkId === id && l.finger > 0)
      for (const { finger, cents } of summary!.fingers) {
        const all = own.filter((l) => l.finger === finger).map((l) => l.cents)
        // A wild note or one written twice may be left out: the mean lies among its notes.
        expect(cents).toBeGreaterThanOrEqual(Math.min(...all) - 1e-9)
        expect(cents).toBeLessThanOrEqual(Math.max(...all) + 1e-9)
      }
      const sum = Object.values(likely ?? {}).reduce((a, b) => a + b, 0)
      if (likely) expect(sum).toBeCloseTo(1, 1)
    }
    // Of most the hand is spoken of.
    expect(told.filter(({ likely }) => likely !== null).length).toBeGreaterThan(told.length / 2)
  })

  it('keeps and reports a row that names what nobody knows, and moves the others; begun again, it does each once', async () => {
    const [a, b, c, d, e] = (await rows<{ id: string }>('SELECT id FROM hand_check ORDER BY id LIMIT 5')).map(
      (r) => r.id,
    )
    await bare.query("UPDATE hand_check SET shape_id = 'second_low' WHERE id = ?", [a])
    await bare.query("UPDATE hand_check SET `system` = 'scale:D:gone:1,2' WHERE id = ?", [b])
    await bare.query("UPDATE hand_check SET string = 'F♯2' WHERE id = ?", [c])
    await bare.query('UPDATE reading SET finger = 9 WHERE check_id = ? AND position = 0', [d])
    // Strung as a five-string since: the string it was taken on is the family's own.
    await bare.query(
      `UPDATE instrument SET tuning = '["B0","C1","D1","E1"]'
       WHERE id = (SELECT instrument_id FROM hand_check WHERE id = ?)`,
      [e],
    )
    const count = Number((await rows<{ n: bigint }>('SELECT COUNT(*) AS n FROM reading'))[0]!.n)
    const inUnmoved = Number(
      (
        await bare.query<{ n: bigint }[]>(
          'SELECT COUNT(*) AS n FROM reading WHERE check_id IN (?, ?, ?, ?)',
          [a, b, c, d],
        )
      )[0]!.n,
    )

    const cutShort = migrate(database.sequelize, {
      report: () => {
        throw new Error('the power went')
      },
    })
    await expect(cutShort).rejects.toThrow('the power went')
    const reports: string[] = []
    expect(await migrate(database.sequelize, { report: (line) => reports.push(line) })).toContain(MOVE)
    expect(reports).toHaveLength(4)
    for (const [id, why] of [
      [a, 'no hand shape “second_low”'],
      [b, '“scale:D:gone:1,2” cannot be read'],
      [c, 'no string “F♯2”'],
      [d, 'finger 9 stops nothing'],
    ] as const)
      expect(reports.find((line) => line.includes(id ?? ''))).toContain(why)

    const after = await checks()
    const unmoved = after.filter((check) => check.unmoved)
    expect(unmoved.map((check) => check.id).sort()).toEqual([a, b, c, d])
    for (const check of unmoved) {
      expect(check.exercise).toBeNull()
      expect(check.verdict.outcome).toBeTruthy()
      expect(check.unmoved!.row.readings.length).toBeGreaterThan(0)
    }
    expect(after.find((check) => check.id === e)?.exercise).toBeTruthy()
    expect(await rows(MOVED_LANDINGS)).toHaveLength(count - inUnmoved)
  })
})

describe('addresses and sessions', () => {
  it('are kept letter by letter; what cannot be told apart is left and reported', async () => {
    const [user] = await rows<{ id: string; studioId: string; passwordHash: string }>(
      'SELECT id, studio_id AS studioId, password_hash AS passwordHash FROM user LIMIT 1',
    )
    const add = (id: string, email: string) =>
      bare.query('INSERT INTO user (id, studio_id, email, name, password_hash) VALUES (?, ?, ?, ?, ?)', [
        id,
        user!.studioId,
        email,
        'Somebody',
        user!.passwordHash,
      ])
    await add('01900000-0000-7000-8000-0000000000a1', 'ｗide@harbour.example')
    await add('01900000-0000-7000-8000-0000000000a2', 'twice@harbour.example')
    await bare.query('SET NAMES utf8mb4')
    await bare.query("UPDATE user SET email = 'ｏnce@harbour.example' WHERE id = ?", [user!.id])
    await bare.query(
      `INSERT INTO session (id, studio_id, user_id, created_at, expires_at)
       VALUES (REPEAT('a', 64), ?, ?, '2026-11-01 09:00:00', '2026-11-15 09:00:00')`,
      [user!.studioId, user!.id],
    )
    await migrate(database.sequelize)
    const emails = await rows<{ email: string }>('SELECT email FROM user ORDER BY email')
    expect(emails.map((row) => row.email)).toEqual([
      'once@harbour.example',
      'twice@harbour.example',
      'wide@harbour.example',
    ])
    const [session] = await rows<{ publicId: string; seenAt: Date; device: string }>(
      'SELECT public_id AS publicId, seen_at AS seenAt, device FROM session WHERE id = REPEAT("a", 64)',
    )
    expect(session).toMatchObject({
      device: 'unknown',
      publicId: expect.stringMatching(/^[0-9a-f-]{36}$/) as string,
    })
    const found = await rows("SELECT id FROM user WHERE email = 'twicé@harbour.example'")
    expect(found).toEqual([])
  })
})

describe('a server of the version before', () => {
  interface Column {
    readonly name: string
    readonly type: string
    readonly isFree: number
  }
  /** Every column as `table.column`, and whether a row may be written that does not name it. */
  const columns = () =>
    rows<Column>(
      `SELECT CONCAT(table_name, '.', column_name) AS name, column_type AS type,
              (is_nullable = 'YES' OR column_default IS NOT NULL) AS isFree
       FROM information_schema.columns WHERE table_schema = DATABASE() ORDER BY 1`,
    )

  it('finds all it knows as it was, and may write its rows, while the new one is there already', async () => {
    const data = openDataDirectory(path)
    const root = await mariadb.createConnection({
      socketPath: socketPath(data),
      user: 'root',
      password: data.secrets.rootPassword,
    })
    await root.query("GRANT ALL ON `jadefell\\_side`.* TO 'jadefell'@'127.0.0.1'")
    await root.end()
    await bare.query('CREATE OR REPLACE DATABASE jadefell_side')
    await bare.query('USE jadefell_side')
    const url = new URL(server.url)
    url.pathname = '/jadefell_side'
    const side = openDatabase(url.href)
    await migrate(side.sequelize, { upTo: MIGRATION_BEFORE })
    const before = await columns()
    expect(await migrate(side.sequelize)).toHaveLength(1)
    const after = new Map((await columns()).map((column) => [column.name, column]))
    for (const { name, type } of before) expect(after.get(name)?.type, name).toBe(type)
    const tables = new Set(before.map(({ name }) => name.split('.')[0]))
    const known = new Set(before.map(({ name }) => name))
    const added = [...after.values()].filter(({ name }) => !known.has(name) && tables.has(name.split('.')[0]))
    expect(added.filter(({ isFree }) => !isFree).map(({ name }) => name)).toEqual([])
    // A cluster carries no table without a primary key.
    const bareTables = await rows<{ name: string }>(
      `SELECT t.table_name AS name FROM information_schema.tables t LEFT JOIN information_schema.table_constraints c
         ON c.table_schema = t.table_schema AND c.table_name = t.table_name AND c.constraint_type = 'PRIMARY KEY'
       WHERE t.table_schema = DATABASE() AND c.table_name IS NULL`,
    )
    expect(bareTables).toEqual([])
    await side.close()
    await bare.query('USE jadefell')
    await bare.query('DROP DATABASE jadefell_side')
  })
})
