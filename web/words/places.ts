import { listed, toUnit, unitName } from './numbers'

/** What a string stands too high for, and what to do; undefined where all of it has its place. */
export function noPlaceSentence(names: readonly string[]): string | undefined {
  if (names.length === 0) return undefined
  const have = names.length === 1 ? 'has' : 'have'
  return `${listed(names)} ${have} no place here: so near the nut the string is sharper wherever it is pressed. A luthier lowers the nut; measure its height first.`
}

/** Of a tape thick enough to act as a fret: said where it is chosen, cut and laid. */
export function thickTapeSentence(thicknessMm: number, cents: number, tape: string): string {
  return `A tape ${Number(toUnit(thicknessMm).toFixed(3))} ${unitName()} thick can act as a fret. The string stops at its far edge, up to ${cents} cents sharp at the ${tape}, and buzzes. Take a thinner tape.`
}
