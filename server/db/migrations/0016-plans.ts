import type { Step } from './step'
import { belongsTo, ID, INSTANT, studioTable } from './tables'

const WRITTEN = `student_id ${ID}, user_id ${ID}`
const OF_STUDENT = [belongsTo('student', 'student_id'), belongsTo('user', 'user_id')]

/** Plans as they were given, week by week, and what was practised: a row a word of a teacher, the newest counts. */
export const steps: readonly Step[] = [
  studioTable(
    'practice_plan',
    `${WRITTEN}, starts_on DATE NOT NULL, family VARCHAR(20) NOT NULL, instrument_id ${ID.replace('NOT NULL', 'NULL')},
    minutes_a_day INT NOT NULL, weekdays JSON NOT NULL, cards JSON NOT NULL, pieces JSON NOT NULL,
    recorded_at ${INSTANT}, removed_at DATETIME(3) NULL`,
    [
      ...OF_STUDENT,
      belongsTo('instrument', 'instrument_id'),
      'KEY (studio_id, student_id, removed_at, starts_on)',
      'KEY (studio_id, starts_on, removed_at)',
    ],
  ),
  studioTable(
    'practice_entry',
    `${WRITTEN}, exercise_id VARCHAR(40) NOT NULL, practised_on DATE NOT NULL, is_done BOOLEAN NOT NULL,
    minutes INT NULL, times INT NULL, recorded_at ${INSTANT}`,
    [...OF_STUDENT, 'KEY (studio_id, student_id, practised_on)', 'KEY (studio_id, practised_on)'],
  ),
]
