import { expect, it } from 'vitest'
import { familyOf, THUMB, type FamilyId } from '../instrument'
import { parseKey } from '../key'
import { placementContext } from '../pattern'
import { fingerScale, type FigureId } from './index'

/**
 * Fingerings as they are printed, going up; strings parted by |, T the thumb. Those of docs/trade.md § 9 are marked H;
 * the others are common practice, no source, written down by hand before they were compared.
 */
const PRINTED: readonly (readonly [FamilyId, string, FigureId, 1 | 2 | 3, string])[] = [
  ['violin', 'G', 'scale', 1, '0 1 2 3 | 0 1 2 3'],
  ['violin', 'D', 'scale', 1, '0 1 2 3 | 0 1 2 3'], // H
  ['violin', 'A', 'scale', 1, '0 1 2 3 | 0 1 2 3'],
  ['violin', 'C', 'scale', 1, '3 | 0 1 2 3 | 0 1 2'],
  ['violin', 'F', 'scale', 1, '2 3 | 0 1 2 3 | 0 1'],
  ['violin', 'B♭', 'scale', 1, '2 3 | 0 1 2 3 | 0 1'],
  ['violin', 'E', 'scale', 1, '1 2 3 | 0 1 2 3 | 0'],
  ['violin', 'E♭', 'scale', 1, '1 2 3 4 | 1 2 3 4'],
  ['violin', 'A minor', 'scale', 1, '0 1 2 3 | 0 1 2 3'],
  ['violin', 'G', 'scale', 2, '0 1 2 3 | 0 1 2 3 | 0 1 2 3 | 0 1 2'], // H
  ['violin', 'A', 'scale', 2, '1 2 3 | 0 1 2 3 | 0 1 2 3 | 0 1 2 3'], // H
  ['violin', 'B♭', 'scale', 2, '2 3 | 0 1 2 3 | 0 1 2 3 4 | 1 2 3 4'], // H
  ['violin', 'C', 'scale', 2, '3 | 0 1 2 3 | 0 1 2 3 | 0 1 2 1 2 3'],
  ['violin', 'D', 'scale', 2, '0 1 2 3 | 0 1 2 3 | 0 1 2 1 2 3 4'],
  ['violin', 'E♭', 'scale', 2, '1 2 3 4 | 1 2 3 4 | 1 2 1 2 1 2 3'],
  // On the top string in pairs, ending 1 2 3 or 1 2 3 4: H.
  // 4 reaches up to A♯ and D♯; no finger slides where another is free.
  ['violin', 'B', 'scale', 2, '2 3 4 | 1 2 3 4 | 1 2 3 | 0 1 2 3 4'],
  ['violin', 'F♯', 'scale', 2, '3 4 | 1 2 3 4 | 1 2 3 1 2 1 2 3 4'],
  ['violin', 'G', 'scale', 3, '0 1 2 3 | 0 1 2 3 | 0 1 2 3 | 0 1 2 1 2 1 2 1 2 3'],
  ['violin', 'A', 'scale', 3, '1 2 3 | 0 1 2 3 | 0 1 2 3 | 0 1 2 1 2 1 2 1 2 3 4'],
  ['violin', 'B♭', 'scale', 3, '2 3 | 0 1 2 3 | 0 1 2 3 4 | 1 2 1 2 1 2 1 2 1 2 3'],
  ['violin', 'F', 'scale', 3, '2 3 | 0 1 2 3 | 0 1 2 1 2 1 2 1 2 1 2 1 2 1 2 3'],
  ['violin', 'G', 'arpeggio', 2, '0 2 | 0 3 | 1 3 | 2'],
  ['violin', 'D', 'arpeggio', 2, '0 2 | 0 3 | 1 1 4'], // H
  ['violin', 'A chromatic', 'scale', 1, '0 1 1 2 2 3 4 | 0 1 1 2 2 3'], // H: 1 1 2 2 3
  ['viola', 'C', 'scale', 2, '0 1 2 3 | 0 1 2 3 | 0 1 2 3 | 0 1 2'], // H
  ['viola', 'D', 'scale', 2, '1 2 3 | 0 1 2 3 | 0 1 2 3 | 0 1 2 3'], // H
  ['viola', 'E♭', 'scale', 2, '2 3 | 0 1 2 3 | 0 1 2 3 4 | 1 2 3 4'], // H
  ['viola', 'G', 'scale', 1, '0 1 2 3 | 0 1 2 3'], // H
  ['viola', 'G', 'scale', 2, '0 1 2 3 | 0 1 2 3 | 0 1 2 1 2 3 4'],
  ['viola', 'C', 'scale', 3, '0 1 2 3 | 0 1 2 3 | 0 1 2 3 | 0 1 2 1 2 1 2 1 2 3'],
  ['cello', 'C', 'scale', 1, '0 1 3 4 | 0 1 3 4'],
  ['cello', 'G', 'scale', 1, '0 1 3 4 | 0 1 3 4'],
  ['cello', 'D', 'scale', 1, '0 1 3 4 | 0 1 3 4'],
  ['cello', 'F', 'scale', 1, '4 | 0 1 2 4 | 0 1 2'],
  ['cello', 'B♭', 'scale', 1, '2 4 | 0 1 2 4 | 0 1'],
  ['cello', 'E♭', 'scale', 1, '2 4 | 0 1 2 4 | 0 1'],
  ['cello', 'A', 'scale', 1, '1 2 4 | 0 1 2 4 | 0'],
  ['cello', 'A minor', 'scale', 1, '1 3 4 | 0 1 2 4 | 0'],
  ['cello', 'D minor', 'scale', 1, '0 1 2 4 | 0 1 2 4'],
  ['cello', 'C', 'scale', 2, '0 1 3 4 | 0 1 3 4 | 0 1 2 4 | 0 1 2'], // H
  ['cello', 'G', 'scale', 2, '0 1 3 4 | 0 1 3 4 | 0 1 2 4 1 3 4'], // H
  ['cello', 'D', 'scale', 2, '1 2 4 | 0 1 2 4 | 0 1 3 4 | 0 1 3 4'], // H
  ['cello', 'F', 'scale', 2, '4 | 0 1 2 4 | 0 1 2 4 | 0 1 2 4 1 2'], // H
  ['cello', 'D', 'scale', 3, '1 2 4 | 0 1 2 4 | 0 1 3 4 | 0 1 3 4 1 3 4 T 1 2 3'], // H: thumb 1 2 3
  ['cello', 'C', 'arpeggio', 2, '0 3 | 0 4 | 1 4 | 2'],
  // A hand goes on by 1, also a step, where it leads into the rest of the line; not back and forth.
  ['cello', 'E', 'scale', 1, '1 2 4 | 0 1 1 3 4'],
  ['cello', 'A♭', 'scale', 2, '1 3 1 2 4 | 1 3 4 | 1 3 1 3 1 2 3'],
  ['cello', 'B', 'scale', 2, '2 4 | 1 2 4 1 3 4 | 1 3 1 3 1 2 3'],
  ['cello', 'B♭ minor', 'arpeggio', 1, '1 4 | 3 | 1'],
  ['cello', 'B♭', 'arpeggio', 1, '2 | 0 2 | 1'],
  ['cello', 'E♭', 'arpeggio', 1, '2 | 0 2 | 1'],
  ['cello', 'C chromatic', 'scale', 1, '0 1 2 3 1 2 3 | 0 1 2 3 1 2'], // H: 1 2 3, then shift
  ['bass', 'F', 'scale', 1, '1 4 | 0 1 4 | 0 2 4'], // H
  ['bass', 'B♭', 'scale', 1, '1 4 | 0 1 4 | 0 2 4'], // H
  ['bass', 'G', 'scale', 1, '2 | 0 1 2 | 0 1 4 | 0'], // H
  ['bass', 'D', 'scale', 1, '0 1 4 | 0 1 4 2 4'], // H
  ['bass', 'A', 'scale', 1, '0 1 4 | 0 1 4 | 1 2'],
  ['bass', 'E', 'scale', 1, '0 1 4 | 0 1 4 | 1 2'],
  ['bass', 'A minor', 'scale', 1, '0 1 2 | 0 1 2 | 0 1'],
  ['bass', 'E minor', 'scale', 1, '0 1 2 | 0 1 2 | 0 1'],
  ['bass', 'D minor', 'scale', 1, '0 1 2 | 0 1 2 1 4'],
  ['bass', 'C', 'scale', 2, '2 | 0 1 2 | 0 1 4 1 4 1 2 T 1 2 3'], // H: thumb on the octave, then 1 2 3
  ['bass', 'D', 'scale', 2, '0 1 4 | 0 1 4 1 2 1 4 T 1 3 1 2'],
  ['bass', 'E', 'scale', 2, '0 1 4 | 0 1 4 | 1 2 4 | 1 2 1 4 2 4'],
  ['bass', 'A', 'scale', 3, '0 1 4 | 0 1 4 | 1 2 1 4 2 1 4 T 1 3 T 1 3 T 1 2'],
  ['bass', 'F', 'arpeggio', 1, '1 | 0 4 | 4'],
  ['bass', 'G', 'arpeggio', 1, '2 | 1 | 0 | 0'],
  // The top is not found by 1.
  ['bass', 'E♭', 'arpeggio', 1, '1 | 0 4 4'],
  ['bass', 'A', 'arpeggio', 2, '0 4 | 1 | 1 1 1 3'],
]

it.each(PRINTED)(
  'the %s fingers %s major or minor, %s, %i octave(s)',
  (id, keyText, figure, octaves, printed) => {
    const family = familyOf(id)
    const key = parseKey(keyText)
    if (!key.ok) throw new Error(keyText)
    const scale = fingerScale(placementContext(family, family.tuning), { key: key.key, figure, octaves })
    if (!scale.ok) throw new Error(scale.code)
    const up = scale.notes.slice(0, (scale.notes.length + 1) / 2)
    const written = up
      .map(({ stringIndex, finger }, i) => {
        const isNew = i > 0 && stringIndex !== up[i - 1]!.stringIndex
        return `${isNew ? '| ' : ''}${finger === THUMB ? 'T' : finger}`
      })
      .join(' ')
    expect(written).toBe(printed)
  },
)
