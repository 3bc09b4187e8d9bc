import { fingerNotes } from '../fingering'
import { familyOf, type Digit, type Family, type FamilyId, type Position } from '../instrument'
import { keyOf, parseKey, type Key, type ModeId } from '../key'
import { placementContext } from '../pattern'
import { note as named, type Note } from '../pitch'
import {
  clefsFor,
  isShifted,
  techniqueOf,
  writtenNote,
  type Clef,
  type HandPlace,
  type HarmonicPart,
} from '../technique'

/** Note values a line is written in, as parts of a whole note. */
export const VALUES = { quarter: 4, eighth: 8, sixteenth: 16 } as const
export type NoteValue = keyof typeof VALUES

/** A sign before a note: `#`, `b`, `n`, `##`, `bb`. */
export type Sign = '#' | 'b' | 'n' | '##' | 'bb'

/** One note on paper, with what a player reads beside it. */
export interface ScoreNote {
  /** Of its line. */
  readonly index: number
  /** As written, not as it sounds. */
  readonly written: Note
  readonly sounding: Note
  /** The sign before it, beyond the signature; undefined where none is needed. */
  readonly sign: Sign | undefined
  /** A sign that is only a reminder. */
  readonly isCourtesy: boolean
  /** The clef from this note on, where it changes. */
  readonly clef: Clef | undefined
  /** Written an octave lower, under an 8va line. */
  readonly isOttava: boolean
  readonly finger: Digit
  /** A finger of an extended hand that has left its closed place: x before its figure. */
  readonly isExtended: boolean
  /** The string, 1 the highest, where a stopped note comes to another one than before. */
  readonly string: number | undefined
  /** The position, where it changes, and at the first stopped note; null above the last that has a name. */
  readonly position: Position | null | undefined
  /** Where a position has two places by name, as on a cello, which of them. */
  readonly place: 'lower' | 'upper' | undefined
  /** The hand shifts to this note. */
  readonly isShift: boolean
  readonly harmonic: HarmonicPart | undefined
  /** Sounds with it. */
  readonly second: SecondNote | undefined
}

export interface Score {
  readonly family: FamilyId
  readonly clef: Clef
  /** Sharps of the signature, or flats as a negative number; 0 where no signature stands for the key. */
  readonly signs: number
  readonly mode: ModeId
  readonly value: NoteValue
  /** Open strings, lowest first. */
  readonly tuning: readonly Note[]
  readonly bars: readonly (readonly ScoreNote[])[]
}

/** The upper note of two that sound together. */
export type SecondNote = Pick<ScoreNote, 'written' | 'sounding' | 'sign' | 'isCourtesy' | 'finger'>

/** What a line says of each note; the hand where somebody chose it. */
export interface LineNote {
  readonly note: Note
  readonly finger: Digit
  readonly stringIndex?: number
  readonly hand?: HandPlace | undefined
  readonly harmonic?: HarmonicPart | undefined
  /** Sounds with it, on the next string. */
  readonly second?: { readonly note: Note; readonly finger: Digit }
}

const SHARPS_IN_ORDER = 'FCGDAEB'
const SIGNS: Record<string, Sign> = { '-2': 'bb', '-1': 'b', '0': 'n', '1': '#', '2': '##' }
/** Quarter notes in a bar. */
const BEATS = 4

/**
 * Fingered notes as bars of four beats on the clefs that players of the family read; a bass is written an octave above where
 * it sounds. A sign holds to the end of its bar; a note that was altered in the bar before has a reminder that it no longer
 * is. A clef changes where a beam begins.
 */
export function scoreOf(
  familyId: FamilyId,
  key: Key,
  notes: readonly LineNote[],
  value: NoteValue,
  tuning: readonly Note[] = familyOf(familyId).tuning,
): Score {
  const technique = techniqueOf(familyId)
  const written = notes.map(({ note }) => writtenNote(note, technique.writtenOctavesUp))
  const readings = clefsFor(technique.clefs, written, VALUES[value] / VALUES.quarter)
  const signs = signsOf(key, value)
  const marks = marksOf(notes, tuning.length, technique.namesPlaces)
  const all = notes.map(({ note: sounding, finger, harmonic, second }, index): ScoreNote => ({
    index,
    written: written[index]!,
    sounding,
    ...signs(index, written[index]!),
    second: second && secondOf(second, index),
    clef:
      index > 0 && readings[index]!.clef !== readings[index - 1]!.clef ? readings[index]!.clef : undefined,
    isOttava: readings[index]!.isOttava,
    finger,
    harmonic,
    ...marks[index]!,
  }))
  const perBar = notesInBar(value)
  function secondOf({ note, finger }: NonNullable<LineNote['second']>, index: number): SecondNote {
    const upper = writtenNote(note, technique.writtenOctavesUp)
    return { written: upper, sounding: note, finger, ...signs(index, upper) }
  }
  return {
    family: familyId,
    clef: readings[0]?.clef ?? technique.clefs[0]!,
    signs: key.signature ?? 0,
    mode: key.mode.id,
    value,
    tuning,
    bars: Array.from({ length: Math.ceil(all.length / perBar) }, (_, bar) =>
      all.slice(bar * perBar, (bar + 1) * perBar),
    ),
  }
}

