import type { HandPlace } from './types'

/**
 * Whether the hand has shifted: gone to another place. An open hand and a closed one with a thumb place in common have only
 * opened or closed; from one open hand to another the thumb goes along.
 */
export function isShifted(from: HandPlace | undefined, to: HandPlace | undefined): boolean {
  if (!from || !to || from === to) return false
  const [a, b] = [from.thumb, to.thumb]
  if (!a || !b || (a.length > 1 && b.length > 1)) return from.anchor !== to.anchor
  return !a.some((place) => b.includes(place))
}
