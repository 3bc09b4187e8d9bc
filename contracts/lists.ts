import { z } from 'zod'
import { LONGEST_PAGE } from './limits'

const USUAL_PAGE = 50
const FURTHEST_ROW = 1_000_000

const whole = (least: number, most: number, what: string) =>
  z.coerce
    .number<number>({ error: `Give ${what} as a whole number.` })
    .int({ error: `Give ${what} as a whole number.` })
    .min(least, { error: `Give ${what} as ${least} or more.` })
    .max(most, { error: `Give ${what} as ${most} or less.` })

/** Which part of a list is wanted. */
export function pageQuery(usual: number) {
  return {
    offset: whole(0, FURTHEST_ROW, 'the first row').default(0),
    limit: whole(1, LONGEST_PAGE, 'the number of rows').default(usual),
  }
}

/** Which rows of a list are wanted, in what order: by one of `sorts`, the first where none is named. */
export function listQuery<const Sorts extends readonly [string, ...string[]]>(sorts: Sorts) {
  return z.object({
    /** Words that each must occur somewhere in what the row says. */
    q: z.string().max(200).default(''),
    sort: z.enum(sorts).default(sorts[0] as never),
    direction: z.enum(['up', 'down']).default('up'),
    ...pageQuery(USUAL_PAGE),
  })
}

/** Rows from the one that was asked for on, and how many there are in all. */
export function pageOf<Row extends z.ZodType>(row: Row) {
  return z.object({ total: z.int(), rows: z.array(row) })
}
