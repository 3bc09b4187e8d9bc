import { frameAlongNeck, type Family, type Stringing } from '#core'
import { FRAME_NAMES } from '../../words/patterns'

/** One frame of one instrument along the neck. */
export interface FrameLine {
  readonly id: string
  readonly name: string
  /** From half position to the octave, a semitone a step. */
  readonly widthsMm: readonly number[]
  readonly isOwn: boolean
  readonly dash: string
}

/** What the hand spans. */
export interface HandBand {
  readonly comfortableMm: number
  readonly reachedMm: number
  /** Otherwise it is what hands mostly reach, from memory. */
  readonly isReachMeasured: boolean
}

/** Frames are told apart by their dashes. */
const DASHES = ['none', '8 4', '2 4']

/** The frames of one string of an instrument as lines of the chart. */
export function frameLines(
  stringing: Stringing,
  stringIndex: number,
  { id, name, isOwn }: Pick<FrameLine, 'id' | 'name' | 'isOwn'>,
): FrameLine[] {
  const { family } = stringing
  const places = frameAlongNeck(stringing, Math.min(stringIndex, stringing.tuning.length - 1))
  return family.frames.map((frame) => ({
    id: `${id} ${frame.id}`,
    name: family.frames.length > 1 ? `${name} ${FRAME_NAMES[frame.id]?.toLowerCase() ?? ''}` : name,
    widthsMm: places.map((place) => place.widthsMm[frame.id] ?? NaN),
    isOwn,
    dash: DASHES[family.frames.indexOf(frame)] ?? 'none',
  }))
}

/** The sizes a teacher compares first: the own one, and those on either side of it. */
export function neighbouringSizes(family: Family, sizeId: string): string[] {
  const at = family.sizes.findIndex((s) => s.id === sizeId)
  return family.sizes.slice(Math.max(0, at - 1), at + 2).flatMap((s) => (s.id === sizeId ? [] : [s.id]))
}
