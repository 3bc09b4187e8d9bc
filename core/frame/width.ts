import { placeOnString, type Frame, type Stringing } from '../instrument'
import { centsAboveOpen, spelledInterval, sumOf, transpose, type Interval } from '../pitch'

/**
 * Distance in mm from the first to the last finger of a frame that starts `firstSemitones` above the open string and
 * spans `spanSemitones`: w = L (2^(−s/12) − 2^(−(s+k)/12)). Equal temperament on an ideal string; it shrinks by 5.6 % a
 * semitone and halves at the octave. What a real instrument asks of a hand is {@link frameOnString}.
 */
export function frameWidthMm(lengthMm: number, firstSemitones: number, spanSemitones: number): number {
  return lengthMm * (2 ** (-firstSemitones / 12) - 2 ** (-(firstSemitones + spanSemitones) / 12))
}

/**
 * Width in mm of a frame on one string of an instrument, its first finger `first` above the open string: from place to
 * place as the instrument's lengths, pressing, rings and tuning system put them. On an ideal string in equal temperament it
 * is {@link frameWidthMm}.
 */
export function frameOnString(
  stringing: Stringing,
  stringIndex: number,
  first: Interval,
  frame: Pick<Frame, 'semitones'>,
): number {
  const { tuning, system } = stringing
  const open = tuning[stringIndex]!
  const placeOf = (interval: Interval) =>
    placeOnString(stringing, stringIndex, centsAboveOpen(system, open, transpose(open, interval)))
  return placeOf(sumOf(first, spelledInterval(frame.semitones))) - placeOf(first)
}

/** The same on the string where it is widest: what the hand must be able to hold. */
export function widestFrameMm(
  stringing: Stringing,
  first: Interval,
  frame: Pick<Frame, 'semitones'>,
): number {
  return Math.max(
    ...stringing.tuning.map((_, stringIndex) => frameOnString(stringing, stringIndex, first, frame)),
  )
}
