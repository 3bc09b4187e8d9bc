import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { isAlive } from '../scripts/lib/processes'

const START_MS = 180_000

/** Jadefell as `npm start` runs it, with a data directory of its own. */
export interface RunningApp {
  readonly url: string
  readonly dataPath: string
  readonly process: ChildProcess
  readonly output: () => string
  databasePid(): number
  /** As Ctrl-C does; resolves when the process is gone, with its exit code. */
  stop(): Promise<number | null>
  /** As the power cut does. */
  kill(): Promise<void>
}

export function newDataPath(): string {
  return mkdtempSync(join(tmpdir(), 'jadefell-e2e-'))
}

export function removeDataPath(path: string): void {
  rmSync(path, { recursive: true, force: true })
}

/** Starts, and resolves once the address is printed; rejects with everything printed if it ends before. */
export function startApp(
  dataPath: string,
  env: Record<string, string> = {},
  [program, ...args]: [string, ...string[]] = [process.execPath, 'scripts/start.mjs'],
): Promise<RunningApp> {
  const child = spawn(program, args, {
    env: {
      ...process.env,
      PORT: '0',
      LOG_LEVEL: 'silent',
      DATABASE_URL: '',
      ...env,
      JADEFELL_DATA: dataPath,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let text = ''
  const gone = new Promise<number | null>((resolve) => child.once('exit', (code) => resolve(code)))
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error(`no address within ${START_MS} ms:\n${text}`)), START_MS)
    void gone.then((code) => reject(new Error(`ended with ${code}:\n${text}`)))
    const hear = (chunk: Buffer) => {
      text += chunk.toString()
      const url = /Jadefell is at (\S+)/.exec(text)?.[1]
      if (url === undefined) return
      clearTimeout(timer)
      resolve({
        url,
        dataPath,
        process: child,
        output: () => text,
        databasePid: () =>
          (JSON.parse(readFileSync(join(dataPath, 'mariadb.json'), 'utf8')) as { pid: number }).pid,
        stop: () => (child.kill('SIGINT'), gone),
        kill: async () => {
          child.kill('SIGKILL')
          await gone
        },
      })
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
  })
}

/** Waits until a process is gone. */
export async function untilGone(pid: number, withinMs = 20_000): Promise<boolean> {
  const until = Date.now() + withinMs
  while (isAlive(pid)) {
    if (Date.now() > until) return false
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
  return true
}
