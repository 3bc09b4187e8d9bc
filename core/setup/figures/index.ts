import type { Figure, FigurePart } from '../../figure'
import { answerOf } from '../answers'
import { setupLimits, setupMeasureOf, type SetupItemId } from '../items'
import { BASS_DRAWINGS } from './bass'
import { CELLO_DRAWINGS } from './cello'
import { EVERY_DRAWINGS } from './every'
import type { Draw, FigureAsked, FigureSide } from './poses'
import { VIOLIN_DRAWINGS } from './violin'

export type { FigureAsked, FigureSide } from './poses'

/** Cannot be seen: a body’s pain, and a string’s pitch. */
type Unseen = 'pain' | 'tuned'
/** An item that is drawn; others are asked in words. */
export type DrawnItemId = Exclude<SetupItemId, Unseen>

/** One drawing an item: the same figure with other angles for right, the usual wrong, and what was measured. */
const DRAWINGS: Readonly<Record<DrawnItemId, Draw>> = {
  ...EVERY_DRAWINGS,
  ...VIOLIN_DRAWINGS,
  ...CELLO_DRAWINGS,
  ...BASS_DRAWINGS,
}

export function isDrawnItem(id: string): id is DrawnItemId {
  return id in DRAWINGS
}

/** Smaller or larger hands are drawn as these: they stay in the picture. */
const SMALLEST_HAND = 0.78
const LARGEST_HAND = 1.15

/** The drawing of an item in a school: as it should be, as it usually goes wrong, or with what was measured. */
export function setupFigure(itemId: DrawnItemId, asked: FigureAsked): Figure {
  const hand = Math.min(LARGEST_HAND, Math.max(SMALLEST_HAND, asked.hand ?? 1))
  const { scale = 1 } = asked
  // Drawn on the full size: a child’s 14 mm stand where 25 would, and are called 14 all the same.
  const isLength = setupMeasureOf(itemId)?.unit === 'mm'
  const measured = asked.measured === undefined || !isLength ? asked.measured : asked.measured / scale
  const drawn = { ...asked, measured }
  const figure = DRAWINGS[itemId]({ ...drawn, hand, side: sideOf(itemId, drawn) })
  return { ...figure, parts: figure.parts.map((part) => ofSize(part, scale)) }
}

function ofSize(part: FigurePart, scale: number): FigurePart {
  if (part.kind !== 'label' || part.unit !== 'mm' || part.value === undefined) return part
  return { ...part, value: part.value * scale }
}

/** What was measured is drawn on the hand that it fits: as it should be, unless the number says that it is not. */
function sideOf(itemId: SetupItemId, { side, schools, measured }: FigureAsked): FigureSide {
  if (measured === undefined) return side
  const limits = setupLimits(itemId, schools)
  return limits && answerOf(measured, limits) === 'no' ? 'wrong' : 'right'
}
