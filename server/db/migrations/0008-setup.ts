import type { Step } from './step'
import { belongsTo, ID, INSTANT, studioTable } from './tables'

const OF_STUDENT = [belongsTo('student', 'student_id'), belongsTo('user', 'user_id')]
const WRITTEN = `student_id ${ID}, user_id ${ID}`
const KEPT = `recorded_at ${INSTANT}, removed_at DATETIME(3) NULL`

/** How a studio teaches, what is looked at before a note is judged, and what stands open. */
export const steps: readonly Step[] = [
  `ALTER TABLE studio
    ADD COLUMN IF NOT EXISTS version INT NOT NULL DEFAULT 1,
    ADD COLUMN IF NOT EXISTS settings JSON NULL`,
  `ALTER TABLE student
    ADD COLUMN IF NOT EXISTS level VARCHAR(20) NULL,
    ADD COLUMN IF NOT EXISTS schools JSON NULL,
    ADD COLUMN IF NOT EXISTS setup_now JSON NULL`,
  'ALTER TABLE hand_check ADD COLUMN IF NOT EXISTS tapes_covered BOOLEAN NOT NULL DEFAULT FALSE',
  studioTable(
    'pain',
    `${WRITTEN}, told_on DATE NOT NULL, place VARCHAR(80) NOT NULL, since VARCHAR(80) NOT NULL, note TEXT NOT NULL,
    cleared_on DATE NULL, cleared_note VARCHAR(300) NOT NULL, ${KEPT}`,
    [...OF_STUDENT, 'KEY open_pain (studio_id, student_id, removed_at, cleared_on)'],
  ),
  studioTable(
    'setup_round',
    `${WRITTEN}, taken_at ${INSTANT}, family VARCHAR(20) NOT NULL, answers JSON NOT NULL, passed JSON NOT NULL,
    stopped_at VARCHAR(60) NULL, pain_id ${ID.replace('NOT NULL', 'NULL')}, note TEXT NOT NULL, ${KEPT}`,
    [...OF_STUDENT, belongsTo('pain', 'pain_id'), 'KEY (studio_id, student_id, removed_at, taken_at)'],
  ),
  studioTable(
    'body_fit',
    `${WRITTEN}, family VARCHAR(20) NOT NULL, fitted_on DATE NOT NULL, measures JSON NOT NULL, note TEXT NOT NULL, ${KEPT}`,
    [...OF_STUDENT, 'KEY (studio_id, student_id, fitted_on)'],
  ),
  studioTable(
    'gate_mark',
    `${WRITTEN}, gate VARCHAR(20) NOT NULL, item VARCHAR(20) NOT NULL, state VARCHAR(20) NOT NULL, note TEXT NOT NULL,
    recorded_at ${INSTANT}`,
    [...OF_STUDENT, 'KEY (studio_id, student_id, recorded_at)'],
  ),
]
