import { THUMB } from '../instrument'
import { INTERVALS, midiNumber, transpose, type Interval, type Note } from '../pitch'
import {
  techniqueOf,
  type FingeringOptions,
  type FingerOption,
  type HarmonicPart,
  type PlacementContext,
} from '../technique'

export const DEFAULT_FINGERING: FingeringOptions = {
  openStrings: 'prefer',
  climb: 'early',
  chromatic: undefined,
}

/** Every way in which a note can be played on these strings, stopped or open. */
export function optionsFor(
  context: PlacementContext,
  n: Note,
  options: FingeringOptions = DEFAULT_FINGERING,
): FingerOption[] {
  const technique = techniqueOf(context.family.id)
  const midi = midiNumber(n)
  return context.openMidis.flatMap((open, stringIndex): readonly FingerOption[] => {
    const semitones = midi - open
    if (semitones < 0) return []
    if (semitones === 0) return [{ stringIndex, finger: 0, semitones, hand: undefined }]
    return technique.ways(context, n, stringIndex, semitones, options)
  })
}

/** Where a third and a quarter of the string are touched, and how far above the open string they sound. */
const NODES: readonly { readonly part: HarmonicPart; readonly at: Interval; readonly sounds: number }[] = [
  { part: 3, at: INTERVALS.perfectFifth, sounds: 19 },
  { part: 4, at: INTERVALS.perfectFourth, sounds: 24 },
]

/**
 * The natural harmonics at a third and a quarter of a string that sound a note, with the hand at the place that is touched;
 * that at the half is among the stopped ways. Equal to the note within two cents: the twelfth lies 1.955 cents above it.
 * Source: docs/trade.md § 2; any acoustics text.
 */
export function harmonicsFor(
  context: PlacementContext,
  n: Note,
  options: FingeringOptions = DEFAULT_FINGERING,
): FingerOption[] {
  const technique = techniqueOf(context.family.id)
  return context.tuning.flatMap((open, stringIndex) => {
    const semitones = midiNumber(n) - midiNumber(open)
    const node = NODES.find(({ sounds }) => sounds === semitones)
    if (!node) return []
    return technique
      .ways(context, transpose(open, node.at), stringIndex, node.at.semitones, options)
      .filter(({ finger }) => finger !== THUMB)
      .map((way) => ({ ...way, semitones, harmonic: node.part }))
  })
}
