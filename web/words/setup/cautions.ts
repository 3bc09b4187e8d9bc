import { isSetupItem, SETUP_ITEMS } from '#core'

const DOCTOR = 'a doctor or a physiotherapist who treats players'

/** Shown wherever pain is told. This tool measures; it does not treat. */
export const PAIN_CAUTION = `Stop and rest. Ask ${DOCTOR} before playing goes on: this tool measures, it does not treat.`
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
