/** A stretch of frames on one pitch; frames are counted from the first that was pushed. */
export interface Plateau {
  readonly from: number
  /** One past its last frame. */
  readonly to: number
}

/** The grid of pitches a plateau may have, cents above 440 Hz: fine enough for an absolute deviation. */
const LOWEST_CENTS = -4750
const HIGHEST_CENTS = 3550
const GRID_CENTS = 10
const LEVELS = Math.round((HIGHEST_CENTS - LOWEST_CENTS) / GRID_CENTS) + 1
/** What a new plateau must save, cents · seconds: a step of 60 cents that lasts 0.06 s, but not the half swing of a vibrato. */
export const NEW_PLATEAU_CENT_S = 3.2
/** A moment is off by no more than this, however far it lies. */
const FURTHEST_CENTS = 130
/** A moment that is heard in another octave. */
const OCTAVE_CENTS = 45

/**
 * The row of constant pitches that explains a row of moments best: the sum of each moment’s distance (absolute, bounded, seconds
 * times cents) and of a fixed price for every new plateau is least, found exactly by dynamic programming over a grid of pitches.
 * An even swing about a pitch costs less on one plateau than the plateaus that would follow it; a step that stays does not.
 * Source: A. Weinmann, M. Storath and L. Demaret, The L1-Potts functional for robust jump-sparse reconstruction, SIAM J. Numer.
 * Anal. 53 (2015) 644.
 */
export class Plateaus {
  readonly #cost = new Float64Array(LEVELS)
  readonly #since = new Int32Array(LEVELS)
  /** After each frame: where the plateau of the best row of plateaus so far began. */
  readonly #bestSince: number[] = []

  /** @param hopS from one frame to the next. */
  constructor(private readonly hopS: number) {}

  /** The next moment: its pitch, null of none, and what it weighs, 0 … 1. */
  push(cents: number | null, weight: number): void {
    const cost = this.#cost
    const now = this.#bestSince.length
    if (cents !== null) {
      const least = minOf(cost)
      const dearest = least + (now === 0 ? 0 : NEW_PLATEAU_CENT_S)
      const scale = weight * this.hopS
      for (let level = 0; level < LEVELS; level++) {
        if (cost[level]! > dearest) {
          cost[level] = dearest
          this.#since[level] = now
        }
        const off = Math.abs(cents - LOWEST_CENTS - GRID_CENTS * level)
        const folded = OCTAVE_CENTS + Math.abs(off - 1200)
        cost[level]! += scale * Math.min(off, folded, FURTHEST_CENTS)
      }
    }
    this.#bestSince.push(this.#since[bestOf(cost)]!)
  }

  /** Whether the best row so far is one plateau. */
  get isOne(): boolean {
    return (this.#bestSince.at(-1) ?? 0) === 0
  }

  /** The plateaus of the best row, in order; one where nothing has a pitch. */
  all(): Plateau[] {
    const found: Plateau[] = []
    let to = this.#bestSince.length
    while (to > 0) {
      const from = this.#bestSince[to - 1]!
      found.unshift({ from, to })
      to = from
    }
    return found
  }
}

function bestOf(cost: Float64Array): number {
  let best = 0
  for (let level = 1; level < LEVELS; level++) if (cost[level]! < cost[best]!) best = level
  return best
}

function minOf(cost: Float64Array): number {
  return cost[bestOf(cost)]!
}