function notesInBar(value: NoteValue): number {
  return (BEATS * VALUES[value]) / 4
}

/** The sign of each note in turn: asked for in order. */
function signsOf(key: Key, value: NoteValue) {
  const signature = key.signature ?? 0
  /** In this bar, and those of the bar before that are still to be taken back. */
  let inForce = new Map<string, number>()
  const reminded = new Map<string, number>()
  let bar = 0
  return (index: number, { letter, accidental, octave }: Note): Pick<ScoreNote, 'sign' | 'isCourtesy'> => {
    if (Math.floor(index / notesInBar(value)) > bar) {
      bar = Math.floor(index / notesInBar(value))
      // A melodic minor comes down other than it went up: there each octave is taken back.
      if (!key.mode.fallsAs) reminded.clear()
      for (const [place, last] of inForce) reminded.set(place, last)
      inForce = new Map()
    }
    const place = `${letter}${octave}`
    const own = signatureOf(letter, signature)
    const before = inForce.get(place) ?? own
    inForce.set(place, accidental)
    const last = reminded.get(place)
    reminded.delete(place)
    const needsSign = accidental !== before
    const isCourtesy = !needsSign && last !== undefined && last !== accidental
    return { sign: needsSign || isCourtesy ? SIGNS[String(accidental)] : undefined, isCourtesy }
  }
}

type Marks = Pick<ScoreNote, 'isExtended' | 'string' | 'position' | 'place' | 'isShift'>

/** String, position, shift and extension where they change, not on every note. */
function marksOf(notes: readonly LineNote[], strings: number, namesPlaces: boolean): Marks[] {
  let hand: HandPlace | undefined
  let string: number | undefined
  const extended = extendedFingers(notes)
  return notes.map(({ finger, stringIndex, hand: own }, index) => {
    const isOpen = finger === 0
    const isNewString = !isOpen && stringIndex !== undefined && stringIndex !== string
    // An open string says itself which it is.
    if (stringIndex !== undefined) string = stringIndex
    const stands = isOpen ? undefined : own
    const isShift = isShifted(hand, stands)
    const isNewPosition = stands !== undefined && (hand === undefined || isShift)
    if (stands) hand = stands
    return {
      isExtended: extended.has(index),
      string: isNewString ? strings - stringIndex : undefined,
      position: isNewPosition ? (stands.position ?? null) : undefined,
      place: isNewPosition && namesPlaces ? placeOf(stands) : undefined,
      isShift,
    }
  })
}

/** Of a position with two places; first position has one, and half is its other. */
function placeOf({ position, anchor, extension }: HandPlace): Marks['place'] {
  const [lower, upper] = position?.firstFingerSemitones ?? []
  if (position?.id === 'first' || upper === undefined || extension !== 'none') return undefined
  return anchor === lower ? 'lower' : 'upper'
}

/**
 * Notes whose finger an open hand has taken from its closed place, as players mark them. Back, 1 alone has left it. Forward,
 * the others have: 2 is marked, or where it does not play while the hand stands so, 3 and 4.
 */
function extendedFingers(notes: readonly LineNote[]): ReadonlySet<number> {
  const marked = new Set<number>()
  let standing: number[] = []
  let hand: HandPlace | undefined
  const close = () => {
    const playing = (finger: Digit) => standing.filter((i) => notes[i]!.finger === finger)
    const forward = playing(2).length > 0 ? playing(2) : [...playing(3), ...playing(4)]
    const own = hand?.extension === 'back' ? playing(1) : hand?.extension === 'forward' ? forward : []
    for (const index of own) marked.add(index)
    standing = []
  }
  notes.forEach(({ finger, hand: own }, index) => {
    if (finger === 0 || !own) return
    if (own.anchor !== hand?.anchor || own.holdId !== hand.holdId) close()
    hand = own
    standing.push(index)
  })
  close()
  return marked
}

/**
 * The notes of a take as they were meant, in the key of its exercise; without one in none. An open hand is marked by the fingers
 * that played; positions and shifts are not, for nobody chose them.
 */
export function takeScore(
  { family, tuning }: { readonly family: Family; readonly tuning: readonly Note[] },
  notes: readonly LineNote[],
  keyId: string | undefined,
): Score {
  const parsed = keyId === undefined ? undefined : parseKey(keyId)
  const key = parsed?.ok ? parsed.key : keyOf(named('C4'), 'major')
  const score = scoreOf(family.id, key, notes, 'quarter', tuning)
  if (!family.frames.some(({ opensBack }) => opensBack)) return score
  const played = fingerNotes(placementContext(family, tuning), {
    notes: notes.map(({ note }) => note),
    locks: notes.map(({ finger, stringIndex }, index) => ({ index, finger, stringIndex })),
  })
  if (!played.ok) return score
  const extended = extendedFingers(played.notes)
  const bars = score.bars.map((bar) => bar.map((n) => ({ ...n, isExtended: extended.has(n.index) })))
  return { ...score, bars }
}

/** What the signature does to a letter: 1 a sharp, −1 a flat. */
function signatureOf(letter: string, signs: number): number {
  const sharp = SHARPS_IN_ORDER.indexOf(letter)
  if (signs > 0) return sharp < signs ? 1 : 0
  return 6 - sharp < -signs ? -1 : 0
}
