import type { Step } from './step'
import { belongsTo, ENGINE, ID } from './tables'

/** Takes that an ear has heard: where each note settled, how long it lasted, how sure it was; and the track of their pitch. */
export const steps: readonly Step[] = [
  `ALTER TABLE landing
    ADD COLUMN IF NOT EXISTS settled_cents DOUBLE NULL,
    ADD COLUMN IF NOT EXISTS settled_sigma_cents DOUBLE NULL,
    ADD COLUMN IF NOT EXISTS lasts_ms DOUBLE NULL,
    ADD COLUMN IF NOT EXISTS confidence DOUBLE NULL`,
  'ALTER TABLE hand_check ADD COLUMN IF NOT EXISTS has_track BOOLEAN NOT NULL DEFAULT FALSE',
  `CREATE TABLE IF NOT EXISTS take_track (
    check_id ${ID}, studio_id ${ID}, bytes MEDIUMBLOB NOT NULL,
    PRIMARY KEY (check_id), KEY (studio_id, check_id), ${belongsTo('hand_check', 'check_id')}
  ) ${ENGINE}`,
]
