/** How much the pages of a lesson ask for at once: whoever asks for it ahead asks in the same words. */

/** As many lessons as a day of one teacher has, and more than a screen shows. */
export const LESSONS_AT_ONCE = 40
/** Rows of a list that stand on one page of it. */
export const LIST_AT_ONCE = 50
/** Checks in a student's file, and behind a plan: about a school year of lessons, what is older says nothing of this week. */
export const CHECKS_AT_ONCE = 40
/** Checks that are looked through for those of the same instrument. */
export const CHECKS_BESIDE = 24
