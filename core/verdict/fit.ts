import { centsPerMm } from '../stop'
import type { Cause, Fit } from './causes'
import type { FingerSummary, HandCheck } from './types'

/** Half-width of a 95 % interval in standard errors of a normal distribution. */
export const NORMAL_95 = 1.96

/**
 * Least-squares sizes of one cause, or of two together, weighted by how often each finger was heard. Errors are
 * compared in cents, so a millimetre counts for more high on the string. `sigmaCents` is the uncertainty of one note.
 * Gives undefined where the fingers heard cannot tell the two causes apart.
 */
export function fitCauses(
  check: HandCheck,
  fingers: readonly FingerSummary[],
  causes: readonly [Cause] | readonly [Cause, Cause],
  sigmaCents: number,
): Fit | undefined {
  const columns = causes.map((cause) =>
    fingers.map((f, i) => (cause.shift[i] ?? 0) * centsPerMm(check.lengthMm, f.target.placeMm)),
  )
  const dot = (a: readonly number[], b: readonly number[]) =>
    fingers.reduce((sum, f, i) => sum + f.count * (a[i] ?? 0) * (b[i] ?? 0), 0)
  const heard = fingers.map((f) => f.meanMm * centsPerMm(check.lengthMm, f.target.placeMm))

  const [a, b] = columns
  if (!a) return undefined
  const aa = dot(a, a)
  const bb = b ? dot(b, b) : 1
  const ab = b ? dot(a, b) : 0
  const determinant = aa * bb - ab * ab
  if (!(determinant > 1e-9 * aa * bb)) return undefined
  const ya = dot(a, heard)
  const yb = b ? dot(b, heard) : 0
  const sizes = [(ya * bb - yb * ab) / determinant, (yb * aa - ya * ab) / determinant]
  const variances = [bb / determinant, aa / determinant].map((v) => v * sigmaCents ** 2)

  const predictedCents = fingers.map((_, i) =>
    columns.reduce((sum, column, j) => sum + (column[i] ?? 0) * (sizes[j] ?? 0), 0),
  )
  const residualCents = heard.map((cents, i) => cents - (predictedCents[i] ?? 0))
  return {
    findings: causes.map((cause, j) =>
      cause.describe(sizes[j] ?? 0, NORMAL_95 * Math.sqrt(variances[j] ?? 0)),
    ),
    residualCents,
    chiSquare: dot(residualCents, residualCents) / sigmaCents ** 2,
    predictedCents,
  }
}
