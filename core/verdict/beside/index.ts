import type { Evidence } from '../evidence'
import type { Finding, JudgedTake } from '../types'
import { dull } from './dull'
import { earRepairs } from './ear-repairs'
import { vibrato } from './vibrato'
import { withoutTapes } from './without-tapes'
import { wobble } from './wobble'

/** What can be heard beside where the fingers land; a new one is a file here and a line below. */
export function besides(take: JudgedTake, evidence: Evidence): Finding[] {
  return [
    withoutTapes(take, evidence),
    ...[earRepairs, wobble, dull, vibrato].map((beside) => beside(evidence)),
  ].filter((finding) => finding !== undefined)
}
