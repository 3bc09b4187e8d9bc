import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { aptInstall, findProgram } from '../scripts/lib/apt'
import { portToKeep } from '../scripts/database/private-server'
import { newDataPath, removeDataPath, startApp } from './app'

/** Each box of the runbook with what is to be seen under it. */
function boxes(): { readonly command: string; readonly says: string }[] {
  const text = readFileSync('docs/runbook.md', 'utf8')
  return [...text.matchAll(/```sh\n(.+)\n```\n\n> (.+)\n/g)].map(([, command = '', says = '']) => ({
    command,
    says,
  }))
}

test('the runbook, word by word', async () => {
  if (!findProgram('curl')) aptInstall(['curl'], 'Install curl in another way.')
  const [start, ...steps] = boxes()
  expect(start).toEqual({ command: 'npm start', says: 'Jadefell is at' })
  expect(steps.length).toBeGreaterThan(7)
  const [data, backups] = [newDataPath(), mkdtempSync(join(tmpdir(), 'jadefell-backups-'))]
  const port = String(await portToKeep())
  const app = await startApp(data, { PORT: port })
  try {
    for (const { command, says } of steps) {
      const here = (words: string) => words.replaceAll('/var/backups/jadefell', backups)
      const { stdout, stderr } = spawnSync('bash', ['-c', here(command)], {
        encoding: 'utf8',
        env: { ...process.env, JADEFELL_DATA: data, PORT: port, DATABASE_URL: '' },
      })
      expect(`${stdout}${stderr}`, command).toContain(here(says))
    }
    // The password that was piped in opens the door, also of what was put back.
    const signIn = await fetch(`${app.url}/api/v1/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: 'hester@harbour.example', password: 'ferry steps at midnight' }),
    })
    expect(signIn.status).toBe(200)
  } finally {
    await app.stop()
    removeDataPath(data)
    rmSync(backups, { recursive: true, force: true })
  }
})
