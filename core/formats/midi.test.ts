import JZZ from 'jzz'
import smf from 'jzz-midi-smf'
import { describe, expect, it } from 'vitest'
import type { HeardNote } from '../listen'
import { writeHeardMidi } from './midi'

smf(JZZ)

function heardNote(startS: number, landingCents: number, settledCents: number, levelDb = -20): HeardNote {
  const pitch = (cents: number, fromS: number) => ({ cents, sigmaCents: 1, fromS, toS: fromS + 0.1 })
  return {
    startS,
    endS: startS + 0.9,
    landing: pitch(landingCents, startS + 0.05),
    settled: pitch(settledCents, startS + 0.5),
    glideCents: settledCents - landingCents,
    vibrato: null,
    wobbleCents: 0,
    driftCentsPerS: 0,
    levelDb,
    begins: 'freely',
    confidence: 1,
    brightnessDb: 0,
  }
}

interface SmfFile {
  readonly ppqn: number
  readonly [track: number]: Iterable<Iterable<number> & { readonly tt: number; readonly ff?: number }>
}

/** The file as another library plays it: time in ms, and each message's bytes. */
function played(bytes: Uint8Array): (readonly [ms: number, ...message: number[]])[] {
  const { SMF } = JZZ.MIDI as unknown as { SMF: new (bytes: string) => SmfFile }
  const file = new SMF(String.fromCharCode(...bytes))
  const ticksPerS = file.ppqn * 2
  return [...file[0]!]
    .filter((m) => m.ff === undefined)
    .map((m) => [(1000 * m.tt) / ticksPerS, ...m] as const)
}

describe('heard notes as MIDI', () => {
  it('are keys with bends to where they landed and settled, to the millisecond, read by another library', () => {
    const messages = played(writeHeardMidi([heardNote(0.5, -230, -205), heardNote(1.4, 3, 0)]))
    const bends = messages
      .filter(([, status]) => status === 0xe0)
      .map(([ms, , low, high]) => [ms, low! + 128 * high! - 8192])
    // 200 cents are 8192 steps: A4 less two semitones is 67, landed 30 cents under it.
    expect(bends).toEqual([
      [500, Math.round((-30 / 200) * 8192)],
      [1000, Math.round((-5 / 200) * 8192)],
      [1400, Math.round((3 / 200) * 8192)],
      [1900, 0],
    ])
    const keys = messages.filter(([, status]) => status === 0x90 || status === 0x80)
    expect(keys.map(([ms, status, key]) => [ms, status, key])).toEqual([
      [500, 0x90, 67],
      [1400, 0x80, 67],
      [1400, 0x90, 69],
      [2300, 0x80, 69],
    ])
    // The wheel's range is set before the first note: registered parameter 0, two semitones.
    expect(messages.slice(0, 3).map(([, ...m]) => m)).toEqual([
      [0xb0, 101, 0],
      [0xb0, 100, 0],
      [0xb0, 6, 2],
    ])
  })

  it('never overlap, and stay within a key’s range', () => {
    const messages = played(writeHeardMidi([heardNote(0, 0, 0, 5), heardNote(0.4, -9000, -9000, -90)]))
    const keys = messages.filter(([, status]) => status === 0x90 || status === 0x80)
    expect(keys.map(([, status]) => status)).toEqual([0x90, 0x80, 0x90, 0x80])
    expect(keys[0]![3]).toBe(127)
    expect(keys[2]!.slice(2)).toEqual([0, 1])
  })

  it('of no notes are an empty track', () => {
    expect(played(writeHeardMidi([])).every(([, status]) => status === 0xb0)).toBe(true)
  })
})
