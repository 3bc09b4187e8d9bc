import { Note as Tonal, Scale } from 'tonal'
import { describe, expect, it } from 'vitest'
import { familyOf, THUMB, type FamilyId } from '../instrument'
import { keysOf, parseKey, type Key } from '../key'
import { fingerScale } from '../fingering'
import { boardFor } from '../instrument'
import { placementContext } from '../pattern'
import { note, noteName } from '../pitch'
import { fillingSpaceMm, lineSheet, scoreOf, takeScore, type NoteValue } from './index'

const key = (text: string) => {
  const parsed = parseKey(text)
  if (!parsed.ok) throw new Error(text)
  return parsed.key
}
const line = (names: string) => names.split(' ').map((name) => ({ note: note(name), finger: 1 as const }))
const signs = (keyText: string, names: string) =>
  scoreOf('violin', key(keyText), line(names), 'quarter').bars.map((bar) =>
    bar.map((n) => (n.isCourtesy ? `(${n.sign})` : (n.sign ?? ''))),
  )
const scored = (id: FamilyId, keyText: string, octaves: 1 | 2 | 3, value: NoteValue = 'quarter') => {
  const family = familyOf(id)
  const context = placementContext(family, family.tuning)
  const made = fingerScale(context, { key: key(keyText), figure: 'scale', octaves })
  if (!made.ok) throw new Error(made.code)
  return scoreOf(id, key(keyText), made.notes, value)
}

const IN_KEY = [
  ['D', 'D4 E4 F♯4 G4 A4 B4 C♯5 D5'],
  ['E♭', 'E♭4 F4 G4 A♭4 B♭4 C5 D5 E♭5'],
  ['F♯ natural minor', 'F♯4 G♯4 A4 B4 C♯5 D5 E5 F♯5'],
  ['G dorian', 'G4 A4 B♭4 C5 D5 E5 F5 G5'],
] as const

describe('a written line', () => {
  it('needs no sign for the notes of its key', () => {
    for (const [k, names] of IN_KEY) expect(signs(k, names).flat().join(''), k).toBe('')
  })

  it('has a sign where a note leaves the signature, once a bar, and takes it back', () => {
    expect(signs('A harmonic minor', 'G♯4 A4 G♯4 G4')).toEqual([['#', '', '', 'n']])
    expect(signs('D', 'C4 C♯4 C5 C♯5')).toEqual([['n', '#', 'n', '#']])
    expect(signs('C', 'F♯4 G4 A4 B4 F♯4')).toEqual([['#', '', '', ''], ['#']])
  })

  it('is reminded in the next bar that a note is no longer altered, and only once', () => {
    expect(signs('A melodic minor', 'E4 F♯4 G♯4 A4 G4 F4 E4 D4 G4')).toEqual([
      ['', '#', '#', ''],
      ['(n)', '(n)', '', ''],
      [''],
    ])
  })

  it('writes double sharps, and every sign of a key that no signature stands for', () => {
    expect(signs('G♯ harmonic minor', 'F♯♯4 G♯4')).toEqual([['##', '']])
    expect(scoreOf('violin', key('G♯'), line('G♯4'), 'quarter')).toMatchObject({
      signs: 0,
      bars: [[{ sign: '#' }]],
    })
  })

  it('counts four beats a bar', () => {
    const names = 'C4 D4 E4 F4 G4 A4 B4 C5 D5'
    const bars = (value: NoteValue) =>
      scoreOf('violin', key('C'), line(names), value).bars.map((bar) => bar.length)
    expect(bars('quarter')).toEqual([4, 4, 1])
    expect(bars('eighth')).toEqual([8, 1])
    expect(bars('sixteenth')).toEqual([9])
  })

  it('spells every note of a scale as the reference library does (tonal)', () => {
    for (const id of ['violin', 'cello', 'bass'] as const)
      for (const [mode, theirs] of [
        ['', 'major'],
        [' natural minor', 'minor'],
        [' harmonic minor', 'harmonic minor'],
      ] as const)
        for (const tonic of ['C', 'E♭', 'F♯', 'A♭', 'B']) {
          const plain = tonic.replace('♯', '#').replace('♭', 'b')
          const expected = Scale.get(`${plain} ${theirs}`).notes
          const up = scored(id, tonic + mode, 1)
            .bars.flat()
            .slice(0, 7)
          const found = up.map(({ sounding }) =>
            Tonal.pitchClass(noteName(sounding).replace('♯', '#').replace('♭', 'b')),
          )
          expect(found.join(' '), `${tonic}${mode}`).toBe(expected.join(' '))
        }
  })
})

