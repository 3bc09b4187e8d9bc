// `npm run db:backup [FILE]` and `npm run db:restore FILE`, with mariadb-dump and mariadb underneath.
import { resolve } from 'node:path'
import { createInterface } from 'node:readline/promises'
import { parseArgs } from 'node:util'
import mariadb from 'mariadb'
import { addressThatAnswers } from '../server/db/hosts'
import { backup } from './database/backup'
import { openDataDirectory } from './database/data-directory'
import { socketPath } from './database/private-server'
import { restore } from './database/restore'
import { runningDatabaseUrl } from './database/running'

let yes = false
try {
  const { values, positionals } = parseArgs({ allowPositionals: true, options: { yes: { type: 'boolean' } } })
  const [action, given] = positionals
  yes = values.yes === true
  const url = new URL(await addressThatAnswers(runningDatabaseUrl()))
  if (action === 'backup') {
    const file = given ?? `jadefell-${new Date().toISOString().slice(0, 19).replaceAll(':', '')}.sql`
    const { rows } = await backup(url, file)
    const total = Object.values(rows).reduce((a, b) => a + b, 0)
    console.log(
      `Backed up ${total} rows to ${file}. It holds students' names: keep it as you keep their files.`,
    )
  } else if (action === 'restore' && given) {
    await restore(url, given, { say: (line) => console.log(`  ${line}`), agree, allow: allowBeside })
    console.log(`Restored from ${given}. Whoever signed in after it was made signs in again.`)
  } else throw new Error('Say what to do:\n  npm run db:backup\n  npm run db:restore -- FILE [--yes]')
} catch (error) {
  console.error((error as Error).message)
  process.exitCode = 1
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
  const data = openDataDirectory(resolve(process.env['JADEFELL_DATA'] ?? '.jadefell'))
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
