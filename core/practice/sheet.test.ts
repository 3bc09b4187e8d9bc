import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, type FamilyId } from '../instrument'
import { PAPERS, type PageItem, type PaperId } from '../paper'
import { noteName } from '../pitch'
import {
  practiceNotes,
  practiceSheet,
  PRACTICE_IDS,
  type PracticeId,
  type PracticeSheetRequest,
} from './index'

const row = { name: 'Four against open', minutes: '1 min', days: [true, true, false, true, true, true, true] }
const HOW = 'Four against the next open string, slowly, listening for the ring. A few times a day.'
const line = (heightMm: number) => ({ heightMm, items: [] })
const sheet = (rows: number, more: Partial<PracticeSheetRequest> = {}) =>
  practiceSheet({
    title: 'Orla Venn: the week from 28 Nov 2026',
    subtitle: '15 minutes a day',
    paper: 'a4',
    days: ['Sat', 'Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri'],
    rows: Array.from({ length: rows }, () => ({ ...row, how: HOW })),
    music: [],
    strip: undefined,
    foot: ['Tune first.', 'Stop at any pain.'],
    ...more,
  })
const texts = (items: readonly PageItem[]) => items.flatMap((item) => (item.kind === 'text' ? [item] : []))

describe('a week on paper', () => {
  it.each([
    ['a4', 1],
    ['a4', 14],
    ['letter', 14],
    ['letter', 22],
  ] as const)(
    'keeps on %s inside its margins, a box for every day that asks, with %i exercises',
    (paper, rows) => {
      const { widthMm, heightMm } = PAPERS[paper satisfies PaperId]
      const { page } = sheet(rows, { paper })
      for (const item of page.items) {
        const [right, bottom] =
          item.kind === 'line' ? [Math.max(item.x1, item.x2), Math.max(item.y1, item.y2)] : [item.x, item.y]
        expect(right).toBeLessThanOrEqual(widthMm - 13.9)
        expect(bottom).toBeLessThanOrEqual(heightMm - 6)
      }
      const uprights = page.items.filter((item) => item.kind === 'line' && item.x1 === item.x2)
      expect(uprights).toHaveLength(2 * 6 * rows)
      const foot = Math.min(...texts(page.items).flatMap((t) => (t.text === 'Tune first.' ? [t.y] : [])))
      const last = Math.max(
        ...texts(page.items).flatMap((t) => (t.text.startsWith('Four against the') ? [t.y] : [])),
      )
      expect(last).toBeLessThan(foot)
    },
  )

  it('is as large as the page has room for, and says how much of the music has none', () => {
    const sizeOf = (rows: number, music = 0) =>
      Math.max(
        ...texts(
          sheet(rows, { music: music ? [{ name: 'Scale', lines: [line(music)] }] : [] }).page.items,
        ).flatMap((t) => (t.text.startsWith('Four against the') ? [t.sizeMm] : [])),
      )
    expect(sizeOf(3)).toBeGreaterThan(sizeOf(12))
    expect(sizeOf(6, 150)).toBeLessThan(sizeOf(6))
    const music = [
      { name: 'One', lines: [line(30), line(30)] },
      { name: 'Two', lines: [line(300)] },
      { name: 'Three', lines: [line(5)] },
    ]
    expect(sheet(4, { music }).left).toBe(2)
    expect(sheet(4, { music: music.slice(0, 1) }).left).toBe(0)
  })
})

describe('the notes of an exercise', () => {
  const played = (id: PracticeId, familyId: FamilyId, more = {}) =>
    practiceNotes(id, { familyId, tuning: familyOf(familyId).tuning, ...more })?.notes.map(
      ({ note, finger }) => `${noteName(note)} ${finger}`,
    )
  it('are of the instrument and the hand (by hand, from the strings)', () => {
    expect(played('fourth_against_open', 'violin')?.slice(0, 2)).toEqual(['A4 0', 'A4 4'])
    expect(played('fourth_against_open', 'viola')?.slice(0, 2)).toEqual(['D4 0', 'D4 4'])
    // A cello’s 4 of first position is a fourth above its string, not a fifth.
    expect(played('fourth_against_open', 'cello')).toBeUndefined()
    expect(played('open_and_first', 'cello')?.slice(0, 4)).toEqual(['C2 0', 'D2 1', 'C2 0', 'D2 1'])
    expect(played('scale_two_bows', 'violin')?.[7]).toBe('D5 3')
    expect(played('scale_two_bows', 'bass')?.[7]).toBe('A2 2')
    expect(played('shake_out', 'violin')).toBeUndefined()
  })

  it('are on the lowest string for an elbow, and on that of what was found', () => {
    const elbow = { code: 'elbow', shortMm: 5, plusMinusMm: 1, finger: 4, cents: -30 } as const
    expect(played('find_elbow', 'violin', { finding: elbow })?.[0]).toBe('G3 0')
    expect(played('find_elbow', 'violin')?.[0]).toBe('D4 0')
  })

  it('are there or not for every exercise on every family, and never fail', () => {
    for (const family of FAMILY_IDS)
      for (const id of PRACTICE_IDS) expect(() => played(id, family), `${id} of a ${family}`).not.toThrow()
  })
})
