import { parseMidi } from 'midi-file'
import { describe, expect, it } from 'vitest'
import { note, writeHeardMidi } from '#core'
import { toCsv } from '../files/tables'
import { soundedNotes, takeTable } from './take-files'
import type { TrackNote } from './track-notes'

/** E on the D string of a violin tuned twelve cents low, that landed eight flat and was mended. */
const NOTE: TrackNote = {
  positionId: 'first',
  stringIndex: 1,
  finger: 1,
  note: note('E4'),
  startS: 0.25,
  endS: 1,
  landingCents: -8.04,
  settledCents: -0.96,
  meantCents: -500 - 12,
  isStray: false,
  moments: [],
}

describe('the files of a take', () => {
  it('are a table with its units', () => {
    expect(toCsv(takeTable([NOTE]))).toContain('0.25,1,2,1,"E4",-8,-1')
  })

  it('are a MIDI file that sounds as it sounded, bent to where it landed and settled', () => {
    const { tracks } = parseMidi(writeHeardMidi(soundedNotes([NOTE])))
    const events = tracks[0]!
    expect(events.find((e) => e.type === 'noteOn')).toMatchObject({ noteNumber: 64 })
    const bends = events.flatMap((e) => (e.type === 'pitchBend' ? [e.value] : []))
    // A bend of two semitones fills the wheel: 8192 steps for 200 cents.
    expect(bends.map((b) => (200 * b) / 8192)).toEqual([
      expect.closeTo(-12 - 8.04, 1) as number,
      expect.closeTo(-12 - 0.96, 1) as number,
    ])
  })
})
