import { describe, expect, it } from 'vitest'
import {
  equal,
  FAMILY_IDS,
  familyOf,
  keysOf,
  parseKey,
  placementAt,
  placementContext,
  textWidth,
  type FamilyId,
  type PageItem,
} from '#core'
import { strung } from '../../core/testing'
import { patternSheetPage, type PatternSheetFacts } from './pattern-sheet'

function sheet(
  keyText: string,
  more: Partial<PatternSheetFacts> = {},
  familyId: FamilyId = 'violin',
  positionId = 'first',
) {
  const family = familyOf(familyId)
  const stringing = strung(familyId, family.board.stringLengthMm, equal)
  const parsed = parseKey(keyText)
  if (!parsed.ok) throw new Error(keyText)
  const position = family.positions.find((p) => p.id === positionId)!
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

  it('keeps all its words inside the paper, and its last line above the foot, in every key, position, drawing and paper', () => {
    for (const id of FAMILY_IDS)
      for (const key of [...keysOf('major'), ...keysOf('harmonic_minor'), ...keysOf('chromatic').slice(0, 3)])
        for (const position of familyOf(id).positions.slice(0, 5))
          for (const drawing of ['scale', 'diagram'] as const)
            for (const paper of ['a4', 'letter'] as const) {
              const page = sheet(key.id, { drawing, paper }, id, position.id)
              for (const item of page.items) {
                if (item.kind !== 'text' || item.isCentred) continue
                expect(item.x + textWidth(item.text, item.sizeMm), item.text).toBeLessThanOrEqual(
                  page.widthMm - 5,
                )
                expect(item.y, item.text).toBeLessThan(page.heightMm - 8)
              }
            }
  })

  it('says where a cello’s closed hand lies, as the screen does', () => {
    const said = (key: string, position?: string) => texts(sheet(key, {}, 'cello', position).items).join(' ')
    expect(said('A♭ major')).toContain('The hand lies in half position.')
    expect(said('E♭ major', 'second')).toContain('The hand lies in the lower second position.')
  })

  it('tells a cello when the hand extends, and warns where it could hurt', () => {
    const said = texts(sheet('E♭ major', {}, 'cello').items)
    expect(said.join(' ')).toMatch(/1 (drops|reaches|goes) back|forward/)
    expect(said).toContain('Stop and rest at any pain; never stretch 4 upwards.')
  })
})
