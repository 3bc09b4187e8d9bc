import { setTimeout as sleep } from 'node:timers/promises'
import { v7 as uuid } from 'uuid'
import type { Student } from '#contracts'
import { checkDraft, type Client } from '../../server/testing/harness'

/** What a save was told to have made. */
export interface Kept {
  readonly table: 'student' | 'hand_check'
  readonly id: string
  /** No other save has it: a name, or a note. */
  readonly mark: string
}

/** Teachers who enrol and check without a pause, each sending a save until a server says that it is kept. */
export interface School {
  readonly kept: readonly Kept[]
  /** Answers that no teacher should be given: neither kept nor “try again”. */
  readonly wrong: readonly string[]
  /** The longest that one of them waited for a save to be kept, ms. */
  longestMs(): number
  /** Resolves once each has had another save kept. */
  untilAllSaved(withinMs: number): Promise<void>
  /** Lets each finish the save it is at. */
  end(): Promise<void>
}

/** The page tries again after a while as well. */
const AGAIN_MS = 100
/** A server that is asked and dies with its socket open would hold a teacher for ever. */
const PATIENCE_MS = 12_000
/** Checks between two new students. */
const CHECKS = 4

/** @param urls of the servers, as a proxy knows them: who is not answered by one goes to the next. */
export function openSchool(clients: readonly Client[], urls: () => readonly string[]): School {
  const kept: Kept[] = []
  const wrong: string[] = []
  const saves = clients.map(() => 0)
  let [isOpen, longestMs] = [true, 0]
  const teachers = clients.map(async (client, teacher) => {
    let at = teacher
    const save = async <T>(path: string, body: object): Promise<T | undefined> => {
      const [from, key] = [performance.now(), uuid()]
      for (;;) {
        client.url = urls()[at % urls().length]!
        const reply = await answered(client.send('POST', path, body, { key }))
        longestMs = Math.max(longestMs, performance.now() - from)
        if (reply?.status === 200) return reply.body as T
        // “Try again”, and “the disk is full”, which another node's may not be.
        if (reply && reply.status !== 503 && reply.status !== 507) {
          wrong.push(`${path}: ${reply.status} ${reply.text}`)
          return undefined
        }
        at++
        await sleep(AGAIN_MS)
      }
    }
    for (let count = 0; isOpen; count++) {
      const mark = `pupil ${count} of teacher ${teacher}`
      const student = await save<Student>('/students', {
        name: mark,
        family: 'violin',
        instrument: { on: '2026-11-28', sizeId: '1/2', length: '284.5' },
      })
      if (!student) continue
      kept.push({ table: 'student', id: student.id, mark })
      for (let check = 0; check < CHECKS && isOpen; check++) {
        const note = `check ${check} of ${mark}`
        const made = await save<{ id: string }>(`/students/${student.id}/checks`, {
          ...checkDraft(student.instrument!.id),
          note,
        })
        if (made) kept.push({ table: 'hand_check', id: made.id, mark: note })
        saves[teacher]!++
      }
    }
  })
  return {
    kept,
    wrong,
    longestMs: () => longestMs,
    async untilAllSaved(withinMs) {
      const [before, until] = [[...saves], performance.now() + withinMs]
      while (saves.some((count, teacher) => count <= before[teacher]!)) {
        if (performance.now() > until)
          throw new Error(`Nothing was kept for ${withinMs / 1000} s. ${wrong.slice(-3).join('\n')}`)
        await sleep(AGAIN_MS / 4)
      }
    },
    async end() {
      isOpen = false
      await Promise.all(teachers)
    },
  }
}

async function answered<T>(reply: Promise<T>): Promise<T | undefined> {
  const late = new AbortController()
  try {
    return await Promise.race([
      reply.catch(() => undefined),
      sleep(PATIENCE_MS, undefined, { signal: late.signal }),
    ])
  } finally {
    late.abort()
  }
}
