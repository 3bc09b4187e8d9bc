import type { AskewTape, FamilyId, LengthExplanation, LengthJudgement, StringsJudgement } from '#core'
import { inStudioUnit, length, listed } from './numbers'
import { familyName, instrumentKind, sizeName } from './trade'

const UNIT_NAMES = { mm: 'millimetres', cm: 'centimetres', in: 'inches' } as const

/** One sentence on whether a length suits its size, and if not, what was probably measured. */
export function lengthSentence(family: FamilyId, sizeId: string, judgement: LengthJudgement): string {
  const range = `${between(judgement.lowMm, judgement.highMm)}, from memory`
  if (judgement.verdict === 'fits') return `Fits a ${instrumentKind(family, sizeId)} (${range}).`
  const [first, ...others] = judgement.explanations
  const likely = first
    ? explain(family, sizeId, first)
    : `Measure again: a ${instrumentKind(family, sizeId)} has ${range}.`
  return [likely, ...others.flatMap((other) => orElse(other) ?? [])].join(' ')
}

/** What else it may be, after the likeliest. */
function orElse(explanation: LengthExplanation): string | undefined {
  switch (explanation.code) {
    case 'other_size':
      return `Or the instrument is a ${sizes(explanation.sizeIds)}.`
    case 'body_length':
      return 'Or that is the length of the body.'
    case 'to_tailpiece':
      return 'Or it was measured on to the tailpiece.'
    default:
      return undefined
  }
}

function explain(family: FamilyId, sizeId: string, explanation: LengthExplanation): string {
  switch (explanation.code) {
    case 'wrong_unit':
      return `In ${UNIT_NAMES[explanation.typed]} no ${familyName(family)} is that long. Did you mean ${UNIT_NAMES[explanation.meant]}, ${length(explanation.lengthMm)}?`
    case 'whole_for_octave':
      return `${length(explanation.lengthMm)} is the whole string already. Type half of it, from the nut to the octave harmonic. Or say that it is nut to bridge.`
    case 'octave_for_whole':
      return `That is half a string: the distance to the octave harmonic? Twice that is ${length(explanation.lengthMm)}.`
    case 'body_length':
      return `${length(explanation.bodyMm)} is the length of the body. Measure the string: nut to the top of the bridge, about ${length(explanation.expectedMm, 0)}.`
    case 'to_tailpiece':
      return `That reaches to the tailpiece. Measure to the top of the bridge, about ${length(explanation.expectedMm, 0)}.`
    case 'other_size':
      return `That is the string of a ${sizes(explanation.sizeIds)}, not of a ${sizeName(sizeId)}.`
    case 'bridge_or_foot': {
      const off = `${length(Math.abs(explanation.offByMm))} ${explanation.offByMm > 0 ? 'long' : 'short'}`
      return `${off} for a ${sizeName(sizeId)}: measured to the bridge’s foot, or has the bridge wandered or does it lean?`
    }
    case 'no_such_instrument':
      return `No ${familyName(family)} has such a string: ${between(explanation.shortestMm, explanation.longestMm)}. Measure from the nut to the top of the bridge.`
  }
}

/** What lengths measured string by string say of the bridge; nothing where all is well. */
export function bridgeSentence(judged: StringsJudgement, names: readonly string[]): string | undefined {
  switch (judged.code) {
    case 'even':
    case 'contradictory':
      return undefined
    case 'askew': {
      const string = judged.side === 'low' ? names[0] : names.at(-1)
      return `The bridge stands askew: ${length(judged.byMm)} further from the nut on the ${string} side, ${judged.degrees.toFixed(1)}°. Have it set straight before you lay a tape; a luthier does it in a minute.`
    }
    case 'one_off':
      return `${names[judged.stringIndex]} is ${length(Math.abs(judged.offMm))} ${judged.offMm > 0 ? 'longer' : 'shorter'} than the others lead one to expect: measure that string again.`
  }
}

/** How a tape is laid that is not square: where its middle lies under the outer strings. */
export function askewSentence({ placesMm }: Pick<AskewTape, 'placesMm'>, names: readonly string[]): string {
  const [low, high] = [placesMm[0] ?? 0, placesMm.at(-1) ?? 0]
  return `as askew as the bridge: ${length(low)} under ${names[0]}, ${length(high)} under ${names.at(-1)}`
}

function between(lowMm: number, highMm: number): string {
  return inStudioUnit(`${lowMm.toFixed(0)} to ${highMm.toFixed(0)} mm`)
}

function sizes(ids: readonly string[]): string {
  return listed(ids.map(sizeName)).replace(' and ', ' or ')
}
