import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writeMidi, type MidiEvent } from 'midi-file'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { hearNotes, parseWav, type HeardNote } from '../core'
import { soundPrograms } from './testing/sound-programs'

const folder = mkdtempSync(join(tmpdir(), 'jadefell-sound-'))
let programs: ReturnType<typeof soundPrograms>
beforeAll(() => {
  programs = soundPrograms()
}, 300_000)
afterAll(() => rmSync(folder, { recursive: true }))

function run(program: string, args: readonly string[]): void {
  const done = spawnSync(program, args, { encoding: 'utf8' })
  if (done.status !== 0) throw new Error(`${program} ${args.join(' ')}: ${done.stderr}`)
}

/** One key, held for nine tenths of a second, and how far the wheel bends it. */
interface Bent {
  readonly key: number
  readonly cents: number
}
const EVERY_S = 1.1

/** Notes of a sampled instrument (a program of General MIDI), heard. */
function sampled(program: number, notes: readonly (readonly Bent[])[]): readonly HeardNote[] {
  const events: MidiEvent[] = [
    { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: 500_000 },
    { deltaTime: 0, channel: 0, type: 'programChange', programNumber: program },
  ]
  for (const chord of notes) {
    const value = Math.round((chord[0]!.cents / 200) * 8192)
    events.push({ deltaTime: 200, channel: 0, type: 'pitchBend', value })
    for (const { key } of chord)
      events.push({ deltaTime: 0, channel: 0, type: 'noteOn', noteNumber: key, velocity: 90 })
    chord.forEach(({ key }, i) =>
      events.push({
        deltaTime: i === 0 ? 900 : 0,
        channel: 0,
        type: 'noteOff',
        noteNumber: key,
        velocity: 0,
      }),
    )
  }
  events.push({ deltaTime: 500, meta: true, type: 'endOfTrack' })
  const [midi, wav] = [join(folder, 'notes.mid'), join(folder, 'notes.wav')]
  const header = { format: 0, numTracks: 1, ticksPerBeat: 500 } as const
  writeFileSync(midi, Uint8Array.from(writeMidi({ header, tracks: [events] })))
  const plain = ['-ni', '-q', '-R', '0', '-C', '0', '-g', '0.7', '-r', '44100']
  run(programs.fluidsynth, [...plain, '-F', wav, programs.soundFont, midi])
  const read = parseWav(readFileSync(wav))
  if (!read.ok) throw new Error(read.fault.code)
  return hearNotes(read.samples, read.format.sampleRateHz).notes
}

const BENDS = [0, -50, -20, 15, 35]
const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!

/** By how much the bend that was heard differs from the one that was asked for, note by note. */
function bendErrors(program: number, keys: readonly number[]): number[] {
  const plan = keys.flatMap((key) => BENDS.map((cents) => ({ key, cents })))
  const notes = sampled(
    program,
    plan.map((note) => [note]),
  )
  const centsOf = (i: number) => {
    const at = 0.2 + i * EVERY_S
    const near = notes.filter((n) => n.startS > at - 0.15 && n.startS < at + 0.5)
    const longest = near.sort((a, b) => b.endS - b.startS - (a.endS - a.startS))[0]
    return longest?.settled.cents ?? NaN
  }
  return plan.map(({ cents }, i) => centsOf(i) - centsOf(i - (i % BENDS.length)) - cents)
}

describe('sampled strings of another hand (timgm6mb, played by fluidsynth)', () => {
  it.each([
    ['violin', 40, [55, 69, 83]],
    ['viola', 41, [48, 62, 76]],
    ['cello', 42, [36, 50, 64]],
    ['bass', 43, [28, 33, 43]],
  ] as const)('bowed on a %s are bent by what was asked for, to a cent', (_, program, keys) => {
    for (const error of bendErrors(program, keys)) expect(Math.abs(error)).toBeLessThan(1)
  })

  it('plucked are bent by what was asked for: a section’s many players to some cents', () => {
    const errors = bendErrors(45, [55, 62, 69])
    expect(Math.abs(median(errors))).toBeLessThan(2)
    expect(median(errors.map(Math.abs))).toBeLessThan(4)
  })

  it('are not confused with a piano’s chord, of which no note is told as one', () => {
    const chord = [60, 64, 67].map((key) => ({ key, cents: 0 }))
    const notes = sampled(0, [chord, [{ key: 62, cents: 0 }]])
    const during = notes.filter((n) => n.startS < 1.2 && n.confidence > 0.9 && n.endS - n.startS > 0.3)
    expect(during).toEqual([])
    expect(notes.some((n) => n.startS > 1.2 && Math.abs(n.settled.cents + 700) < 10)).toBe(true)
  })
})

describe('WAV files of another hand (sox)', () => {
  it.each([
    ['8 bits', ['-b', '8', '-e', 'unsigned-integer'], 1],
    ['16 bits', ['-b', '16'], 1],
    ['24 bits, extensible', ['-b', '24'], 0xfffe],
    ['32 bits, extensible', ['-b', '32'], 0xfffe],
    ['floating point', ['-b', '32', '-e', 'floating-point'], 3],
  ] as const)('of %s hold the tone that was written', (_, encoding, tag) => {
    const path = join(folder, 'sox.wav')
    run(programs.sox, [
      '-D',
      '-n',
      '-r',
      '48000',
      '-c',
      '2',
      ...encoding,
      path,
      'synth',
      '1.0',
      'sine',
      '220',
      'vol',
      '0.5',
    ])
    const bytes = readFileSync(path)
    expect(bytes.readUInt16LE(20)).toBe(tag)
    const read = parseWav(bytes)
    if (!read.ok) throw new Error(read.fault.code)
    expect(read.samples).toHaveLength(48_000)
    const power = read.samples.reduce((sum, v) => sum + v * v, 0) / 48_000
    expect(power).toBeCloseTo(0.5 ** 2 / 2, 2)
    const [note] = hearNotes(read.samples, 48_000).notes
    expect(note!.settled.cents).toBeCloseTo(-1200, 0)
  })
})

describe('npm run listen', () => {
  const listen = (...args: string[]) =>
    spawnSync('npx', ['tsx', 'scripts/listen.ts', ...args], { encoding: 'utf8', timeout: 100_000 })
  const exercise = ['--exercise', 'D4 E4 F#4 G4']

  it('hears what its own invented student played, as a table and as JSON, and writes MIDI', () => {
    const [wav, midi] = [join(folder, 'student.wav'), join(folder, 'student.mid')]
    const simulated = listen(wav, '--simulate', ...exercise, '--fault', 'frameErrorMm=-4')
    expect(simulated.stdout).toContain('4 notes')
    const heard = listen(wav, ...exercise, '--json', '--midi', midi)
    const { reading } = JSON.parse(heard.stdout) as { reading: { readings: { landingCents: number }[] } }
    const cents = reading.readings.map((r) => r.landingCents)
    // Four mm narrow at the third finger of three: the last is lowest, the first true.
    expect(Math.abs(cents[1]!)).toBeLessThan(3)
    expect(cents[3]!).toBeLessThan(cents[2]! - 3)
    expect(readFileSync(midi).subarray(0, 4).toString()).toBe('MThd')
  }, 300_000)

  it('says what is wrong and what to do', () => {
    expect(listen('package.json').stderr).toContain('no WAV file. Save the recording as WAV')
    expect(listen('a.wav', '--exercise', 'H4').stderr).toContain('"H4" is no note')
  }, 200_000)
})
