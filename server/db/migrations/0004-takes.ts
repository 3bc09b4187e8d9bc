import { belongsTo, ENGINE, ID, INSTANT, studioTable } from './tables'
import { moveChecks } from './move-checks'
import type { Step } from './step'

const MAYBE_ID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL'

/** A check is an exercise and its landings, judged by a stringing of its own; files can lie beside a record. */
export const steps: readonly Step[] = [
  'ALTER TABLE student ADD COLUMN IF NOT EXISTS `system` VARCHAR(400) NULL',
  `ALTER TABLE hand_check
    ADD COLUMN IF NOT EXISTS exercise JSON NULL,
    ADD COLUMN IF NOT EXISTS stringing JSON NULL,
    ADD COLUMN IF NOT EXISTS verdict JSON NULL,
    ADD COLUMN IF NOT EXISTS unmoved JSON NULL`,
  `CREATE TABLE IF NOT EXISTS landing (
    check_id ${ID}, studio_id ${ID}, position INT NOT NULL, string_index INT NOT NULL, finger INT NOT NULL,
    note VARCHAR(8) NOT NULL, place_mm DOUBLE NOT NULL, cents DOUBLE NOT NULL, sigma_cents DOUBLE NOT NULL,
    at_ms DOUBLE NULL, source VARCHAR(20) NOT NULL,
    PRIMARY KEY (check_id, position), KEY (studio_id, check_id), ${belongsTo('hand_check', 'check_id')}
  ) ${ENGINE}`,
  moveChecks,
  // One statement: either all of the old shape is still there, or none of it.
  `ALTER TABLE hand_check
    DROP COLUMN IF EXISTS string, DROP COLUMN IF EXISTS shape_id, DROP COLUMN IF EXISTS \`system\`,
    DROP COLUMN IF EXISTS length_mm, DROP COLUMN IF EXISTS outcome, DROP COLUMN IF EXISTS detail,
    MODIFY COLUMN verdict JSON NOT NULL`,
  'DROP TABLE IF EXISTS reading, finding',
  studioTable(
    'attachment',
    `user_id ${ID}, check_id ${MAYBE_ID}, student_id ${MAYBE_ID}, instrument_id ${MAYBE_ID},
    media_type VARCHAR(40) NOT NULL, byte_count INT NOT NULL, sha256 CHAR(64) NOT NULL, is_whole BOOLEAN NOT NULL,
    recorded_at ${INSTANT}`,
    [
      belongsTo('user', 'user_id'),
      belongsTo('hand_check', 'check_id'),
      belongsTo('student', 'student_id'),
      belongsTo('instrument', 'instrument_id'),
      'CHECK ((check_id IS NOT NULL) + (student_id IS NOT NULL) + (instrument_id IS NOT NULL) = 1)',
      'KEY (is_whole, recorded_at)',
    ],
  ),
  `CREATE TABLE IF NOT EXISTS attachment_chunk (
    attachment_id ${ID}, studio_id ${ID}, position INT NOT NULL, bytes MEDIUMBLOB NOT NULL,
    PRIMARY KEY (attachment_id, position), KEY (studio_id, attachment_id),
    FOREIGN KEY (studio_id, attachment_id) REFERENCES attachment (studio_id, id) ON DELETE CASCADE
  ) ${ENGINE}`,
]
