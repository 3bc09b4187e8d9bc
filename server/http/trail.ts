import type { Logger } from 'pino'
import { v7 as uuid } from 'uuid'
import { ROUTES, type Deed, type RouteName } from '#contracts'
import { SEEN } from '#contracts/audit'
import type { Database } from '../db/database'
import type { AuditRow } from '../db/rows'
import { StudioStore } from '../db/studio-store'
import type { SignedIn } from './call'

type Params = Readonly<Record<string, string>>

/** Tables whose rows belong to a student, by the name that a path gives their id. */
const OWNED: Readonly<Record<string, string>> = {
  checkId: 'hand_check',
  handId: 'hand_measurement',
  roundId: 'setup_round',
  painId: 'pain',
  fitId: 'body_fit',
  planId: 'practice_plan',
}

/** Whose record a path means: the student's own, by one of a student's rows, or a file beside either. */
async function studentOf(store: StudioStore, params: Params): Promise<string | null> {
  if (params['studentId'] !== undefined) return params['studentId']
  const named = params['record'] === 'check' ? { checkId: params['recordId'] } : params
  if (params['record'] === 'student') return params['recordId'] ?? null
  const row = async (sql: string, id: string) =>
    (await store.select<{ studentId: string | null }>(sql, { id }))[0]?.studentId ?? null
  for (const [name, table] of Object.entries(OWNED)) {
    const id = named[name as keyof typeof named]
    if (id !== undefined)
      return row(`SELECT student_id AS studentId FROM ${table} WHERE studio_id = :studioId AND id = :id`, id)
  }
  const { attachmentId } = params
  if (attachmentId === undefined) return null
  return row(
    `SELECT COALESCE(a.student_id, c.student_id) AS studentId FROM attachment a
     LEFT JOIN hand_check c ON c.studio_id = a.studio_id AND c.id = a.check_id
     WHERE a.studio_id = :studioId AND a.id = :id`,
    attachmentId,
  )
}

/** The last id in a path is what it is about. */
function subjectOf(name: RouteName, params: Params): string | null {
  const last = [...ROUTES[name][1].matchAll(/:(\w+Id)/g)].at(-1)?.[1]
  return last === undefined ? null : (params[last] ?? null)
}

const SEEN_ROUTES: ReadonlySet<string> = new Set(SEEN)

/** Where a change is concerned, it is noted with it or not at all. Nothing of what was typed is in it. */
export async function noteChange(
  store: StudioStore,
  signedIn: SignedIn,
  at: Date,
  name: RouteName,
  params: Params,
  answer?: unknown,
): Promise<void> {
  const made = (answer as { id?: unknown } | null | undefined)?.id
  const madeId = typeof made === 'string' ? made : undefined
  await store.insert(store.models.audit, [
    {
      id: uuid(),
      userId: signedIn.session.user.id,
      at,
      deed: name as Deed,
      studentId: name === 'students.create' ? (madeId ?? null) : await studentOf(store, params),
      subjectId: madeId ?? subjectOf(name, params),
    },
  ])
}

/** Looking at the same again within the hour is not kept once more. */
const AGAIN_MS = 3600_000
const WRITTEN_AFTER_MS = 1000
/** While the database is away, so many are held. */
const MOST_WAITING = 5000

/**
 * Who looked at what: written a moment after the answer, so that nobody waits for it; each thing once an hour a session. What
 * waits is written before the server ends, and lost only with its machine.
 */
export function seenTrail(database: Database, logger: Logger) {
  const known = new Map<string, number>()
  let waiting: AuditRow[] = []
  let timer: NodeJS.Timeout | undefined
  let writing: Promise<void> = Promise.resolve()

  async function write(): Promise<void> {
    const rows = waiting
    waiting = []
    if (rows.length === 0) return
    try {
      await database.models.audit.bulkCreate(rows, { hooks: false })
    } catch {
      waiting = [...rows, ...waiting].slice(0, MOST_WAITING)
      logger.warn('who saw what could not be written yet')
      later()
    }
  }
  function later() {
    timer ??= setTimeout(() => {
      timer = undefined
      writing = writing.then(write)
    }, WRITTEN_AFTER_MS)
    timer.unref()
  }

  return {
    async saw(signedIn: SignedIn, at: Date, name: RouteName, params: Params): Promise<void> {
      if (!SEEN_ROUTES.has(name)) return
      const subject = subjectOf(name, params)
      const key = `${signedIn.sessionId} ${name} ${subject}`
      const last = known.get(key)
      if (last !== undefined && Math.abs(at.getTime() - last) < AGAIN_MS) return
      for (const [old, since] of known) {
        if (Math.abs(at.getTime() - since) < AGAIN_MS) break
        known.delete(old)
      }
      known.delete(key)
      known.set(key, at.getTime())
      const studioId = signedIn.session.studio.id
      const studentId = await studentOf(new StudioStore(database, studioId), params).catch(() => null)
      const userId = signedIn.session.user.id
      waiting.push({ id: uuid(), studioId, userId, at, deed: name as Deed, studentId, subjectId: subject })
      later()
    },
    /** How many entries are not written yet. */
    waiting: () => waiting.length,
    /** Everything that waits, now. */
    flush(): Promise<void> {
      clearTimeout(timer)
      timer = undefined
      return (writing = writing.then(write))
    },
  }
}

export type SeenTrail = ReturnType<typeof seenTrail>
