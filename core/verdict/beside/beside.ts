import type { Evidence } from '../evidence'
import type { Finding } from '../types'

/** What can be heard beside where the fingers land, or undefined where these notes do not show it. */
export type Beside = (evidence: Evidence) => Finding | undefined

/** One in twenty of all, where four fingers are asked. */
export const SURE_OF_FOUR = 1 - 0.05 / 4
