import { z } from 'zod'
import { Id, Instant } from './common'
import { LONGEST_PAGE } from './limits'
import { ROUTES, type RouteName } from './routes'

/** What nobody asked for by a route of its own. */
export const OTHER_DEEDS = ['session.refused', 'student.erased', 'sound.expired'] as const

/** Looking at what is a student's own. Lists of what has no name in it are not kept: they would bury what has. */
export const SEEN = [
  'students.list',
  'students.read',
  'checks.list',
  'checks.read',
  'checks.track',
  'checks.history',
  'hands.list',
  'setup.list',
  'pains.list',
  'bodyFits.list',
  'plans.list',
  'practice.list',
  'practice.class',
  'attachments.read',
  'audit.list',
] as const satisfies readonly RouteName[]

type Changing = {
  [K in RouteName]: (typeof ROUTES)[K][0] extends 'GET' ? never : K
}[RouteName]

export type Deed = (typeof SEEN)[number] | (typeof OTHER_DEEDS)[number] | Changing

const CHANGING = (Object.keys(ROUTES) as RouteName[]).filter((name) => ROUTES[name][0] !== 'GET')
export const DEEDS = [...SEEN, ...OTHER_DEEDS, ...CHANGING] as unknown as readonly [Deed, ...Deed[]]

/** Somebody saw or changed something. By ids alone: names are looked up while there are some. */
export const AuditEntry = z
  .object({
    id: Id,
    at: Instant,
    deed: z.enum(DEEDS),
    /** Null where the server did it by a rule. */
    userId: Id.nullable(),
    by: z.string().nullable(),
    studentId: Id.nullable(),
    /** Null where it was about no student, or about one who was erased. */
    student: z.string().nullable(),
    subjectId: z.string().nullable(),
  })
  .meta({ id: 'AuditEntry' })

export const AuditQuery = z
  .object({
    userId: Id.optional(),
    studentId: Id.optional(),
    /** What was changed, what was seen, or both. */
    kind: z.enum(['all', 'changed', 'seen']).default('all'),
    /** Only what is older than this entry: the last one of the page before. */
    before: Id.optional(),
    limit: z.coerce.number<number>().int().min(1).max(LONGEST_PAGE).default(50),
  })
  .meta({ id: 'AuditQuery' })

/** The newest first. */
export const AuditPage = z
  .object({ entries: z.array(AuditEntry), hasMore: z.boolean() })
  .meta({ id: 'AuditPage' })
