import type { Step } from './step'

/** What a check was told and what was said to it, as columns of their own: counting reads an index, not the verdicts. */
export const steps: readonly Step[] = [
  `ALTER TABLE hand_check
    ADD COLUMN IF NOT EXISTS told VARCHAR(60) AS (
      IF(exercise IS NULL, NULL, COALESCE(JSON_VALUE(verdict, '$.findings[0].code'), JSON_VALUE(verdict, '$.outcome')))
    ) PERSISTENT,
    ADD COLUMN IF NOT EXISTS said VARCHAR(20) AS (JSON_VALUE(decision, '$.says')) PERSISTENT,
    ADD COLUMN IF NOT EXISTS said_why VARCHAR(40) AS (JSON_VALUE(decision, '$.reason')) PERSISTENT,
    ADD KEY IF NOT EXISTS told_since (studio_id, removed_at, taken_at, tolerance_cents, told, said, said_why)`,
]
