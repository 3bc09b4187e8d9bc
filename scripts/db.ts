// `npm run db:backup [FILE]`, `npm run db:restore FILE` and `npm run db:drill [FILE]`, with mariadb-dump and mariadb underneath.
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createInterface } from 'node:readline/promises'
import { parseArgs } from 'node:util'
import mariadb from 'mariadb'
import { addressThatAnswers } from '../server/db/hosts'
import { backup } from './database/backup'
import { dataPath, openDataDirectory } from './database/data-directory'
import { drill } from './database/drill'
import { isLocked, unlockFile } from './database/locked-file'
import { socketPath } from './database/private-server'
import { restore } from './database/restore'
import { runningDatabaseUrl } from './database/running'
import { signerOf } from './database/signing'

let yes = false
const folder = mkdtempSync(join(tmpdir(), 'jadefell-'))
try {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { yes: { type: 'boolean' }, locked: { type: 'boolean' } },
  })
  const [action, given] = positionals
  yes = values.yes === true
  const url = new URL(await addressThatAnswers(runningDatabaseUrl()))
  const data = openDataDirectory(dataPath())
  const signer = signerOf(data.secrets.signingKey)
  const stamp = new Date().toISOString().slice(0, 19).replaceAll(':', '')
  if (action === 'backup') {
    const passphrase = values.locked ? await passphraseFor('of this backup') : undefined
    const file = given ?? `jadefell-${stamp}.sql${passphrase === undefined ? '' : '.age'}`
    const { rows } = await backup(url, file, { signer, passphrase })
    const total = Object.values(rows).reduce((a, b) => a + b, 0)
    console.log(`Backed up ${total} rows to ${file}.`)
    console.log(
      passphrase === undefined
        ? 'It holds students’ names, and whoever has it reads them: keep it as you keep their files, or lock it (--locked).'
        : 'It opens with its passphrase alone, also by any program that reads age files. Keep the two apart.',
    )
  } else if (action === 'restore' && given) {
    let file = given
    if (existsSync(given) && isLocked(given)) {
      file = join(folder, 'opened.sql')
      await unlockFile(given, file, await passphraseFor(`of ${given}`))
    }
    const say = (line: string) => console.log(`  ${line}`)
    await restore(url, file, { say, agree, allow: allowBeside, ownKey: signer.publicKey })
    console.log(`Restored from ${given}. Whoever signed in after it was made signs in again.`)
  } else if (action === 'drill') {
    const passphrase = given && isLocked(given) ? await passphraseFor(`of ${given}`) : undefined
    const file = given === undefined ? {} : { file: given }
    const say = (line: string) => console.log(`  ${line}`)
    const report = await drill(url, { ...file, signer, passphrase, say, allow: allowBeside })
    console.log(
      report.isSound
        ? `This backup can be put back: shown in ${report.seconds} seconds, and nothing in use was touched.`
        : 'This backup can NOT be relied on: the lines above say why. Nothing in use was touched.',
    )
    if (!report.isSound) process.exitCode = 1
  } else
    throw new Error(
      'Say what to do:\n  npm run db:backup [-- FILE] [--locked]\n  npm run db:restore -- FILE [--yes]\n  npm run db:drill [-- FILE]',
    )
} catch (error) {
  console.error((error as Error).message)
  process.exitCode = 1
} finally {
  rmSync(folder, { recursive: true })
}

/** From the environment, for a machine that does it at night, or from the keyboard: it stands in no history of commands. */
async function passphraseFor(what: string): Promise<string> {
  const given = process.env['BACKUP_PASSPHRASE']
  if (given) return given
  if (!process.stdin.isTTY) throw new Error(`Give the passphrase ${what} as BACKUP_PASSPHRASE.`)
  const asking = createInterface({ input: process.stdin, output: process.stdout })
  try {
    return await asking.question(`Passphrase ${what}: `)
  } finally {
    asking.close()
  }
}

/** Tells what the restore does, and waits for a yes: from the keyboard, or given beforehand. */
async function agree(sentences: readonly string[]): Promise<boolean> {
  for (const sentence of sentences) console.log(`  ${sentence}`)
  if (yes) return true
  if (!process.stdin.isTTY)
    throw new Error('Read this. If it is what you want, say so: npm run db:restore -- FILE --yes')
  const asking = createInterface({ input: process.stdin, output: process.stdout })
  try {
    return /^y(es)?$/i.test((await asking.question('Put the backup in place? (yes / no) ')).trim())
  } finally {
    asking.close()
  }
}

/** On the private database its root may let our user make the schemas that a restore needs; elsewhere whoever runs it must. */
async function allowBeside(schemas: readonly string[]): Promise<void> {
  if (process.env['DATABASE_URL']) return
  const data = openDataDirectory(dataPath())
  const root = await mariadb.createConnection({
    socketPath: socketPath(data),
    user: 'root',
    password: data.secrets.rootPassword,
  })
  try {
    for (const schema of schemas)
      await root.query(`GRANT ALL ON \`${schema.replaceAll('_', '\\_')}\`.* TO 'jadefell'@'127.0.0.1'`)
  } finally {
    await root.end()
  }
}
