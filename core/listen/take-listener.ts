import { TRACK_STEP_S, type PitchTrack } from '../take'
import { Ear, type EarOptions } from './ear'
import type { HeardDoubleStop, HeardNote } from './notes'
import type { PitchFrame } from './pitch'
import { HumWatch } from './hum'
import { ToneLeak } from './tone-leak'

export type TakePhase = 'waiting' | 'playing' | 'over'

/** What is known of a take after a block of sound. */
export interface TakeNews {
  readonly phase: TakePhase
  /** Notes that are over, since the last news; times from the beginning of the take. */
  readonly notes: readonly HeardNote[]
  /** Notes that are over before the one that sounds, of which it is not sure yet that nothing changes them; of this news alone. */
  readonly pending: readonly HeardNote[]
  /** The note that sounds now, as far as it can be told. */
  readonly sounding: HeardNote | null
  /** The pitch of the last moment, cents above 440 Hz, before it is known what note it belongs to; null of none. */
  readonly cents: number | null
  /** What the whole block was like. */
  readonly level: SoundLevel
}

export interface SoundLevel {
  /** Of its loudest moment, dB of full scale. */
  readonly levelDb: number
  /** Samples at the end of the scale. */
  readonly isClipped: boolean
  /** What the room sounds like while nobody plays: the median level of moments without a pitch; null before there are enough. */
  readonly noiseDb: number | null
  /** A hum of the mains that was heard while nobody played, Hz; null of none. It is held against no finger. */
  readonly humHz: number | null
}

export interface HeardWholeTake {
  readonly notes: readonly HeardNote[]
  readonly doubleStops: readonly HeardDoubleStop[]
  readonly track: PitchTrack
  /** Samples stood at the end of the scale while somebody played. */
  readonly hasClipped: boolean
  readonly humHz: number | null
  /** How long the last note rang on until it had fallen by 20 dB, seconds; null where it was cut off before. */
  readonly ringsS: number | null
}

export interface TakeOptions {
  /** A take is over after so long a silence. */
  readonly silenceS: number
  /** And after so long in any case. */
  readonly longestS: number
  /** A steady tone that sounds in the player's headphones, Hz: what leaks of it into the microphone is no note. */
  readonly droneHz?: number | undefined
  readonly ear?: EarOptions
}

export const TAKE_OPTIONS: TakeOptions = { silenceS: 3, longestS: 1800 }

/** What is kept of the time before the first note. */
const LEAD_S = 0.25
/** Longer pieces of sound are no live ones. */
const GLIMPSED_S = 0.05
const CLIPPED = 0.999
/** What a fall of 20 dB is told between, dB below the loudest moment. */
const RINGS_DB = { from: 5, to: 25 } as const
/** Moments of which the room's noise is told. */
const NOISE_MOMENTS = 40

/**
 * Listens to one take: it begins by itself with the first note and ends after a silence. Sound comes in blocks of any length;
 * memory grows with the track only. Times are told from a quarter of a second before the first note.
 */
export class TakeListener {
  readonly #ear: Ear
  readonly #options: TakeOptions
  #leak: ToneLeak | undefined
  readonly #hum = new HumWatch()
  readonly #notes: HeardNote[] = []
  readonly #cents: number[] = []
  readonly #levels: number[] = []
  /** Of the sound, at the first moment of the track. */
  #baseS = 0
  /** Levels of the last moments without a pitch. */
  readonly #noise: number[] = []
  #phase: TakePhase = 'waiting'
  /** Of the sound, at which the take's own time begins. */
  #fromS = 0
  #heardS = 0
  #lastSoundS = 0
  #hasClipped = false
  #lastCents: number | null = null

  constructor(
    readonly sampleRateHz: number,
    options: Partial<TakeOptions> = {},
  ) {
    this.#options = { ...TAKE_OPTIONS, ...options }
    this.#ear = new Ear(sampleRateHz, this.#options.ear)
    const { droneHz } = this.#options
    this.#leak = droneHz === undefined ? undefined : new ToneLeak(droneHz)
  }

