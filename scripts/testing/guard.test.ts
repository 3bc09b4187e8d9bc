import { spawn } from 'node:child_process'
import { existsSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { isAlive } from '../lib/processes'
import { endWith } from './guard'

it('ends the database and clears its folder once the tests are gone, and not before', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'jadefell-guard-'))
  const [tests, database] = [1, 2].map(() => spawn('sleep', ['600']))
  const pidFile = join(folder, 'database.pid')
  writeFileSync(pidFile, `${database!.pid}\n`)
  const ended: string[] = []
  tests!.once('exit', () => ended.push('tests'))
  database!.once('exit', () => ended.push('database'))
  endWith(tests!.pid!, pidFile, folder)
  tests!.kill('SIGKILL')
  await expect.poll(() => existsSync(folder), { timeout: 20_000 }).toBe(false)
  expect(isAlive(database!.pid!)).toBe(false)
  await expect.poll(() => ended, { timeout: 20_000 }).toEqual(['tests', 'database'])
})
