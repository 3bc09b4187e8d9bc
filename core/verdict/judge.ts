import { deviation, greatest, mean } from 'd3-array'
import { placeErrorMm } from '../stop'
import { singleCauses, type Cause, type Fit } from './causes'
import { fitCauses, NORMAL_95 } from './fit'
import type { Finding, FingerSummary, HandCheck, Verdict } from './types'

/** With fewer fingers a hand that moved, a frame that shrank and a finger that strayed look the same. */
export const FINGERS_NEEDED = 3
/** Ears notice from about here. From memory. */
export const OPEN_STRING_TOLERANCE_CENTS = 5
/** How well one bowed note read from a meter repeats. An assumption until the notes themselves show their spread. */
export const READING_SIGMA_CENTS = 4
/** A cause this much worse than the best (in chi-square; e² times less likely) is ruled out. */
const RULED_OUT_BY = 4

/**
 * What the readings of one string say of the hand. Causes are tried from the simplest: none, one, two together; one
 * is accepted when it leaves every finger within the player's tolerance. Nothing is said from fewer than three
 * fingers, or of the hand on an untuned string.
 * Source: the faults are common practice, no source; the fit is weighted linear least squares.
 */
export function judgeHand(check: HandCheck): Verdict {
  const fingers = summariseFingers(check)
  const open = check.readings.filter((r) => r.finger === 0).map((r) => r.cents)
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
  if (Math.abs(worst.meanCents) <= check.toleranceCents) return { outcome: 'in_tune', worst, fingers }

  const sigma = sigmaOf(fingers)
  const causes = singleCauses(check, fingers, open.length > 0)
  const single = accepted(
    check,
    causes.map((cause) => fitCauses(check, fingers, [cause], sigma)),
  )
  const [best, ...others] = single
  if (best)
    return {
      outcome: 'explained',
      findings: best.findings,
      alternatives: alternativesTo(best, others),
      fingers,
    }
  const [pair] =
    fingers.length > FINGERS_NEEDED ? accepted(check, fitPairs(check, fingers, causes, sigma)) : []
  if (pair) return { outcome: 'explained', findings: pair.findings, alternatives: [], fingers }
  return { outcome: 'several', findings: fingersOff(check, fingers, sigma), alternatives: [], fingers }
}

function summariseFingers({ lengthMm, targets, readings }: HandCheck): FingerSummary[] {
  return targets.flatMap((target) => {
    const cents = readings.filter((r) => r.finger === target.finger).map((r) => r.cents)
    const meanCents = mean(cents)
    if (meanCents === undefined) return []
    const spreadCents = deviation(cents)
    return [
      {
        finger: target.finger,
        target,
        count: cents.length,
        meanCents,
        meanMm: placeErrorMm(lengthMm, target.placeMm, meanCents),
        ...(spreadCents === undefined ? {} : { spreadCents }),
      },
    ]
  })
}

/** The notes' own pooled spread once it rests on four degrees of freedom; the assumed one before that. */
function sigmaOf(fingers: readonly FingerSummary[]): number {
  const freedom = fingers.reduce((sum, f) => sum + f.count - 1, 0)
  if (freedom < 4) return READING_SIGMA_CENTS
  const squares = fingers.reduce((sum, f) => sum + (f.count - 1) * (f.spreadCents ?? 0) ** 2, 0)
  return Math.max(1, Math.sqrt(squares / freedom))
}

function accepted(check: HandCheck, fits: readonly (Fit | undefined)[]): Fit[] {
  return fits
    .filter((fit) => fit !== undefined)
    .filter((fit) => fit.residualCents.every((cents) => Math.abs(cents) <= check.toleranceCents))
    .sort((a, b) => a.chiSquare - b.chiSquare)
}

/** Two causes at once; never two frame errors, which would be one distance said twice. */
function fitPairs(
  check: HandCheck,
  fingers: readonly FingerSummary[],
  causes: readonly Cause[],
  sigma: number,
) {
  return causes
    .flatMap((a, i) => causes.slice(i + 1).map((b) => fitCauses(check, fingers, [a, b], sigma)))
    .filter((fit) => fit?.findings.some((finding) => finding.code !== 'frame'))
}

/** Other single causes that fit nearly as well and say something else. */
function alternativesTo(best: Fit, others: readonly Fit[]): Finding[] {
  const kind = (f: Finding | undefined) => (f?.code === 'finger' ? `finger ${f.finger}` : f?.code)
  const said = new Set([kind(best.findings[0])])
  return others
    .filter((fit) => fit.chiSquare - best.chiSquare < RULED_OUT_BY)
    .flatMap((fit) => fit.findings)
    .filter((finding) => !said.has(kind(finding)) && said.add(kind(finding)))
}

function fingersOff(check: HandCheck, fingers: readonly FingerSummary[], sigma: number): Finding[] {
  return fingers
    .filter((f) => Math.abs(f.meanCents) > check.toleranceCents)
    .sort((a, b) => Math.abs(b.meanCents) - Math.abs(a.meanCents))
    .map((f) => ({
      code: 'finger' as const,
      finger: f.finger,
      offsetMm: f.meanMm,
      plusMinusMm: (Math.abs(f.meanMm / f.meanCents) * NORMAL_95 * sigma) / Math.sqrt(f.count),
      cents: f.meanCents,
    }))
}