  /** Listens on. After the end it hears nothing more. */
  push(block: ArrayLike<number>): TakeNews {
    if (this.#phase === 'over') return this.#news([], block)
    const heard = this.#ear.push(block)
    const { frames } = heard
    for (const frame of frames) this.#learn(frame)
    const notes = this.#played(heard.notes)
    this.#heardS += block.length / this.sampleRateHz
    const sounding = this.#sounding()
    const first = notes[0] ?? sounding
    if (this.#phase === 'waiting' && first && !this.#hum.mayBeHum) this.#begin(first)
    for (const frame of frames) this.#track(frame)
    const last = sounding ? this.#heardS : notes.at(-1)?.endS
    this.#lastSoundS = Math.max(this.#lastSoundS, last ?? 0)
    const news = this.#news(notes, block)
    const { silenceS, longestS } = this.#options
    if (this.#phase !== 'playing') return news
    if (this.#heardS - this.#lastSoundS < silenceS && this.#heardS - this.#fromS < longestS) return news
    this.#phase = 'over'
    return { ...news, phase: 'over' }
  }

  /** The whole take. */
  end(): HeardWholeTake {
    if (this.#phase !== 'over') {
      const heard = this.#ear.end()
      const { frames } = heard
      const notes = this.#played(heard.notes)
      if (this.#phase === 'waiting' && notes[0]) this.#begin(notes[0])
      for (const frame of frames) this.#track(frame)
      this.#tell(notes)
      this.#phase = 'over'
    }
    const first = Math.round((this.#fromS - this.#baseS) / TRACK_STEP_S)
    const endS = this.#notes.at(-1)?.endS
    const last = endS === undefined ? first : first + Math.ceil((endS + LEAD_S) / TRACK_STEP_S)
    return {
      notes: this.#notes,
      doubleStops: this.#ear.doubleStops.map((double) => ({
        startS: double.startS - this.#fromS,
        endS: double.endS - this.#fromS,
      })),
      track: {
        stepS: TRACK_STEP_S,
        cents: Float32Array.from(this.#cents.slice(first, last)),
        levelDb: Float32Array.from(this.#levels.slice(first, last)),
      },
      hasClipped: this.#hasClipped,
      humHz: this.#hum.humHz ?? null,
      ringsS: this.#ringsS(),
    }
  }

  /** Before anybody plays: how loud a tone in the headphones leaks, and whether the room hums. */
  #learn(frame: PitchFrame): void {
    this.#leak?.learn(frame)
    if (this.#phase !== 'waiting' || this.#options.droneHz !== undefined) return
    this.#hum.push(frame)
    if (this.#hum.humHz === undefined || this.#leak) return
    this.#leak = new ToneLeak(this.#hum.humHz, frame.levelDb)
  }

  /** From the last note's loudest moment until the level is 20 dB lower. */
  #ringsS(): number | null {
    const last = this.#notes.at(-1)
    if (!last) return null
    const at = (s: number) => Math.round((s + this.#fromS - this.#baseS) / TRACK_STEP_S)
    const levels = this.#levels.slice(Math.max(0, at(last.startS)))
    const loudest = Math.max(...levels)
    // From when it last was about as loud: the bow has left it.
    const left = levels.findLastIndex((db) => db > loudest - RINGS_DB.from)
    const down = levels.findIndex((db, i) => i > left && db < loudest - RINGS_DB.to)
    return down < 0 ? null : (down - left) * TRACK_STEP_S
  }

  #begin(first: HeardNote): void {
    this.#phase = 'playing'
    this.#fromS = Math.max(0, first.startS - LEAD_S)
  }

  /** One moment of the track for each of its steps, whatever the ear's own. */
  #track(frame: PitchFrame): void {
    const { atS, levelDb } = frame
    const frequencyHz = this.#leak?.coversFrame(frame) ? null : frame.frequencyHz
    this.#lastCents = frequencyHz === null ? null : 1200 * Math.log2(frequencyHz / 440)
    if (frequencyHz === null) {
      this.#noise.push(levelDb)
      if (this.#noise.length > NOISE_MOMENTS) this.#noise.shift()
    }
    while (atS >= this.#baseS + this.#cents.length * TRACK_STEP_S) {
      this.#cents.push(this.#lastCents ?? NaN)
      this.#levels.push(levelDb)
    }
    // Whoever waits for an hour needs no more memory than whoever waits a minute.
    if (this.#phase === 'waiting' && this.#cents.length > 2048) {
      this.#cents.splice(0, 1024)
      this.#levels.splice(0, 1024)
      this.#baseS += 1024 * TRACK_STEP_S
    }
  }

  #news(notes: readonly HeardNote[], block: ArrayLike<number>): TakeNews {
    let peak = 0
    let square = 0
    for (let i = 0; i < block.length; i++) {
      const value = Math.abs(block[i]!)
      peak = Math.max(peak, value)
      square += value * value
    }
    const isClipped = peak >= CLIPPED
    if (isClipped && this.#phase === 'playing') this.#hasClipped = true
    const sounding = this.#sounding()
    return {
      phase: this.#phase,
      notes: this.#tell(notes),
      pending: this.#phase === 'playing' ? this.#played(this.#ear.pending).map((n) => this.#inTake(n)) : [],
      sounding: sounding && this.#phase === 'playing' ? this.#inTake(sounding) : null,
      cents: this.#centsNow(block),
      level: {
        levelDb: block.length > 0 ? 10 * Math.log10(square / block.length + 1e-12) : -120,
        isClipped,
        noiseDb: this.#noiseDb(),
        humHz: this.#hum.humHz ?? null,
      },
    }
  }

  /** As soon as it can be seen, where sound comes in small pieces; else of the last frame. */
  #centsNow(block: ArrayLike<number>): number | null {
    if (block.length > GLIMPSED_S * this.sampleRateHz || this.#leak) return this.#lastCents
    const glimpsedHz = this.#ear.glimpse()
    return glimpsedHz === null ? this.#lastCents : 1200 * Math.log2(glimpsedHz / 440)
  }

  /** Without what leaks of a tone that nobody played; before it is known how loud it leaks, nothing was. */
  #played(notes: readonly HeardNote[]): readonly HeardNote[] {
    const leak = this.#leak
    return leak ? notes.filter((note) => leak.isKnown && !leak.covers(note)) : notes
  }

  #sounding(): HeardNote | undefined {
    const { sounding } = this.#ear
    return sounding && this.#played([sounding])[0]
  }

  #noiseDb(): number | null {
    if (this.#noise.length < NOISE_MOMENTS / 2) return null
    return this.#noise.slice().sort((a, b) => a - b)[this.#noise.length >> 1]!
  }

  #tell(notes: readonly HeardNote[]): HeardNote[] {
    const told = notes.map((note) => this.#inTake(note))
    this.#notes.push(...told)
    return told
  }

  #inTake(note: HeardNote): HeardNote {
    const { landing, settled, startS, endS } = note
    const moved = (at: number) => at - this.#fromS
    const within = <P extends HeardNote['landing']>(pitch: P): P => ({
      ...pitch,
      fromS: moved(pitch.fromS),
      toS: moved(pitch.toS),
    })
    return {
      ...note,
      startS: moved(startS),
      endS: moved(endS),
      landing: within(landing),
      settled: within(settled),
    }
  }
}
