import { describe, expect, it } from 'vitest'
import { familyOf, fingerScale, parseKey, placementContext, scoreOf, type FamilyId } from '#core'
import { scoreNoteWords } from '../words/score'
import { rowsOf } from './rows'

function scored(id: FamilyId, keyText: string, octaves: 1 | 2 | 3) {
  const family = familyOf(id)
  const parsed = parseKey(keyText)
  if (!parsed.ok) throw new Error(keyText)
  const made = fingerScale(placementContext(family, family.tuning), {
    key: parsed.key,
    figure: 'scale',
    octaves,
  })
  if (!made.ok) throw new Error(made.code)
  return scoreOf(id, parsed.key, made.notes, 'quarter')
}

describe('lines on paper', () => {
  it('hold every bar once, in order, on as few lines as there is room for and as even as they come', () => {
    const score = scored('violin', 'G', 3)
    for (const width of [320, 700, 1000, 1600]) {
      const rows = rowsOf(score, width)
      expect(rows.flatMap(({ bars }) => bars)).toEqual(score.bars)
      expect(rows.map(({ isLast }) => isLast)).toEqual(rows.map((_, i) => i === rows.length - 1))
      if (rows.length > 1 && rows.length < score.bars.length) {
        const bars = rows.map((row) => row.bars.length)
        expect(Math.max(...bars) - bars.at(-1)!).toBeLessThanOrEqual(2)
      }
    }
    expect(rowsOf(score, 1000)).toHaveLength(2)
    expect(rowsOf(score, 100)).toHaveLength(score.bars.length)
  })

  it('begin with the clef that holds there', () => {
    const score = scored('cello', 'D', 3)
    const rows = rowsOf(score, 420)
    expect(rows[0]!.clef).toBe('bass')
    expect(rows.some(({ clef }) => clef === 'tenor')).toBe(true)
    expect(rows.at(-1)!.clef).toBe('bass')
  })
})

it('a note is read aloud with all that stands over it', () => {
  const notes = scored('cello', 'D', 3).bars.flat()
  const words = notes.map((n) => scoreNoteWords(n, familyOf('cello').tuning))
  expect(words.slice(0, 4)).toEqual([
    'D2, finger 1, C string, first position',
    'E2, finger 2 extended',
    'F♯2, finger 4',
    'G2, open string',
  ])
  expect(words).toContain('A4, thumb, shift, harmonic at half of the string')
  // A cellist tells the lower second position from the upper one.
  const flat = scored('cello', 'A♭', 1).bars.flat()
  expect(flat.map((n) => scoreNoteWords(n)).join('; ')).toContain('lower second position')
})
