import { describe, expect, it } from 'vitest'
import type { FamilyId } from '../instrument'
import { noteName } from '../pitch'
import {
  bowedPartials,
  perform,
  record,
  renderTone,
  seededSource,
  STEADY_HAND,
  type HandFaults,
  type Manner,
  type Recording,
} from '../simulate'
import { shapeExercise, type Exercise } from '../take'
import { shaped, strung } from '../testing'
import { Ear, guessNotes, hearNotes, landingsOf, readFreeTake, readTake } from './index'

const LENGTHS: Record<FamilyId, number> = { violin: 328, viola: 371, cello: 690, bass: 1050 }
const RATE = 22_050

/** A hand shape on two neighbouring strings, up and down, the last note twice. */
function exerciseOf(family: FamilyId, stringIndex = 1): Exercise {
  const [up, next] = [shaped(family, stringIndex), shaped(family, stringIndex + 1)]
  return { ...up, notes: [...up.notes, ...next.notes, ...[...up.notes].reverse(), up.notes[0]!] }
}

function playedBy(
  family: FamilyId,
  manner: Partial<Manner> & { readonly hand?: Partial<HandFaults> },
  { exercise = exerciseOf(family), ...recording }: Partial<Recording> & { readonly exercise?: Exercise } = {},
) {
  const stringing = strung(family, LENGTHS[family])
  const source = seededSource(31)
  const { hand, ...rest } = manner
  const performance = perform(source, stringing, exercise, { ...rest, faults: { ...STEADY_HAND, ...hand } })
  const sound = record(source, performance, { sampleRateHz: RATE, noiseDb: 30, ...recording })
  const { notes, doubleStops } = hearNotes(sound, RATE)
  return { stringing, exercise, performance, sound, notes, doubleStops }
}

describe('a take that is heard', () => {
  it.each([
    ['violin', 'bow', 1],
    ['viola', 'bow', 3],
    ['cello', 'bow', 2],
    ['bass', 'bow', 1],
    ['violin', 'pluck', 1],
    ['cello', 'pluck', 1],
    ['bass', 'pluck', 1],
  ] as const)(
    'by %s with the %s, %i notes a stroke, has the notes that were played, where they landed and settled',
    (family, stroke, slurred) => {
      const { performance, notes } = playedBy(family, {
        stroke,
        slurred,
        tempo: 75,
        hand: { scatterCents: 12, repairs: stroke === 'bow' ? 0.6 : 0, handOffsetMm: 1 },
      })
      expect(notes).toHaveLength(performance.notes.length)
      performance.notes.forEach((played, i) => {
        const { startS, landing, settled } = notes[i]!
        expect(Math.abs(startS - played.startS)).toBeLessThan(0.05)
        // A bass shakes and scoops; what is left of that is in its ±.
        const off = Math.abs(landing.cents - played.writtenCents - played.landingCents)
        expect(off).toBeLessThan(Math.max(family === 'bass' ? 4 : 3, 3 * landing.sigmaCents))
        expect(Math.abs(settled.cents - played.writtenCents - played.settledCents)).toBeLessThan(3)
      })
    },
  )

  it('comes out the same block by block, with the sounding note told on the way', () => {
    const { sound, notes } = playedBy('violin', { tempo: 120 }, { exercise: shaped('violin') })
    const ear = new Ear(RATE)
    const heard = []
    const sounding = new Set<number>()
    for (let i = 0; i < sound.length; i += 128) {
      heard.push(...ear.push(sound.subarray(i, i + 128)).notes)
      if (ear.sounding) sounding.add(Math.round(ear.sounding.landing.cents / 100) + 0)
    }
    expect([...heard, ...ear.end().notes]).toEqual(notes)
    expect([...sounding]).toEqual(expect.arrayContaining([0, 2, 4, 5, 7]))
  })

  it('has vibratos with their rate, width and top: one from the note downwards, one that swings above', () => {
    const vibratoOf = (aboveCents: number) => {
      const vibrato = { rateHz: 5.5, widthCents: 36, aboveCents }
      const { notes, performance } = playedBy('cello', { vibrato, tempo: 40 }, { exercise: shaped('cello') })
      return performance.notes.flatMap((played, i) => {
        const swing = notes[i]!.vibrato
        return played.finger === 0 ? [] : [{ ...swing!, top: swing!.topCents - played.writtenCents }]
      })
    }
    for (const above of [0, 15]) {
      const found = vibratoOf(above)
      expect(found).toHaveLength(4)
      for (const { rateHz, widthCents, top } of found) {
        expect(rateHz).toBeCloseTo(5.5, 0)
        expect(Math.abs(widthCents - 36)).toBeLessThan(8)
        expect(Math.abs(top - above)).toBeLessThan(4)
      }
    }
  })

  it('tells a finger that gives way from one that stands', () => {
    const wobbleOf = (wobbleCents: number) => {
      const { notes } = playedBy(
        'violin',
        { tempo: 40, hand: { wobbleCents } },
        { exercise: shaped('violin') },
      )
      return notes.slice(1).map((note) => note.wobbleCents)
    }
    expect(Math.min(...wobbleOf(12))).toBeGreaterThan(3 * Math.max(...wobbleOf(0)))
  })
})

