import { randomInt } from 'd3-random'
import { spawnSync } from 'node:child_process'
import {
  appendFileSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import mariadb, { type Connection } from 'mariadb'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { seededSource } from '#core'
import { openDatabase } from '../../server/db/database'
import { StudioStore } from '../../server/db/studio-store'
import { prepareDatabase } from '../../server/demo/prepare'
import { eraseStudent } from '../../server/features/students/erase'
import { freeze, FREEZE_MS, thaw } from '../../server/maintenance'
import { checkDraft, Client, silence, startHarness, type Harness } from '../../server/testing/harness'
import { API_BASE, CSRF_HEADER, IDEMPOTENCY_HEADER } from '#contracts'
import type { Attachment, Check, OneTimeKey, Person, Problem, Student, Studio } from '#contracts'
import { backup } from './backup'
import { readBackup, sealBackup, type BackupSeal } from './backup-file'
import { openDataDirectory } from './data-directory'
import { drill, type DrillOptions } from './drill'
import { isLocked, lockFile } from './locked-file'
import { socketPath, startPrivateServer, type PrivateServer } from './private-server'
import { databasePrograms } from './programs'
import { keepFrozen, restore } from './restore'
import { newSigningKey, signerOf } from './signing'
import { aptUnpack } from '../lib/apt'

let folder: string
let server: PrivateServer
let url: URL
let root: Connection
let harness: Harness
let client: Client
let file: string
let whole: Buffer
let seal: BackupSeal

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'jadefell-restore-'))
  const data = openDataDirectory(join(folder, 'data'))
  server = await startPrivateServer(data, databasePrograms, () => {})
  url = new URL(server.url)
  root = await mariadb.createConnection({
    socketPath: socketPath(data),
    user: 'root',
    password: data.secrets.rootPassword,
  })
  await root.query("GRANT ALL ON `jadefell\\_%`.* TO 'jadefell'@'127.0.0.1'")
  const database = openDatabase(server.url)
  await prepareDatabase(database, true, () => {})
  harness = await startHarness({ database })
  client = await harness.studio('Restored Studio')
  await client.make('POST', '/students', { name: "In 'The' Backup; (yes)", family: 'violin' })
  file = join(folder, 'backup.sql')
  seal = await backup(url, file)
  whole = readFileSync(file)
})
afterAll(async () => {
  await harness.close()
  await root.end()
  await server.stop()
  rmSync(folder, { recursive: true })
})

const names = async () => (await client.roster()).rows.map((s) => s.name)
const schemas = async () =>
  (await root.query<{ name: string }[]>("SHOW DATABASES LIKE 'jadefell%'")).map(
    (row) => Object.values(row)[0],
  )
function written(name: string, bytes: Buffer | string): string {
  const path = join(folder, name)
  writeFileSync(path, bytes)
  return path
}
/** A backup of somebody who has changed it on purpose, sealed anew. */
async function forged(name: string, change: (sql: string) => string): Promise<string> {
  const unsealed = whole.toString().replace(/-- Jadefell, whole: .*\n$/, '')
  const changed = change(unsealed)
  expect(changed).not.toBe(unsealed)
  const path = written(name, changed)
  await sealBackup(path)
  return path
}
const restored = (path: string) => restore(url, path)

describe('a backup', () => {
  it('says on its last line how many rows of each table it has, whatever stands in them, and is its owner’s alone', async () => {
    for (const [table, rows] of Object.entries(seal.rows)) {
      const [row] = await root.query<{ n: bigint }[]>(`SELECT COUNT(*) AS n FROM jadefell.\`${table}\``)
      expect([table, rows]).toEqual([table, Number(row!.n)])
    }
    expect(seal.rows['student']).toBe(17)
    expect(statSync(file).mode & 0o077).toBe(0)
    expect(await readBackup(file)).toEqual({ ok: true, seal, signedBy: 'nobody' })
  })

  it('cut anywhere, or with any letter changed, is seen not to be whole', async () => {
    const source = seededSource(7)
    const place = randomInt.source(source)(0, whole.length - 1)
    const cut = join(folder, 'cut.sql')
    for (let i = 0; i < 100; i++) {
      const at = place()
      writeFileSync(cut, whole.subarray(0, at))
      expect((await readBackup(cut)).ok, `cut at ${at}`).toBe(false)
    }
    for (let i = 0; i < 20; i++) {
      const damaged = Buffer.from(whole)
      const at = place()
      damaged[at] = damaged[at]! ^ 1
      writeFileSync(cut, damaged)
      expect((await readBackup(cut)).ok, `changed at ${at}`).toBe(false)
    }
  })
})

