import type { Step } from './step'
import { INSTANT, studioTable } from './tables'

const MAYBE_ID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL'

/**
 * What was taken away of sound, and when: of a student whose consent was withdrawn, one recording, or, where neither is named,
 * all of the studio. It points at no row: it outlives the rows, and is carried into every backup that is put back.
 */
export const steps: readonly Step[] = [
  studioTable('sound_removal', `student_id ${MAYBE_ID}, attachment_id ${MAYBE_ID}, removed_at ${INSTANT}`, [
    'KEY (studio_id, student_id)',
  ]),
]
