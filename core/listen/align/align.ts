/** What alignment needs of a heard note. */
export interface AlignedSound {
  /** Pitch, cents above any fixed pitch. */
  readonly cents: number
}

/** What alignment needs of a written note: its pitch above the same fixed pitch. */
export interface AlignedTarget {
  readonly cents: number
}

/** What became of one heard note. */
export type Match =
  /** It was meant for note `index`; `octaves` above or below it. `how`: as the next, once more, or after a jump back. */
  | {
      readonly kind: 'meant'
      readonly index: number
      readonly octaves: number
      readonly how: 'next' | 'repeated' | 'restarted'
      /** Too far off to be a finger that aims badly: another note in its stead. */
      readonly isWrong: boolean
    }
  /** It belongs to no note. */
  | { readonly kind: 'extra' }

export interface Alignment {
  /** One a heard note. */
  readonly matches: readonly Match[]
  /** Notes of the exercise, from the first to the last that was played, for which nothing was heard. */
  readonly missing: readonly number[]
  /** First and one past the last note that was played; both 0 where nothing fits. */
  readonly from: number
  readonly to: number
  readonly cost: number
}

/** What an alignment weighs, in units of "one note left out". */
export interface AlignmentCosts {
  readonly missing: number
  readonly extra: number
  readonly repeated: number
  readonly restarted: number
  /** For all that is not the exercise's first note to begin with, and not its last to end with. */
  readonly late: number
  /** At this distance a note is as dear as one that is wrong; below, it grows with the square. */
  readonly wrongCents: number
  readonly wrong: number
  /** For another octave. */
  readonly octave: number
}

export const ALIGNMENT_COSTS: AlignmentCosts = {
  missing: 1,
  extra: 1,
  repeated: 0.55,
  restarted: 1.6,
  late: 0.6,
  wrongCents: 75,
  wrong: 1.4,
  octave: 0.25,
}

/** How a state is reached: from which note, and in which way. */
const NEXT = 0
const REPEATED = 1
const RESTARTED = 2
const EXTRA = 3

/** Rows of the table that are kept at a time when the path is read back: their number is fixed, so memory still grows with the sum. */
const TABLE_ROWS = 1024

/**
 * Lays what was heard against what was written, by dynamic programming over the whole take: notes may be extra, missing,
 * wrong, repeated or an octave off, the player may begin late, stop early, or go back and play from an earlier note again.
 * Time grows with heard × written, memory with their sum: the path is found by halves, each half's row of states carrying
 * where it crossed the middle. Source: D. S. Hirschberg, A linear space algorithm for computing maximal common subsequences,
 * Comm. ACM 18 (1975) 341; for the steps H. Sakoe and S. Chiba, IEEE Trans. ASSP 26 (1978) 43.
 *
 * @param rowsKept of the table, at a time, when the path is read back: more of them cost memory and save time.
 */
export function align(
  heard: readonly AlignedSound[],
  written: readonly AlignedTarget[],
  costs: Partial<AlignmentCosts> = {},
  rowsKept = TABLE_ROWS,
): Alignment {
  const aligner = new Aligner(heard, written, { ...ALIGNMENT_COSTS, ...costs }, rowsKept)
  return aligner.run()
}

/** A row of the table: for each written note, the least cost of all heard so far with that note as the last one meant. */
interface Row {
  readonly cost: Float64Array
  /** The state in the middle row that the path to each state has come through. */
  readonly through: Int32Array
}

/** How each state of a row was reached, and from where. */
interface Ways {
  readonly kinds: Uint8Array
  readonly sources: Int32Array
}

class Aligner {
  readonly #states: Int32Array
  readonly #kinds: Uint8Array
  readonly #writtenCents: Float64Array
  readonly #backCost: Float64Array
  readonly #backFrom: Int32Array

  constructor(
    private readonly heard: readonly AlignedSound[],
    private readonly written: readonly AlignedTarget[],
    private readonly costs: AlignmentCosts,
    private readonly rowsKept: number,
  ) {
    this.#states = new Int32Array(heard.length)
    this.#kinds = new Uint8Array(heard.length).fill(EXTRA)
    this.#writtenCents = Float64Array.from(written, ({ cents }) => cents)
    this.#backCost = new Float64Array(written.length + 1)
    this.#backFrom = new Int32Array(written.length + 1)
  }

  run(): Alignment {
    const { heard, written, costs } = this
    const nothing = { missing: [], from: 0, to: 0 }
    if (heard.length === 0 || written.length === 0)
      return { ...nothing, matches: heard.map(() => ({ kind: 'extra' })), cost: heard.length * costs.extra }
    const start = this.#startRow()
    const table = heard.length <= this.rowsKept ? this.#table(start, 0, heard.length) : undefined
    const end = table?.row ?? this.#advance(start, 0, heard.length)
    let best = 0
    let least = Infinity
    for (let j = 0; j <= written.length; j++) {
      const cost = end.cost[j]! + (j === 0 || j === written.length ? 0 : costs.late)
      if (cost < least) [best, least] = [j, cost]
    }
    if (table) this.#readBack(table.ways, 0, best)
    else this.#trace(start, 0, heard.length, best)
    return this.#told(least)
  }

