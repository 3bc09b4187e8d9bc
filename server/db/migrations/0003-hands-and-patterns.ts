import type { Step } from './step'
import { belongsTo, ID, INSTANT, studioTable } from './tables'

/** The hand as it grows, and what it has learned. */
export const steps: readonly Step[] = [
  studioTable(
    'hand_measurement',
    `student_id ${ID}, user_id ${ID}, measured_on DATE NOT NULL, comfortable_span_mm DOUBLE NOT NULL,
    reached_span_mm DOUBLE NULL, finger_lengths_mm JSON NULL, fingertip_width_mm DOUBLE NULL, thumb VARCHAR(20) NULL,
    recorded_at ${INSTANT}, removed_at DATETIME(3) NULL`,
    [
      belongsTo('student', 'student_id'),
      belongsTo('user', 'user_id'),
      'KEY (studio_id, student_id, measured_on)',
    ],
  ),
  // A row a word of the teacher: the newest of an item counts, the others are its history.
  studioTable(
    'mastery_mark',
    `student_id ${ID}, user_id ${ID}, kind VARCHAR(20) NOT NULL, item VARCHAR(40) NOT NULL, state VARCHAR(20) NOT NULL,
    recorded_at ${INSTANT}`,
    [
      belongsTo('student', 'student_id'),
      belongsTo('user', 'user_id'),
      'KEY (studio_id, student_id, recorded_at)',
    ],
  ),
]