describe('what a player reads over the notes', () => {
  const marks = (id: FamilyId, keyText: string, octaves: 1 | 2 | 3) =>
    scored(id, keyText, octaves).bars.flat()

  it('is the string where a stopped note comes to another one, I the highest, and nothing where an open string says it', () => {
    const up = marks('violin', 'B♭', 2).slice(0, 15)
    expect(up.flatMap((n, i) => (n.string === undefined ? [] : [[i, n.string]]))).toEqual([
      [0, 4],
      [11, 1],
    ])
    expect(up[0]).toMatchObject({ string: 4, finger: 2, position: { id: 'first' } })
  })

  it('is the position where the hand shifts, and there the line of a shift', () => {
    const all = marks('violin', 'G', 3)
    const shifts = all.filter((n) => n.isShift)
    expect(shifts.slice(0, 3).map((n) => n.position?.id)).toEqual(['third', 'fifth', 'seventh'])
    expect(all.filter((n) => n.position !== undefined && !n.isShift)).toHaveLength(1)
  })

  it('is x where a finger of an open hand has left its place: x2 forward, x1 back', () => {
    const d = marks('cello', 'D', 2).slice(0, 3)
    expect(d.map((n) => `${n.isExtended ? 'x' : ''}${n.finger}`).join(' ')).toBe('1 x2 4')
    const f = marks('cello', 'F', 2).slice(9, 13)
    expect(f.map((n) => `${n.isExtended ? 'x' : ''}${n.finger}`).join(' ')).toBe('0 x1 2 4')
    // Opening is no shift.
    expect(f.some((n) => n.isShift)).toBe(false)
  })

  it('is x before 4 where 2 does not play in a hand that has opened forward, and before nothing where 1 does not in one opened back', () => {
    const context = placementContext(familyOf('cello'), familyOf('cello').tuning)
    const played = (of: Key, figure: 'scale' | 'arpeggio', octaves: 1 | 2) => {
      const made = fingerScale(context, { key: of, figure, octaves })
      return made.ok ? made.notes : []
    }
    const over = (keyText: string, figure: 'scale' | 'arpeggio', octaves: 1 | 2) =>
      scoreOf('cello', key(keyText), played(key(keyText), figure, octaves), 'quarter').bars.flat()
    const xs = (notes: { isExtended: boolean; finger: number }[]) =>
      notes.map((n) => `${n.isExtended ? 'x' : ''}${n.finger}`).join(' ')
    // A over one octave from the G string: C♯ lies under an open 4.
    expect(xs(over('A', 'arpeggio', 1).slice(0, 4))).toBe('1 x4 1 0')
    expect(xs(over('C minor', 'arpeggio', 2).slice(4, 7))).toBe('x1 4 2')
    // Every hand that is open is marked by a finger that plays, wherever one has moved.
    let open = 0
    for (const one of keysOf('major'))
      for (const figure of ['scale', 'arpeggio'] as const) {
        const notes = played(one, figure, 2)
        const forward = notes.filter(({ hand, finger }) => hand?.extension === 'forward' && finger > 1)
        const marked = scoreOf('cello', one, notes, 'quarter')
          .bars.flat()
          .filter((n) => n.isExtended)
        if (forward.length > 0) open++
        expect(marked.length > 0 || forward.length === 0, `${one.id} ${figure}`).toBe(true)
      }
    expect(open).toBeGreaterThan(3)
  })

  it('is x in a take as well, where nobody wrote down the hand', () => {
    const cello = familyOf('cello')
    const notes = [
      { note: note('D2'), finger: 1, stringIndex: 0 },
      { note: note('E2'), finger: 2, stringIndex: 0 },
      { note: note('F♯2'), finger: 4, stringIndex: 0 },
    ] as const
    const [first] = takeScore({ family: cello, tuning: cello.tuning }, notes, 'D:major').bars
    expect(first!.map((n) => `${n.isExtended ? 'x' : ''}${n.finger}`)).toEqual(['1', 'x2', '4'])
    expect(first!.some((n) => n.position !== undefined || n.isShift)).toBe(false)
  })

  it('is the thumb and the harmonic, and the clef where it changes', () => {
    const d = marks('cello', 'D', 3)
    expect(d.find((n) => n.finger === THUMB)).toMatchObject({ harmonic: 2 })
    expect(d.filter((n) => n.clef !== undefined).map((n) => n.clef)).toEqual(['tenor', 'bass'])
    expect(marks('bass', 'E', 1)[0]).toMatchObject({ written: { letter: 'E', octave: 2 } })
  })

  it('is both fingers of a double stop', () => {
    const score = scoreOf(
      'violin',
      key('D'),
      [{ note: note('G4'), finger: 3, second: { note: note('B4'), finger: 1 } }],
      'quarter',
    )
    expect(score.bars[0]![0]!.second).toMatchObject({ finger: 1, written: { letter: 'B', octave: 4 } })
  })
})

