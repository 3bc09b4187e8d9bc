import type { Step } from './step'

/** Lists in their order, and the newest length, tapes and check of each row, by one look into an index each. */
export const steps: readonly Step[] = [
  `ALTER TABLE measurement
    ADD KEY IF NOT EXISTS newest_measurement (studio_id, instrument_id, measured_on, recorded_at, id)`,
  'ALTER TABLE tape_set ADD KEY IF NOT EXISTS newest_tape_set (studio_id, instrument_id, laid_on, recorded_at, id)',
  'ALTER TABLE hand_check ADD KEY IF NOT EXISTS newest_check (studio_id, student_id, removed_at, taken_at, id)',
  `ALTER TABLE student
    ADD KEY IF NOT EXISTS lesson_day (studio_id, lesson_weekday),
    ADD KEY IF NOT EXISTS roster_by_name (studio_id, removed_at, name, id)`,
]
