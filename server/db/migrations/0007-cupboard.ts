import type { Step } from './step'

/** An instrument can be taken out of the cupboard, and back; of each size the free ones are found without reading the rest. */
export const steps: readonly Step[] = [
  'ALTER TABLE instrument ADD COLUMN IF NOT EXISTS removed_at DATETIME(3) NULL',
  `ALTER TABLE instrument
    ADD KEY IF NOT EXISTS cupboard_by_size (studio_id, removed_at, family, size_id, label, id)`,
]
