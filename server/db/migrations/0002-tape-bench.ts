import type { Step } from './step'
import { belongsTo, ID, INSTANT, studioTable } from './tables'

/** Strings one by one, pressing, places found by ring, and the life of every tape. */
export const steps: readonly Step[] = [
  `ALTER TABLE measurement
    ADD COLUMN IF NOT EXISTS method VARCHAR(20) NOT NULL DEFAULT 'bridge',
    ADD COLUMN IF NOT EXISTS string_lengths_mm JSON NULL`,
  `ALTER TABLE instrument
    ADD COLUMN IF NOT EXISTS pressing JSON NULL,
    ADD COLUMN IF NOT EXISTS warm_hands BOOLEAN NOT NULL DEFAULT FALSE`,
  // A scale of one's own stands in full in its id.
  'ALTER TABLE studio MODIFY COLUMN `system` VARCHAR(400) NOT NULL',
  'ALTER TABLE tape_set MODIFY COLUMN `system` VARCHAR(400) NOT NULL',
  'ALTER TABLE hand_check MODIFY COLUMN `system` VARCHAR(400) NOT NULL',
  studioTable(
    'tape_event',
    `instrument_id ${ID}, user_id ${ID}, kind VARCHAR(20) NOT NULL, mark_id VARCHAR(8) NULL, place_mm DOUBLE NULL,
    on_date DATE NOT NULL, reason VARCHAR(400) NOT NULL, recorded_at ${INSTANT}, removed_at DATETIME(3) NULL`,
    [
      belongsTo('instrument', 'instrument_id'),
      belongsTo('user', 'user_id'),
      'KEY (studio_id, instrument_id, on_date)',
    ],
  ),
  studioTable(
    'ring_find',
    `instrument_id ${ID}, user_id ${ID}, string VARCHAR(8) NOT NULL, note VARCHAR(8) NOT NULL,
    \`system\` VARCHAR(400) NOT NULL, cents DOUBLE NOT NULL, place_mm DOUBLE NOT NULL, is_trusted BOOLEAN NOT NULL,
    found_on DATE NOT NULL, recorded_at ${INSTANT}, removed_at DATETIME(3) NULL`,
    [
      belongsTo('instrument', 'instrument_id'),
      belongsTo('user', 'user_id'),
      'KEY (studio_id, instrument_id)',
    ],
  ),
  // Tapes that were laid before there was a log of them: the finger's interval is the mark.
  `INSERT IGNORE INTO tape_event
    SELECT UUID(), s.studio_id, s.instrument_id, s.user_id, 'laid',
      CASE
        WHEN m.shape_id = 'half' THEN '1.1'
        WHEN m.finger = 1 THEN '1.2'
        WHEN m.finger = 2 AND i.family IN ('cello', 'bass') THEN '2.3'
        WHEN m.finger = 2 OR (m.finger = 3 AND i.family = 'cello') OR (m.finger = 4 AND i.family = 'bass') THEN '2.4'
        WHEN m.finger = 3 OR i.family = 'cello' THEN '3.5'
        ELSE '4.7'
      END,
      m.middle_mm, s.laid_on, '', s.recorded_at, NULL
    FROM tape_set s JOIN instrument i ON i.id = s.instrument_id,
      JSON_TABLE(s.marks, '$[*]' COLUMNS (
        finger INT PATH '$.finger', shape_id VARCHAR(40) PATH '$.shapeId', middle_mm DOUBLE PATH '$.middleMm'
      )) m
    WHERE m.finger IS NOT NULL AND NOT EXISTS (SELECT 1 FROM tape_event e WHERE e.instrument_id = s.instrument_id)`,
]
