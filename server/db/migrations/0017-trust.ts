import type { Step } from './step'
import { belongsTo, ENGINE, ID, INSTANT, studioTable } from './tables'

const MAYBE = 'DATETIME(3) NULL'
const MAYBE_ID = ID.replace('NOT NULL', 'NULL')
const OF_USER = [belongsTo('user', 'user_id')]

/**
 * Who may do what, second factors, keys that open the door once, who saw and changed what, who was erased, and what was done to the
 * database itself. Whoever taught before there were roles owns the studio; so does whom a server of the version before adds.
 */
export const steps: readonly Step[] = [
  `ALTER TABLE user
    ADD COLUMN IF NOT EXISTS role VARCHAR(20) NOT NULL DEFAULT 'owner',
    ADD COLUMN IF NOT EXISTS left_at ${MAYBE}`,
  studioTable(
    'second_factor',
    `user_id ${ID}, sealed VARCHAR(400) NOT NULL, confirmed_at ${MAYBE}, last_step BIGINT NOT NULL, recorded_at ${INSTANT}`,
    [...OF_USER, 'UNIQUE KEY (user_id)'],
  ),
  studioTable('spare_code', `user_id ${ID}, hash CHAR(64) NOT NULL, used_at ${MAYBE}`, [
    ...OF_USER,
    'KEY (user_id)',
  ]),
  studioTable(
    'one_time_key',
    `user_id ${ID}, hash CHAR(64) NOT NULL, made_by ${ID}, made_at ${INSTANT}, until_at ${INSTANT}, used_at ${MAYBE}`,
    [...OF_USER, belongsTo('user', 'made_by'), 'UNIQUE KEY (hash)'],
  ),
  // Students and subjects are not referred to: the trail outlives them.
  studioTable(
    'audit',
    `user_id ${MAYBE_ID}, at ${INSTANT}, deed VARCHAR(40) NOT NULL, student_id ${MAYBE_ID}, subject_id ${MAYBE_ID}`,
    [...OF_USER, 'KEY (studio_id, student_id, id)', 'KEY (studio_id, user_id, id)', 'KEY (studio_id, at)'],
  ),
  studioTable('erasure', `student_id ${ID}, erased_at ${INSTANT}`, ['KEY (studio_id, student_id)']),
  `CREATE TABLE IF NOT EXISTS operation (
    id ${ID}, kind VARCHAR(20) NOT NULL, at ${INSTANT}, is_sound BOOLEAN NOT NULL, report JSON NOT NULL,
    PRIMARY KEY (id), KEY (kind, at)
  ) ${ENGINE}`,
]
