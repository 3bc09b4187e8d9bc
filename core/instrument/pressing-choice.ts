import type { Pressing } from '../stop'
import type { Family } from './family'

export const PRESSING_MODES = ['off', 'typical', 'measured'] as const

/** Whether pressing is reckoned with, and from what: the heights count where they were measured. */
export interface PressingChoice extends Pressing {
  readonly mode: (typeof PRESSING_MODES)[number]
}

/** Heights and strings as one mostly meets them on an instrument of this string length. From memory. */
export function typicalPressing({ typicalPressing: full, board }: Family, lengthMm: number): Pressing {
  const scale = lengthMm / board.stringLengthMm
  return {
    nutHeightMm: full.nutHeightMm * scale,
    endHeightMm: full.endHeightMm * scale,
    material: full.material,
  }
}

/** The heights to reckon with; undefined where pressing is left out. */
export function pressingOf(
  family: Family,
  lengthMm: number,
  choice: PressingChoice | null | undefined,
): Pressing | undefined {
  if (!choice || choice.mode === 'off') return undefined
  if (choice.mode === 'typical') return typicalPressing(family, lengthMm)
  const { nutHeightMm, endHeightMm, material, materials } = choice
  return { nutHeightMm, endHeightMm, material, ...(materials ? { materials } : {}) }
}
