import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, type FamilyId } from '../instrument'
import { keysOf, MODE_IDS, parseKey } from '../key'
import { midiNumber, note, noteName } from '../pitch'
import { touchingFingers, type AtlasCell } from '../technique'
import { atlasOf, placementAt, placementContext, keyDiff, newPatterns, patternsOf } from './index'

const key = (text: string) => {
  const parsed = parseKey(text)
  if (!parsed.ok) throw new Error(text)
  return parsed.key
}
const positionOf = (family: FamilyId, id: string) => familyOf(family).positions.find((p) => p.id === id)!

function cells(family: FamilyId, keyText: string, position = 'first', frameId?: string): AtlasCell[] {
  const f = familyOf(family)
  const context = placementContext(f, f.tuning, { frameId })
  return f.tuning.map((_, string) => placementAt(context, key(keyText), string, positionOf(family, position)))
}
/** `1E 2F♯ 3G 4A`, lowest string first. */
const written = (cell: AtlasCell) =>
  cell.kind === 'none'
    ? cell.reason
    : cell.stops.map((s) => `${s.finger}${noteName(s.note, { octave: false })}`).join(' ')
const steps = (cell: AtlasCell) => (cell.kind === 'placement' ? cell.pattern?.steps.join('') : cell.reason)

describe('the hand a key asks for (docs/trade.md § 5; common practice, no source)', () => {
  it('gives the violin one pattern a string', () => {
    expect(cells('violin', 'D').map(steps)).toEqual(['221', '212', '212', '122'])
    expect(cells('violin', 'D').map(written)).toEqual([
      '1A 2B 3C♯ 4D',
      '1E 2F♯ 3G 4A',
      '1B 2C♯ 3D 4E',
      '1F♯ 2G 3A 4B',
    ])
  })

  it('says low and high as the tapes are named', () => {
    const [, , a, e] = cells('violin', 'B♭')
    expect(a?.kind === 'placement' && a.stops.map((s) => s.form)).toEqual(['low', 'low', 'usual', 'low'])
    expect(e?.kind === 'placement' && e.stops.map((s) => s.form)).toEqual(['low', 'low', 'usual', 'low'])
    const [g] = cells('violin', 'D')
    expect(g?.kind === 'placement' && g.stops.map((s) => s.form)).toEqual(['usual', 'usual', 'high', 'usual'])
  })

  it('shows the fourth finger and the open string that sounds the same', () => {
    const [g, , , e] = cells('violin', 'D')
    expect(g?.kind === 'placement' && g.stops[3]!.openString).toBe(1)
    expect(e?.kind === 'placement' && e.stops.some((s) => s.openString !== undefined)).toBe(false)
  })

  it('stretches to an augmented fourth and narrows to a diminished one', () => {
    expect(cells('violin', 'C')[3]).toMatchObject({ pattern: { steps: [2, 2, 2], spread: 'stretched' } })
    expect(cells('violin', 'A harmonic minor')[1]).toMatchObject({
      pattern: { steps: [1, 3, 1], spread: 'usual' },
    })
    expect(cells('violin', 'G harmonic minor')[2]).toMatchObject({ pattern: { steps: [2, 2, 1] } })
    expect(patternsOf(familyOf('violin')).some((p) => p.spread === 'narrowed')).toBe(true)
  })

  it('lets the hand rest where a pentatonic scale leaves notes out', () => {
    const [, d] = cells('violin', 'G major pentatonic')
    expect(d?.kind === 'placement' && d.stops.filter((s) => s.isInScale).map((s) => s.finger)).toEqual([
      1, 3, 4,
    ])
    expect(steps(d!)).toBe('212')
  })

  it('asks half position only where the first finger is above the nut', () => {
    expect(cells('violin', 'A', 'half').map(written)).toEqual([
      '1G♯ 2A 3B 4C♯',
      'open_string',
      'open_string',
      'open_string',
    ])
  })

  it('plays the cello’s major tetrachord 0 1 3 4 closed, and extends where flats ask for it (docs/trade.md § 5)', () => {
    expect(cells('cello', 'C').slice(0, 2).map(written)).toEqual(['1D 3E 4F', '1A 3B 4C'])
    for (const cell of cells('cello', 'C'))
      expect(cell).toMatchObject({ frameId: 'closed', extension: 'none' })
    // E♭ on the D string: 1 drops back, the others stay at their places.
    expect(cells('cello', 'E♭')[2]).toMatchObject({ frameId: 'extended', extension: 'back', base: 1 })
    // F♯ on the C string: 2, 3, 4 and thumb move up, 1 stays.
    expect(cells('cello', 'D')[0]).toMatchObject({ frameId: 'extended', extension: 'forward', base: 2 })
  })

  it('needs extensions on the cello with three flats or more, until the whole hand lies in half position', () => {
    for (const k of keysOf('major').filter((k) => k.signature! <= -3 && k.signature! > -6)) {
      const hands = cells('cello', k.id)
      expect(
        hands.some((c) => c.kind === 'placement' && c.extension !== 'none'),
        k.id,
      ).toBe(true)
    }
  })

  it('says so where a cello hand cannot hold the notes', () => {
    const found = keysOf('harmonic_minor').flatMap((k) => cells('cello', k.id))
    const beyond = found.filter((c) => c.kind === 'none' && c.reason === 'beyond_frame')
    expect(beyond.length).toBeGreaterThan(0)
    for (const cell of beyond) expect(cell.kind === 'none' && cell.wanted).toHaveLength(3)
  })

  it('places the bass on semitones with 1 2 4, or four fingers', () => {
    expect(cells('bass', 'G').map(written)).toEqual(['1F♯ 2G', '1B 2C', '1E 4F♯', '1A 4B'])
    expect(cells('bass', 'F', 'half').map(written)).toEqual(['1F 4G', '1B♭ 4C', '2E 4F', '2A 4B♭'])
    expect(cells('bass', 'G', 'first', 'four_finger').map(written)).toEqual([
      '1F♯ 2G 4A',
      '1B 2C 4D',
      '1E 3F♯ 4G',
      '1A 3B 4C',
    ])
    expect(cells('bass', 'C chromatic').map(written)[0]).toBe('1G♭ 2G 4A♭')
  })

  it('takes six strings, scordatura and a key with double sharps', () => {
    const bass = familyOf('bass')
    const six = ['B0', 'E1', 'A1', 'D2', 'G2', 'C3'].map(note)
    const context = placementContext(bass, six)
    expect(written(placementAt(context, key('C'), 5, positionOf('bass', 'first')))).toBe('1D 4E')
    const violin = familyOf('violin')
    const tuned = placementContext(violin, ['A3', 'E4', 'A4', 'E5'].map(note))
    expect(written(placementAt(tuned, key('A'), 0, positionOf('violin', 'first')))).toBe('1B 2C♯ 3D 4E')
    expect(cells('violin', 'G♯').map(written)[1]).toBe('1E♯ 2F♯♯ 3G♯ 4A♯')
  })

  it('says that a position lies off the end of the board', () => {
    const violin = familyOf('violin')
    const far = { id: 'far', letter: 20, firstFingerSemitones: [34] }
    expect(placementAt(placementContext(violin, violin.tuning), key('D'), 0, far)).toMatchObject({
      kind: 'none',
      reason: 'off_board',
    })
  })

  it('refuses a frame that the family does not have', () => {
    expect(() =>
      placementContext(familyOf('violin'), familyOf('violin').tuning, { frameId: 'closed' }),
    ).toThrow('no frame')
  })
})

