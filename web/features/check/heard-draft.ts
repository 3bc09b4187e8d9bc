import {
  isSamePlace,
  parseNote,
  placesOf,
  recordedNote,
  type Exercise,
  type ExpectedNote,
  type HeardBeside,
  type Landing,
  type PitchTrack,
} from '#core'
import type { ExerciseDraft as CheckExercise, HeardTake } from '#contracts'
import { codedTrack } from '../../charts/coded-track'
import type { HeardSource } from '../../listen/useHearing'

/** Field of a sheet's draft in which a heard take lies beside what is typed. */
export const TAKE_FIELD = 'take'

/** A heard take as it lies here until it is kept; of a free one with the places it was heard on. */
export interface HeardDraft extends HeardTake {
  /** What was said of it: what was not heard, left out, or in the way. */
  readonly told?: string
  readonly line?: readonly SentNote[]
}
type SentNote = Exclude<CheckExercise, { readonly kind: 'shape' }>['notes'][number]

/** A note as it is sent to be kept. */
export function expectedOf({ note: name, positionId = null, ...sent }: SentNote): ExpectedNote[] {
  const note = parseNote(name)
  return note ? [{ ...sent, note, positionId }] : []
}

/** A draft of another version is none. */
export function parseHeard(text: string | undefined): HeardDraft | undefined {
  if (!text) return undefined
  try {
    const take = JSON.parse(text) as HeardDraft
    return Array.isArray(take.notes) ? take : undefined
  } catch {
    return undefined
  }
}

/** Finer than anything is known; a take of half an hour stays small. */
function rounded(value: number): number {
  return Number(value.toFixed(3))
}

export function heardDraftOf(
  landings: readonly Landing[],
  source: HeardSource,
  track: PitchTrack | null,
  { name, notes }: Exercise,
): HeardDraft {
  const places = name.kind === 'free' ? placesOf(landings) : notes
  return {
    source,
    ...(name.kind === 'free' && { line: places.map((place) => recordedNote(place)) }),
    notes: landings.map(({ cents, sigmaCents, atMs, heard, ...expected }) => ({
      finger: expected.finger,
      index: places.findIndex((place) => isSamePlace(place, expected)),
      landingCents: rounded(cents),
      landingSigmaCents: rounded(sigmaCents),
      atMs: atMs ?? 0,
      // All that was heard beside, whatever comes to be told of it.
      ...(Object.fromEntries(
        Object.entries(heard!).map(([name, value]) => [name, rounded(value as number)]),
      ) as unknown as HeardBeside),
    })),
    track: track && codedTrack(track),
  }
}
