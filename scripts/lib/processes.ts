import { readFileSync } from 'node:fs'
import { setTimeout as sleep } from 'node:timers/promises'

export function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return !isZombie(pid)
  } catch (error) {
    // A process of another user is alive as well.
    return (error as NodeJS.ErrnoException).code === 'EPERM'
  }
}

/** What a process was started as; empty where the system does not tell. */
export function commandLineOf(pid: number): string {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ').trim()
  } catch {
    return ''
  }
}

/** Asks a process to end and waits for it; false when it is still there after `withinMs`. */
export async function endProcess(pid: number, withinMs: number): Promise<boolean> {
  const until = Date.now() + withinMs
  try {
    process.kill(pid, 'SIGTERM')
  } catch {
    return true
  }
  while (isAlive(pid)) {
    if (Date.now() > until) return false
    await sleep(50)
  }
  return true
}

function isZombie(pid: number): boolean {
  try {
    return /^\d+ \(.*\) Z/s.test(readFileSync(`/proc/${pid}/stat`, 'utf8'))
  } catch {
    return false
  }
}