describe('the whole atlas', () => {
  it.each(FAMILY_IDS)(
    'of the %s has only notes of the key, patterns of the family, and fingers in order',
    (id) => {
      const family = familyOf(id)
      const known = new Set(patternsOf(family).map((p) => p.id))
      let hands = 0
      const faults: string[] = []
      for (const modeId of MODE_IDS)
        for (const [k, ofKey] of atlasOf(family, family.tuning, keysOf(modeId), family.positions).entries()) {
          const theKey = keysOf(modeId)[k]!
          for (const cell of ofKey.flat()) {
            if (cell.kind === 'none') continue
            hands++
            const open = midiNumber(family.tuning[cell.stringIndex]!)
            const where = `${theKey.id} ${cell.position.id} ${cell.stringIndex}`
            cell.stops.forEach((stop, i) => {
              if (midiNumber(stop.note) - open !== stop.semitones)
                faults.push(`${where}: ${noteName(stop.note)}`)
              if (stop.semitones <= (cell.stops[i - 1]?.semitones ?? 0)) faults.push(`${where}: order`)
            })
            const { pattern } = cell
            if (modeId !== 'chromatic' && pattern && pattern.steps.length > 0 && !known.has(pattern.id))
              faults.push(`${where}: ${pattern.id}`)
          }
        }
      expect(faults).toEqual([])
      expect(hands).toBeGreaterThan(3000)
    },
  )
})

