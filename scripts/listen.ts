// `npm run listen -- FILE.wav`: what was played, note by note, as a table or as JSON. With --simulate it writes the sound of
// an invented student instead, to try it on.
import { createReadStream, writeFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import {
  Ear,
  familyOf,
  FAMILY_IDS,
  fingerNotes,
  guessNotes,
  mannerOf,
  noteName,
  parseNote,
  perform,
  PLAIN_MANNER,
  placementContext,
  PLAYER_LEVELS,
  readTake,
  record,
  seededSource,
  stringingOf,
  tuningSystem,
  WavStream,
  writeHeardMidi,
  writeWav,
  type ExpectedNote,
  type Finger,
  type HandFaults,
  type HeardNote,
  type Stringing,
  type TakeReading,
} from '../core'
import { wavFaultWords } from './lib/wav-words'

const USAGE = `npm run listen -- FILE.wav [options]

  --instrument violin|viola|cello|bass   violin without it
  --length 328                           its string length, mm; typical of the full size without it
  --system fifths|equal|just:D           what the notes are held against; fifths without it
  --a4 440
  --exercise "D4 E4 F#4 G4"              what was to be played; D4@2.0 names string (1 is the lowest) and finger
  --json                                 everything that was heard, as JSON
  --midi FILE.mid                        the notes with their bends, as a MIDI file
  --simulate                             write FILE.wav: an invented student plays the exercise
  --fault frameErrorMm=-4                of the simulated hand; may be given more than once
  --level beginner|intermediate|trained  of its player
  --stroke bow|pluck  --tempo 80  --noise 40  --seed 1`

const NAMES = ['C', 'C♯', 'D', 'E♭', 'E', 'F', 'F♯', 'G', 'A♭', 'A', 'B♭', 'B'] as const

const { values, positionals } = argumentsOf()

if (values.help) {
  console.log(USAGE)
  process.exit(0)
}

const [file] = positionals
if (!file || positionals.length > 1)
  stop(file ? `One file at a time, not ${positionals.length}.` : 'Name a WAV file.')
const stringing = stringingFrom()
const a4Hz = numberFrom('a4', values.a4, 380, 500)
const expected = values.exercise === undefined ? undefined : exerciseFrom(values.exercise, stringing)
if (values.simulate) simulate(file)
else await listen(file)

function argumentsOf() {
  try {
    return parseArgs({
      allowPositionals: true,
      options: {
        help: { type: 'boolean', short: 'h', default: false },
        instrument: { type: 'string', default: 'violin' },
        length: { type: 'string' },
        system: { type: 'string', default: 'fifths' },
        a4: { type: 'string', default: '440' },
        exercise: { type: 'string' },
        json: { type: 'boolean', default: false },
        midi: { type: 'string' },
        simulate: { type: 'boolean', default: false },
        fault: { type: 'string', multiple: true, default: [] },
        stroke: { type: 'string', default: 'bow' },
        level: { type: 'string' },
        tempo: { type: 'string' },
        noise: { type: 'string', default: '40' },
        seed: { type: 'string', default: '1' },
      },
    })
  } catch (error) {
    stop(error instanceof Error ? error.message : String(error))
  }
}

function stop(message: string): never {
  console.error(`${message}\n\n${USAGE}`)
  process.exit(2)
}

function numberFrom(name: string, text: string, least: number, most: number): number {
  const value = Number(text)
  if (!(value >= least && value <= most))
    stop(`--${name} is a number from ${least} to ${most}, not "${text}".`)
  return value
}

function stringingFrom(): Stringing {
  const id = FAMILY_IDS.find((f) => f === values.instrument)
  if (!id) stop(`--instrument is one of ${FAMILY_IDS.join(', ')}, not "${values.instrument}".`)
  const family = familyOf(id)
  const system = tuningSystem(values.system)
  if (!system) stop(`--system "${values.system}" cannot be read. Say fifths, equal, or just: and a note.`)
  const lengthsMm = values.length === undefined ? undefined : [numberFrom('length', values.length, 100, 1300)]
  return stringingOf({ family, sizeId: family.sizes[0]!.id, system, lengthsMm })
}

function exerciseFrom(text: string, strings: Stringing): ExpectedNote[] {
  const words = text.split(/[\s,]+/).filter(Boolean)
  if (words.length === 0) stop('--exercise names no note.')
  const named = words.map((word) => {
    const [name = '', place] = word.split('@')
    const note = parseNote(name)
    if (!note) stop(`"${name}" is no note. Write them as D4, F#4 or Bb3.`)
    if (place === undefined) return { note }
    const [string, finger] = place.split('.').map(Number)
    if (!(string! >= 1 && string! <= strings.tuning.length && finger! >= 0 && finger! <= 4))
      stop(
        `"${word}": after @ come the string, 1 … ${strings.tuning.length} from the lowest, a dot, and the finger 0 … 4.`,
      )
    return { note, stringIndex: string! - 1, finger: finger! as Finger | 0 }
  })
  const context = placementContext(strings.family, strings.tuning)
  const fingered = fingerNotes(
    context,
    named.map(({ note }) => note),
  )
  return named.map(({ note, stringIndex, finger }, i) => {
    if (stringIndex !== undefined && finger !== undefined)
      return { note, stringIndex, finger, positionId: null }
    if (!fingered.ok)
      stop(`${fingered.note} is out of reach on a ${strings.family.id}. Name its string and finger.`)
    const { stringIndex: on, finger: by, hand } = fingered.notes[i]!
    return { note, stringIndex: on, finger: by, positionId: hand?.position?.id ?? null }
  })
}

function simulate(path: string): void {
  if (!expected) stop('--simulate needs an --exercise to play.')
  if (values.stroke !== 'bow' && values.stroke !== 'pluck')
    stop(`--stroke is bow or pluck, not "${values.stroke}".`)
  const level = PLAYER_LEVELS.find((l) => l === values.level)
  if (values.level !== undefined && !level)
    stop(`--level is one of ${PLAYER_LEVELS.join(', ')}, not "${values.level}".`)
  const manner = level ? mannerOf(level) : PLAIN_MANNER
  const faults: Record<string, unknown> = { ...manner.faults }
  for (const fault of values.fault) {
    const [name = '', amount] = fault.split('=')
    if (typeof faults[name] !== 'number')
      stop(
        `There is no fault "${name}". There are ${Object.keys(manner.faults)
          .filter((k) => typeof faults[k] === 'number')
          .join(', ')}.`,
      )
    faults[name] = numberFrom('fault', amount ?? '', -100, 100)
  }
  const source = seededSource(numberFrom('seed', values.seed, 0, 2 ** 31))
  const performance = perform(
    source,
    stringing,
    { name: { kind: 'shape', shapeId: stringing.family.defaultShapeId, stringIndex: 0 }, notes: expected },
    {
      stroke: values.stroke,
      tempo: values.tempo === undefined ? manner.tempo : numberFrom('tempo', values.tempo, 20, 300),
      faults: faults as unknown as HandFaults,
    },
  )
  const sound = record(source, performance, { a4Hz, noiseDb: numberFrom('noise', values.noise, 0, 120) })
  writeFileSync(path, writeWav(sound, 44_100))
  console.log(`${path}: ${expected.length} notes, ${(sound.length / 44_100).toFixed(1)} s`)
}

async function listen(path: string): Promise<void> {
  const wav = new WavStream()
  let ear: Ear | undefined
  const notes: HeardNote[] = []
  try {
    for await (const bytes of createReadStream(path, { highWaterMark: 1 << 18 })) {
      const block = wav.push(bytes as Buffer)
      if (wav.format) ear ??= new Ear(wav.format.sampleRateHz)
      if (ear) notes.push(...ear.push(block).notes)
      if (wav.fault) break
    }
    if (ear) notes.push(...ear.end().notes)
  } catch (error) {
    stop(`${path} cannot be listened to: ${error instanceof Error ? error.message : String(error)}.`)
  }
  const fault = wav.end()
  if (fault) stop(`${path}: ${wavFaultWords(fault)}`)
  const reading = expected ? readTake(notes, stringing, expected, a4Hz) : undefined
  if (values.midi !== undefined) writeFileSync(values.midi, writeHeardMidi(notes))
  const { missingSamples, clippedSamples, unheardSamples } = wav.oddities
  if (unheardSamples > 0)
    console.error(
      `The header tells of less sound than the file holds: ${unheardSamples} samples at its end were not heard. Save it as WAV anew.`,
    )
  if (missingSamples > 0) console.error(`The file ends ${missingSamples} samples before its header says.`)
  if (clippedSamples > 0) console.error(`${clippedSamples} samples are at full scale: recorded too loud.`)
  if (values.json) {
    const guesses = reading ? undefined : guessNotes(notes, stringing, a4Hz)
    console.log(
      JSON.stringify({ ...wav.format, notes, doubleStops: ear!.doubleStops, reading, guesses }, null, 2),
    )
  } else if (reading) tellReading(reading)
  else tellNotes(notes)
  for (const { startS, endS } of ear!.doubleStops)
    console.log(`Two strings sound together from ${startS.toFixed(2)} to ${endS.toFixed(2)} s: left out.`)
  if (notes.length === 0) console.log('No note was heard.')
}

function tellNotes(notes: readonly HeardNote[]): void {
  const guesses = guessNotes(notes, stringing, a4Hz)
  const rows = notes.map((note, i) => {
    const best = guesses[i]?.[0]
    const place = best && {
      string: noteName(stringing.tuning[best.stringIndex]!, { octave: false }),
      finger: best.finger,
      sure: `${Math.round(100 * best.probability)} %`,
    }
    return { ...times(note), ...absolute(note), ...place, ...manner(note) }
  })
  if (rows.length > 0) console.table(rows)
}

function tellReading(reading: TakeReading): void {
  if (reading.hasCompany) console.log('Somebody seems to talk or play beside.')
  if (reading.octaves !== 0) console.log(`All of it lies ${reading.octaves} octaves off.`)
  else if (reading.isOther)
    console.log('Little of this fits the exercise: another one, another string or another instrument?')
  for (const { stringIndex, cents, sigmaCents } of reading.tuning)
    if (Math.abs(cents) > Math.max(5, 2 * sigmaCents))
      console.log(
        `Your ${noteName(stringing.tuning[stringIndex]!, { octave: false })} is ${Math.abs(cents).toFixed(0)} cents ${cents < 0 ? 'flat' : 'sharp'}: tune first.`,
      )
  const rows = reading.readings.map((r) => ({
    ...times(r.heard),
    note: noteName(r.note),
    string: noteName(stringing.tuning[r.stringIndex]!, { octave: false }),
    finger: r.finger,
    landing: `${signed(r.landingCents)} ± ${r.landingSigmaCents.toFixed(1)}`,
    settled: `${signed(r.settledCents)} ± ${r.settledSigmaCents.toFixed(1)}`,
    how: r.isWrong ? 'wrong note' : (r.doubt ?? r.how),
    ...manner(r.heard),
  }))
  if (rows.length > 0) console.table(rows)
  if (reading.missing.length > 0)
    console.log(`Left out: ${reading.missing.map((i) => noteName(expected![i]!.note)).join(', ')}`)
  if (reading.extra.length > 0) console.log(`Not in the exercise: ${reading.extra.length} notes`)
}

function times({ startS, endS }: HeardNote) {
  return { from: startS.toFixed(2), to: endS.toFixed(2) }
}

function absolute({ landing, settled }: HeardNote) {
  const above = 1200 * Math.log2(a4Hz / 440)
  const semitones = Math.round((settled.cents - above) / 100)
  const name = NAMES[(((69 + semitones) % 12) + 12) % 12]! + (Math.floor((69 + semitones) / 12) - 1)
  const off = (cents: number) => cents - above - 100 * semitones
  return {
    note: name,
    landing: `${signed(off(landing.cents))} ± ${landing.sigmaCents.toFixed(1)}`,
    settled: `${signed(off(settled.cents))} ± ${settled.sigmaCents.toFixed(1)}`,
  }
}

function manner({ vibrato, wobbleCents }: HeardNote) {
  return {
    vibrato: vibrato ? `${vibrato.rateHz.toFixed(1)} Hz, ${vibrato.widthCents.toFixed(0)} cents` : '',
    wobble: wobbleCents.toFixed(1),
  }
}

function signed(cents: number): string {
  return `${cents < 0 ? '−' : '+'}${Math.abs(cents).toFixed(1)}`
}
