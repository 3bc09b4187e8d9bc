import type { Connection } from 'mariadb'
import { erasing } from '../../server/features/students/erasing'

/**
 * What outlives a backup that is put back: consents that were withdrawn and sound that was removed, sessions that ended, passwords
 * that were changed. All of it was said by somebody after the backup was made, and meant to last.
 */
export interface CarryOver {
  readonly connection: Connection
  /** The schema in use, and the one that the backup was loaded into and brought up to date. */
  readonly live: string
  readonly scratch: string
  /** The database in use has none of the tables that say so: it is empty, or of a version before them. */
  readonly isKnown: boolean
}

/** Sound of a student in a schema, with whose it is. */
const soundIn = (schema: string) => `\`${schema}\`.attachment a
  LEFT JOIN \`${schema}\`.hand_check c ON c.studio_id = a.studio_id AND c.id = a.check_id
  JOIN \`${schema}\`.student s ON s.studio_id = a.studio_id AND s.id = COALESCE(a.student_id, c.student_id)`
const IS_SOUND = `a.media_type = 'audio/wav' AND a.instrument_id IS NULL`
/** A removal that a recording falls under; one of a student or the studio speaks of what was recorded before it. */
const IS_REMOVED = `r.studio_id = a.studio_id AND (r.attachment_id = a.id OR (
  r.attachment_id IS NULL AND (r.student_id IS NULL OR r.student_id = s.id) AND r.removed_at >= a.recorded_at))`
const withdrawnSince = ({ live, scratch }: CarryOver) => `\`${live}\`.sound_removal r
  WHERE r.student_id IS NOT NULL AND r.attachment_id IS NULL
    AND r.id NOT IN (SELECT id FROM \`${scratch}\`.sound_removal)`
/** The studio has switched off that sound is kept, since. */
const switchedOff = ({ live, scratch }: CarryOver) => `\`${scratch}\`.studio was
  JOIN \`${live}\`.studio now ON now.id = was.id
  WHERE JSON_VALUE(was.settings, '$.keepsSound') AND NOT JSON_VALUE(now.settings, '$.keepsSound')`

/** What happens to sound, sessions, passwords and the work since, a sentence each, before anything happens. */
export async function whatReturns(over: CarryOver): Promise<string[]> {
  const { live, scratch, isKnown } = over
  const ask = async <Row extends object>(sql: string) => over.connection.query<Row[]>(sql)
  const count = async (sql: string) =>
    Number((await ask<{ n: bigint }>(`SELECT COUNT(*) AS n FROM ${sql}`))[0]!.n)
  const named = (rows: readonly { name: string; n: bigint }[]) =>
    rows.map(({ name, n }) => `${name} (${n})`).join(', ')

  const returning = await ask<{ name: string; n: bigint }>(
    `SELECT s.name, COUNT(*) AS n FROM ${soundIn(scratch)} WHERE ${IS_SOUND} AND a.is_whole
     ${
       isKnown
         ? `AND a.id NOT IN (SELECT id FROM \`${live}\`.attachment)
            AND NOT EXISTS (SELECT 1 FROM \`${live}\`.sound_removal r WHERE ${IS_REMOVED})`
         : ''
     } GROUP BY s.id, s.name ORDER BY s.name`,
  )
  const sounds =
    returning.length > 0 ? [`Recordings come back that are not stored now: ${named(returning)}.`] : []
  if (!isKnown) {
    const accounts = await count(`\`${scratch}\`.user`)
    return [
      ...sounds,
      ...(sounds.length > 0
        ? [
            'Ask whether the consent to each still holds: what was withdrawn after the backup was made is not known here.',
          ]
        : []),
      ...(accounts > 0
        ? ['Every teacher signs in again, with the password of when the backup was made.']
        : []),
    ]
  }
  const kept = await ask<{ name: string; n: bigint }>(
    `SELECT s.name, COUNT(*) AS n FROM ${soundIn(scratch)} WHERE ${IS_SOUND}
     AND EXISTS (SELECT 1 FROM \`${live}\`.sound_removal r WHERE ${IS_REMOVED}) GROUP BY s.id, s.name ORDER BY s.name`,
  )
  const withdrawn = await ask<{ name: string }>(
    `SELECT DISTINCT s.name FROM \`${scratch}\`.student s
     WHERE s.sound_consent IS NOT NULL AND s.id IN (SELECT r.student_id FROM ${withdrawnSince(over)}) ORDER BY s.name`,
  )
  const off = await ask<{ name: string }>(`SELECT was.name FROM ${switchedOff(over)}`)
  const sessions = await count(`\`${scratch}\`.session WHERE id NOT IN (SELECT id FROM \`${live}\`.session)`)
  const passwords = await count(
    `\`${scratch}\`.user was JOIN \`${live}\`.user now ON now.id = was.id AND now.password_hash <> was.password_hash`,
  )
  const since = async (table: string) =>
    count(`\`${live}\`.\`${table}\` WHERE id NOT IN (SELECT id FROM \`${scratch}\`.\`${table}\`)`)
  const lost = [
    [await since('student'), 'student', 'students'],
    [await since('instrument'), 'instrument', 'instruments'],
    [await since('hand_check'), 'check', 'checks'],
    [await since('setup_round'), 'setup round', 'setup rounds'],
  ] as const
  const lostWords = lost.flatMap(([n, one, many]) => (n > 0 ? [`${n} ${n === 1 ? one : many}`] : []))
  return [
    ...(lostWords.length > 0
      ? [`Lost is what was saved since the backup was made: ${lostWords.join(', ')}.`]
      : []),
    ...sounds,
    ...(kept.length > 0 ? [`Recordings that were removed since stay removed: ${named(kept)}.`] : []),
    ...(withdrawn.length > 0
      ? [`Consent to sound stays withdrawn: ${withdrawn.map(({ name }) => name).join(', ')}.`]
      : []),
    ...(off.length > 0 ? [`Sound stays switched off: ${off.map(({ name }) => name).join(', ')}.`] : []),
    ...(sessions > 0 ? [`Sessions that ended since stay ended: ${sessions}.`] : []),
    ...(passwords > 0 ? [`Passwords stay as they are now; changed since: ${passwords}.`] : []),
  ]
}

