// `npm run db:backup [FILE]` and `npm run db:restore FILE`, with mariadb-dump and mariadb underneath.
import { spawnSync } from 'node:child_process'
import { closeSync, existsSync, mkdtempSync, openSync, readFileSync, renameSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { findProgram } from './lib/apt'
import { runningDatabaseUrl } from './database/running'
import { writePrivate } from './database/data-directory'

const [action, given] = process.argv.slice(2)
try {
  if (action === 'backup')
    backup(given ?? `jadefell-${new Date().toISOString().slice(0, 19).replaceAll(':', '')}.sql`)
  else if (action === 'restore' && given) restore(given)
  else throw new Error('Say what to do:\n  npm run db:backup\n  npm run db:restore -- FILE')
} catch (error) {
  console.error((error as Error).message)
  process.exitCode = 1
}

/** Writes the whole database to `file`, consistent while teachers go on saving; nothing half written is left. */
function backup(file: string): void {
  const partial = `${file}.part`
  const out = openSync(partial, 'w', 0o600)
  try {
    run(
      ['mariadb-dump', 'mysqldump'],
      ['--single-transaction', '--routines', '--skip-comments', '--hex-blob'],
      out,
    )
  } catch (error) {
    rmSync(partial, { force: true })
    throw error
  } finally {
    closeSync(out)
  }
  renameSync(partial, file)
  console.log(`Backed up to ${file}. It holds students' names: keep it as you keep their files.`)
}

/** Puts every table back as the backup has it. */
function restore(file: string): void {
  if (!existsSync(file)) throw new Error(`There is no ${file}. Nothing was changed.`)
  if (!/-- Dump completed|UNLOCK TABLES/.test(readFileSync(file, 'utf8').slice(-4000)))
    throw new Error(`${file} is not a whole backup of npm run db:backup. Nothing was changed.`)
  const input = openSync(file, 'r')
  try {
    run(['mariadb', 'mysql'], [], 'inherit', input)
  } finally {
    closeSync(input)
  }
  console.log(`Restored from ${file}.`)
}

/** The password goes through a private file, where no list of processes shows it. */
function run(
  names: string[],
  options: string[],
  stdout: number | 'inherit',
  stdin: number | 'ignore' = 'ignore',
): void {
  const program = findProgram(...names)
  if (!program) throw new Error(`${names[0]} is not installed; it comes with Debian's mariadb-client.`)
  const url = new URL(runningDatabaseUrl())
  const folder = mkdtempSync(join(tmpdir(), 'jadefell-'))
  const settings = join(folder, 'client.cnf')
  writePrivate(
    settings,
    `[client]\nprotocol = tcp\nhost = ${url.hostname}\nport = ${url.port || '3306'}\n` +
      `user = ${decodeURIComponent(url.username)}\npassword = "${decodeURIComponent(url.password)}"\n`,
  )
  try {
    const done = spawnSync(program, [`--defaults-file=${settings}`, ...options, url.pathname.slice(1)], {
      stdio: [stdin, stdout, 'inherit'],
    })
    if (done.status !== 0) throw new Error(`${names[0]} ended with ${done.status}; the lines above say why.`)
  } finally {
    rmSync(folder, { recursive: true })
  }
}
