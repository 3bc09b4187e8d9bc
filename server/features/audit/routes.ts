import type { AuditEntry, AuditPage, AuditQuery } from '#contracts'
import { SEEN } from '#contracts/audit'
import type { AuditRow } from '../../db/rows'
import type { StudioStore } from '../../db/studio-store'
import type { Handlers } from '../../http/call'

export const auditRoutes: Pick<Handlers, 'audit.list'> = {
  'audit.list': ({ store }, { query }) => trailOf(store, query),
}

/** Ids are made in the order of time (UUID version 7): pages go by them alone, and cost the same a year back. */
async function trailOf(store: StudioStore, query: AuditQuery): Promise<AuditPage> {
  const { userId, studentId, before, kind, limit } = query
  const conditions = [
    ...(userId === undefined ? [] : ['a.user_id = :userId']),
    ...(studentId === undefined ? [] : ['a.student_id = :studentId']),
    ...(before === undefined ? [] : ['a.id < :before']),
    ...(kind === 'all' ? [] : [`a.deed ${kind === 'seen' ? 'IN' : 'NOT IN'} (:seen)`]),
  ]
  const rows = await store.select<AuditRow & { by: string | null; student: string | null }>(
    `SELECT a.id, a.at, a.deed, a.user_id AS userId, u.name AS \`by\`, a.student_id AS studentId, s.name AS student,
            a.subject_id AS subjectId
     FROM audit a LEFT JOIN user u ON u.studio_id = a.studio_id AND u.id = a.user_id
     LEFT JOIN student s ON s.studio_id = a.studio_id AND s.id = a.student_id
     WHERE a.studio_id = :studioId ${conditions.map((one) => `AND ${one}`).join(' ')}
     ORDER BY a.id DESC LIMIT ${limit + 1}`,
    { userId, studentId, before, seen: SEEN },
  )
  return {
    hasMore: rows.length > limit,
    entries: rows.slice(0, limit).map((row): AuditEntry => ({ ...row, at: row.at.toISOString() })),
  }
}