describe('what is no plain note', () => {
  const RATE_S = 1 / RATE
  const tones = (...hz: readonly ((atS: number) => number)[]) => {
    const sounds = hz.map((frequencyHz, i) =>
      renderTone(
        {
          sampleRateHz: RATE,
          seconds: 1.2,
          frequencyHz,
          partials: bowedPartials('violin', frequencyHz(0), 9000).map((a) => a / 10),
        },
        seededSource(i + 1),
      ),
    )
    return sounds[0]!.map((_, n) => sounds.reduce((sum, sound) => sum + sound[n]!, 0))
  }
  const fixed = (hz: number) => () => hz

  it('is a double stop: reported with its time, and no note is told of it', () => {
    const { notes, doubleStops } = hearNotes(tones(fixed(293.66), fixed(440.5)), RATE)
    expect(notes).toEqual([])
    expect(doubleStops).toHaveLength(1)
    expect(doubleStops[0]!.endS - doubleStops[0]!.startS).toBeGreaterThan(0.9)
  })

  it('is a pitch that sinks while it is held, and begins with the first sample at the earliest', () => {
    const { notes } = hearNotes(
      tones((atS) => 440 * 2 ** ((-12 * atS) / 1200)),
      RATE,
    )
    expect(notes).toHaveLength(1)
    expect(notes[0]!.driftCentsPerS).toBeCloseTo(-12, 0)
    expect(notes[0]!.startS).toBeGreaterThanOrEqual(0)
    expect(notes[0]!.endS).toBeLessThan(1.2 + 1000 * RATE_S)
  })

  it('is a rest: notes end where the bow leaves them', () => {
    const { performance, notes } = playedBy('viola', { rest: 0.4, tempo: 60 }, { exercise: shaped('viola') })
    expect(notes).toHaveLength(performance.notes.length)
    performance.notes.forEach((played, i) =>
      expect(Math.abs(notes[i]!.endS - played.endS)).toBeLessThan(0.15),
    )
  })

  it('is one note again on its own pitch', () => {
    const { notes } = playedBy('violin', { stroke: 'pluck' })
    expect(notes.at(-1)!.begins).toBe('again')
    expect(notes[0]!.begins).toBe('freely')
  })
})

describe('a reading', () => {
  const exercise = exerciseOf('violin', 1)

  it('tells a string that is out of tune, and blames no finger on it', () => {
    const { stringing, notes } = playedBy('violin', { hand: { openCents: [0, -14, 0, 0] } }, { exercise })
    const reading = readTake(notes, stringing, exercise.notes)
    const tuned = Object.fromEntries(
      reading.tuning.map((t) => [noteName(stringing.tuning[t.stringIndex]!), t.cents]),
    )
    expect(tuned['D4']).toBeCloseTo(-14, 0)
    expect(tuned['A4']).toBeCloseTo(0, 0)
    for (const { finger, landingCents } of reading.readings)
      if (finger !== 0) expect(Math.abs(landingCents)).toBeLessThan(2)
  })

  it('is of landings that a verdict can judge: where each finger stood, with its ±', () => {
    const { stringing, performance, notes } = playedBy('violin', { hand: { frameErrorMm: -4 } }, { exercise })
    const landings = landingsOf(stringing, readTake(notes, stringing, exercise.notes), 'simulated')
    expect(landings).toHaveLength(performance.notes.length)
    landings.forEach((landing, i) => {
      // An attack’s scoop leaves a cent or two.
      expect(Math.abs(landing.cents - performance.notes[i]!.landingCents)).toBeLessThan(3)
      expect(landing.sigmaCents).toBeLessThan(2)
      expect(landing.atMs).toBeGreaterThan(0)
    })
  })

  it('follows strings tuned to another A', () => {
    const { stringing, notes } = playedBy('viola', {}, { exercise: exerciseOf('viola'), a4Hz: 443 })
    const reading = readTake(notes, stringing, exerciseOf('viola').notes, 443)
    expect(reading.isOther).toBe(false)
    for (const { landingCents } of reading.readings) expect(Math.abs(landingCents)).toBeLessThan(3)
  })

  it('says that another exercise, another string or another octave was played', () => {
    const { stringing, notes } = playedBy('violin', {}, { exercise })
    expect(readTake(notes, stringing, shaped('violin', 0).notes).isOther).toBe(true)
    const cello = strung('cello', 690)
    const low = exercise.notes.map((n) => ({ ...n, note: { ...n.note, octave: n.note.octave - 1 } }))
    // Another string or another instrument: no finger is judged an octave away.
    expect(readTake(notes, { ...stringing, tuning: lowered(stringing.tuning) }, low)).toMatchObject({
      octaves: 1,
      isOther: true,
    })
    expect(readTake([], cello, shapeExercise(cello.tuning, 0, cello.family.shapes[0]!).notes)).toMatchObject({
      readings: [],
      isOther: false,
    })
  })
})

