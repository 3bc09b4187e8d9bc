import { THUMB, type Digit, type FamilyId } from '../instrument'
import { fingerNotes, type Lock } from '../fingering'
import { diatonicNumber, midiNumber, noteName, parseNote, type Note } from '../pitch'
import type { ExpectedNote } from '../take'
import type { PlacementContext } from '../technique'

/** A note of a written line, and where in the text it stands. */
export interface WrittenNote {
  readonly note: Note
  /** The finger that its writer asks for. */
  readonly finger: Digit | undefined
  /** Number of its first letter in the text, from 0, and how many letters it has. */
  readonly at: number
  readonly length: number
}

/** What is wrong with a written line, and at which letter. */
export type WrittenFault = { readonly at: number; readonly length: number } & (
  | { readonly code: 'not_a_note' | 'not_a_finger'; readonly text: string }
  | { readonly code: 'too_long'; readonly most: number }
  | { readonly code: 'too_low' | 'too_high'; readonly note: string }
  /** With the finger that is asked for, or with any. */
  | { readonly code: 'no_finger'; readonly note: string; readonly isAsked: boolean }
)

export type Written =
  | { readonly ok: true; readonly notes: readonly WrittenNote[] }
  | { readonly ok: false; readonly fault: WrittenFault }

/** More notes are a piece, and no exercise. Chosen. */
export const MOST_WRITTEN = 64
const WORD = /[^\s|,]+/g
/** Letters from one note to the nearest of a name: a fourth at most. */
const NEAREST_STEPS = 3
const OCTAVE_STEPS = 7

/**
 * A line as a teacher writes it: notes by their letters, spaces, commas or bar lines between them, as in `D4 E F# G | A4/4`. A sharp is
 * `#` or `♯`, a flat `b` or `♭`, B natural is `B` whatever names the studio shows. Without an octave (of scientific pitch notation) a
 * note is the one nearest to the note before, the first one the lowest that is not below `lowest`. A finger may follow a slash: `/0` to
 * `/4`, `/T` for the thumb. The form is this project’s own (docs/trade.md § 8).
 *
 * @param lowest the lowest note of the instrument
 */
export function parseWritten(text: string, lowest: Note): Written {
  const notes: WrittenNote[] = []
  for (const { 0: word, index: at } of text.matchAll(WORD)) {
    const place = { at, length: word.length }
    if (notes.length === MOST_WRITTEN)
      return { ok: false, fault: { code: 'too_long', most: MOST_WRITTEN, ...place } }
    const [name = '', finger, ...more] = word.split('/')
    const note = /\d$/.test(name) ? parseNote(name) : nearest(name, notes.at(-1)?.note, lowest)
    if (!note) return { ok: false, fault: { code: 'not_a_note', text: name, at, length: name.length || 1 } }
    const digit = finger === undefined ? undefined : digitOf(finger)
    if (more.length > 0 || (finger !== undefined && digit === undefined))
      return {
        ok: false,
        fault: {
          code: 'not_a_finger',
          text: [finger, ...more].join('/'),
          at: at + name.length,
          length: word.length - name.length,
        },
      }
    notes.push({ note, finger: digit, ...place })
  }
  return { ok: true, notes }
}

function digitOf(text: string): Digit | undefined {
  if (/^[0-4]$/.test(text)) return Number(text) as Digit
  return /^t$/i.test(text) ? THUMB : undefined
}

function nearest(name: string, before: Note | undefined, lowest: Note): Note | undefined {
  const read = parseNote(`${name}0`)
  if (!read) return undefined
  if (!before) {
    const octaves = Math.ceil((midiNumber(lowest) - midiNumber(read)) / 12)
    return { ...read, octave: Math.max(0, octaves) }
  }
  const apart = diatonicNumber(before) + NEAREST_STEPS - diatonicNumber(read)
  return { ...read, octave: Math.floor(apart / OCTAVE_STEPS) }
}

/** A line as it is written; what {@link parseWritten} makes of it is the same line. */
export function writtenText(notes: readonly Pick<WrittenNote, 'note' | 'finger'>[]): string {
  return notes
    .map(
      ({ note, finger }) =>
        `${noteName(note)}${finger === undefined ? '' : `/${finger === THUMB ? 'T' : finger}`}`,
    )
    .join(' ')
}

/** The line on the strings of the instrument that it is written for: its fingers stand, the others are found round them. */
export function fingerWritten(
  context: PlacementContext,
  notes: readonly WrittenNote[],
):
  | { readonly ok: true; readonly notes: readonly ExpectedNote[] }
  | { readonly ok: false; readonly fault: WrittenFault } {
  for (const { note, at, length } of notes) {
    const code = outside(context, note)
    if (code) return { ok: false, fault: { code, note: noteName(note), at, length } }
  }
  const locks = notes.flatMap(({ finger }, index): Lock[] =>
    finger === undefined ? [] : [{ index, finger }],
  )
  const made = fingered(context, notes, locks)
  if (made.ok) return { ok: true, notes: made.notes }
  const { at, length, finger } = notes[made.index]!
  return {
    ok: false,
    fault: { code: 'no_finger', note: made.note, isAsked: finger !== undefined, at, length },
  }
}

function outside({ openMidis, lastSemitone }: PlacementContext, note: Note) {
  const midi = midiNumber(note)
  if (midi < openMidis[0]!) return 'too_low'
  return midi > openMidis.at(-1)! + lastSemitone ? 'too_high' : undefined
}

function fingered(
  context: PlacementContext,
  notes: readonly Pick<WrittenNote, 'note'>[],
  locks: readonly Lock[] = [],
) {
  const made = fingerNotes(context, { notes: notes.map(({ note }) => note), locks })
  if (!made.ok)
    return { ok: false, note: made.note, index: 'lock' in made ? made.lock.index : made.index } as const
  return {
    ok: true,
    effort: made.effort,
    notes: made.notes.map(({ stringIndex, finger, note, hand }): ExpectedNote => ({
      stringIndex,
      finger,
      note,
      positionId: finger === 0 ? null : (hand?.position?.id ?? null),
    })),
  } as const
}

/** Octaves that a line is moved by for another instrument, the nearest first; of the same effort the nearest counts. */
const OCTAVES = [0, -1, 1, -2, 2, -3, 3]

/**
 * A line for an instrument: as written for its own family, for another in the octave in which it lies easiest there, with fingers of that
 * hand; so that a class of violins and cellos plays it together. Undefined where no octave has all of it.
 */
export function writtenFor(
  context: PlacementContext,
  text: string,
  lowest: Note,
  writtenForId: FamilyId,
): readonly ExpectedNote[] | undefined {
  const read = parseWritten(text, lowest)
  if (!read.ok || read.notes.length === 0) return undefined
  const isOwn = context.family.id === writtenForId
  if (isOwn) {
    const own = fingerWritten(context, read.notes)
    if (own.ok) return own.notes
  }
  let best: Extract<ReturnType<typeof fingered>, { ok: true }> | undefined
  // Strings tuned otherwise may not have the written fingers: the notes stay where they are all the same.
  for (const by of isOwn ? [0] : OCTAVES) {
    const moved = read.notes.map(({ note }) => ({ note: { ...note, octave: note.octave + by } }))
    if (moved.some(({ note }) => outside(context, note))) continue
    const made = fingered(context, moved)
    if (made.ok && (!best || made.effort < best.effort)) best = made
  }
  return best?.notes
}
