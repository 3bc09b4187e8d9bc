import type { FamilyId } from '../instrument'
import type { AnsweredItem, SetupAnswer } from './answers'
import { SETUP_ITEM_IDS, SETUP_ITEMS, type SetupItemId } from './items'

/** An item that a studio added, in its own words. */
export interface OwnItem {
  readonly id: string
  readonly families: readonly FamilyId[]
  readonly question: string
  readonly right: string
  readonly wrong: string
  readonly reason: string
  readonly change: string
  readonly test: string
}

/** How a studio goes through the items: what it leaves out, what it adds, and in which order. */
export interface SetupArrangement {
  /** Ids in the studio's order; what is not named stays behind the one it follows in the usual order. */
  readonly order: readonly string[]
  readonly hidden: readonly string[]
  readonly own: readonly OwnItem[]
}

export const USUAL_ARRANGEMENT: SetupArrangement = { order: [], hidden: [], own: [] }

/** Pain is asked first, in every round of every studio: nothing below it is asked until it is cleared. */
export const ALWAYS_FIRST: SetupItemId = 'pain'

/** What a round asks: an item of the tool or of the studio. */
export interface RoundItem {
  readonly id: string
  readonly own: OwnItem | undefined
}

/** Every item of a family in a studio's order, hidden ones too. */
export function arrangedItems(
  family: FamilyId,
  { order, own }: Pick<SetupArrangement, 'order' | 'own'> = USUAL_ARRANGEMENT,
): RoundItem[] {
  const builtIn = SETUP_ITEM_IDS.filter((id) =>
    (SETUP_ITEMS[id].families as readonly FamilyId[]).includes(family),
  )
  const ownItems = own.filter(({ families }) => families.includes(family))
  const usual: RoundItem[] = [
    ...builtIn.map((id) => ({ id, own: undefined })),
    ...ownItems.map((item) => ({ id: item.id, own: item })),
  ]
  const byId = new Map(usual.map((item) => [item.id, item]))
  const named = [...new Set(order)].filter((id) => id !== ALWAYS_FIRST && byId.has(id))
  const arranged = [ALWAYS_FIRST as string, ...named]
  usual.forEach(({ id }, index) => {
    if (arranged.includes(id)) return
    const before = usual[index - 1]?.id ?? ALWAYS_FIRST
    arranged.splice(arranged.indexOf(before) + 1, 0, id)
  })
  return arranged.map((id) => byId.get(id)!)
}

/** What a round of this studio asks of a player of this family, in order. */
export function roundItems(family: FamilyId, arrangement: SetupArrangement = USUAL_ARRANGEMENT): RoundItem[] {
  return arrangedItems(family, arrangement).filter(
    ({ id }) => id === ALWAYS_FIRST || !arrangement.hidden.includes(id),
  )
}

/** Where a round stands: what is asked now, or at what it stopped; neither when all is answered. */
export interface RoundStanding {
  readonly asks: RoundItem | undefined
  readonly stoppedAt: RoundItem | undefined
  /** Items answered so far, of how many. */
  readonly done: number
  readonly of: number
}

/**
 * Where a round stands after these answers. It stops at the first “no”, since what comes later often follows from it, unless
 * the teacher said to go on past it; past pain nobody goes on.
 */
export function standingOf(
  items: readonly RoundItem[],
  answers: readonly AnsweredItem[],
  passed: readonly string[] = [],
): RoundStanding {
  const answerTo = new Map<string, SetupAnswer>(answers.map(({ itemId, answer }) => [itemId, answer]))
  const done = items.filter(({ id }) => answerTo.has(id)).length
  const of = items.length
  for (const item of items) {
    const answer = answerTo.get(item.id)
    if (answer === undefined) return { asks: item, stoppedAt: undefined, done, of }
    const isPassed = item.id !== ALWAYS_FIRST && passed.includes(item.id)
    if (answer === 'no' && !isPassed) return { asks: undefined, stoppedAt: item, done, of }
  }
  return { asks: undefined, stoppedAt: undefined, done, of }
}
