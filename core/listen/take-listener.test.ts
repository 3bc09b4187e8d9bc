import { describe, expect, it } from 'vitest'
import { mannerOf, perform, record, seededSource } from '../simulate'
import { decodeTrack, encodeTrack, TRACK_STEP_S } from '../take'
import { shaped, strung } from '../testing'
import { TakeListener, type TakeNews } from './take-listener'

const RATE = 22_050
const violin = strung('violin', 328)
const performance = perform(seededSource(14), violin, shaped('violin'), mannerOf('trained'))
const played = record(seededSource(15), performance, { sampleRateHz: RATE })

/** Silence with a little hiss, then the playing, then silence. */
function sound(beforeS: number, afterS: number): Float32Array {
  const source = seededSource(16)
  const before = Math.round(beforeS * RATE)
  const all = Float32Array.from({ length: before + played.length + Math.round(afterS * RATE) }, () => {
    return 2e-4 * (source() - 0.5)
  })
  played.forEach((value, i) => (all[before + i]! += value))
  return all
}

function listen(samples: Float32Array, block: number, silenceS = 2) {
  const listener = new TakeListener(RATE, { silenceS })
  const news: TakeNews[] = []
  for (let at = 0; at < samples.length; at += block)
    news.push(listener.push(samples.subarray(at, at + block)))
  return { news, take: listener.end() }
}

describe('listening to a take', () => {
  it('begins with the first note, however long it was waited for, and ends after a silence', () => {
    const { news, take } = listen(sound(90, 4), 2048)
    const phases = news.map(({ phase }) => phase)
    expect(phases.indexOf('playing') * 2048).toBeGreaterThan(90 * RATE)
    expect(phases.at(-1)).toBe('over')
    expect(take.notes).toHaveLength(5)
    // A quarter of a second before the first note, and then as it was played.
    take.notes.forEach((note, i) =>
      expect(note.startS).toBeCloseTo(performance.notes[i]!.startS - performance.notes[0]!.startS + 0.25, 1),
    )
    expect(news.at(-1)!.level.noiseDb!).toBeLessThan(-70)
  })

  it('says the same of blocks and of the whole, note by note or at once', () => {
    const blocks = listen(sound(3, 4), 128)
    const whole = listen(sound(3, 4), 1e9)
    expect(blocks.take.notes).toEqual(whole.take.notes)
    expect(blocks.news.flatMap(({ notes }) => notes)).toEqual(blocks.take.notes)
    expect(blocks.take.track).toEqual(whole.take.track)
    // The pitch is there before it is known what note it belongs to.
    const pitched = blocks.news.findIndex(({ cents }) => cents !== null)
    expect(pitched).toBeLessThan(blocks.news.findIndex(({ sounding }) => sounding !== null))
    const sounded = blocks.news.filter(({ sounding }) => sounding !== null)
    expect(sounded.length).toBeGreaterThan(100)
  })

  it('shows the finger before its frame is told: within 60 ms of the note, whatever the octave', () => {
    const samples = sound(0.5, 1)
    const listener = new TakeListener(RATE)
    const seen: { atS: number; cents: number | null }[] = []
    for (let at = 0; at < samples.length; at += 128)
      seen.push({ atS: (at + 128) / RATE, cents: listener.push(samples.subarray(at, at + 128)).cents })
    for (const { startS, writtenCents, landingCents } of performance.notes.slice(1)) {
      const beganS = 0.5 + startS
      const first = seen.find(({ atS, cents }) => {
        const off = (cents ?? 600) - writtenCents - landingCents
        return atS > beganS && Math.abs(off - 1200 * Math.round(off / 1200)) < 25
      })
      expect(first!.atS - beganS).toBeLessThan(0.06)
    }
  })

  it('tracks the pitch against the notes’ own time, in few bytes', () => {
    const { take } = listen(sound(1, 4), 4096)
    const { cents } = decodeTrack(encodeTrack(take.track))
    for (const { landing, settled, startS, endS } of take.notes) {
      const middle = cents[Math.round((startS + endS) / 2 / TRACK_STEP_S)]!
      expect(Math.abs(middle - (landing.cents + settled.cents) / 2)).toBeLessThan(15)
    }
    const minutes = (take.track.cents.length * TRACK_STEP_S) / 60
    expect(encodeTrack(take.track).length / minutes).toBeLessThan(4000)
  })

  it('ends when it is told to, with the note that sounds; hears nothing in silence, and says where it was too loud', () => {
    const cut = sound(0.5, 0).subarray(0, Math.round((0.5 + performance.notes[2]!.startS + 0.4) * RATE))
    expect(listen(cut, 512).take.notes).toHaveLength(3)
    const silent = listen(new Float32Array(3 * RATE), 512)
    expect(silent.take).toMatchObject({ notes: [], hasClipped: false })
    expect(silent.take.track.cents).toHaveLength(0)
    expect(silent.news.every(({ phase }) => phase === 'waiting')).toBe(true)
    const loud = sound(0.5, 1).map((value) => Math.max(-1, Math.min(1, 12 * value)))
    expect(listen(loud, 512).take.hasClipped).toBe(true)
    expect(listen(sound(0.5, 1), 512).take.hasClipped).toBe(false)
  })
})