  /** State 0: nothing has been meant yet. State j: note j − 1 was the last. */
  #startRow(): Row {
    const count = this.written.length + 1
    const cost = new Float64Array(count).fill(Infinity)
    cost[0] = 0
    return { cost, through: new Int32Array(count) }
  }

  /** The row after heard notes `from` … `to` − 1. */
  #advance(start: Row, from: number, to: number): Row {
    let row = start
    for (let i = from; i < to; i++) row = this.#step(row, i)
    return row
  }

  /**
   * One heard note more. State j is reached as the next note after j − 1 or, with notes left out between, after an earlier
   * one; once more on j; by a jump back from a later one; or, the note being extra, from j itself.
   */
  #step({ cost: before, through }: Row, i: number, kinds?: Uint8Array): Row {
    const { costs, written } = this
    const count = written.length + 1
    const cost = new Float64Array(count)
    const carried = new Int32Array(count)
    cost[0] = before[0]! + costs.extra
    carried[0] = through[0]!
    if (kinds) kinds[0] = EXTRA
    // From the right: the cheapest later state, from which the player may go back.
    const backCost = this.#backCost
    const backFrom = this.#backFrom
    let least = Infinity
    let at = 0
    for (let j = count - 1; j >= 1; j--) {
      backCost[j] = least
      backFrom[j] = at
      if (before[j]! < least) {
        least = before[j]!
        at = j
      }
    }
    const heardCents = this.heard[i]!.cents
    const writtenCents = this.#writtenCents
    const perWrong = 1 / costs.wrongCents
    const { wrong, octave, missing, extra, repeated: onceMore, restarted: goneBack } = costs
    // From the left: the cheapest earlier state with a note left out for each step.
    let skip = before[0]!
    let skipFrom = 0
    const late = before[0]! + costs.late
    for (let j = 1; j < count; j++) {
      // What it costs that this note was meant for note j − 1: how far off it is, in whatever octave.
      const off = heardCents - writtenCents[j - 1]!
      const octaves = Math.floor(off / 1200 + 0.5)
      const left = (off - 1200 * octaves) * perWrong
      const near = left * left * 0.5
      const match = (near < wrong ? near : wrong) + (octaves === 0 ? 0 : octave)
      let best = before[j]! + extra
      let kind = EXTRA
      let source = j
      const next = skip + match
      if (next < best) {
        best = next
        kind = NEXT
        source = skipFrom
      }
      const repeated = before[j]! + onceMore + match
      if (repeated < best) {
        best = repeated
        kind = REPEATED
        source = j
      }
      const restarted = backCost[j]! + goneBack + match
      if (restarted < best) {
        best = restarted
        kind = RESTARTED
        source = backFrom[j]!
      }
      cost[j] = best
      carried[j] = through[source]!
      if (kinds) kinds[j] = kind
      // To begin late costs once, however much is left out.
      const further = skipFrom === 0 ? Infinity : skip + missing
      const stay = before[j]!
      if (stay <= late && stay <= further) {
        skip = stay
        skipFrom = j
      } else if (late <= further) {
        skip = late
        skipFrom = 0
      } else skip = further
    }
    return { cost, through: carried }
  }

  /** Finds the states of heard notes `from` … `to` − 1 of the best path that ends in state `end`. */
  #trace(start: Row, from: number, to: number, end: number): void {
    if (to - from <= this.rowsKept) {
      this.#readBack(this.#table(start, from, to).ways, from, end)
      return
    }
    const middle = (from + to) >> 1
    const half = this.#advance(start, from, middle)
    half.through.forEach((_, j) => (half.through[j] = j))
    const last = this.#advance(half, middle, to)
    const crossing = last.through[end]!
    this.#trace(start, from, middle, crossing)
    // Only the crossing is where the second half comes from.
    const only = new Float64Array(half.cost.length).fill(Infinity)
    only[crossing] = half.cost[crossing]!
    this.#trace({ cost: only, through: half.through }, middle, to, end)
  }

  /** The same row as {@link #advance}, and how each state before it was reached. */
  #table(start: Row, from: number, to: number): { row: Row; ways: readonly Ways[] } {
    const ways: Ways[] = []
    let row = start
    for (let i = from; i < to; i++) {
      const kinds = new Uint8Array(this.written.length + 1)
      row.through.forEach((_, j) => (row.through[j] = j))
      row = this.#step(row, i, kinds)
      // Carried from the row before, `through` says where each state came from.
      ways.push({ kinds, sources: row.through.slice() })
    }
    return { row, ways }
  }

  /** Follows the ways of heard notes from `from` on back from state `end`. */
  #readBack(ways: readonly Ways[], from: number, end: number): void {
    let state = end
    for (let i = ways.length - 1; i >= 0; i--) {
      const { kinds, sources } = ways[i]!
      this.#states[from + i] = state
      this.#kinds[from + i] = state === 0 ? EXTRA : kinds[state]!
      state = sources[state]!
    }
  }

  #told(cost: number): Alignment {
    const { written, heard } = this
    const isPlayed = new Uint8Array(written.length)
    let [from, to] = [Infinity, 0]
    const matches = heard.map(({ cents }, i): Match => {
      const kind = this.#kinds[i]!
      if (kind === EXTRA) return { kind: 'extra' }
      const index = this.#states[i]! - 1
      isPlayed[index] = 1
      from = Math.min(from, index)
      to = Math.max(to, index + 1)
      const off = cents - written[index]!.cents
      const octaves = Math.round(off / 1200)
      return {
        kind: 'meant',
        index,
        octaves,
        how: kind === REPEATED ? 'repeated' : kind === RESTARTED ? 'restarted' : 'next',
        isWrong: Math.abs(off - 1200 * octaves) > this.costs.wrongCents,
      }
    })
    const missing: number[] = []
    for (let j = Math.min(from, to); j < to; j++) if (!isPlayed[j]) missing.push(j)
    return { matches, missing, from: to === 0 ? 0 : from, to, cost }
  }
}
