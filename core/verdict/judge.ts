import { deviation, greatest, max, mean } from 'd3-array'
import { placeOnString, type Finger } from '../instrument'
import { NORMAL_95 } from '../stop'
import { METER_SIGMA_CENTS, targetsOf, type Landing } from '../take'
import { singleCauses, type Cause } from './causes'
import { explain, type Explanation } from './explain'
import type { FingerSummary, FingerTarget, Finding, HeardString, JudgedTake, Verdict } from './types'

/** With fewer fingers a hand that moved, a frame that shrank and a finger that strayed look the same. */
export const FINGERS_NEEDED = 3
/** Ears notice from about here. From memory. */
export const OPEN_STRING_TOLERANCE_CENTS = 5
/** A cause this much worse than the best (in chi-square; e² times less likely) is ruled out. */
const RULED_OUT_BY = 4

/**
 * What the landings of one string say of the hand. Causes are tried from the simplest: none, one, two together; one
 * is accepted when it leaves every finger within the player's tolerance. Nothing is said from fewer than three
 * fingers, or of the hand on an untuned string. Throws a RangeError for an exercise on several strings.
 * Source: the faults are common practice, no source; the estimate is weighted linear least squares.
 */
export function judgeHand(take: JudgedTake): Verdict {
  const stringIndex = onlyString(take)
  const targets = fingerTargets(take)
  const fingers = summariseFingers(take, targets)
  const open = take.landings.filter((l) => l.finger === 0).map((l) => l.cents)
  const openCents = mean(open)
  if (openCents !== undefined && Math.abs(openCents) > OPEN_STRING_TOLERANCE_CENTS)
    return { outcome: 'string_out_of_tune', cents: openCents, fingers }

  const worst = greatest(fingers, (f) => Math.abs(f.meanCents))
  if (!worst || fingers.length < FINGERS_NEEDED)
    return {
      outcome: 'not_enough_notes',
      fingersHeard: fingers.map((f) => f.finger),
      fingersNeeded: FINGERS_NEEDED,
      fingers,
    }
  const { toleranceCents, stringing } = take
  if (Math.abs(worst.meanCents) <= toleranceCents) return { outcome: 'in_tune', worst, fingers }

  const heard = { stringing, stringIndex, targets, fingers, sigmaCents: sigmaOf(take.landings, fingers) }
  const causes = singleCauses(heard, open.length > 0)
  const single = accepted(
    toleranceCents,
    causes.map((cause) => explain(heard, [cause])),
  )
  const [best, ...others] = single
  if (best)
    return {
      outcome: 'explained',
      findings: best.findings,
      alternatives: alternativesTo(best, others),
      fingers,
    }
  const [pair] = fingers.length > FINGERS_NEEDED ? accepted(toleranceCents, pairsOf(heard, causes)) : []
  if (pair) return { outcome: 'explained', findings: pair.findings, alternatives: [], fingers }
  return {
    outcome: 'several',
    findings: fingersOff(toleranceCents, fingers, heard.sigmaCents),
    alternatives: [],
    fingers,
  }
}

function onlyString({ exercise: { notes } }: JudgedTake): number {
  const first = notes[0]?.stringIndex ?? 0
  if (notes.some(({ stringIndex }) => stringIndex !== first))
    throw new RangeError('a hand is judged string by string')
  return first
}

function fingerTargets({ stringing, exercise }: JudgedTake): FingerTarget[] {
  const targets = targetsOf(stringing, exercise).filter((t): t is FingerTarget => t.finger !== 0)
  const byFinger = new Map<Finger, FingerTarget>(targets.map((t) => [t.finger, t]))
  return [...byFinger.values()].sort((a, b) => a.finger - b.finger)
}

function summariseFingers(
  { stringing, landings }: JudgedTake,
  targets: readonly FingerTarget[],
): FingerSummary[] {
  return targets.flatMap((target) => {
    const { finger, stringIndex, placeMm } = target
    const cents = landings.filter((l) => l.finger === finger).map((l) => l.cents)
    const meanCents = mean(cents)
    if (meanCents === undefined) return []
    const spreadCents = deviation(cents)
    return [
      {
        finger,
        target,
        count: cents.length,
        meanCents,
        meanMm: placeOnString(stringing, stringIndex, target.cents + meanCents) - placeMm,
        ...(spreadCents === undefined ? {} : { spreadCents }),
      },
    ]
  })
}

/** The notes' own pooled spread once it rests on four degrees of freedom; before that the largest they are said to have. */
function sigmaOf(landings: readonly Landing[], fingers: readonly FingerSummary[]): number {
  const freedom = fingers.reduce((sum, f) => sum + f.count - 1, 0)
  // A pitch that is heard to a fraction of a cent says nothing of how well the finger repeats.
  if (freedom < 4) return Math.max(METER_SIGMA_CENTS, max(landings, (l) => l.sigmaCents) ?? 0)
  const squares = fingers.reduce((sum, f) => sum + (f.count - 1) * (f.spreadCents ?? 0) ** 2, 0)
  return Math.max(1, Math.sqrt(squares / freedom))
}

function accepted(toleranceCents: number, explanations: readonly (Explanation | undefined)[]): Explanation[] {
  return explanations
    .filter((one) => one !== undefined)
    .filter((one) => one.residualCents.every((cents) => Math.abs(cents) <= toleranceCents))
    .sort((a, b) => a.chiSquare - b.chiSquare)
}

/** Two causes at once; never two frame errors, which would be one distance said twice. */
function pairsOf(heard: HeardString, causes: readonly Cause[]): (Explanation | undefined)[] {
  return causes
    .flatMap((a, i) => causes.slice(i + 1).map((b) => explain(heard, [a, b])))
    .filter((one) => one?.findings.some((finding) => finding.code !== 'frame'))
}

/** Other single causes that fit nearly as well and say something else. */
function alternativesTo(best: Explanation, others: readonly Explanation[]): Finding[] {
  const kind = (f: Finding | undefined) => (f?.code === 'finger' ? `finger ${f.finger}` : f?.code)
  const said = new Set([kind(best.findings[0])])
  return others
    .filter((one) => one.chiSquare - best.chiSquare < RULED_OUT_BY)
    .flatMap((one) => one.findings)
    .filter((finding) => !said.has(kind(finding)) && said.add(kind(finding)))
}

function fingersOff(
  toleranceCents: number,
  fingers: readonly FingerSummary[],
  sigmaCents: number,
): Finding[] {
  return fingers
    .filter((f) => Math.abs(f.meanCents) > toleranceCents)
    .sort((a, b) => Math.abs(b.meanCents) - Math.abs(a.meanCents))
    .map((f) => ({
      code: 'finger' as const,
      finger: f.finger,
      offsetMm: f.meanMm,
      plusMinusMm: (Math.abs(f.meanMm / f.meanCents) * NORMAL_95 * sigmaCents) / Math.sqrt(f.count),
      cents: f.meanCents,
    }))
}
