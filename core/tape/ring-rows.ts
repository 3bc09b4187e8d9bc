import { centsOnString, placeOnString, placeSigmaMm, type StringFind, type Stringing } from '../instrument'
import { midiNumber, type Note } from '../pitch'
import { AUDIBLE_STRENGTH, PLACE_SIGMA_MM, NORMAL_95, ringChecks, STRONG_STRENGTH, type Ring } from '../stop'
import type { StringPlace, TapeMark } from './chart'

/** One tape on one string, and the open strings that answer when a finger is right on it, the strongest first. */
export interface RingRow {
  readonly mark: TapeMark
  readonly stringIndex: number
  readonly open: Note
  readonly stopped: Note
  /** Of the stopped note above its open string. */
  readonly cents: number
  readonly placeMm: number
  readonly rings: readonly Ring[]
}

export type RingStrength = 'strong' | 'clear' | 'faint'

/** From here on a ring is heard beside the bow without waiting for it. From memory. */
export const CLEAR_STRENGTH = 0.2

export function ringStrength({ strength }: Pick<Ring, 'strength'>): RingStrength {
  if (strength >= STRONG_STRENGTH) return 'strong'
  return strength >= CLEAR_STRENGTH ? 'clear' : 'faint'
}

/** What rings at a tape, string by string, the best string to find it by first. */
export function ringRows(stringing: Stringing, mark: TapeMark): RingRow[] {
  const { tuning, system } = stringing
  const stopped = mark.strings.map((string) => string.note)
  return ringChecks(tuning, stopped, system).map((check) => ({
    mark,
    stringIndex: check.stringIndex,
    open: tuning[check.stringIndex]!,
    stopped: check.stopped,
    cents: check.cents,
    placeMm: placeOnString(stringing, check.stringIndex, check.cents),
    rings: check.rings.filter((ring) => ring.strength >= AUDIBLE_STRENGTH),
  }))
}

/**
 * What rings at a tape as it is best laid: first on the strings that the family's tapes are laid by, as far as something
 * audible answers there, then on the others, the strongest first. Source: docs/trade.md § 3.
 */
export function rowsToLayBy(stringing: Stringing, mark: TapeMark): RingRow[] {
  const { layStrings } = stringing.family
  const turn = ({ stringIndex }: RingRow) => {
    const at = layStrings.indexOf(stringIndex)
    return at < 0 ? layStrings.length : at
  }
  return ringRows(stringing, mark).sort((a, b) => turn(a) - turn(b))
}

/** The tapes that no open string answers. */
export function silentMarks(rows: readonly RingRow[], marks: readonly TapeMark[]): TapeMark[] {
  return marks.filter((mark) => !rows.some((row) => row.mark.id === mark.id))
}

/** What a questioned find may really be. */
export type Whereabouts =
  /** The place of another note of the tapes. */
  | { readonly code: 'place_of_another'; readonly mark: TapeMark; readonly string: StringPlace }
  /** No other note's place: what it sounds there instead, off what was written down. */
  | { readonly code: 'sounds_off'; readonly offCents: number }

/** Where a find that disagrees with the others belongs: another string or tape that it fits, or nowhere. */
export function whereabouts(
  stringing: Stringing,
  marks: readonly TapeMark[],
  find: StringFind,
  written: Note,
): Whereabouts {
  for (const mark of marks)
    for (const [stringIndex, string] of mark.strings.entries()) {
      if (stringIndex === find.stringIndex && midiNumber(string.note) === midiNumber(written)) continue
      const sigma = Math.hypot(placeSigmaMm(stringing, string.cents) ?? 0, PLACE_SIGMA_MM)
      if (Math.abs(string.placeMm - find.placeMm) <= NORMAL_95 * sigma)
        return { code: 'place_of_another', mark, string }
    }
  return {
    code: 'sounds_off',
    offCents: centsOnString(stringing, find.stringIndex, find.placeMm) - find.cents,
  }
}
