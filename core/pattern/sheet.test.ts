import { describe, expect, it } from 'vitest'
import { boardFor, familyOf, type FamilyId } from '../instrument'
import { note, noteName } from '../pitch'
import { pageSvg, type PageItem } from '../paper'
import { placeOfCents } from '../stop'
import { keyOf } from '../key'
import { placementAt, placementContext, patternSheet, type PatternSheetRequest } from './index'

function sheetOf(id: FamilyId, lengthMm: number, extra: Partial<PatternSheetRequest> = {}, position = 1) {
  const family = familyOf(id)
  const context = placementContext(family, family.tuning)
  return patternSheet({
    title: 'D major',
    subtitle: '',
    paper: 'a4',
    drawing: 'scale',
    board: boardFor(family, lengthMm),
    strings: family.tuning.map((open, index) => {
      const hand = placementAt(context, keyOf(note('D4'), 'major'), index, family.positions[position]!)
      const fingers =
        hand.kind === 'none'
          ? []
          : hand.stops.map((s) => ({
              ...s,
              note: noteName(s.note, { octave: false }),
              placeMm: placeOfCents(lengthMm, 100 * s.semitones),
            }))
      return { name: noteName(open, { octave: false }), isOpenInKey: true, fingers, lines: ['1 2 3 4'] }
    }),
    words: { nut: 'nut', diagram: 'diagram', legend: ['legend'], scale: (oneTo) => `1 : ${oneTo}` },
    ...extra,
  })
}

const circles = (items: readonly PageItem[]) =>
  items.flatMap((item) => (item.kind === 'circle' && item.fill === 'white' ? [item] : []))
const words = (items: readonly PageItem[]) =>
  items.flatMap((item) => (item.kind === 'text' ? [item.text] : []))
const nutY = (items: readonly PageItem[]) =>
  items.flatMap((item) => (item.kind === 'line' && item.widthMm === 0.9 ? [item.y1] : []))[0]!

describe('a pattern sheet', () => {
  it('has every finger as far from the nut as it lies on the instrument', () => {
    const { items } = sheetOf('violin', 328)
    const places = [...new Set(circles(items).map((c) => Number((c.y - nutY(items)).toFixed(3))))].sort(
      (a, b) => a - b,
    )
    const expected = [2, 3, 4, 5, 6, 7].map((s) => Number(placeOfCents(328, 100 * s).toFixed(3)))
    expect(places).toEqual(expected)
    expect(words(items)).toContain('1 : 1')
    expect(words(items)).toContain('50 mm')
  })

  it('goes to a smaller scale where the paper is too short, says so, and offers no line to prove 1 : 1 by', () => {
    const { items, heightMm } = sheetOf('bass', 1050, {}, 4)
    expect(words(items)).toContain('1 : 2')
    expect(words(items)).not.toContain('50 mm')
    for (const circle of circles(items)) expect(circle.y + circle.r).toBeLessThan(heightMm)
  })

  it.each([
    ['cello', 690, 3],
    ['bass', 1050, 4],
    ['bass', 1050, 8],
    ['violin', 328, 1],
  ] as const)(
    'has figures on the %s of %d mm in its position %d that can be read, and circles that are free',
    (id, length, position) => {
      const { items } = sheetOf(id, length, {}, position)
      const figures = items.flatMap((item) =>
        item.kind === 'text' && /^[1-4]$/.test(item.text) ? [item.sizeMm] : [],
      )
      // nine points, as newspapers are set: common practice, no source
      expect(Math.min(...figures)).toBeGreaterThanOrEqual(3.15)
      const all = circles(items)
      for (const [i, a] of all.entries())
        for (const b of all.slice(i + 1)) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(a.r + b.r)
    },
  )

  it('draws every half step equally wide as a diagram', () => {
    const { items } = sheetOf('violin', 328, { drawing: 'diagram' })
    const rows = [...new Set(circles(items).map((c) => c.y))].sort((a, b) => a - b)
    const steps = rows.slice(1).map((y, i) => Number((y - rows[i]!).toFixed(6)))
    expect(new Set(steps).size).toBe(1)
    expect(words(items)).toEqual(expect.arrayContaining(['F♯', 'C♯', 'diagram']))
  })

  it.each(['a4', 'letter'] as const)('stays on %s for every family, position and drawing', (paper) => {
    const outside: string[] = []
    for (const [id, lengthMm] of [
      ['violin', 328],
      ['viola', 371],
      ['cello', 690],
      ['bass', 1050],
    ] as const)
      for (const drawing of ['scale', 'diagram'] as const)
        for (let position = 0; position < 12; position++) {
          const page = sheetOf(id, lengthMm, { paper, drawing }, position)
          for (const item of page.items) {
            const bottom =
              item.kind === 'circle'
                ? item.y + item.r
                : item.kind === 'line'
                  ? item.y2
                  : item.kind === 'text'
                    ? item.y
                    : 0
            if (bottom > page.heightMm - 4) outside.push(`${id} ${drawing} ${position} ${item.kind}`)
          }
        }
    expect(outside).toEqual([])
  })

  it('leaves the neighbour string free of every circle', () => {
    const { items } = sheetOf('violin', 178)
    const row = circles(items).filter((c) => Math.abs(c.y - circles(items)[4]!.y) < 0.01)
    for (const [i, c] of row.entries())
      for (const d of row.slice(i + 1)) expect(Math.abs(c.x - d.x)).toBeGreaterThan(c.r + d.r)
  })

  it('is an SVG of the page’s own size', () => {
    const svg = pageSvg(sheetOf('cello', 690), 'Sans')
    expect(svg).toContain('width="210mm" height="297mm"')
    expect(svg.match(/<circle /g)!.length).toBeGreaterThan(12)
    expect(svg).toContain('text-anchor="middle"')
  })
})
