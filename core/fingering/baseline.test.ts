import { expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, THUMB } from '../instrument'
import { keysOf } from '../key'
import { placementContext } from '../pattern'
import { isShifted, type FingeringOptions } from '../technique'
import { alternativesFor, DEFAULT_FINGERING, fingerScale, type FingeredNote } from './index'

/**
 * Every usual fingering, as it is printed: whoever changes an effort sees in `baseline.txt` which lines it moves. Whether they are as
 * teachers write them is asked in `usual.test.ts`, of lines that others have written down.
 */
const WAYS: readonly (readonly [string, Partial<FingeringOptions>])[] = [
  ['', {}],
  ['no open strings', { openStrings: 'avoid' }],
  ['stays', { climb: 'stay' }],
]

/** `|` where the string changes, `-` where the hand shifts. */
function written(notes: readonly FingeredNote[]): string {
  return notes
    .map(({ finger, stringIndex, hand, harmonic }, i) => {
      const before = notes[i - 1]
      const crosses = before && before.stringIndex !== stringIndex ? '| ' : ''
      return `${crosses}${before && isShifted(before.hand, hand) ? '-' : ''}${finger === THUMB ? 'T' : finger}${harmonic ? '°' : ''}`
    })
    .join(' ')
}

it('fingers every line as it did before', async () => {
  const lines: string[] = []
  for (const id of FAMILY_IDS) {
    const context = placementContext(familyOf(id), familyOf(id).tuning)
    for (const modeId of ['major', 'natural_minor'] as const)
      for (const key of keysOf(modeId))
        for (const figure of ['scale', 'arpeggio'] as const)
          for (const octaves of [1, 2, 3] as const)
            for (const [title, way] of modeId === 'major' && octaves === 2 ? WAYS : WAYS.slice(0, 1)) {
              const made = fingerScale(context, { key, figure, octaves }, { ...DEFAULT_FINGERING, ...way })
              const said = made.ok ? written(made.notes) : made.code
              lines.push(`${id} ${key.id} ${figure} ${octaves}${title && ` (${title})`}: ${said}`)
            }
    for (const key of keysOf('major').slice(4, 11))
      for (const one of alternativesFor(context, { key, figure: 'scale', octaves: 1 }))
        lines.push(`${id} ${key.id} ${one.id}: ${written(one.notes)}`)
  }
  await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot('baseline.txt')
})
