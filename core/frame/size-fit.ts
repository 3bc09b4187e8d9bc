import { sizeOf, typicalStringing, type Family, type Frame, type Stringing } from '../instrument'
import { INTERVALS, type Interval, type TuningSystem } from '../pitch'
import { widestFrameMm } from './width'

/** How a hand meets the frame of an instrument. */
export type HandFit = 'comfortable' | 'reach_back' | 'thumb_or_pivot' | 'too_big'

/** First position, where frames are widest for long: its first finger a whole step above the open string. */
export const FIRST_POSITION: Interval = INTERVALS.majorSecond
/**
 * With the thumb further forward, or pivoting between 1 and 4, a hand gets by with this share of the frame.
 * Common practice, no source.
 */
export const PIVOT_SHARE = 0.9
/** Where nobody has measured the reach: a hand opens about this much wider than it lies at rest. From memory. */
export const TYPICAL_REACH = 1.1

/**
 * Width in mm of a frame in first position, on the string where it is widest; the cello's extended one with 1 dropped back
 * a half step.
 */
export function firstPositionWidthMm(stringing: Stringing, frame: Frame): number {
  return widestFrameMm(stringing, frame.opensBack ? INTERVALS.minorSecond : FIRST_POSITION, frame)
}

export interface HandSpan {
  readonly comfortableSpanMm: number
  readonly reachedSpanMm: number | null
}

/** One frame of an instrument against one hand, all in mm. */
export interface FrameFit {
  readonly frame: Frame
  readonly fit: HandFit
  readonly widthMm: number
  /** Comfortable span less the frame: what is over, or lacking. */
  readonly spareMm: number
}

export interface SizeFit {
  /** Of the frame that is always needed. */
  readonly fit: HandFit
  /** The family's first frame, then the others. */
  readonly frames: readonly FrameFit[]
}

/**
 * Whether an instrument suits a hand, in first position: comfortable where the hand at rest spans the frame; reach back with
 * 1 where it spans it spread; thumb forward or pivot where nine tenths of it; else too big. Never a reason to stretch 4
 * upwards.
 */
export function fitOfInstrument(stringing: Stringing, span: HandSpan): SizeFit {
  const frames = stringing.family.frames.map((frame) => {
    const widthMm = firstPositionWidthMm(stringing, frame)
    return { frame, fit: fitOfWidth(widthMm, span), widthMm, spareMm: span.comfortableSpanMm - widthMm }
  })
  return { fit: frames[0]!.fit, frames }
}

export function fitOfWidth(widthMm: number, { comfortableSpanMm, reachedSpanMm }: HandSpan): HandFit {
  const reach = reachedSpanMm ?? comfortableSpanMm * TYPICAL_REACH
  if (comfortableSpanMm >= widthMm) return 'comfortable'
  if (reach >= widthMm) return 'reach_back'
  return reach >= widthMm * PIVOT_SHARE ? 'thumb_or_pivot' : 'too_big'
}

/** The largest size of a family, by its typical length, that this hand holds at rest; undefined where none is so small. */
export function comfortableSize(family: Family, system: TuningSystem, span: HandSpan): string | undefined {
  return family.sizes.find(
    (size) => fitOfInstrument(typicalStringing(family, size.id, system), span).fit === 'comfortable',
  )?.id
}

/**
 * The sizes that this hand may be lent, by their typical lengths, the largest first: the largest that it holds at rest, the
 * one above if it is held somehow, and the one below. Where none is comfortable, the smallest two.
 */
export function sizesToLend(family: Family, system: TuningSystem, span: HandSpan): string[] {
  const ids = family.sizes.map(({ id }) => id)
  const own = ids.indexOf(comfortableSize(family, system, span) ?? '')
  if (own < 0) return ids.slice(-2)
  const above = family.sizes[own - 1]
  const isHeld = above && fitOfInstrument(typicalStringing(family, above.id, system), span).fit !== 'too_big'
  return ids.slice(isHeld ? own - 1 : own, own + 2)
}

/** The size above `sizeId`, and the comfortable span it asks for, mm; undefined at the full size. */
export function nextSize(
  family: Family,
  sizeId: string,
  system: TuningSystem,
): { readonly sizeId: string; readonly spanMm: number } | undefined {
  const own = sizeOf(family, sizeId)
  const next = own && family.sizes[family.sizes.indexOf(own) - 1]
  return (
    next && {
      sizeId: next.id,
      spanMm: firstPositionWidthMm(typicalStringing(family, next.id, system), family.frames[0]!),
    }
  )
}
