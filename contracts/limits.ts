/** A password one can choose: long rather than strange, as the OWASP Authentication Cheat Sheet asks. */
export const SHORTEST_PASSWORD = 10

/** A list answers page by page: at most so many rows at once. */
export const LONGEST_PAGE = 200
/** Loudness of a tone as a part of full: a tablet on a music stand, not an orchestra. */
export const QUIET_LOUDNESS = 0.06
export const LOUDEST = 0.3
