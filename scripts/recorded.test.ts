// The ear on recorded strings that nobody here played: a short, seeded form of `npm run bench:recorded`. The recordings are those of
// the packages in bench/recorded/packages (CC-BY 3.0), and the sound font timgm6mb.
import { beforeAll, describe, expect, it } from 'vitest'
import { hearNotes, seededSource, TakeListener } from '../core'
import { compose } from '../bench/recorded/compose'
import { fontRecordings, recordings, type Recording } from '../bench/recorded/recordings'
import {
  beside,
  hum,
  muted,
  noise,
  ringing,
  room,
  skipping,
  suppressed,
  voice,
  wolf,
} from '../bench/recorded/surroundings'
import {
  alone,
  handOf,
  heardAgain,
  judgedHands,
  longest,
  notesInOneBow,
  pairOf,
  SCALES,
  slideOf,
  stepOf,
  takeErrors,
  takeOf,
} from '../bench/recorded/trials'

let all: readonly Recording[]
const violins = () => all.filter((r) => r.family === 'violin' && !r.isHeldBack)
const named = (name: string) => all.find((r) => r.name === name)!
beforeAll(() => {
  all = recordings()
}, 300_000)

describe('recorded strings', () => {
  it.each([
    // A wide vibrato in a hall, whose level swings by ten decibels: fourteen notes to an ear that goes by level.
    'violin A5',
    'violin E5',
    // First partials that are all but missing.
    'cello E2',
    'cello D♯2',
    'cello D♯3',
    'bass A♯1',
    // Attacks that begin far from their pitch.
    'cello D2',
    'bass C♯3',
    'bass F♯2',
  ])('%s in one bow is one note, on the pitch of its name', (name) => {
    const recording = named(name)
    expect(notesInOneBow(recording)).toBe(1)
    const [note] = hearNotes(alone(recording), recording.sampleRateHz).notes
    // Another estimator (McLeod's, pitchy) over the same second.
    expect(Math.abs(note!.settled.cents - recording.cents)).toBeLessThan(12)
  })

  it.each(['violin A3', 'violin C5', 'cello G3', 'cello A2', 'bass E2'])(
    '%s bowed again is two notes',
    (name) => {
      const notes = pairOf(named(name), 'rebowed', 0.5)
      expect(notes).toHaveLength(2)
      expect(Math.abs(notes[1]!.startS - 1)).toBeLessThan(0.08)
    },
  )

  it.each([
    ['violin A3', 60],
    ['violin C5', 140],
    ['cello C♯3', -70],
    ['cello B3', 100],
    ['bass E3', 80],
  ] as const)('%s and %i cents from it are two notes, slurred and detached', (name, cents) => {
    for (const join of ['slurred', 'detached'] as const) {
      const errors = takeErrors(stepOf(named(name), cents, join, 0.5))
      expect({ join, ...errors }).toMatchObject({ lost: 0, invented: 0 })
      for (const { settledCents } of errors.found) expect(Math.abs(settledCents)).toBeLessThan(6)
    }
  })

  it.each([
    ['violin C5', 200, 0.3],
    ['cello G3', 300, 0.5],
    ['bass A2', -200, 0.25],
  ] as const)(
    '%s slid by %i cents in %d s is two notes, and the slide is in neither pitch',
    (name, cents, lastsS) => {
      const { cents: from } = named(name)
      const notes = slideOf(named(name), cents, lastsS)
      expect(notes).toHaveLength(2)
      expect(Math.abs(notes[0]!.settled.cents - from)).toBeLessThan(8)
      expect(Math.abs(notes[1]!.landing.cents - from - cents)).toBeLessThan(8)
      expect(Math.abs(notes[1]!.settled.cents - from - cents)).toBeLessThan(8)
    },
  )

  it('land in the same place bent, at another rate, softer, in noise and in a longer file', () => {
    const again = ['violin A3', 'cello G3', 'cello A2'].flatMap((name) =>
      heardAgain(named(name), seededSource(4)),
    )
    expect(again.filter((a) => Math.abs(a.landingCents) > 2.5)).toEqual([])
    expect(again.filter((a) => Math.abs(a.settledCents) > 1)).toEqual([])
  })
})

describe('open strings of a sound font', () => {
  it('land where they settle: no attack is a tuning', () => {
    const opens = [
      ...fontRecordings('violin', [62, 69]),
      ...fontRecordings('viola', [48]),
      ...fontRecordings('cello', [43]),
    ]
    for (const recording of opens) {
      const [note] = longest(hearNotes(alone(recording), recording.sampleRateHz).notes)
      expect(Math.abs(note!.landing.cents - note!.settled.cents)).toBeLessThan(2)
    }
  })
})

