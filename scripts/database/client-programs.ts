import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { findProgram } from '../lib/apt'
import { writePrivate } from './data-directory'

/** Where a program of MariaDB's reads from and writes to: open files, so that nothing passes through us. */
export interface Streams {
  readonly input?: number
  readonly output?: number
}

/**
 * Runs one of MariaDB's own programs on the database of `url`, or on its server alone. The password goes through a private
 * file, where no list of processes shows it. Throws with what the program said.
 */
export async function runClient(
  names: readonly string[],
  url: URL,
  options: readonly string[],
  { input, output }: Streams = {},
): Promise<void> {
  const program = findProgram(...names)
  if (!program) throw new Error(`${names[0]} is not installed; it comes with Debian's mariadb-client.`)
  const folder = mkdtempSync(join(tmpdir(), 'jadefell-'))
  const settings = join(folder, 'client.cnf')
  writePrivate(
    settings,
    `[client]\nprotocol = tcp\nhost = ${url.hostname}\nport = ${url.port || '3306'}\n` +
      `user = ${decodeURIComponent(url.username)}\npassword = "${decodeURIComponent(url.password)}"\n`,
  )
  try {
    const child = spawn(program, [`--defaults-file=${settings}`, ...options], {
      stdio: [input ?? 'ignore', output ?? 'ignore', 'pipe'],
    })
    let said = ''
    child.stderr?.on('data', (chunk: Buffer) => (said = (said + chunk.toString()).slice(-2000)))
    const code = await new Promise<number | null>((resolve, reject) => {
      child.once('error', reject)
      child.once('close', resolve)
    })
    if (code !== 0) throw new Error(`${names[0]} ended with ${code}: ${said.trim()}`)
  } finally {
    rmSync(folder, { recursive: true })
  }
}
