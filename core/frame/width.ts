/**
 * Distance in mm from the first to the last finger of a frame that starts `firstSemitones` above the open string and
 * spans `spanSemitones`: w = L (2^(−s/12) − 2^(−(s+k)/12)). Equal temperament; it shrinks by 5.6 % a semitone and
 * halves at the octave.
 */
export function frameWidthMm(lengthMm: number, firstSemitones: number, spanSemitones: number): number {
  return lengthMm * (2 ** (-firstSemitones / 12) - 2 ** (-(firstSemitones + spanSemitones) / 12))
}
