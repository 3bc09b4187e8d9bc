import type { Family, Size } from './family'
import { MM_PER_UNIT, type LengthUnit } from './length'

/** Makers of one size differ by up to this much; beyond it a measurement is questioned. Common practice, no source. */
export const SIZE_TOLERANCE = 0.03
/** Lengths are compared to this part: a bound belongs to what it bounds. */
const ROUNDING = 1e-9
/** Up to here a wandered bridge or a slip of the ruler explains the difference. Common practice, no source. */
const SLIP_TOLERANCE = 0.05
/** Nothing of the family is smaller than its smallest size, or larger than its largest, by more than this. Common practice, no source. */
const FAMILY_TOLERANCE = 0.05
/** How near a body length has to come to be taken for one. */
const BODY_TOLERANCE = 0.015
/** String and after-length together: the tailpiece is set a sixth of the string length behind the bridge. Common practice, no source. */
const TO_TAILPIECE = 7 / 6

/** After-lengths differ as makers do. */
const TAILPIECE_TOLERANCE = SIZE_TOLERANCE

/** A length as it was measured: twice the distance to the octave harmonic where `times` is 2. */
export interface MeasuredLength {
  readonly number: number
  readonly unit: LengthUnit
  readonly times?: 1 | 2
}

/** The string length that a measurement says, mm. */
export function lengthOf({ number, unit, times = 1 }: MeasuredLength): number {
  return number * MM_PER_UNIT[unit] * times
}

/** One way in which a length may have come out wrong. */
export type LengthExplanation =
  | {
      readonly code: 'wrong_unit'
      readonly typed: LengthUnit
      readonly meant: LengthUnit
      readonly lengthMm: number
    }
  /** Asked for the distance to the octave harmonic, somebody typed the whole string, or the other way about. */
  | { readonly code: 'whole_for_octave' | 'octave_for_whole'; readonly lengthMm: number }
  | { readonly code: 'body_length'; readonly bodyMm: number; readonly expectedMm: number }
  | { readonly code: 'to_tailpiece'; readonly expectedMm: number }
  | { readonly code: 'other_size'; readonly sizeIds: readonly string[] }
  | { readonly code: 'bridge_or_foot'; readonly offByMm: number }
  | { readonly code: 'no_such_instrument'; readonly shortestMm: number; readonly longestMm: number }

export interface LengthJudgement {
  /** `doubtful` may be kept after a second look; `impossible` may not: no instrument of the family has it. */
  readonly verdict: 'fits' | 'doubtful' | 'impossible'
  /** What the size leads one to expect. From memory. */
  readonly lowMm: number
  readonly highMm: number
  /** Likeliest first; empty when the length fits. */
  readonly explanations: readonly LengthExplanation[]
}

/**
 * Does a measured string length suit the size the instrument is said to be? If not, which of the usual ways of
 * measuring wrong explains it: unit, body for string, on to the tailpiece, another size, a bridge out of place.
 */
export function judgeLength(family: Family, size: Size, measured: MeasuredLength): LengthJudgement {
  const lengthMm = lengthOf(measured)
  const lowMm = size.typicalLengthMm * (1 - SIZE_TOLERANCE)
  const highMm = size.typicalLengthMm * (1 + SIZE_TOLERANCE)
  if (deviationOf(lengthMm, size.typicalLengthMm) <= SIZE_TOLERANCE + ROUNDING)
    return { verdict: 'fits', lowMm, highMm, explanations: [] }

  const lengths = family.sizes.map((s) => s.typicalLengthMm)
  const shortestMm = Math.min(...lengths) * (1 - FAMILY_TOLERANCE)
  const longestMm = Math.max(...lengths) * (1 + FAMILY_TOLERANCE)
  const possible = lengthMm >= shortestMm && lengthMm <= longestMm
  const explanations = [
    ...wrongUnit(size, measured),
    ...wrongHalf(size, measured),
    ...[
      ...bodyForString(size, lengthMm),
      ...toTailpiece(size, lengthMm),
      ...(possible ? otherSize(family, lengthMm) : []),
    ].sort((a, b) => a.deviation - b.deviation),
    ...bridgeOrFoot(size, lengthMm),
  ].map(({ explanation }) => explanation)
  if (!possible && explanations.length === 0)
    explanations.push({ code: 'no_such_instrument', shortestMm, longestMm })
  return { verdict: possible ? 'doubtful' : 'impossible', lowMm, highMm, explanations }
}

/** An explanation, and how far the length is from what it would have to be, as a part of it. */
interface Candidate {
  readonly explanation: LengthExplanation
  readonly deviation: number
}

function deviationOf(lengthMm: number, expectedMm: number): number {
  return Math.abs(lengthMm / expectedMm - 1)
}

function candidate(explanation: LengthExplanation, deviation: number, tolerance: number): Candidate[] {
  return deviation <= tolerance ? [{ explanation, deviation }] : []
}

/** The other way of measuring: what was typed fits if it is not doubled, or if it is. */
function wrongHalf(size: Size, measured: MeasuredLength): Candidate[] {
  const asked = measured.times ?? 1
  const lengthMm = lengthOf({ ...measured, times: asked === 2 ? 1 : 2 })
  const code = asked === 2 ? 'whole_for_octave' : 'octave_for_whole'
  return candidate({ code, lengthMm }, deviationOf(lengthMm, size.typicalLengthMm), SLIP_TOLERANCE)
}

function wrongUnit(size: Size, { number, unit, times = 1 }: MeasuredLength): Candidate[] {
  const others = (Object.keys(MM_PER_UNIT) as LengthUnit[]).filter((other) => other !== unit)
  for (const meant of others) {
    const lengthMm = lengthOf({ number, unit: meant, times })
    const deviation = deviationOf(lengthMm, size.typicalLengthMm)
    const found = [
      ...candidate({ code: 'wrong_unit', typed: unit, meant, lengthMm }, deviation, SLIP_TOLERANCE),
      ...bodyForString(size, lengthMm),
    ]
    if (found[0]) return [found[0]]
  }
  return []
}

function bodyForString({ typicalBodyMm, typicalLengthMm }: Size, lengthMm: number): Candidate[] {
  if (typicalBodyMm === undefined) return []
  const explanation = { code: 'body_length', bodyMm: lengthMm, expectedMm: typicalLengthMm } as const
  return candidate(explanation, deviationOf(lengthMm, typicalBodyMm), BODY_TOLERANCE)
}

function toTailpiece({ typicalLengthMm }: Size, lengthMm: number): Candidate[] {
  const explanation = { code: 'to_tailpiece', expectedMm: typicalLengthMm } as const
  return candidate(explanation, deviationOf(lengthMm, typicalLengthMm * TO_TAILPIECE), TAILPIECE_TOLERANCE)
}

function otherSize(family: Family, lengthMm: number): Candidate[] {
  const near = family.sizes
    .map((other) => ({ id: other.id, deviation: deviationOf(lengthMm, other.typicalLengthMm) }))
    .filter((other) => other.deviation <= SIZE_TOLERANCE)
    .sort((a, b) => a.deviation - b.deviation)
  const [nearest] = near
  if (!nearest) return []
  return [
    { explanation: { code: 'other_size', sizeIds: near.map((o) => o.id) }, deviation: nearest.deviation },
  ]
}

function bridgeOrFoot({ typicalLengthMm }: Size, lengthMm: number): Candidate[] {
  const explanation = { code: 'bridge_or_foot', offByMm: lengthMm - typicalLengthMm } as const
  return candidate(explanation, deviationOf(lengthMm, typicalLengthMm), SLIP_TOLERANCE)
}
