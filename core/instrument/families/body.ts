/**
 * String length as a part of the body's, viola and cello. Viola: the body stop is about 0.5485 of the body and the neck two
 * thirds of the stop, 0.5485 · 5/3 = 0.914; a cello comes out alike. From memory.
 */
export const STRING_PER_BODY = 0.914

/** The same of a bass: a three-quarter body of about 1110 mm goes with 1050 mm of string. From memory. */
export const BASS_STRING_PER_BODY = 0.945
