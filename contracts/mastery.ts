import { z } from 'zod'
import { MASTERY_KINDS, MASTERY_STATES } from '#core'
import { Instant } from './common'

const mark = {
  kind: z.enum(MASTERY_KINDS),
  /** Id of a pattern, or of a position, of the student's family. */
  item: z.string().min(1).max(40),
  state: z.enum(MASTERY_STATES),
}

/** How well a student has a pattern or a position now, in the teacher's word. */
export const Mastery = z.object({ ...mark, by: z.string(), at: Instant }).meta({ id: 'Mastery' })

/** More than all patterns and positions of a family. */
const MOST_MARKS = 60

export const MasteryMarks = z.object({ marks: z.array(z.object(mark)).min(1).max(MOST_MARKS) }).meta({
  id: 'MasteryMarks',
  examples: [{ marks: [{ kind: 'pattern', item: 'fourth/1234/212', state: 'learning' }] }],
})
