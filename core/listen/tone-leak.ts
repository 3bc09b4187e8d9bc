import { median } from 'd3-array'
import type { HeardNote } from './notes'
import type { PitchFrame } from './pitch'

/** So long is listened to the tone alone before anybody plays, seconds. */
const LEARN_S = 0.8
/** A leaking tone is heard at its own pitch, or an octave or two from it. */
const NEAR_CENTS = 15
/** What is less than this louder than the leak is the leak itself, or too much of it to be judged, dB. Common practice, no source. */
const STANDS_OUT_DB = 12

/**
 * A steady tone of known pitch that the player hears and that leaks into the microphone, from headphones or through a wall. How
 * loud it arrives is learned before anybody plays; what is no louder is not the player's.
 */
export class ToneLeak {
  readonly #levels: number[] = []
  #levelDb: number | undefined
  #untilS: number | undefined

  /** @param levelDb how loud it arrives, where that is known. */
  constructor(
    readonly frequencyHz: number,
    levelDb?: number,
  ) {
    this.#levelDb = levelDb
  }

  /** False until it is known how loud the tone arrives. */
  get isKnown(): boolean {
    return this.#levelDb !== undefined
  }

  /** Learns from a moment in which nobody plays yet. */
  learn({ atS, frequencyHz, levelDb }: PitchFrame): void {
    if (this.#levelDb !== undefined) return
    this.#untilS ??= atS + LEARN_S
    if (frequencyHz !== null && this.#isNear(1200 * Math.log2(frequencyHz / this.frequencyHz)))
      this.#levels.push(levelDb)
    if (atS >= this.#untilS) this.#levelDb = median(this.#levels) ?? -Infinity
  }

  /** Whether a note is the leak, or drowns in it. */
  covers({ settled, levelDb }: Pick<HeardNote, 'settled' | 'levelDb'>): boolean {
    const above = settled.cents - 1200 * Math.log2(this.frequencyHz / 440)
    return this.#isNear(above) && this.#isLow(levelDb)
  }

  /** The same of a single moment. */
  coversFrame({ frequencyHz, levelDb }: PitchFrame): boolean {
    if (frequencyHz === null) return false
    return this.#isNear(1200 * Math.log2(frequencyHz / this.frequencyHz)) && this.#isLow(levelDb)
  }

  #isLow(levelDb: number): boolean {
    return levelDb < (this.#levelDb ?? Infinity) + STANDS_OUT_DB
  }

  #isNear(cents: number): boolean {
    return Math.abs(cents - 1200 * Math.round(cents / 1200)) < NEAR_CENTS
  }
}
