import { noteName } from '../../pitch'
import type { Evidence } from '../evidence'
import type { Kind } from './kind'

/** All of one string off by the same cents, where nobody has read its open string: it may be out of tune. */
export function string({ notes, opens, stringing }: Evidence): Kind[] {
  const strings = [...new Set(notes.map(({ target }) => target.stringIndex))]
  if (strings.length < 2) return []
  return strings
    .filter((stringIndex) => !opens.some((one) => one.stringIndex === stringIndex))
    .map((stringIndex) => ({
      id: `string ${stringIndex}`,
      isTuning: true,
      moves: ({ target, centsPerMm }) => (target.stringIndex === stringIndex ? 1 / centsPerMm : 0),
      describe: (cents, plusMinusCents) => ({
        code: 'string',
        string: noteName(stringing.tuning[stringIndex]!),
        cents,
        plusMinusCents,
      }),
    }))
}
