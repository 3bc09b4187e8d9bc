import { centsPerMmOnString } from '../instrument'
import { NORMAL_95 } from '../stop'
import type { Cause } from './causes'
import type { Finding, HeardString } from './types'

/** Causes with the sizes that explain best what was heard. */
export interface Explanation {
  readonly findings: readonly Finding[]
  /** What is left of each finger's error, in cents. */
  readonly residualCents: readonly number[]
  /** Sum of squared residuals in units of the reading's own uncertainty. */
  readonly chiSquare: number
}

/**
 * Least-squares sizes of one cause, or of two together, weighted by how often each finger was heard. Errors are
 * compared in cents, so a millimetre counts for more high on the string. Undefined where the fingers heard cannot tell the
 * two causes apart.
 */
export function explain(
  { stringing, stringIndex, fingers, sigmaCents }: HeardString,
  causes: readonly [Cause] | readonly [Cause, Cause],
): Explanation | undefined {
  const centsPerMm = fingers.map((f) => centsPerMmOnString(stringing, stringIndex, f.target.placeMm))
  const columns = causes.map((cause) => centsPerMm.map((worth, i) => (cause.shift[i] ?? 0) * worth))
  const dot = (a: readonly number[], b: readonly number[]) =>
    fingers.reduce((sum, f, i) => sum + f.count * (a[i] ?? 0) * (b[i] ?? 0), 0)
  const heard = fingers.map((f, i) => f.meanMm * centsPerMm[i]!)

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
  }
}