describe('a printed line', () => {
  const board = boardFor(familyOf('violin'), 328)
  const sheet = (lines: number, places = [{ stringIndex: 1, placeMm: 36, finger: '1' }]) =>
    lineSheet({
      title: 'D major scale, two octaves',
      subtitle: 'violin 4/4',
      paper: 'a4',
      lines: Array.from({ length: lines }, () => ({
        heightMm: 22,
        items: [{ kind: 'line' as const, x1: 0, y1: 10, x2: 182, y2: 10, widthMm: 0.2 }],
      })),
      board,
      strings: ['G', 'D', 'A', 'E'],
      places,
      words: { strip: 'The board', foot: ['Tune first.'] },
    })

  it('keeps all its ink on the paper, with as many pages as it needs', () => {
    for (const lines of [1, 4, 12]) {
      const pages = sheet(lines)
      expect(pages).toHaveLength(lines > 8 ? 2 : 1)
      for (const { items, widthMm, heightMm } of pages)
        for (const item of items) {
          const ys = item.kind === 'line' ? [item.y1, item.y2] : [item.y]
          const xs = item.kind === 'line' ? [item.x1, item.x2] : [item.x]
          expect(Math.min(...ys)).toBeGreaterThan(0)
          expect(Math.max(...ys)).toBeLessThan(heightMm)
          expect(Math.max(...xs)).toBeLessThan(widthMm)
        }
    }
  })

  it('fills its page: larger where there are few lines, and what is left goes between them', () => {
    const bottom = (lines: number) =>
      Math.max(
        ...sheet(lines)[0]!.items.map((item) =>
          item.kind === 'line'
            ? Math.max(item.y1, item.y2)
            : item.kind === 'text' && item.y > 270
              ? 0
              : item.y,
        ),
      )
    // Of 297 mm; three lines of a small staff would end at 145.
    expect(bottom(3)).toBeGreaterThan(175)
    expect(bottom(6)).toBeGreaterThan(240)
    const drawn = (lines: number) => Array.from({ length: lines }, () => ({ heightMm: 22, items: [] }))
    expect(fillingSpaceMm(drawn(1), 'a4', 4)).toBe(3.4)
    expect(fillingSpaceMm(drawn(12), 'a4', 4)).toBe(2)
    // Four lines of 27 mm in 204 mm: 1.4 times as large, which breaks them into about 1.4 times as many.
    expect(fillingSpaceMm(drawn(4), 'a4', 4)).toBeCloseTo(2.75, 1)
  })

  it('draws the board to one scale from the nut, with every place where it lies', () => {
    const [page] = sheet(1, [
      { stringIndex: 0, placeMm: 40, finger: '1' },
      { stringIndex: 0, placeMm: 80, finger: '3' },
    ])
    const circles = page!.items.filter((i) => i.kind === 'circle')
    const nut = page!.items.find((i) => i.kind === 'line' && i.widthMm > 1)
    const x0 = nut?.kind === 'line' ? nut.x1 : NaN
    expect((circles[1]!.x - x0) / (circles[0]!.x - x0)).toBeCloseTo(2, 6)
    expect(circles[0]!.x - x0).toBeLessThanOrEqual(40)
    // Two names of one place, a comma apart: small, and still to be read.
    const [near] = sheet(1, [
      { stringIndex: 0, placeMm: 40, finger: '1' },
      { stringIndex: 0, placeMm: 40.05, finger: '2' },
    ])
    expect(near!.items.flatMap((i) => (i.kind === 'circle' ? [i.r] : []))).toEqual([1.5, 1.5])
  })
})
