import { describe, expect, it } from 'vitest'
import { equal, familyOf, parseKey, placementContext, placementAt, type PageItem } from '#core'
import { strung } from '../../core/testing'
import { patternSheetPage, type PatternSheetFacts } from './pattern-sheet'

function sheet(
  keyText: string,
  more: Partial<PatternSheetFacts> = {},
  familyId: 'violin' | 'cello' = 'violin',
) {
  const family = familyOf(familyId)
  const stringing = strung(familyId, family.board.stringLengthMm, equal)
  const parsed = parseKey(keyText)
  if (!parsed.ok) throw new Error(keyText)
  const position = family.positions.find((p) => p.id === 'first')!
  const context = placementContext(family, family.tuning)
  return patternSheetPage({
    key: parsed.key,
    position,
    cells: family.tuning.map((_, string) => placementAt(context, parsed.key, string, position)),
    stringing,
    whose: ['Orla Venn', 'no. 7'],
    paper: 'a4',
    drawing: 'scale',
    ...more,
  })
}
const texts = (items: readonly PageItem[]) =>
  items.flatMap((item) => (item.kind === 'text' ? [item.text] : []))

describe('a pattern sheet', () => {
  it('names key, position, player and length, and each string’s notes, pattern and places', () => {
    const said = texts(sheet('D major').items)
    expect(said).toContain('D major, first position')
    expect(said.find((text) => text.includes('Orla Venn'))).toMatch(/Orla Venn · no\. 7 · 328\.0 mm · /)
    expect(said).toContain('1 E · 2 F♯ · 3 G · 4 A')
    expect(said).toContain('2 and 3 touch · W H W')
    // 2, 4, 5 and 7 equal semitones of 328 mm: the fret rule
    const places = [2, 4, 5, 7].map((s) => (328 * (1 - 2 ** (-s / 12))).toFixed(1))
    expect(said).toContain(`${places.join(' – ')} mm`)
  })

  it('as a diagram tells no millimetres, nor a length that is none of it', () => {
    const said = texts(sheet('D major', { drawing: 'diagram' }).items)
    expect(said.filter((text) => /\d mm/.test(text))).toEqual([])
    expect(said).toContain('A diagram: every half step is drawn equally wide.')
  })

  it('tells a cello when the hand extends, and warns where it could hurt', () => {
    const said = texts(sheet('E♭ major', {}, 'cello').items)
    expect(said.join(' ')).toMatch(/1 (drops|reaches|goes) back|forward/)
    expect(said).toContain('Stop and rest at any pain; never stretch 4 upwards.')
  })
})
