/** The first two intervals, days, and the factor of every further one. */
const FIRST_DAYS = 1
const SECOND_DAYS = 6
const EASE = 2.5

/**
 * After how many days something that has held so many times is looked at again: 1, 6, 15, 38, 95 … The schedule SM-2 with the grade 4, a
 * correct answer, which leaves its factor at 2.5; what no longer holds begins anew. P. A. Woźniak, Optimization of Learning
 * (1990), § 3.2. It was made for words, and is taken over here for hands: common practice, no source.
 *
 * @param held times in a row, 1 or more
 */
export function daysUntilReview(held: number): number {
  if (held <= 1) return FIRST_DAYS
  let days = SECOND_DAYS
  for (let time = 2; time < held; time++) days = Math.round(days * EASE)
  return days
}
