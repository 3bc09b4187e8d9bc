import type { Step } from './step'
import { belongsTo, ID, INSTANT, studioTable } from './tables'

/** A studio's own fingerings: a row a word of a teacher, the newest of a line counts; without notes it is the usual one again. */
export const steps: readonly Step[] = [
  studioTable(
    'own_fingering',
    `user_id ${ID}, family VARCHAR(20) NOT NULL, line VARCHAR(160) NOT NULL, named JSON NOT NULL, notes JSON NULL,
    settled JSON NOT NULL, recorded_at ${INSTANT}`,
    [belongsTo('user', 'user_id'), 'KEY (studio_id, family, recorded_at)'],
  ),
]
