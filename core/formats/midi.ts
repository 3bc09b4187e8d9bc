import { writeMidi, type MidiEvent } from 'midi-file'
import type { HeardNote } from '../listen'

/** Semitones that the pitch wheel reaches either way; the General MIDI default, and sent before the notes all the same. */
const BEND_SEMITONES = 2
/** A thousand ticks a second: a tick is a millisecond. */
const TICKS_PER_BEAT = 500
const BEAT_US = 500_000
/** The quietest and loudest stroke, dB of full scale, on a key's 1 … 127. */
const LOUDNESS_DB = { from: -60, to: -6 } as const

/** What a MIDI file tells of a note. */
export interface SoundedNote extends Pick<HeardNote, 'startS' | 'endS' | 'levelDb'> {
  readonly landing: Pick<HeardNote['landing'], 'cents' | 'toS'>
  readonly settled: Pick<HeardNote['settled'], 'cents' | 'fromS'>
}

/**
 * Notes that were heard as a Standard MIDI File of one track, each bent to where it landed and then to where it settled.
 * Source: Standard MIDI Files 1.0 and MIDI 1.0 Detailed Specification (MIDI Association); registered parameter 0 is the
 * range of the bend.
 */
export function writeHeardMidi(notes: readonly SoundedNote[]): Uint8Array {
  const events: { atS: number; event: MidiEvent }[] = []
  const at = (atS: number, event: object) =>
    events.push({ atS, event: { deltaTime: 0, channel: 0, ...event } as MidiEvent })
  const controller = (controllerType: number, value: number) =>
    at(0, { type: 'controller', controllerType, value })
  events.push({ atS: 0, event: { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: BEAT_US } })
  controller(101, 0)
  controller(100, 0)
  controller(6, BEND_SEMITONES)
  controller(38, 0)
  let free = 0
  for (const { startS, endS, landing, settled, levelDb } of notes) {
    // The wheel bends all that sounds: a note ends before the next one begins.
    const from = Math.max(startS, free)
    const to = Math.max(endS, from + 0.001)
    free = to
    const noteNumber = Math.max(0, Math.min(127, Math.round(69 + settled.cents / 100)))
    const bend = (cents: number) => bendOf(cents - 100 * (noteNumber - 69))
    at(from, { type: 'pitchBend', value: bend(landing.cents) })
    at(from, { type: 'noteOn', noteNumber, velocity: velocityOf(levelDb) })
    if (settled.fromS > landing.toS && settled.fromS > from && settled.fromS < to)
      at(settled.fromS, { type: 'pitchBend', value: bend(settled.cents) })
    at(to, { type: 'noteOff', noteNumber, velocity: 0 })
  }
  const last = events.at(-1)!.atS
  events.push({ atS: last, event: { deltaTime: 0, meta: true, type: 'endOfTrack' } })
  let ticks = 0
  const track = events.map(({ atS, event }) => {
    const now = Math.round(1000 * atS)
    const deltaTime = Math.max(0, now - ticks)
    ticks += deltaTime
    return { ...event, deltaTime }
  })
  const header = { format: 0, numTracks: 1, ticksPerBeat: TICKS_PER_BEAT } as const
  return Uint8Array.from(writeMidi({ header, tracks: [track] }))
}

/** −8192 … 8191. */
function bendOf(cents: number): number {
  return Math.max(-8192, Math.min(8191, Math.round((cents / (100 * BEND_SEMITONES)) * 8192)))
}

function velocityOf(levelDb: number): number {
  const { from, to } = LOUDNESS_DB
  return Math.max(1, Math.min(127, Math.round((127 * (levelDb - from)) / (to - from))))
}
