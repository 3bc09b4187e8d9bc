import type { Step } from './step'

/** What is worked on as a column of its own: the newest that names something is found in an index, however many checks say nothing. */
export const steps: readonly Step[] = [
  `ALTER TABLE hand_check
    ADD COLUMN IF NOT EXISTS names_work TINYINT AS (IF(NULLIF(JSON_VALUE(decision, '$.workOn'), 'null') IS NULL, 0, 1)) PERSISTENT,
    ADD KEY IF NOT EXISTS newest_work (studio_id, student_id, removed_at, names_work, taken_at, id)`,
]
