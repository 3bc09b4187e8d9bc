// What is counted in each cell of the verdict's bench: players with one fault, and sound ones.
import { BODY_FAULTS, type Verdict } from '../../core'
import { bonesOracle, playBones, RIGHTLY } from './bones'
import { judgedByEye } from './eye'
import {
  judged,
  KINDS,
  lineOf,
  oracle,
  play,
  saidOf,
  truthSaid,
  type NoiseKind,
  type Played,
} from './players'

export interface Cell {
  readonly size: number
  readonly scatter: number
  readonly notes: number
  readonly strings: number
}

/** Tolerances are two thirds of a fault, as ten cents are of fifteen. */
export const toleranceOf = (size: number) => (2 * size) / 3

/** Sizes that were told of faults that were named rightly. */
export interface Sizes {
  count: number
  held: number
  /** Of the true size. */
  readonly ratios: number[]
}

export interface Counted {
  all: number
  /** What the oracle names rightly. */
  oracle: number
  told: number
  right: number
  /** Verdicts with something else that it may be; and takes that ask for another lesson. */
  doubted: number
  later: number
  /** Of sound hands. */
  sound: number
  blamed: number
  /** Of sound hands that are said to be well. */
  cleared: number
  readonly sizes: Map<string, Sizes>
}

const nothing = (): Counted => ({
  all: 0,
  oracle: 0,
  told: 0,
  right: 0,
  doubted: 0,
  later: 0,
  sound: 0,
  blamed: 0,
  cleared: 0,
  sizes: new Map(),
})

/** Formula players with every fault, and five sound ones for each seed. */
export function countFormula(
  { size, scatter, notes, strings }: Cell,
  noise: NoiseKind,
  seeds: number,
): Counted {
  const line = lineOf(strings, notes)
  const judge = (played: Played) => judged(played, strings, toleranceOf(size))
  const counted = nothing()
  for (const [k, kind] of KINDS.entries())
    for (let seed = 0; seed < seeds; seed++) {
      const played = play(1 + seed + 1000 * k, [kind], size, noise, scatter, line)
      counted.all++
      if (oracle(played, size) === played.truth) counted.oracle++
      countTold(counted, kind, played, judge(played))
    }
  for (let seed = 0; seed < 5 * seeds; seed++) {
    counted.sound++
    countSound(counted, judge(play(900_000 + seed, [], size, noise, scatter, line)))
  }
  return counted
}

function countSound(counted: Counted, verdict: Verdict): void {
  const said = truthSaid(verdict)
  if (said === '') counted.cleared++
  if (said) counted.blamed++
}

function countTold(counted: Counted, kind: string, played: Played, verdict: Verdict): void {
  if (verdict.outcome === 'explained' && verdict.alternatives.length > 0) counted.doubted++
  if (verdict.outcome === 'not_enough_notes' && verdict.more === null) counted.later++
  const said = truthSaid(verdict)
  if (said === undefined) return
  counted.told++
  if (said !== played.truth || verdict.outcome !== 'explained') return
  counted.right++
  const finding = saidOf(verdict.findings[0]!)
  const truth = played.sizes.get(finding.name)!
  const sizes = counted.sizes.get(kind) ?? { count: 0, held: 0, ratios: [] }
  counted.sizes.set(kind, sizes)
  sizes.count++
  if (Math.abs(finding.size - truth) <= finding.plusMinus) sizes.held++
  sizes.ratios.push(finding.size / truth)
}

/** The hand of bones with everything that may be wrong with it; the elbow shows on four strings alone. */
export function countBones({ size, scatter, notes, strings }: Cell, seeds: number): Counted {
  const line = lineOf(strings, notes)
  const judge = (played: Played) => truthSaid(judged(played, strings, toleranceOf(size)))
  const counted = nothing()
  for (const [k, fault] of BODY_FAULTS.entries()) {
    if (fault === 'elbow_out' && strings < 4) continue
    for (let seed = 0; seed < seeds; seed++) {
      const played = playBones(1 + seed + 1000 * k, fault, size, scatter, line)
      counted.all++
      const likeliest = bonesOracle(played, size)
      // Two that a teacher would call by one name are not confused.
      if (likeliest && RIGHTLY[likeliest].some((name) => RIGHTLY[fault].includes(name))) counted.oracle++
      const said = judge(played)
      if (said === undefined) continue
      counted.told++
      if (RIGHTLY[fault].includes(said)) counted.right++
    }
  }
  for (let seed = 0; seed < 5 * seeds; seed++) {
    counted.sound++
    countSound(
      counted,
      judged(playBones(900_000 + seed, null, size, scatter, line), strings, toleranceOf(size)),
    )
  }
  return counted
}

/** Of strings that are tuned otherwise an eye sees nothing, and of a hand that creeps too little. */
const SEEN_KINDS = KINDS.filter((kind) => kind !== 'string' && kind !== 'creep')
const EYE_TOLERANCE = 15

export function countEye(
  size: number,
  eyeMm: number,
  notes: number,
  strings: number,
  seeds: number,
): Counted {
  const line = lineOf(strings, notes)
  const judge = (played: Played, seed: number) =>
    judgedByEye(played, 77_000 + seed, strings, eyeMm, EYE_TOLERANCE)
  const counted = nothing()
  for (const [k, kind] of SEEN_KINDS.entries())
    for (let seed = 0; seed < seeds; seed++) {
      const played = play(1 + seed + 1000 * k, [kind], size, 'normal', 8, line)
      counted.all++
      countTold(counted, kind, played, judge(played, seed))
    }
  for (let seed = 0; seed < 5 * seeds; seed++) {
    counted.sound++
    countSound(counted, judge(play(900_000 + seed, [], size, 'normal', 8, line), seed))
  }
  return counted
}

/** All sizes of a cell, or of a kind, together. */
export function together(all: readonly Sizes[]): {
  readonly count: number
  readonly held: number
  readonly ratio: number
} {
  const ratios = all.flatMap((one) => one.ratios).sort((a, b) => a - b)
  return {
    count: ratios.length,
    held: all.reduce((sum, one) => sum + one.held, 0),
    ratio: ratios[ratios.length >> 1] ?? NaN,
  }
}
