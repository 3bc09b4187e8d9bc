/** A statement and what stands in its places. */
export interface Erasing {
  readonly sql: string
  readonly values: readonly string[]
}

/** Rows that name a student, what they are pointed at by before them. */
const OF_STUDENT = [
  'attachment',
  'hand_check',
  'setup_round',
  'pain',
  'hand_measurement',
  'body_fit',
  'gate_mark',
  'mastery_mark',
  'practice_plan',
  'practice_entry',
  'sound_removal',
  'loan',
] as const
/** Rows that lie under a check of the student. */
const OF_CHECK = ['landing', 'take_track', 'attachment'] as const

/**
 * Everything of a student, for good, in the order in which the database lets it go; of one `schema` or the one in use. Who saw and
 * changed what stays, by ids that name nobody any more. A test holds it against every column that could point at a student.
 */
export function erasing(studioId: string, studentId: string, schema?: string): Erasing[] {
  const table = (name: string) => (schema === undefined ? name : `\`${schema}\`.${name}`)
  const ofStudio = 'studio_id = ?'
  const checks = `SELECT id FROM ${table('hand_check')} WHERE ${ofStudio} AND student_id = ?`
  const name = `SELECT name FROM ${table('student')} WHERE ${ofStudio} AND id = ?`
  return [
    ...OF_CHECK.map((name) => ({
      sql: `DELETE FROM ${table(name)} WHERE ${ofStudio} AND check_id IN (${checks})`,
      values: [studioId, studioId, studentId],
    })),
    ...OF_STUDENT.map((name) => ({
      sql: `DELETE FROM ${table(name)} WHERE ${ofStudio} AND student_id = ?`,
      values: [studioId, studentId],
    })),
    // What was answered is kept a while for whoever sends the same again.
    {
      sql: `DELETE FROM ${table('idempotency_key')} WHERE ${ofStudio}
            AND (answer LIKE CONCAT('%', ?, '%') OR INSTR(answer, (${name})) > 0)`,
      values: [studioId, studentId, studioId, studentId],
    },
    // An instrument stays with the studio, and is often called by who had it.
    {
      sql: `UPDATE ${table('instrument')} SET label = REPLACE(label, (${name}), '…'), version = version + 1
            WHERE ${ofStudio} AND INSTR(label, (${name})) > 0`,
      values: [studioId, studentId, studioId, studioId, studentId],
    },
    { sql: `DELETE FROM ${table('student')} WHERE ${ofStudio} AND id = ?`, values: [studioId, studentId] },
  ]
}