describe('a backup of an earlier version', () => {
  it('is whole by its last statement, with or without the empty line that mariadb-dump leaves behind it', async () => {
    const unsealed = whole
      .toString()
      .replace(/-- Jadefell, whole: .*\n$/, '')
      .trimEnd()
    for (const end of ['', '\n', '\n\n', '\n\n-- Dump completed on 2026-11-25 17:57:03\n'])
      expect(await readBackup(written('early.sql', unsealed + end))).toEqual({
        ok: true,
        seal: undefined,
        signedBy: 'nobody',
      })
    expect((await readBackup(written('early.sql', unsealed.slice(0, -60)))).ok).toBe(false)
  })

  it('of version 0.1.0 is restored and brought up to date', async () => {
    const early = gunzipSync(
      readFileSync(new URL('../../server/db/fixtures/demo-0003.sql.gz', import.meta.url)),
    )
    const mine = await backup(url, join(folder, 'mine.sql'))
    await restored(written('0003.sql', Buffer.concat([early, Buffer.from('\n')])))
    const [row] = await root.query<{ n: bigint }[]>('SELECT COUNT(*) AS n FROM jadefell.landing')
    expect(Number(row!.n)).toBeGreaterThan(50)
    await restored(join(folder, 'mine.sql'))
    expect(mine.rows['student']).toBe(seal.rows['student'])
    // The one in between knew of no session.
    await client.signIn()
    expect(await names()).toEqual(["In 'The' Backup; (yes)"])
  })
})

describe('what cannot be restored', () => {
  it('leaves everything as it was, and says why', async () => {
    const before = await names()
    const statement = /INSERT INTO `student` VALUES/
    const cases = [
      [written('half.sql', whole.subarray(0, whole.length / 2)), 'last line is missing'],
      [written('other.sql', 'CREATE TABLE student (id INT);\n'), 'not a whole backup'],
      [
        await forged('torn.sql', (sql) => sql.replace(statement, 'INSERT INTO `student` VALUE ((')),
        'SQL syntax',
      ],
      [await forged('less.sql', (sql) => sql.replace(/INSERT INTO `session`[^;]*;/, '')), 'session'],
      [await forged('later.sql', (sql) => sql.replace("'0005-doors'", "'0999-later'")), 'later version'],
      [await forged('none.sql', () => 'SELECT 1;\n'), 'no backup of Jadefell'],
    ] as const
    // A row less, with the counts of before it was lost.
    const [, sealed] = /(-- Jadefell, whole: .*\n)$/.exec(whole.toString())!
    const lost = readFileSync(cases[3][0], 'utf8').replace(/-- Jadefell, whole: .*\n$/, '')
    const { rows } = JSON.parse(sealed!.slice('-- Jadefell, whole: '.length)) as BackupSeal
    written('less.sql', lost)
    const own = await sealBackup(cases[3][0])
    writeFileSync(cases[3][0], lost)
    appendFileSync(cases[3][0], `-- Jadefell, whole: ${JSON.stringify({ sha256: own.sha256, rows })}\n`)
    for (const [path, reason] of cases) {
      await expect(restored(path), path).rejects.toThrow(reason)
      await expect(restored(path), path).rejects.toThrow('Nothing was changed.')
      expect(await names()).toEqual(before)
    }
    expect(await schemas()).toEqual(['jadefell'])
    expect(
      (await client.send('POST', '/students', { name: 'Saved after that', family: 'cello' })).status,
    ).toBe(200)
  })
})

