import { expect, test } from '@playwright/test'
import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { DEMO_EMAIL, DEMO_PASSWORD } from '../server/demo/seed'
import { isAlive } from '../scripts/lib/processes'
import { newDataPath, removeDataPath, startApp, untilGone, type RunningApp } from './app'

test.setTimeout(240_000)

let dataPath: string
test.beforeEach(() => (dataPath = newDataPath()))
test.afterEach(() => removeDataPath(dataPath))

/** While a command is waited for, nobody here hears that the server closed an idle connection: none is kept. */
const ONCE = { connection: 'close' }

async function signIn(app: RunningApp) {
  const response = await fetch(`${app.url}/api/v1/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...ONCE },
    body: JSON.stringify({ email: DEMO_EMAIL, password: DEMO_PASSWORD }),
  })
  expect(response.status).toBe(200)
  const cookie = response.headers.getSetCookie()[0]?.split(';')[0] ?? ''
  const { csrfToken } = (await response.json()) as { csrfToken: string }
  return { cookie, 'x-csrf-token': csrfToken, 'content-type': 'application/json', ...ONCE }
}

async function names(app: RunningApp): Promise<string[]> {
  const response = await fetch(`${app.url}/api/v1/students`, { headers: await signIn(app) })
  return ((await response.json()) as { rows: { name: string }[] }).rows.map((s) => s.name)
}

function db(...args: string[]) {
  return spawnSync(process.execPath, ['--import', 'tsx', 'scripts/db.ts', ...args], {
    env: { ...process.env, JADEFELL_DATA: dataPath, DATABASE_URL: '' },
    encoding: 'utf8',
  })
}

test('starts, refuses a second start, stops cleanly, and starts again sooner, with what it had', async () => {
  const begun = Date.now()
  const app = await startApp(dataPath)
  const firstMs = Date.now() - begun
  expect(statSync(join(dataPath, 'jadefell.json')).mode & 0o777).toBe(0o600)
  expect(await names(app)).toHaveLength(16)
  await expect(startApp(dataPath)).rejects.toThrow(/already runs .*http:\/\/127\.0\.0\.1/)
  expect(await names(app)).toHaveLength(16)

  const databasePid = app.databasePid()
  expect(await app.stop()).toBe(0)
  expect(isAlive(databasePid)).toBe(false)

  const from = Date.now()
  const again = await startApp(dataPath)
  // The first start makes a database and a demo as well: four seconds against twelve on an idle machine.
  expect(Date.now() - from).toBeLessThan(firstMs)
  expect(await names(again)).toHaveLength(16)
  await again.stop()
})

test('started through npm, stops web and database when npm alone is told to end', async () => {
  const app = await startApp(dataPath, {}, ['npm', 'start'])
  const { pid } = JSON.parse(readFileSync(join(dataPath, 'jadefell.lock'), 'utf8')) as { pid: number }
  const databasePid = app.databasePid()
  app.process.kill('SIGTERM')
  expect(await untilGone(pid)).toBe(true)
  expect(isAlive(databasePid)).toBe(false)
  await expect(fetch(app.url)).rejects.toThrow()
  await (await startApp(dataPath)).stop()
})

test('recovers when everything was killed at once, with its notes of dead processes still there', async () => {
  const app = await startApp(dataPath)
  const databasePid = app.databasePid()
  await app.kill()
  process.kill(databasePid, 'SIGKILL')
  expect(await untilGone(databasePid)).toBe(true)
  const again = await startApp(dataPath)
  expect(await names(again)).toHaveLength(16)
  await again.stop()
})

test('backs up while it runs, and restores', async () => {
  const app = await startApp(dataPath)
  const file = join(dataPath, 'backup.sql')
  const backup = db('backup', file)
  expect(backup.stderr + backup.stdout).toContain('Backed up')
  expect(statSync(file).mode & 0o077).toBe(0)

  const headers = { ...(await signIn(app)), 'idempotency-key': 'after-the-backup' }
  const body = JSON.stringify({ name: 'After The Backup', family: 'violin' })
  await fetch(`${app.url}/api/v1/students`, { method: 'POST', headers, body })
  expect(await names(app)).toHaveLength(17)

  writeFileSync(join(dataPath, 'half.sql'), 'CREATE TABLE student')
  expect(db('restore', join(dataPath, 'half.sql')).stderr).toContain('not a whole backup')
  expect(await names(app)).toHaveLength(17)
  const asked = db('restore', file)
  expect(asked.stdout).toContain('Lost is what was saved since the backup was made: 1 student.')
  expect([asked.status, asked.stderr]).toEqual([1, expect.stringMatching(/--yes\nNothing was changed/)])
  expect(await names(app)).toHaveLength(17)
  expect(db('restore', file, '--yes').status).toBe(0)
  expect(await names(app)).toHaveLength(16)
  await app.stop()
})

test('refuses a folder that holds something else, and settings that make no sense', async () => {
  writeFileSync(join(dataPath, 'holiday.txt'), 'not ours')
  await expect(startApp(dataPath)).rejects.toThrow(/not a data directory of Jadefell/)
  const other = join(dataPath, 'other')
  mkdirSync(other)
  await expect(startApp(other, { PORT: 'ninety' })).rejects.toThrow(/PORT/)
})