describe('patterns', () => {
  it('come in the order they are taught in, named by touching fingers (docs/trade.md § 5)', () => {
    const first = patternsOf(familyOf('violin')).slice(0, 8)
    expect(first.map((p) => p.steps.join(''))).toEqual([
      '212',
      '122',
      '221',
      '222',
      '121',
      '112',
      '211',
      '111',
    ])
    expect(
      first.map((p) =>
        touchingFingers(p)
          .map((pair) => pair.join('–'))
          .join(' '),
      ),
    ).toEqual(['2–3', '1–2', '3–4', '', '1–2 3–4', '1–2 2–3', '2–3 3–4', '1–2 2–3 3–4'])
  })
})

describe('from one key to another', () => {
  it('moves one finger on one string from D major to G major on the lower three strings of a violin', () => {
    const diff = keyDiff(cells('violin', 'D'), cells('violin', 'G'))
    expect(diff.otherHands).toEqual([])
    expect(
      diff.moves.map((m) => [
        m.stringIndex,
        m.to.finger,
        noteName(m.from.note),
        noteName(m.to.note),
        m.semitones,
      ]),
    ).toEqual([
      [0, 3, 'C♯4', 'C4', -1],
      [2, 2, 'C♯5', 'C5', -1],
    ])
  })

  it('tells a cello’s hand that opens', () => {
    const diff = keyDiff(cells('cello', 'C'), cells('cello', 'F'))
    expect(diff.moves.map((m) => [m.stringIndex, m.to.finger, m.to.form, m.semitones])).toEqual([
      [3, 1, 'low', -1],
    ])
    // Where the same letters want other fingers, the whole hand is another one.
    expect(keyDiff(cells('cello', 'C'), cells('cello', 'A♭')).otherHands).toEqual([0, 1, 3])
  })

  it('finds nothing between a key and itself, and the same moves backwards', () => {
    for (const id of FAMILY_IDS) {
      expect(keyDiff(cells(id, 'E'), cells(id, 'E'))).toEqual({ moves: [], otherHands: [] })
      const there = keyDiff(cells(id, 'E'), cells(id, 'A'))
      const back = keyDiff(cells(id, 'A'), cells(id, 'E'))
      expect(back.moves.map((m) => -m.semitones)).toEqual(there.moves.map((m) => m.semitones))
    }
  })

  it('knows which keys need no pattern beyond those a student has', () => {
    const known = new Set(['fourth/1234/212', 'fourth/1234/122'])
    const lower = (text: string) => newPatterns(cells('violin', text).slice(1, 3), known)
    expect(lower('D')).toEqual([])
    expect(lower('G')).toEqual([])
    expect(lower('E')).toEqual(['fourth/1234/221'])
  })
})