describe('what the player hears in headphones', () => {
  const droneHz = 440
  /** The drone at `droneDb`, and clicks of noise, under whatever is played. */
  function besides(samples: Float32Array, droneDb: number, clicksDb: number): Float32Array {
    const source = seededSource(17)
    const [drone, click] = [10 ** (droneDb / 20), 10 ** (clicksDb / 20)]
    return samples.map((value, i) => {
      const tone = [1, 0.25, 0.11].reduce(
        (sum, part, k) => sum + part * Math.sin((2 * Math.PI * droneHz * (k + 1) * i) / RATE),
        0,
      )
      const sinceClick = (i % RATE) / RATE
      const noise = sinceClick < 0.01 ? (2 * source() - 1) * Math.exp(-sinceClick / 0.002) : 0
      return value + drone * tone + click * noise
    })
  }
  function heardWith(samples: Float32Array, options: { readonly droneHz?: number }) {
    const listener = new TakeListener(RATE, { silenceS: 2, ...options })
    const phases = new Set<string>()
    for (let at = 0; at < samples.length; at += 1024)
      phases.add(listener.push(samples.subarray(at, at + 1024)).phase)
    return { take: listener.end(), phases }
  }
  const quiet = sound(3, 4)
  const alone = listen(quiet, 1024).take

  it('leaks into the microphone and is no note: it begins no take, ends none late, and is held against no finger', () => {
    const leaking = besides(quiet, -50, -100)
    // A drone that nobody knows of is taken for a player.
    expect(heardWith(leaking.subarray(0, 2 * RATE), {}).take.notes.length).toBeGreaterThan(0)
    const { take, phases } = heardWith(leaking, { droneHz })
    expect([...phases]).toEqual(['waiting', 'playing', 'over'])
    // The open A is the drone’s own pitch, and louder: it stays.
    expect(take.notes).toHaveLength(alone.notes.length)
    take.notes.forEach((note, i) => {
      const moved = Math.abs(note.landing.cents - alone.notes[i]!.landing.cents)
      // Of its own pitch the drone fills the attack with a steady one; that note's ± says so.
      expect(moved).toBeLessThan(i === 0 ? 1.5 * note.landing.sigmaCents : 0.5)
    })
  })

  it('is left out where it drowns a note of its own pitch, and only there', () => {
    const loud = alone.notes.map((n) => n.levelDb)
    const { take } = heardWith(besides(quiet, Math.min(...loud) - 6, -100), { droneHz })
    const cents = take.notes.map((n) => Math.round(n.landing.cents / 100))
    expect(cents).not.toContain(0)
  })

  it('clicks without being heard as a note', () => {
    const { take } = heardWith(besides(quiet, -100, -30), {})
    expect(take.notes).toHaveLength(alone.notes.length)
    take.notes.forEach((note, i) =>
      expect(Math.abs(note.landing.cents - alone.notes[i]!.landing.cents)).toBeLessThan(2),
    )
  })

  it('is nothing with headphones that do not leak', () => {
    expect(heardWith(quiet, { droneHz }).take.notes).toEqual(alone.notes)
  })
})
