import { isSetupItem, SETUP_ITEMS } from '#core'

/** Shown where a hand or an arm is to be moved. */
export const GENTLY = 'Gently: never force the elbow round, and stop at discomfort.'

/** What a tuner or a file mends hurts nobody. */
const HARMLESS: readonly string[] = ['tuned', 'nails']

/** What stands under a stop: that of an arm where a hand or an arm is moved, and none where nobody is. */
export function cautionOf(itemId: string): string | undefined {
  if (HARMLESS.includes(itemId)) return undefined
  return isSetupItem(itemId) && SETUP_ITEMS[itemId].of === 'hand'
    ? GENTLY
    : 'Stop at discomfort: what presses or hurts is set otherwise.'
}
