import {
  encodeTrack,
  isSamePlace,
  landingsOf,
  perform,
  playedNotes,
  readTake,
  record,
  seededSource,
  STEADY_HAND,
  TakeListener,
  type Exercise,
  type PlayerFaults,
  type Stringing,
} from '#core'
import type { HandlerInput } from '#contracts'

type Heard = NonNullable<HandlerInput<'checks.create'>['body']['heard']>

const RATE_HZ = 22_050
const NOTES_PER_MINUTE = 120

/** A take of an exercise as a microphone would have brought it: played with these faults, made to sound, and listened to. */
export function heardTake(
  seed: number,
  stringing: Stringing,
  exercise: Exercise,
  faults: PlayerFaults,
): Heard {
  const line = { ...exercise, notes: playedNotes(exercise) }
  const performance = perform(seededSource(seed), stringing, line, {
    tempo: NOTES_PER_MINUTE,
    faults: { ...STEADY_HAND, ...faults, repairs: 0.4, wobbleCents: 2 },
  })
  const listener = new TakeListener(RATE_HZ)
  listener.push(record(seededSource(seed + 1), performance, { sampleRateHz: RATE_HZ }))
  const { notes, track } = listener.end()
  const landings = landingsOf(stringing, readTake(notes, stringing, line.notes), 'microphone')
  return {
    source: 'microphone',
    notes: landings.map((landing) => ({
      finger: landing.finger,
      index: exercise.notes.findIndex((note) => isSamePlace(note, landing)),
      landingCents: landing.cents,
      landingSigmaCents: landing.sigmaCents,
      atMs: landing.atMs ?? 0,
      ...landing.heard!,
    })),
    track: Buffer.from(encodeTrack(track)).toString('base64'),
  }
}