describe('takes made of recordings', () => {
  it.each([
    ['violin', 'slurred'],
    ['cello', 'detached'],
    ['cello', 'slurred'],
  ] as const)(
    'of the %s, %s: none lost, none invented, landings as another estimator hears each alone',
    (family, join) => {
      const pool = all.filter((r) => r.family === family && !r.isHeldBack)
      const take = takeOf(pool, SCALES[family], { join, lastsS: 0.5 }, seededSource(6))
      const { lost, invented, found } = takeErrors(take)
      expect({ lost, invented }).toEqual({ lost: 0, invented: 0 })
      const off = found.map((f) => Math.abs(f.landingCents)).sort((a, b) => a - b)
      expect(off[Math.floor(0.5 * off.length)]!).toBeLessThan(3)
      expect(off[Math.floor(0.9 * off.length)]!).toBeLessThan(8)
    },
  )

  it.each([
    ['noise 20 dB below', noise(20)],
    ['a small room', room(0.5, -12)],
    ['a voice 20 dB below', beside(voice(44_100), 20)],
  ] as const)('in %s no reading is far off and says that it is sure', (_, surroundings) => {
    const pool = all.filter((r) => r.family === 'cello' && !r.isHeldBack)
    const take = takeOf(pool, SCALES.cello, { join: 'slurred', lastsS: 0.5 }, seededSource(8))
    const { lost, found } = takeErrors(take, surroundings, seededSource(9))
    expect(lost).toBeLessThanOrEqual(1)
    const wrong = found.filter(
      ({ landingCents: off, landingSigmaCents: sigma }) => Math.abs(off) > 8 && Math.abs(off) > 3 * sigma,
    )
    expect(wrong).toEqual([])
  })

  it('a hum of the mains is known before anybody plays, begins no take and is no note', () => {
    const recording = named('cello G3')
    const { samples, sampleRateHz } = compose(
      [0, 200, 400].map((up) => ({ recording, cents: -1400 + up, lastsS: 0.5, join: 'detached' })),
    )
    const before = new Float64Array(samples.length + 2 * sampleRateHz)
    before.set(samples, 2 * sampleRateHz)
    const humming = hum(25)(before, sampleRateHz, seededSource(1))
    const listener = new TakeListener(sampleRateHz)
    const phases: string[] = []
    for (let at = 0; at < humming.length; at += 2048) {
      const { phase, level } = listener.push(humming.subarray(at, at + 2048))
      if (at > 1.5 * sampleRateHz && at < 1.9 * sampleRateHz) expect(level.humHz).toBe(50)
      phases.push(phase)
    }
    expect(phases.indexOf('playing') * 2048).toBeGreaterThan(2 * sampleRateHz)
    const take = listener.end()
    expect(take.humHz).toBe(50)
    expect(take.notes.map((n) => Math.round(n.settled.cents / 100))).toEqual([-14, -12, -10])
  })

  it('a finger a half step low, another string and another piece are read or told, and never in tune', () => {
    const pool = violins()
    const hands = judgedHands('violin', pool, [-100])
    expect(hands.length).toBeGreaterThan(6)
    expect(hands.filter((hand) => !hand.isTold)).toEqual([])
  }, 120_000)

  it.each([
    ['a mute', muted],
    ['a wolf', wolf(6)],
    ['a bow that skips', skipping],
    ['a telephone that turns down what is held', suppressed],
    ['strings that ring on', ringing([-1400, 0, 700])],
  ] as const)('%s makes no fault of a hand that is in tune', (_, surroundings) => {
    const { pitches, play, judge } = handOf('violin', violins())
    const { samples, sampleRateHz } = play([...pitches, ...pitches.slice(1)])
    const { verdict } = judge(surroundings(samples, sampleRateHz, seededSource(2)), sampleRateHz)
    expect(['in_tune', 'not_enough_notes']).toContain(verdict.outcome)
  })

  it('two who play at once make no fault of the one, and are told', () => {
    const { pitches, play, judge } = handOf('violin', violins())
    const { samples, sampleRateHz } = play([...pitches, ...pitches.slice(1)])
    const other = play([4, 7, 5, 2, 9, 7, 4, 0, 4, 7].map((semitones) => pitches[0]! + 100 * semitones))
    const both = beside(other.samples, 0)(samples, sampleRateHz, seededSource(1))
    const { reading, verdict } = judge(both, sampleRateHz)
    expect(reading.hasCompany).toBe(true)
    expect(['in_tune', 'not_enough_notes']).toContain(verdict.outcome)
  })
})