describe('a restore', () => {
  it('puts back what the backup has and nothing else, under a server that runs', async () => {
    await client.make('POST', '/students', { name: 'After The Backup', family: 'violin' })
    await root.query('CREATE TABLE jadefell.of_a_later_version (id INT)')
    await restored(file)
    // Signed in after it was made.
    expect((await client.send('GET', '/session')).status).toBe(401)
    await client.signIn()
    expect(await names()).toEqual(["In 'The' Backup; (yes)"])
    expect(await schemas()).toEqual(['jadefell'])
    const tables = await root.query<object[]>("SHOW TABLES FROM jadefell LIKE 'of_a_later_version'")
    expect(tables).toEqual([])
    const saved = await client.send('POST', '/students', { name: 'And it goes on', family: 'violin' })
    expect(saved.status).toBe(200)
    // Constraints point at the tables that are in use now.
    await expect(
      harness.database.models.loan.create({
        id: crypto.randomUUID(),
        studioId: client.studioId,
        studentId: '01900000-0000-7000-8000-000000000001',
        instrumentId: '01900000-0000-7000-8000-000000000002',
        fromDate: '2026-11-28',
        toDate: null,
      }),
    ).rejects.toThrow(/foreign key/i)
  })

  it('of a backup without a seal, as earlier versions wrote them, brings it up to date', async () => {
    const dump = new URL('../../server/db/fixtures/demo-0003.sql.gz', import.meta.url)
    const old = gunzipSync(readFileSync(dump)).toString()
    const path = written('old.sql', `${old.trimEnd()}\n/*!40111 SET SQL_NOTES=@OLD_SQL_NOTES */;\n`)
    const said: string[] = []
    await restore(url, path, { say: (line) => said.push(line) })
    expect(said.join(' ')).toMatch(/earlier version.*migrated: 0004-takes, 0005-doors/)
    expect(await harness.database.models.studio.count()).toBe(1)
    await restored(file)
    await client.signIn()
  })

  it('never brings back, unsaid, what was taken back since: sound, consents, the switch, sessions, passwords', async () => {
    const sound = async (name: string) => {
      const { student, instrument } = await client.player(name)
      const child = await client.allowSound(student)
      const check = await client.make<Check>(
        'POST',
        `/students/${child.id}/checks`,
        checkDraft(instrument.id),
      )
      const beside = [`check/${check.id}`, `student/${child.id}`]
      const kept = beside.map((one) => client.make<Attachment>('POST', `/attachments/${one}`, silence()))
      return { child, sounds: await Promise.all(kept) }
    }
    const [withdrawn, again, partly, whole] = [
      await sound('Withdrawn'),
      await sound('Given Again'),
      await sound('One Removed'),
      await sound('Left Alone'),
    ]
    const tablet = new Client(client.url, client.email)
    await tablet.signIn()
    const then = join(folder, 'then.sql')
    await backup(url, then)

    const withdraw = ({ id }: Student) =>
      client
        .make<Student>('GET', `/students/${id}`)
        .then(({ version }) => client.make('PATCH', `/students/${id}`, { version, soundConsent: null }))
    await withdraw(withdrawn.child)
    await withdraw(again.child)
    await client.allowSound(await client.make<Student>('GET', `/students/${again.child.id}`))
    await client.make('DELETE', `/attachments/${partly.sounds[0]!.id}`)
    const settings = (await client.make<Studio>('GET', '/studio')).settings
    const { version } = await client.make<Studio>('GET', '/studio')
    await client.make('PATCH', '/studio', { version, settings: { ...settings, keepsSound: false } })
    await client.make('PATCH', '/password', { current: client.password, next: 'another-lantern-round' })
    expect((await tablet.send('GET', '/session')).status).toBe(401)
    await client.make('POST', '/students', { name: 'Enrolled since', family: 'viola' })

    const told: string[][] = []
    const agree = (sentences: readonly string[]) => Promise.resolve(told.push([...sentences]) > 1)
    await expect(restore(url, then, { agree })).rejects.toThrow('It was not agreed to.\nNothing was changed.')
    expect(await names()).toContain('Enrolled since')
    await restore(url, then, { agree })
    expect(told[1]).toEqual(told[0])
    expect(told[0]).toEqual([
      'Lost is what was saved since the backup was made: 1 student.',
      'Recordings that were removed since stay removed: Given Again (2), One Removed (1), Withdrawn (2).',
      'Consent to sound stays withdrawn: Given Again, Withdrawn.',
      'Sound stays switched off: Restored Studio.',
      'Sessions that ended since stay ended: 1.',
      'Passwords stay as they are now; changed since: 1.',
    ])
    const left = await harness.database.sequelize.query<{ id: string }>('SELECT id FROM attachment', {
      type: QueryTypes.SELECT,
    })
    expect(left.map(({ id }) => id).sort()).toEqual(
      [partly.sounds[1]!, ...whole.sounds].map(({ id }) => id).sort(),
    )
    const consentOf = async ({ child }: { child: Student }) =>
      (await client.make<Student>('GET', `/students/${child.id}`)).soundConsent
    expect(await consentOf(withdrawn)).toBeNull()
    expect([await consentOf(again), await consentOf(whole)]).toEqual([expect.anything(), expect.anything()])
    expect((await client.make<Studio>('GET', '/studio')).settings).toEqual({ ...settings, keepsSound: false })
    expect((await tablet.send('GET', '/session')).status).toBe(401)
    // Not with the password of then, and once more not from the same backup.
    expect((await tablet.signIn()).status).toBe(401)
    expect((await new Client(client.url, client.email, 'another-lantern-round').signIn()).status).toBe(200)
    await restored(then)
    expect(await consentOf(withdrawn)).toBeNull()

    // Where nothing is known of it, it is said, and everybody signs in again.
    await root.query('CREATE DATABASE jadefell_other CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci')
    const other = new URL(url)
    other.pathname = '/jadefell_other'
    await restore(other, then, { agree })
    expect(told.at(-1)).toEqual([
      'Recordings come back that are not stored now: Given Again (2), Left Alone (2), One Removed (2), Withdrawn (2).',
      'Ask whether the consent to each still holds: what was withdrawn after the backup was made is not known here.',
      'Every teacher signs in again, with the password of when the backup was made.',
    ])
    const [{ n }] = await root.query<[{ n: bigint }]>('SELECT COUNT(*) AS n FROM jadefell_other.session')
    expect(Number(n)).toBe(0)
    await root.query('DROP DATABASE jadefell_other')
  })

  it('brings back nobody who was erased or has left, no second factor that ended, and forgets nothing of the trail', async () => {
    const { database } = harness
    const { student } = await client.player('Zephyrine Erased')
    const stays = await client.player('Orla Stays')
    const { person, key } = await client.make<{ person: Person; key: OneTimeKey }>('POST', '/people', {
      name: 'Wren Tallow',
      email: 'wren@harbour.example',
    })
    const { id } = person
    await database.models.secondFactor.create({
      id: crypto.randomUUID(),
      studioId: client.studioId,
      userId: id,
      sealed: 'sealed',
      confirmedAt: harness.clock,
      lastStep: 1,
      recordedAt: harness.clock,
    })
    const then = join(folder, 'trust.sql')
    await backup(url, then)
    const own = { where: { studioId: client.studioId } }
    await database.models.secondFactor.destroy(own)
    await client.make('PATCH', `/people/${id}`, { hasLeft: true })
    await database.inTransaction((transaction) =>
      eraseStudent(new StudioStore(database, client.studioId, transaction), student.id, harness.clock),
    )
    const since = await client.make<{ person: Person }>('POST', '/people', {
      name: 'Invited Since',
      email: 'since@harbour.example',
    })
    const trail = await database.models.audit.count(own)
    await restored(then)
    const people = await client.make<Person[]>('GET', '/people')
    expect(people.find((one) => one.id === id)?.leftAt).not.toBeNull()
    expect(people.map((one) => one.id)).toContain(since.person.id)
    expect(await database.models.secondFactor.count(own)).toBe(0)
    const use = { email: person.email, key: key.key, password: 'ferry steps at midnight' }
    expect((await new Client(client.url, person.email).send('POST', '/key', use)).status).toBe(401)
    expect((await client.send('GET', `/students/${student.id}`)).status).toBe(404)
    expect((await client.send('GET', `/students/${stays.student.id}`)).status).toBe(200)
    expect(await database.models.audit.count(own)).toBe(trail)
    // What was put in place is as hard to change as what was there.
    await expect(database.models.audit.update({ userId: null }, own)).rejects.toThrow(/never changed/)
  })

  it('in the middle of an upload leaves nothing of it, and says so; a second one at once is refused', async () => {
    const { student } = await client.player('Recorded Meanwhile')
    const child = await client.allowSound(student)
    const now = join(folder, 'now.sql')
    await backup(url, now)
    const response = await fetch(`${client.url}${API_BASE}/attachments/student/${child.id}`, {
      method: 'POST',
      headers: {
        cookie: client.cookie,
        [CSRF_HEADER]: client.session!.csrfToken,
        [IDEMPOTENCY_HEADER]: crypto.randomUUID(),
        'content-type': 'audio/wav',
      },
      body: (async function* () {
        yield silence(400_000)
        const both = await Promise.allSettled([restored(now), restored(now)])
        const refused = both.flatMap((one) => (one.status === 'rejected' ? [String(one.reason)] : []))
        expect(refused).toEqual([expect.stringContaining('Another restore is under way')])
        yield silence(400_000)
      })() as unknown as BodyInit,
      duplex: 'half',
    } as RequestInit)
    expect([response.status, ((await response.json()) as Problem).code]).toEqual([410, 'removed_since'])
    const files = await harness.database.models.attachment.count({
      where: { studentId: child.id, studioId: client.studioId },
    })
    expect(files).toBe(0)
  })

  it('fills an empty database', async () => {
    await root.query('CREATE DATABASE jadefell_empty CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci')
    const empty = new URL(url)
    empty.pathname = '/jadefell_empty'
    await restore(empty, file)
    const [row] = await root.query<{ n: bigint }[]>('SELECT COUNT(*) AS n FROM jadefell_empty.student')
    expect(Number(row!.n)).toBe(seal.rows['student'])
    await root.query('DROP DATABASE jadefell_empty')
  })

  it('is given up where saving could not be held up all the time: what came in between would be lost', async () => {
    let now = harness.clock.getTime()
    const frozen = await keepFrozen(url, () => now)
    now += FREEZE_MS / 2
    await frozen.insist()
    now += FREEZE_MS + 1
    await expect(frozen.insist()).rejects.toThrow('something may have been saved')
    await frozen.end()
    expect((await client.send('POST', '/students', { name: 'After that', family: 'violin' })).status).toBe(
      200,
    )
  })

  it('holds up saving, not reading, until it is done or its process is gone', async () => {
    await freeze(harness.database, new Date(harness.clock.getTime() + FREEZE_MS))
    const save = () => client.send('POST', '/students', { name: 'Held up', family: 'violin' })
    expect((await save()).problem).toMatchObject({ status: 503, code: 'being_restored' })
    expect(await names()).not.toContain('Held up')
    harness.clock = new Date(harness.clock.getTime() + FREEZE_MS + 1)
    expect((await save()).status).toBe(200)
    await freeze(harness.database, new Date(harness.clock.getTime() + FREEZE_MS))
    await thaw(harness.database)
    expect((await save()).status).toBe(200)
    // Whose clock is minutes ahead of the server’s holds it up all the same: what was saved now would be lost.
    await freeze(harness.database, new Date(harness.clock.getTime() + 2 * 60_000 + FREEZE_MS))
    expect((await save()).status).toBe(503)
    // A clock that ran an hour ahead and was put right: whoever freezes says so again within a minute, or is gone.
    await freeze(harness.database, new Date(harness.clock.getTime() + 3600_000))
    expect((await save()).status).toBe(200)
    await thaw(harness.database)
  })
})

