import { spawn, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { portToKeep } from '../database/private-server'

/** Of Debian's `libfaketime`: where it is, a server's clock can be set wrong. */
export const FAKED_TIME = '/usr/lib/x86_64-linux-gnu/faketime/libfaketime.so.1'
const OWN = join(import.meta.dirname, '../..')
const JUMPED_MS = 3000
const READY_MS = 60_000

/** A web server in a process of its own, always at the same address. */
export function serverOn(databaseUrl: string) {
  let [port, child]: [number, ChildProcess | undefined] = [0, undefined]
  let [said, version, isToEnd] = ['', OWN, false]
  const clock = join(mkdtempSync(join(tmpdir(), 'jadefell-clock-')), 'offset')
  writeFileSync(clock, '+0')
  /** One that ended without being asked to is a fault of its own, however well the others went on. */
  let diedOf: string | undefined
  async function start(): Promise<void> {
    port ||= await portToKeep()
    isToEnd = false
    child = spawn(process.execPath, ['--import', 'tsx', 'server/serve.ts'], {
      cwd: version,
      stdio: ['ignore', 'ignore', 'pipe'],
      env: {
        ...process.env,
        PORT: String(port),
        HOST: '127.0.0.1',
        DATABASE_URL: databaseUrl,
        SESSION_SECRET: 'the secret of a school in a storm',
        LOG_LEVEL: 'silent',
        ...(existsSync(FAKED_TIME)
          ? {
              LD_PRELOAD: FAKED_TIME,
              FAKETIME_TIMESTAMP_FILE: clock,
              FAKETIME_NO_CACHE: '1',
              FAKETIME_DONT_FAKE_MONOTONIC: '1',
            }
          : {}),
      },
    })
    said = ''
    child.stderr?.on('data', (chunk: Buffer) => (said = (said + chunk.toString()).slice(-4000)))
    child.once('exit', (code) => {
      if (code !== null && !isToEnd) diedOf = `A server ended by itself (${code}):\n${said}`
    })
    const until = performance.now() + READY_MS
    for (;;) {
      insistOnLife()
      const reply = await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => undefined)
      if (reply) return
      if (performance.now() > until) throw new Error('A server did not start.')
      await sleep(50)
    }
  }
  async function end(signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
    if (!child || child.exitCode !== null || child.signalCode !== null) return
    const gone = new Promise((resolve) => child?.once('exit', resolve))
    isToEnd = true
    child.kill(signal)
    await gone
  }
  function insistOnLife(): void {
    if (diedOf !== undefined) throw new Error(diedOf)
  }
  return {
    get url() {
      return `http://127.0.0.1:${port}`
    },
    start,
    insistOnLife,
    /** Its clock is wrong for a while. */
    async jump(seconds: number) {
      writeFileSync(clock, `${seconds > 0 ? '+' : ''}${seconds}`)
      await sleep(JUMPED_MS)
      writeFileSync(clock, '+0')
    },
    async killAndStart() {
      await end('SIGKILL')
      await start()
    },
    /** Told to end, and started as another version: of these sources, or of those in `folder`. */
    async replace(folder = OWN) {
      await end('SIGTERM')
      version = folder
      await start()
    },
    async end() {
      await end('SIGKILL')
      rmSync(dirname(clock), { recursive: true })
    },
  }
}
