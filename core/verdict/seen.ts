import { max, mean, range, sum } from 'd3-array'
import { logSum, normalBelow } from '../stats'
import { sideSeen, tapeOf, type Side } from '../take'
import { candidatesOf, rowsOf, type Candidate } from './candidates'
import type { Evidence } from './evidence'
import { faultSizes, SMALL_SHARE, smallSizes, usualOf } from './prior'
import { sizeOf } from './size'
import { weighingOf, type Unweighed, type Weighing } from './weighing'

/** Within this of its tape an eye says “on”, mm: nobody knows of an eye which. */
const LIMITS_MM = [1, 1.8, 3]
/** How fingers and the eye scatter together, mm. */
const SCATTERS_MM = [0.9, 1.7, 3.2]
/** A head to the left sees every finger to the right: one standard deviation of a whole look’s bias, mm, and how many of it are tried. */
const BIAS_SIGMA_MM = 1.3
const BIASES = [-2, -1, 0, 1, 2]
/** One word in so many is a slip of the eye or the pencil. */
const SLIP = 0.01
/** Sizes that are tried; further off than this, cents, an eye sees another note. */
const SIZES = 10
const MOST_CENTS = 75

interface Look {
  readonly limitMm: number
  readonly scatterMm: number
  readonly biasMm: number
  readonly log: number
}
const LOOKS: readonly Look[] = LIMITS_MM.flatMap((limitMm) =>
  SCATTERS_MM.flatMap((scatterMm) =>
    BIASES.map((of) => ({ limitMm, scatterMm, biasMm: of * BIAS_SIGMA_MM, log: -(of ** 2) / 2 })),
  ),
)

interface Word {
  readonly side: Side
  /** From the place to the tape that the eye held the finger against, mm. */
  readonly tapeMm: number
}

/**
 * Holds a hand that is well, and every single fault, against an eye's words. Each says on which side of a limit a finger stood from
 * its tape: nobody knows the looker's limit, all words of one look share one bias, and fingers and eyes scatter. All three are
 * summed over what they may be, so that words tell a side, and hardly a size. Two faults at once are beyond them.
 * Source: the ordered probit, P. McCullagh, J. R. Stat. Soc. B 42 (1980) 109; the numbers are our own.
 */
export function weighSeen(evidence: Evidence, tapesMm: readonly number[]): Weighing {
  const { notes, toleranceCents } = evidence
  const words = wordsOf(evidence, tapesMm)
  // Of what a string is tuned to an eye sees nothing.
  const candidates = candidatesOf(rowsOf(evidence).filter(({ kind }) => !kind.isTuning))
  const effectsMm = candidates.map(({ effects }) => notes.map((note, i) => effects[i]! / note.centsPerMm))
  const logOf = (mm: readonly number[], cents: number) =>
    logSum(LOOKS.map((look) => look.log + logWords(words, mm, cents, look)))
  const none = notes.map(() => 0)
  const bounds = faultSizes(toleranceCents)
  const ratio = Math.max(1.5, Math.min(bounds.most, MOST_CENTS) / bounds.least)
  const sizes = range(SIZES).map((i) => bounds.least * ratio ** ((i + 0.5) / SIZES))
  // What is off is more often off by little: by four times as much half as often, a logarithm of size alike.
  const shares = sizes.map((cents) => Math.sqrt(bounds.least / cents))
  const bySize = effectsMm.map((mm) =>
    sizes.map((cents, i) => Math.log(shares[i]! / sum(shares)) + logOf(mm, cents)),
  )
  const middle = smallSizes(toleranceCents).most / 2
  const nearly = logSum(effectsMm.map((mm) => logOf(mm, middle))) - Math.log(Math.max(1, candidates.length))
  const well = logSum([logOf(none, 0) + Math.log(1 - SMALL_SHARE), nearly + Math.log(SMALL_SHARE)])
  const usual = usualOf(candidates)
  const explained = (of: readonly Candidate[], log: number): Unweighed => ({
    candidates: of,
    usual: usual.of(of),
    log: log + Math.log(usual.of(of) / usual.waysOf(of)),
  })
  const worth = mean(notes, ({ centsPerMm }) => centsPerMm)!
  return weighingOf(
    notes,
    [explained([], well), ...candidates.map((one, k) => explained([one], logSum(bySize[k]!)))],
    {
      scatterCents: ([best]) => {
        const k = best ? candidates.indexOf(best) : -1
        return worth * scatterSeen(words, effectsMm[k] ?? none, k < 0 ? [0] : sizes)
      },
      sizes: (_, [one]) => {
        const logs = bySize[candidates.indexOf(one!)]!
        const most = max(logs)!
        return [
          sizeOf(
            sizes,
            logs.map((log) => Math.exp(log - most)),
          ),
        ]
      },
      more: ({ explanations: [first] }, wantedOdds) => {
        const oddsOf = (probability: number) => Math.log(probability / (1 - probability))
        const has = oddsOf(first!.probability)
        const each = (has - oddsOf(first!.usual)) / notes.length
        return each > 0 ? Math.max(1, Math.ceil((Math.log(wantedOdds) - has) / each)) : Infinity
      },
    },
  )
}

function wordsOf({ notes, stringing }: Evidence, tapesMm: readonly number[]): Word[] {
  return notes.map(({ landing, target, cents: judged }) => {
    const tape = tapeOf(stringing, target, tapesMm)
    // A tape whose finger follows it was taken out of the note: the word is as of one that lies well.
    const isTakenOut = judged !== landing.cents
    return {
      side: sideSeen(landing.cents - (tape?.offCents ?? 0)),
      tapeMm: tape && !isTakenOut ? tape.placeMm - target.placeMm : 0,
    }
  })
}

/** The scatter that these words make likely, mm. */
function scatterSeen(words: readonly Word[], mm: readonly number[], sizes: readonly number[]): number {
  const logs = LOOKS.map((look) => look.log + logSum(sizes.map((cents) => logWords(words, mm, cents, look))))
  const total = logSum(logs)
  return sum(LOOKS, ({ scatterMm }, i) => scatterMm * Math.exp(logs[i]! - total))
}

function logWords(words: readonly Word[], effectsMm: readonly number[], cents: number, look: Look): number {
  const { limitMm, scatterMm, biasMm } = look
  let log = 0
  for (let i = 0; i < words.length; i++) {
    const { side, tapeMm } = words[i]!
    const seenMm = cents * effectsMm[i]! - tapeMm + biasMm
    const behind = normalBelow((-limitMm - seenMm) / scatterMm)
    const past = normalBelow((seenMm - limitMm) / scatterMm)
    const chance = side === 'behind' ? behind : side === 'past' ? past : 1 - behind - past
    log += Math.log(SLIP + (1 - 3 * SLIP) * Math.max(0, chance))
  }
  return log
}
