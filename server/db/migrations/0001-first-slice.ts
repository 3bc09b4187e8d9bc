import type { Step } from './step'
import { belongsTo, ENGINE, ID, INSTANT, studioTable } from './tables'

export const steps: readonly Step[] = [
  `CREATE TABLE IF NOT EXISTS studio (
    id ${ID}, name VARCHAR(120) NOT NULL, \`system\` VARCHAR(40) NOT NULL, created_at ${INSTANT}, PRIMARY KEY (id)
  ) ${ENGINE}`,
  studioTable(
    'user',
    'email VARCHAR(200) NOT NULL, name VARCHAR(120) NOT NULL, password_hash VARCHAR(200) NOT NULL',
    ['UNIQUE KEY (email)'],
  ),
  `CREATE TABLE IF NOT EXISTS session (
    id CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, studio_id ${ID}, user_id ${ID},
    created_at ${INSTANT}, expires_at ${INSTANT},
    PRIMARY KEY (id), KEY (expires_at), ${belongsTo('user', 'user_id')}
  ) ${ENGINE}`,
  studioTable(
    'student',
    `version INT NOT NULL, name VARCHAR(120) NOT NULL, birth_year INT NULL, family VARCHAR(20) NOT NULL,
    tolerance_cents INT NOT NULL, tape_school_id VARCHAR(40) NULL, lesson_weekday INT NULL, lesson_time CHAR(5) NULL,
    note TEXT NOT NULL, created_at ${INSTANT}, removed_at DATETIME(3) NULL`,
  ),
  studioTable(
    'instrument',
    `version INT NOT NULL, label VARCHAR(60) NOT NULL, family VARCHAR(20) NOT NULL, size_id VARCHAR(20) NOT NULL,
    tuning JSON NOT NULL, created_at ${INSTANT}`,
  ),
  // An instrument is with one student at a time, and a student has one: the open loan of each is unique.
  studioTable(
    'loan',
    `student_id ${ID}, instrument_id ${ID}, from_date DATE NOT NULL, to_date DATE NULL,
    is_open TINYINT AS (IF(to_date IS NULL, 1, NULL)) PERSISTENT`,
    [
      belongsTo('student', 'student_id'),
      belongsTo('instrument', 'instrument_id'),
      'UNIQUE KEY (instrument_id, is_open)',
      'UNIQUE KEY (student_id, is_open)',
    ],
  ),
  studioTable(
    'measurement',
    `instrument_id ${ID}, user_id ${ID}, length_mm DOUBLE NOT NULL, typed VARCHAR(40) NOT NULL,
    measured_on DATE NOT NULL, recorded_at ${INSTANT}`,
    [belongsTo('instrument', 'instrument_id'), belongsTo('user', 'user_id')],
  ),
  studioTable(
    'tape_set',
    `instrument_id ${ID}, user_id ${ID}, school_id VARCHAR(40) NOT NULL, \`system\` VARCHAR(40) NOT NULL,
    length_mm DOUBLE NOT NULL, tape_width_mm DOUBLE NOT NULL, marks JSON NOT NULL, laid_on DATE NOT NULL,
    recorded_at ${INSTANT}`,
    [belongsTo('instrument', 'instrument_id'), belongsTo('user', 'user_id')],
  ),
  studioTable(
    'hand_check',
    `student_id ${ID}, instrument_id ${ID}, user_id ${ID}, taken_at ${INSTANT}, string VARCHAR(8) NOT NULL,
    shape_id VARCHAR(40) NOT NULL, \`system\` VARCHAR(40) NOT NULL, length_mm DOUBLE NOT NULL,
    tolerance_cents INT NOT NULL, outcome VARCHAR(40) NOT NULL, detail JSON NOT NULL, note TEXT NOT NULL,
    recorded_at ${INSTANT}, removed_at DATETIME(3) NULL`,
    [
      belongsTo('student', 'student_id'),
      belongsTo('instrument', 'instrument_id'),
      belongsTo('user', 'user_id'),
      'KEY (studio_id, student_id, taken_at)',
    ],
  ),
  studioTable(
    'reading',
    `check_id ${ID}, position INT NOT NULL, finger INT NOT NULL, shown_cents DOUBLE NOT NULL`,
    [belongsTo('hand_check', 'check_id'), 'UNIQUE KEY (check_id, position)'],
  ),
  studioTable(
    'finding',
    `check_id ${ID}, position INT NOT NULL, is_alternative BOOLEAN NOT NULL, code VARCHAR(40) NOT NULL, data JSON NOT NULL`,
    [belongsTo('hand_check', 'check_id'), 'UNIQUE KEY (check_id, position)'],
  ),
  `CREATE TABLE IF NOT EXISTS idempotency_key (
    studio_id ${ID}, idempotency_key VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    request_hash CHAR(64) NOT NULL, answer JSON NULL, created_at ${INSTANT},
    PRIMARY KEY (studio_id, idempotency_key), KEY (created_at), FOREIGN KEY (studio_id) REFERENCES studio (id)
  ) ${ENGINE}`,
  `CREATE TABLE IF NOT EXISTS rate_limit (
    id CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, hits INT NOT NULL, reset_at ${INSTANT},
    PRIMARY KEY (id), KEY (reset_at)
  ) ${ENGINE}`,
]
