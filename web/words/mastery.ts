import type { MasteryState } from '#core'

export const STATE_NAMES: Record<MasteryState, string> = {
  not_met: 'Not met',
  learning: 'Learning',
  secure: 'Secure',
}

/** Told by shape as well as by colour. */
export const STATE_SIGNS: Record<MasteryState, string> = { not_met: '', learning: '◐', secure: '●' }
