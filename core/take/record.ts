import {
  centsOnString,
  placeOnString,
  readSnapshot,
  type Digit,
  type Stringing,
  type StringingSnapshot,
} from '../instrument'
import { noteName, parseNote } from '../pitch'
import { targetOf, type Exercise, type ExerciseName, type ExpectedNote } from './exercise'
import type { Landing } from './landing'
import type { Take } from './take'

/** A note by its name, as records have it. */
type Named<Thing> = Omit<Thing, 'note' | 'positionId'> & {
  readonly note: string
  readonly positionId: string | null
}

/** A take in names and numbers, as it is kept. */
export interface TakeRecord {
  readonly stringing: StringingSnapshot | null
  readonly exercise:
    | ({ readonly kind: ExerciseName['kind']; readonly string?: string } & {
        readonly notes: readonly Named<ExpectedNote>[]
      })
    | null
  readonly landings: readonly (Omit<Named<Landing>, 'finger'> & { readonly finger: number })[]
  readonly tapesMm?: readonly number[] | null | undefined
}

/** The take that a record was made of; undefined of one that can no longer be read. */
export function takeOfRecord(record: TakeRecord): Take | undefined {
  if (!record.stringing || !record.exercise) return undefined
  const read = readSnapshot(record.stringing)
  if (!read.ok) return undefined
  const { stringing } = read
  const { notes, ...name } = record.exercise
  const stringIndex = stringing.tuning.findIndex((open) => noteName(open) === name.string)
  return {
    stringing,
    exercise: {
      // Whatever else a name says, the record has with it.
      name: { ...name, ...(name.string !== undefined && { stringIndex }) } as unknown as Exercise['name'],
      notes: notes.flatMap(withNote),
    },
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
