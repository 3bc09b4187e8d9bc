import {
  centsOnString,
  placeOnString,
  readSnapshot,
  type Digit,
  type Stringing,
  type StringingSnapshot,
} from '../instrument'
import { noteName, parseNote, type Note } from '../pitch'
import { targetOf, type ExerciseName, type ExpectedNote } from './exercise'
import type { HeardBeside, Landing } from './landing'
import type { Take } from './take'

/** A note by its name, as records have it. */
type Named<Thing> = Omit<Thing, 'note' | 'positionId'> & {
  readonly note: string
  readonly positionId: string | null
}

/** What an exercise is called where it is kept or sent: its string by the open string's note, as in `D4`. */
export type RecordedName = ByString<ExerciseName>
type ByString<Name> = Name extends { readonly stringIndex: number }
  ? Omit<Name, 'stringIndex'> & { readonly string: string }
  : Name

/** A line as it is kept or sent. */
export type RecordedNote = Named<ExpectedNote>

/** Which string has this open note; undefined where none has. */
export function stringNamed(tuning: readonly Note[], text: string): number | undefined {
  const wanted = parseNote(text)
  const index = tuning.findIndex((open) => wanted && noteName(open) === noteName(wanted))
  return index < 0 ? undefined : index
}

export function recordedName(name: ExerciseName, tuning: readonly Note[]): RecordedName {
  if (!('stringIndex' in name)) return name
  const { stringIndex, ...rest } = name
  return { ...rest, string: noteName(tuning[stringIndex]!) }
}

/** The name that was recorded; undefined where these strings have none such. */
export function nameOfRecord(recorded: RecordedName, tuning: readonly Note[]): ExerciseName | undefined {
  if (!('string' in recorded)) return recorded
  const { string, ...rest } = recorded
  const stringIndex = stringNamed(tuning, string)
  return stringIndex === undefined ? undefined : { ...rest, stringIndex }
}

export function recordedNote({ stringIndex, finger, note, positionId }: ExpectedNote): RecordedNote {
  return { stringIndex, finger, note: noteName(note), positionId }
}

/** A landing as it is kept: one row, with what was heard beside as numbers of its own, null where nothing was. */
export type RecordedLanding = Omit<Named<Landing>, 'finger' | 'heard'> & { readonly finger: number } & {
  readonly [Field in keyof HeardBeside]-?: number | null
}

/** What is heard beside a landing; what is not `always` known is left out where it is not. */
const HEARD: Readonly<Record<keyof HeardBeside, 'always' | 'perhaps'>> = {
  settledCents: 'always',
  settledSigmaCents: 'always',
  lastsMs: 'always',
  confidence: 'always',
  wobbleCents: 'perhaps',
  brightnessDb: 'perhaps',
  vibratoWidthCents: 'perhaps',
  vibratoTopCents: 'perhaps',
}
const HEARD_FIELDS = Object.keys(HEARD) as readonly (keyof HeardBeside)[]

export function recordedLanding(landing: Landing): RecordedLanding {
  const { stringIndex, finger, note, positionId, placeMm, cents, sigmaCents, atMs, source, heard } = landing
  const beside = Object.fromEntries(
    HEARD_FIELDS.map((field) => [field, heard?.[field] ?? null]),
  ) as unknown as Pick<RecordedLanding, keyof HeardBeside>
  return {
    ...recordedNote({ stringIndex, finger, note, positionId }),
    placeMm,
    cents,
    sigmaCents,
    atMs,
    source,
    ...beside,
  }
}

/** What was heard beside a landing that was kept; null of one that nobody heard. */
export function heardOfRecord(record: RecordedLanding): HeardBeside | null {
  if (HEARD_FIELDS.some((field) => HEARD[field] === 'always' && record[field] === null)) return null
  const known = HEARD_FIELDS.filter((field) => record[field] !== null)
  return Object.fromEntries(known.map((field) => [field, record[field]])) as unknown as HeardBeside
}

/** A take in names and numbers, as it is kept. */
export interface TakeRecord {
  readonly stringing: StringingSnapshot | null
  readonly exercise: (RecordedName & { readonly notes: readonly RecordedNote[] }) | null
  readonly landings: readonly (Omit<Named<Landing>, 'finger'> & { readonly finger: number })[]
  readonly tapesMm?: readonly number[] | null | undefined
}

/** The take that a record was made of; undefined of one that can no longer be read. */
export function takeOfRecord(record: TakeRecord): Take | undefined {
  if (!record.stringing || !record.exercise) return undefined
  const read = readSnapshot(record.stringing)
  if (!read.ok) return undefined
  const { stringing } = read
  const { notes, ...recorded } = record.exercise
  const name = nameOfRecord(recorded, stringing.tuning)
  if (!name) return undefined
  return {
    stringing,
    exercise: { name, notes: notes.flatMap(withNote) },
    landings: record.landings.flatMap((landing) =>
      withNote(landing).map((read) => ({ ...read, finger: landing.finger as Digit })),
    ),
    tapesMm: record.tapesMm ?? [],
  }
}

function withNote<Thing extends { readonly note: string }>(thing: Thing) {
  const note = parseNote(thing.note)
  return note ? [{ ...thing, note }] : []
}

/**
 * Landings on the same instrument once its lengths are known better: what was heard or metered keeps its pitch and moves on the
 * string, what was measured or seen keeps its place and changes its pitch.
 */
export function landingsOnto(stringing: Stringing, landings: readonly Landing[]): Landing[] {
  return landings.map((landing) => {
    const { stringIndex, finger, placeMm, source } = landing
    if (finger === 0) return landing
    const target = targetOf(stringing, {
      stringIndex,
      finger,
      note: landing.note,
      positionId: landing.positionId,
    })
    if (source === 'ruler' || source === 'eye')
      return { ...landing, cents: centsOnString(stringing, stringIndex, placeMm) - target.cents }
    return { ...landing, placeMm: placeOnString(stringing, stringIndex, target.cents + landing.cents) }
  })
}