describe('a drill', () => {
  const signer = signerOf(newSigningKey())
  const passphrase = 'lanterns over the ferry'
  const count = async () => harness.database.models.student.count({ where: { studioId: client.studioId } })

  it('shows what a backup is good for, touches nothing, and is told to whoever runs the server', async () => {
    const before = await count()
    const report = await drill(url, { signer })
    expect(report.steps.map(({ said }) => said)).toEqual([
      'a backup was made for it',
      expect.stringMatching(/^it is whole, \d{3,} rows, and signed by this installation$/),
      'it loads, and every table has as many rows as were written',
      'written out again it is the same, byte by byte',
      expect.stringMatching(
        /^its tables are sound, and a server on it answers: \d\d+ students in \d studios$/,
      ),
    ])
    expect(report.isSound).toBe(true)
    expect(await count()).toBe(before)
    const kept = await harness.database.models.operation.findAll({ where: { kind: 'drill' }, raw: true })
    expect(kept).toMatchObject([{ isSound: 1 }])
    const left = await root.query<{ n: bigint }[]>(
      "SELECT COUNT(*) AS n FROM information_schema.schemata WHERE schema_name LIKE '%drill%'",
    )
    expect(Number(left[0]!.n)).toBe(0)
  })

  it('says what is wrong, of a file that is locked, cut, changed, of another house, or does not load', async () => {
    const locked = join(folder, 'locked.sql.age')
    await backup(url, locked, { signer, passphrase })
    const said = async (options: DrillOptions) => (await drill(url, { signer, ...options })).steps.at(-1)!
    expect(await said({ file: locked })).toMatchObject({
      isSound: false,
      said: expect.stringMatching(/locked/) as string,
    })
    expect(await said({ file: locked, passphrase: 'not this one at all' })).toMatchObject({ isSound: false })
    const bytes = readFileSync(locked)
    const cut = join(folder, 'cut.sql.age')
    writeFileSync(cut, bytes.subarray(0, bytes.length - 1000))
    expect((await said({ file: cut, passphrase })).said).toMatch(/cut or damaged/)
    const whole = await drill(url, { signer: signerOf(newSigningKey()), file: locked, passphrase })
    expect([whole.isSound, whole.steps[1]!.said]).toEqual([
      true,
      expect.stringMatching(/ANOTHER installation/),
    ])

    const plain = join(folder, 'signed.sql')
    await backup(url, plain, { signer })
    const text = readFileSync(plain, 'utf8')
    const forged = join(folder, 'forged.sql')
    // Who changes a backup can write a fitting hash beneath it, and not the signature.
    writeFileSync(
      forged,
      text.replace(/-- Jadefell, whole: .*\n$/, '').replace('Restored Studio', 'Restored Studiu'),
    )
    await sealBackup(forged)
    const { signed } = JSON.parse(/-- Jadefell, whole: (.*)\n$/.exec(text)![1]!) as BackupSeal
    const own = readFileSync(forged, 'utf8').replace(/\}\n$/, `,"signed":${JSON.stringify(signed)}}\n`)
    writeFileSync(forged, own)
    expect(await said({ file: forged })).toMatchObject({
      isSound: false,
      said: expect.stringMatching(/changed/) as string,
    })
  })

  it('is of a file that another reader of its format opens', async () => {
    const tools = join(folder, 'age')
    mkdirSync(tools)
    aptUnpack('age', tools)
    const [plain, locked, opened] = ['p.sql', 'p.sql.age', 'p2.sql'].map((name) => join(folder, name)) as [
      string,
      string,
      string,
    ]
    writeFileSync(plain, `${'some rows\n'.repeat(20_000)}`)
    await lockFile(plain, locked, passphrase)
    expect(isLocked(locked)).toBe(true)
    // It asks a terminal for the passphrase.
    const asked = spawnSync(
      'script',
      ['-qec', `${join(tools, 'usr/bin/age')} -d -o ${opened} ${locked}`, '/dev/null'],
      {
        input: `${passphrase}\n`,
        encoding: 'utf8',
      },
    )
    expect(asked.status, asked.stdout).toBe(0)
    expect(readFileSync(opened).equals(readFileSync(plain))).toBe(true)
    await expect(lockFile(plain, locked, 'short')).rejects.toThrow(/12 characters/)
  })

  it('warns before a backup of another house is put in place', async () => {
    const theirs = join(folder, 'theirs.sql')
    await backup(url, theirs, { signer })
    const told: string[][] = []
    const agree = (sentences: readonly string[]) => Promise.resolve(told.push([...sentences]) > 9)
    const from = (ownKey: string) => restore(url, theirs, { agree, ownKey }).catch(() => undefined)
    await from(newSigner.publicKey)
    expect(told[0]?.[0]).toMatch(/Another installation wrote this backup/)
    await client.make('POST', '/students', { name: 'Since', family: 'viola' })
    await from(signer.publicKey)
    expect(told[1]?.join(' ')).not.toMatch(/installation/)
  })
})

const newSigner = signerOf(newSigningKey())
