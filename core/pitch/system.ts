import { centsToRatio, PURE_FIFTH_CENTS, SYNTONIC_COMMA_CENTS } from './cents'
import { diatonicNumber, fifthsNumber, midiNumber, note, noteName, parseNote, type Note } from './note'
import { readScaleId, scaleDegreeCents, type NamedScale } from './scale'

/**
 * What every tuning system can say of a spelled note. All pitches are in cents above A4, whatever A4 is in Hz:
 * the reference pitch moves no tape.
 */
export interface TuningSystem {
  readonly id: string
  /** Pitch of a stopped note. */
  centsAboveA4(stopped: Note): number
  /** Pitch of an open string as the player tunes it. */
  openCentsAboveA4(open: Note): number
}

/** The ring of open strings is what ears can check, so it is what a studio starts with. */
export const DEFAULT_SYSTEM_ID = 'fifths'

/** ISO 16:1975, Acoustics: standard tuning frequency. */
export const A4_HZ = 440

const A4 = note('A4')

/** Twelve-tone equal temperament: 100 cents a semitone. */
export const equal: TuningSystem = {
  id: 'equal',
  centsAboveA4: (n) => 100 * (midiNumber(n) - midiNumber(A4)),
  openCentsAboveA4: (n) => equal.centsAboveA4(n),
}

/** A chain of pure 3:2 fifths through A, folded back by octaves: what ringing open strings confirm. */
export const fifths: TuningSystem = {
  id: 'fifths',
  centsAboveA4(n) {
    const chain = fifthsNumber(n) - fifthsNumber(A4)
    const octaves = (diatonicNumber(n) - diatonicNumber(A4) - 4 * chain) / 7
    return chain * PURE_FIFTH_CENTS + 1200 * octaves
  },
  openCentsAboveA4: (n) => fifths.centsAboveA4(n),
}

/**
 * Just intonation on a keynote: 9:8, 6:5, 5:4, 4:3, 3:2, 8:5, 5:3, 9:5, 15:8 above it, and on to remoter notes by the
 * same rule. Each group of four neighbours on the line of fifths lies a syntonic comma lower than the chain of fifths
 * from the keynote puts it. The open strings, and with them the keynote, stay in pure fifths.
 * Source: Ellis's duodene in Helmholtz, On the Sensations of Tone, appendix XX.
 */
export function just(keynote: Note): TuningSystem {
  return {
    id: `just:${noteName(keynote, { octave: false })}`,
    centsAboveA4(n) {
      const commas = Math.floor((fifthsNumber(n) - fifthsNumber(keynote) + 1) / 4)
      return fifths.centsAboveA4(n) - commas * SYNTONIC_COMMA_CENTS
    },
    openCentsAboveA4: (n) => fifths.centsAboveA4(n),
  }
}

/** Twelve notes of a scale on a keynote, open strings included: what a Scala file asks for. */
export function scaled(scale: NamedScale): TuningSystem {
  const keynote = note(`${scale.keynote}4`)
  const aboveKeynote = (n: Note) => scaleDegreeCents(scale.cents, midiNumber(n) - midiNumber(keynote))
  const ofA4 = aboveKeynote(A4)
  return {
    id: scale.id,
    centsAboveA4: (n) => aboveKeynote(n) - ofA4,
    openCentsAboveA4: (n) => aboveKeynote(n) - ofA4,
  }
}

/**
 * The system with this id: `fifths`, `equal`, `just:` and a keynote as in `just:G` or `just:B♭`, or a scale of one's own
 * as {@link scaleId} writes it.
 */
export function tuningSystem(id: string): TuningSystem | undefined {
  if (id === 'fifths') return fifths
  if (id === 'equal') return equal
  const scale = readScaleId(id)
  if (scale) return scaled(scale)
  const keynote = id.startsWith('just:') ? parseNote(`${id.slice('just:'.length)}4`) : undefined
  return keynote && just(keynote)
}

/** A system whose id has been checked before it was kept; throws on one that cannot be read. */
export function knownSystem(id: string): TuningSystem {
  const system = tuningSystem(id)
  if (!system) throw new RangeError(`The tuning system “${id}” cannot be read. Choose another one.`)
  return system
}

/** Where a choice of tuning system may have been made: ids, the nearest to the string first. */
export interface SystemChoices {
  /** Of the tapes that lie on the instrument. */
  readonly tapeSet?: string | null | undefined
  readonly student?: string | null | undefined
  readonly studio?: string | null | undefined
}

/**
 * The system that places follow: that of the tapes laid, since the finger meets them; else the student's own; else the
 * studio's. Common practice, no source.
 */
export function governingSystemId({ tapeSet, student, studio }: SystemChoices): string {
  return tapeSet ?? student ?? studio ?? DEFAULT_SYSTEM_ID
}

/** Cents from the open string up to a stopped note on it. */
export function centsAboveOpen(system: TuningSystem, open: Note, stopped: Note): number {
  return system.centsAboveA4(stopped) - system.openCentsAboveA4(open)
}

/**
 * What a meter in equal temperament shows for a note that is exactly right in `system`, in cents.
 * With pure fifths a violin's open G reads −4 and its open E +2.
 */
export function meterCents(system: TuningSystem, n: Note, string: 'open' | 'stopped' = 'stopped'): number {
  const pitch = string === 'open' ? system.openCentsAboveA4(n) : system.centsAboveA4(n)
  return pitch - equal.centsAboveA4(n)
}

/** Frequency of a pitch `centsAboveA4`, in Hz, with A4 at `a4Hz`. */
export function frequencyHz(centsAboveA4: number, a4Hz: number = A4_HZ): number {
  return a4Hz * centsToRatio(centsAboveA4)
}
