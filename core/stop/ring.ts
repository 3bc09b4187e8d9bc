import { centsAboveOpen, ratioToCents, type Note, type TuningSystem } from '../pitch'

/** Which partials meet: the `stopped`-th of the stopped note and the `open`-th of the open string. */
interface Meeting {
  readonly kind: RingKind
  readonly stopped: number
  readonly open: number
}

export type RingKind =
  | 'unison'
  | 'octave'
  | 'twelfth'
  | 'double_octave'
  | 'double_octave_third'
  | 'double_octave_fifth'
  | 'triple_octave'
  | 'fifth'

/** A stopped note that sets an open string ringing. */
export interface Ring {
  /** Index of the open string that answers. */
  readonly stringIndex: number
  readonly open: Note
  readonly kind: RingKind
  /** The stopped note is the higher of the two. */
  readonly isAbove: boolean
  /** How far the meeting partials are apart, cents; sharp is a stopped note that lies above. */
  readonly offCents: number
  /** 1 for a unison that is exact; falls with the partials' numbers and with their distance. */
  readonly strength: number
}

/**
 * The intervals at which open strings answer audibly: those with a strength of {@link AUDIBLE_STRENGTH} where they are exact.
 * A fourth (3:4), a tenth (2:5) and the seventh partial are left out: a violin's 1 on A (B) and on E (F♯) have no string that
 * rings. Common practice, no source; the kinds are Helmholtz's consonances.
 */
const MEETINGS: readonly Meeting[] = [
  { kind: 'unison', stopped: 1, open: 1 },
  { kind: 'octave', stopped: 1, open: 2 },
  { kind: 'octave', stopped: 2, open: 1 },
  { kind: 'twelfth', stopped: 1, open: 3 },
  { kind: 'twelfth', stopped: 3, open: 1 },
  { kind: 'double_octave', stopped: 1, open: 4 },
  { kind: 'double_octave', stopped: 4, open: 1 },
  { kind: 'double_octave_third', stopped: 1, open: 5 },
  { kind: 'double_octave_third', stopped: 5, open: 1 },
  { kind: 'double_octave_fifth', stopped: 1, open: 6 },
  { kind: 'double_octave_fifth', stopped: 6, open: 1 },
  { kind: 'triple_octave', stopped: 1, open: 8 },
  { kind: 'triple_octave', stopped: 8, open: 1 },
  { kind: 'fifth', stopped: 2, open: 3 },
  { kind: 'fifth', stopped: 3, open: 2 },
]

/** Partials this far apart ring half as strongly as in unison. From memory. */
const HALF_WIDTH_CENTS = 4
/** Further apart nothing rings, but a comma away a teacher asks why: {@link Ring} says how far. */
const NEAR_CENTS = 30
/** Weaker than this nobody hears it beside a bow. */
export const AUDIBLE_STRENGTH = 0.1
/** From here on the bow shows it at once. */
export const STRONG_STRENGTH = 0.4

/**
 * The open strings that answer a note stopped on string `stringIndex`, strongest first, for any tuning: a low partial of
 * one meets a low partial of the other. Partials are taken to fall as 1/n, so a meeting counts 1/(m·n).
 * Derived; source of the partials: Helmholtz, On the Sensations of Tone.
 */
export function ringsOf(
  tuning: readonly Note[],
  stringIndex: number,
  stopped: Note,
  system: TuningSystem,
): Ring[] {
  const pitch = system.centsAboveA4(stopped)
  return tuning
    .flatMap((open, index) => {
      if (index === stringIndex) return []
      const above = pitch - system.openCentsAboveA4(open)
      return MEETINGS.flatMap(({ kind, stopped: m, open: n }) => {
        const offCents = above - ratioToCents(n / m)
        if (Math.abs(offCents) > NEAR_CENTS) return []
        const closeness = 1 / (1 + (offCents / HALF_WIDTH_CENTS) ** 2)
        return [{ stringIndex: index, open, kind, isAbove: n > m, offCents, strength: closeness / (m * n) }]
      })
    })
    .sort((a, b) => b.strength - a.strength || a.stringIndex - b.stringIndex)
}

/** The string on which a note above the open strings is best found by ring, and the ring to listen for. */
export interface RingCheck {
  readonly stringIndex: number
  readonly stopped: Note
  readonly cents: number
  readonly rings: readonly Ring[]
}

/** A mark's ring on every string where something audible answers, strongest first. */
export function ringChecks(
  tuning: readonly Note[],
  stoppedNotes: readonly Note[],
  system: TuningSystem,
): RingCheck[] {
  return stoppedNotes
    .map((stopped, stringIndex) => ({
      stringIndex,
      stopped,
      cents: centsAboveOpen(system, tuning[stringIndex] ?? stopped, stopped),
      rings: ringsOf(tuning, stringIndex, stopped, system),
    }))
    .filter(({ rings }) => (rings[0]?.strength ?? 0) >= AUDIBLE_STRENGTH)
    .sort((a, b) => (b.rings[0]?.strength ?? 0) - (a.rings[0]?.strength ?? 0))
}
