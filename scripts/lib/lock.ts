import { existsSync, readFileSync, rmSync, statSync } from 'node:fs'
import type { DataDirectory } from '../database/data-directory'
import { writePrivate } from '../database/data-directory'
import { isAlive } from './processes'

interface Holder {
  readonly pid: number
  /** Distinguishes a process from a later one with the same number. */
  readonly startedAt: string
  readonly url?: string
  /** Which folder it holds, by device and number: a copy has another, a folder that was moved keeps its own. */
  readonly folder?: string
}

export interface Lock {
  /** The folder was copied from another while a server ran on that one. */
  readonly isOfCopy: boolean
  /** Lets a second start say where this one is. */
  announce(url: string): void
  release(): void
}

/** One start at a time owns a data directory. Refuses while another lives; a lock left by a killed one is taken over. */
export function lockDirectory(data: DataDirectory): Lock {
  const path = data.file('jadefell.lock')
  const holder = readHolder(path)
  const { dev, ino } = statSync(data.path)
  const folder = `${dev}:${ino}`
  const isOfCopy = holder?.folder !== undefined && holder.folder !== folder
  if (holder && !isOfCopy && isAlive(holder.pid) && startOf(holder.pid) === holder.startedAt)
    throw new Error(
      `Jadefell already runs on ${data.path} (process ${holder.pid}${holder.url ? `, ${holder.url}` : ''}).` +
        ' Stop it first, or point JADEFELL_DATA at another folder.',
    )
  const own = { pid: process.pid, startedAt: startOf(process.pid), folder }
  writePrivate(path, JSON.stringify(own satisfies Holder))
  return {
    isOfCopy,
    announce: (url) => writePrivate(path, JSON.stringify({ ...own, url } satisfies Holder)),
    release: () => rmSync(path, { force: true }),
  }
}

function readHolder(path: string): Holder | undefined {
  try {
    return existsSync(path) ? (JSON.parse(readFileSync(path, 'utf8')) as Holder) : undefined
  } catch {
    return undefined
  }
}

/** When a process started, in the kernel's ticks (field 22 of its stat file). */
function startOf(pid: number): string {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? ''
  } catch {
    return ''
  }
}
