import { deviation, mean } from 'd3-array'
import type { PitchFrame } from './pitch'

/** Mains of all countries, Hz, and their first multiples: what lamps and transformers hum at. */
const MAINS_HZ = [50, 60].flatMap((hz) => [hz, 2 * hz, 3 * hz, 4 * hz])
/** Mains keep their frequency to a few thousandths; no string is tuned to them. */
const NEAR_CENTS = 12
/** So steady is no player, cents and dB, for so long, seconds. */
const STEADY = { cents: 3, levelDb: 1, lastsS: 0.7 } as const

/**
 * Listens for a hum while nobody plays yet: a pitch at the mains' frequency or a multiple of it, steadier than any bow.
 */
export class HumWatch {
  #frames: { readonly atS: number; readonly cents: number; readonly levelDb: number; readonly hz: number }[] =
    []
  #humHz: number | undefined

  /** Undefined while no hum is known. */
  get humHz(): number | undefined {
    return this.#humHz
  }

  /** Whether what sounds may be a hum that is not known yet: its first note is not the take's. */
  get mayBeHum(): boolean {
    return this.#humHz === undefined && this.#frames.length > 2
  }

  push({ atS, frequencyHz, levelDb }: PitchFrame): void {
    const mains = frequencyHz === null ? undefined : MAINS_HZ.find((hz) => isNear(frequencyHz, hz))
    if (mains === undefined || frequencyHz === null) {
      this.#frames = []
      return
    }
    if (this.#frames.at(-1)?.hz !== mains) this.#frames = []
    this.#frames.push({ atS, cents: 1200 * Math.log2(frequencyHz / mains), levelDb, hz: mains })
    const first = this.#frames.find((f) => atS - f.atS <= STEADY.lastsS)!
    this.#frames = this.#frames.slice(this.#frames.indexOf(first))
    if (atS - first.atS < 0.9 * STEADY.lastsS) return
    const isSteady =
      (deviation(this.#frames, (f) => f.cents) ?? Infinity) < STEADY.cents &&
      (deviation(this.#frames, (f) => f.levelDb) ?? Infinity) < STEADY.levelDb &&
      Math.abs(mean(this.#frames, (f) => f.cents) ?? Infinity) < NEAR_CENTS
    if (isSteady) this.#humHz = mains
  }
}

function isNear(hz: number, mainsHz: number): boolean {
  return Math.abs(1200 * Math.log2(hz / mainsHz)) < NEAR_CENTS
}