const lowered = <N extends { readonly octave: number }>(notes: readonly N[]) =>
  notes.map((n) => ({ ...n, octave: n.octave - 1 }))

describe('a free take', () => {
  it('reads the hand without being told what it plays: the likeliest places, and how far off each note is', () => {
    const scale = [1, 2].flatMap((s) => shaped('violin', s).notes.filter((n) => n.finger < 4))
    const hand = { openCents: [0, -9, 0, 0], fingerOffsetMm: { 3: 2 } }
    const { notes, stringing } = playedBy(
      'violin',
      { hand },
      { exercise: { ...shaped('violin'), notes: scale } },
    )
    const { readings, tuning, extra, isOther } = readFreeTake(notes, stringing)
    expect({ extra, isOther }).toEqual({ extra: [], isOther: false })
    expect(readings.map((r) => `${r.stringIndex}.${r.finger} ${r.positionId}`)).toEqual([
      '1.0 null',
      '1.1 first',
      '1.2 first',
      '1.3 first',
      '2.0 null',
      '2.1 first',
      '2.2 first',
      '2.3 first',
    ])
    // The low D string is told as tuned low, and its fingers are held against it.
    expect(tuning.find((t) => t.stringIndex === 1)?.cents).toBeCloseTo(-9, 0)
    const third = readings.filter((r) => r.finger === 3)
    for (const { landingCents } of third) expect(landingCents).toBeGreaterThan(8)
    for (const { finger, landingCents } of readings)
      if (finger === 1 || finger === 2) expect(Math.abs(landingCents)).toBeLessThan(2)
  })

  it('leaves what the board does not have to nobody', () => {
    const { notes, stringing } = playedBy('violin', {}, { exercise: shaped('violin') })
    const below = { ...notes[1]!, settled: { ...notes[1]!.settled, cents: -3000 } }
    const { readings, extra } = readFreeTake([notes[0]!, below, notes[2]!], stringing)
    expect(extra).toEqual([below])
    const elsewhere = readFreeTake([notes[0]!, below, below], stringing)
    expect([readFreeTake([], stringing).isOther, elsewhere.isOther]).toEqual([false, true])
    expect(readings.map((r) => r.heard)).toEqual([notes[0], notes[2]])
  })
})

describe('a guess, where nothing was written', () => {
  it('takes a first scale for first position, and says how much it doubts', () => {
    // docs/trade.md § 9: D major in one octave on the violin is 0 1 2 3 | 0 1 2 3 (common practice, no source).
    const pattern = [0, 1, 2, 3]
    const exercise: Exercise = {
      ...shaped('violin'),
      notes: [1, 2].flatMap((s) => shaped('violin', s).notes.filter((n) => pattern.includes(n.finger))),
    }
    const { notes, stringing } = playedBy('violin', { hand: { scatterCents: 8 } }, { exercise })
    const guesses = guessNotes(notes, stringing)
    expect(guesses.map(([best]) => `${best!.stringIndex}.${best!.finger}`).join(' ')).toBe(
      '1.0 1.1 1.2 1.3 2.0 2.1 2.2 2.3',
    )
    for (const ways of guesses) {
      expect(ways.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9)
      expect(ways[0]!.probability).toBeLessThan(0.99)
      expect(ways.length).toBeGreaterThan(1)
    }
  })

  it('knows no string for what lies off the board, and goes on after it', () => {
    const { notes, stringing } = playedBy('violin', {}, { exercise: shaped('violin') })
    const below = { ...notes[1]!, settled: { ...notes[1]!.settled, cents: -3000 } }
    const guesses = guessNotes([notes[0]!, below, notes[2]!], stringing)
    expect(guesses.map((ways) => ways.length > 0)).toEqual([true, false, true])
  })
})
