/** What a teacher sees of one item: as it should be, nearly, or not. */
export type SetupAnswer = 'yes' | 'nearly' | 'no'

/** One item of a round as it was answered. */
export interface AnsweredItem {
  readonly itemId: string
  readonly answer: SetupAnswer
  /** In the item's own unit; null where it was judged by eye. */
  readonly measured: number | null
}

/** Ranges of a measured value, both ends included; what lies outside the wider one is not right. */
export interface SetupLimits {
  readonly right: readonly [number, number]
  readonly nearly: readonly [number, number]
}

/** The answer that a measured value gives. */
export function answerOf(value: number, { right, nearly }: SetupLimits): SetupAnswer {
  if (isWithin(value, right)) return 'yes'
  return isWithin(value, nearly) ? 'nearly' : 'no'
}

function isWithin(value: number, [least, most]: readonly [number, number]): boolean {
  return value >= least && value <= most
}