/** Does what {@link whatReturns} says, in the schema that is to be put in place. */
export async function carryOver(over: CarryOver): Promise<void> {
  const { connection, live, scratch, isKnown } = over
  if (!isKnown) {
    await connection.query(`DELETE FROM \`${scratch}\`.session`)
    return
  }
  await connection.query(
    `UPDATE \`${scratch}\`.student s
     LEFT JOIN \`${live}\`.student now ON now.studio_id = s.studio_id AND now.id = s.id
     SET s.sound_consent = now.sound_consent, s.version = s.version + 1
     WHERE s.sound_consent IS NOT NULL AND s.id IN (SELECT r.student_id FROM ${withdrawnSince(over)})`,
  )
  await connection.query(
    `INSERT IGNORE INTO \`${scratch}\`.sound_removal
     SELECT r.* FROM \`${live}\`.sound_removal r JOIN \`${scratch}\`.studio t ON t.id = r.studio_id`,
  )
  await connection.query(
    `DELETE FROM \`${scratch}\`.attachment WHERE id IN (
       SELECT id FROM (SELECT a.id FROM ${soundIn(scratch)} WHERE ${IS_SOUND}
       AND EXISTS (SELECT 1 FROM \`${scratch}\`.sound_removal r WHERE ${IS_REMOVED})) AS removed)`,
  )
  await connection.query(
    `UPDATE \`${scratch}\`.studio SET settings = JSON_SET(settings, '$.keepsSound', JSON_EXTRACT('false', '$'))
     WHERE id IN (SELECT id FROM (SELECT was.id FROM ${switchedOff(over)}) AS off)`,
  )
  await connection.query(
    `DELETE FROM \`${scratch}\`.session WHERE id NOT IN (SELECT id FROM \`${live}\`.session)`,
  )
  await connection.query(
    `UPDATE \`${scratch}\`.user was JOIN \`${live}\`.user now ON now.id = was.id
     SET was.password_hash = now.password_hash`,
  )
  await carryTrust(over)
}

/** Tables of one row a thing that happened: what is known now is known after. */
const KEPT_ROWS = ['audit', 'erasure'] as const
/** As they are now, and not as they were: what was ended by somebody must not hold again. */
const AS_NOW = ['second_factor', 'spare_code', 'one_time_key'] as const

/** Who may do what, second factors, keys, the trail, and who was erased: all as it is now. */
async function carryTrust({ connection, live, scratch }: CarryOver): Promise<void> {
  const [known] = await connection.query<{ n: bigint }[]>(
    "SELECT COUNT(*) AS n FROM information_schema.tables WHERE table_schema = ? AND table_name = 'erasure'",
    [live],
  )
  if (Number(known!.n) === 0) return
  const stillThere = `JOIN \`${scratch}\`.studio t ON t.id = r.studio_id`
  const userIsThere = `JOIN \`${scratch}\`.user u ON u.studio_id = r.studio_id AND u.id = r.user_id`
  await connection.query(
    `INSERT IGNORE INTO \`${scratch}\`.user SELECT r.* FROM \`${live}\`.user r ${stillThere}`,
  )
  await connection.query(
    `UPDATE \`${scratch}\`.user was JOIN \`${live}\`.user now ON now.id = was.id
     SET was.role = now.role, was.left_at = now.left_at`,
  )
  for (const table of KEPT_ROWS)
    await connection.query(
      `INSERT IGNORE INTO \`${scratch}\`.${table} SELECT r.* FROM \`${live}\`.${table} r ${stillThere}`,
    )
  for (const table of AS_NOW) {
    await connection.query(`DELETE FROM \`${scratch}\`.${table}`)
    await connection.query(
      `INSERT INTO \`${scratch}\`.${table} SELECT r.* FROM \`${live}\`.${table} r ${userIsThere}`,
    )
  }
  const erased = await connection.query<{ studioId: string; studentId: string }[]>(
    `SELECT r.studio_id AS studioId, r.student_id AS studentId FROM \`${live}\`.erasure r
     JOIN \`${scratch}\`.student s ON s.studio_id = r.studio_id AND s.id = r.student_id`,
  )
  for (const { studioId, studentId } of erased)
    for (const { sql, values } of erasing(studioId, studentId, scratch)) await connection.query(sql, values)
}
