import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, THUMB, type FamilyId } from '../instrument'
import { keyOf, keysOf, noteInKey, parseKey } from '../key'
import { midiNumber, note, noteName } from '../pitch'
import { placementContext } from '../pattern'
import { isShifted } from '../technique'
import {
  alternativesFor,
  DEFAULT_FINGERING,
  fingerNotes,
  fingerScale,
  harmonicsFor,
  lineId,
  lineOf,
  locksOf,
  optionsFor,
  placesOfFingering,
  upAndDown,
  type FingeredNote,
  type KeptShorter,
  type Lock,
} from './index'

const key = (text: string) => {
  const parsed = parseKey(text)
  if (!parsed.ok) throw new Error(text)
  return parsed.key
}
const contextOf = (id: FamilyId, frameId?: string) =>
  placementContext(familyOf(id), familyOf(id).tuning, { frameId })
const scale = (
  id: FamilyId,
  text: string,
  octaves: 1 | 2 | 3,
  more: { locks?: Lock[]; kept?: KeptShorter } = {},
  options = {},
) => {
  const made = fingerScale(contextOf(id), { key: key(text), figure: 'scale', octaves, ...more }, options)
  if (!made.ok) throw new Error(made.code)
  return made.notes
}
const fingers = (notes: readonly FingeredNote[]) => notes.map((n) => n.finger).join(' ')
const places = (notes: readonly FingeredNote[]) => notes.map((n) => `${n.stringIndex}.${n.finger}`).join(' ')

describe('a scale', () => {
  it('comes down as it went up, note for note', () => {
    for (const [id, text] of [
      ['violin', 'G'],
      ['cello', 'D'],
      ['bass', 'E'],
    ] as const) {
      const notes = scale(id, text, 3)
      expect(places([...notes].reverse())).toBe(places(notes))
    }
  })

  it('comes down a melodic minor as the natural one, by the same strings where it can', () => {
    const names = upAndDown(key('A melodic minor'), 'scale', note('A3'), 1).map((n) => noteName(n))
    expect(names.join(' ')).toBe('A3 B3 C4 D4 E4 F♯4 G♯4 A4 G4 F4 E4 D4 C4 B3 A3')
    const violin = scale('violin', 'A melodic minor', 2)
    const middle = (violin.length - 1) / 2
    const down = violin.slice(middle).reverse()
    expect(fingers(down.slice(0, 5))).toBe(fingers(violin.slice(0, 5)))
  })

  it('rises in sharps and falls in flats where every half step is played', () => {
    const names = scale('cello', 'G chromatic', 1).map((n) => noteName(n.note, { octave: false }))
    expect(names.slice(0, 13).join(' ')).toBe('G G♯ A A♯ B C C♯ D D♯ E F F♯ G')
    expect(names.slice(12).join(' ')).toBe('G G♭ F E E♭ D D♭ C B B♭ A A♭ G')
  })

  it('slides, or gives each finger its semitone, as the school has it (docs/trade.md § 9)', () => {
    const up = (chromatic: 'slide' | 'semitones') =>
      fingers(scale('violin', 'A chromatic', 1, {}, { chromatic }).slice(0, 7))
    expect(up('slide')).toBe('0 1 1 2 2 3 4')
    // No finger twice in one hand.
    const modern = scale('violin', 'A chromatic', 1, {}, { chromatic: 'semitones' })
    modern.slice(1, 13).forEach((n, i) => {
      const before = modern[i]!
      if (n.finger === before.finger && n.stringIndex === before.stringIndex)
        expect(isShifted(before.hand, n.hand), noteName(n.note)).toBe(true)
    })
  })

  it('starts on the same note whether open strings are liked or not, and obeys', () => {
    const liked = scale('violin', 'D', 1)
    const avoided = scale('violin', 'D', 1, {}, { openStrings: 'avoid' })
    expect(avoided.map((n) => midiNumber(n.note))).toEqual(liked.map((n) => midiNumber(n.note)))
    expect(avoided.filter((n) => n.finger === 0)).toEqual([])
    // The other way round no 4 is left where an open string sounds its note.
    const open = contextOf('violin').openMidis
    for (const text of ['G', 'D', 'A', 'F', 'B♭', 'E'])
      for (const octaves of [1, 2] as const)
        for (const n of scale('violin', text, octaves))
          expect(n.finger === 4 && open.includes(midiNumber(n.note)), `${text} ${noteName(n.note)}`).toBe(
            false,
          )
    // What no finger can play is open all the same.
    expect(scale('violin', 'G', 1, {}, { openStrings: 'avoid' })[0]!.finger).toBe(0)
  })

  it('ends three octaves of a cello with 1 2 3 or thumb 1 2 3, and the thumb lies down from the octave on (docs/trade.md § 9)', () => {
    for (const text of ['C', 'D', 'E♭', 'E', 'F', 'G', 'A']) {
      const up = scale('cello', text, 3).slice(0, 22)
      expect(fingers(up.slice(-2)), text).toBe('2 3')
      for (const n of up) if (n.finger === THUMB) expect(n.semitones).toBeGreaterThanOrEqual(12)
    }
  })

  it('touches the octave as a harmonic where 3 or the thumb plays it on a cello or bass', () => {
    const top = scale('bass', 'G', 2)[14]!
    expect(top).toMatchObject({ semitones: 12, finger: 3, harmonic: 2 })
    expect(scale('violin', 'A', 2).every((n) => n.harmonic === undefined)).toBe(true)
  })

  it('is said to be out of range where the strings do not hold it, and named by the note that no string has', () => {
    expect(fingerScale(contextOf('bass'), { key: key('C'), figure: 'scale', octaves: 3 })).toEqual({
      ok: false,
      code: 'scale_out_of_range',
      octaves: 3,
    })
    expect(fingerNotes(contextOf('violin'), [note('A4'), note('C3')])).toEqual({
      ok: false,
      code: 'note_out_of_reach',
      note: 'C3',
      index: 1,
    })
    // A key with double sharps, five strings, strings tuned otherwise.
    expect(scale('violin', 'G♯', 1)).toHaveLength(15)
    // The fourth string is the highest of four, and not of five: what one instrument allows is no matter of the other.
    const four = contextOf('bass')
    const five = placementContext(familyOf('bass'), ['B0', 'E1', 'A1', 'D2', 'G2'].map(note))
    const low = fingerScale(five, { key: key('B'), figure: 'scale', octaves: 1 })
    expect(low.ok && low.notes[0]).toMatchObject({ stringIndex: 0, finger: 0 })
    const isHigh = (context: typeof five, name: string, index: number) =>
      optionsFor(context, note(name)).some((way) => way.stringIndex === index && way.semitones === 21)
    expect([isHigh(four, 'E4', 3), isHigh(five, 'B3', 3), isHigh(five, 'E4', 4)]).toEqual([true, false, true])
    const tuned = placementContext(familyOf('violin'), ['A3', 'E4', 'A4', 'E5'].map(note))
    const a = fingerScale(tuned, { key: key('A'), figure: 'scale', octaves: 2 })
    expect(a.ok && fingers(a.notes.slice(0, 15))).toBe('0 1 2 3 0 1 2 0 1 2 3 0 1 2 3')
  })
})

describe('over more octaves', () => {
  const risen = (notes: readonly FingeredNote[]) => notes.slice(0, (notes.length + 1) / 2)
  /** Up to the turn at the shorter one's top: its last two notes. */
  const partsBefore = (shorter: readonly FingeredNote[], longer: readonly FingeredNote[]) =>
    shorter.slice(0, -2).some((n, i) => n.finger !== longer[i]!.finger)

  it('a kept fingering is carried on, and nothing is where it begins elsewhere', () => {
    const kept = scale('cello', 'F', 1, { locks: [{ index: 3, finger: 3 }] })
    expect(fingers(kept)).not.toBe(fingers(scale('cello', 'F', 1)))
    const carried = scale('cello', 'F', 2, { kept: { 1: locksOf(placesOfFingering(kept)) } })
    expect(partsBefore(risen(kept), risen(carried))).toBe(false)
    const further = scale('cello', 'F', 3, { kept: { 1: locksOf(placesOfFingering(kept)) } })
    expect(partsBefore(risen(carried), risen(further))).toBe(false)
    // What is settled of the longer one itself comes first.
    const settled = scale('cello', 'F', 2, {
      kept: { 1: locksOf(placesOfFingering(kept)) },
      locks: locksOf(placesOfFingering(scale('cello', 'F', 2))),
    })
    expect(places(settled)).toBe(places(scale('cello', 'F', 2)))
    // D over two octaves begins an octave lower than over one.
    const open = scale('cello', 'D', 1, { locks: [{ index: 7, finger: 4, stringIndex: 3 }] })
    expect(places(scale('cello', 'D', 2, { kept: { 1: locksOf(placesOfFingering(open)) } }))).toBe(
      places(scale('cello', 'D', 2)),
    )
  })
})

describe('a note that a teacher settles', () => {
  it('is played so, and the rest is fingered around it, on the way down as well', () => {
    const usual = scale('violin', 'D', 1)
    const settled = scale('violin', 'D', 1, { locks: [{ index: 4, finger: 4 }] })
    expect(places(settled.slice(0, 8))).toBe('1.0 1.1 1.2 1.3 1.4 2.1 2.2 2.3')
    expect(places([...settled].reverse())).toBe(places(settled))
    const onlyDown = scale('violin', 'D', 1, { locks: [{ index: 10, stringIndex: 1 }] })
    expect(places(onlyDown.slice(0, 8))).toBe(places(usual.slice(0, 8)))
    expect(onlyDown[10]).toMatchObject({ stringIndex: 1, finger: 4 })
  })

  it('has a shift where one is asked for, and none where it is not', () => {
    const early = scale('cello', 'G', 2, { locks: [{ index: 10, isShift: true }] })
    expect(isShifted(early[9]!.hand, early[10]!.hand)).toBe(true)
    const usual = scale('violin', 'D', 2)
    const at = usual.findIndex((n, i) => i > 0 && isShifted(usual[i - 1]!.hand, n.hand))
    const later = scale('violin', 'D', 2, { locks: [{ index: at, isShift: false }] })
    expect(isShifted(later[at - 1]!.hand, later[at]!.hand)).toBe(false)
  })

  it('is named where no hand can hold it, up and down, and never passed over', () => {
    const tried = (id: FamilyId, lock: Lock) => {
      const made = fingerScale(contextOf(id), { key: key('D'), figure: 'scale', octaves: 2, locks: [lock] })
      return made.ok ? 'held' : made
    }
    // 4 lies nowhere near D on the highest string of a cello two octaves up; no third finger on an open C string.
    expect(tried('cello', { index: 14, finger: 4, stringIndex: 0 })).toMatchObject({
      code: 'lock_unholdable',
      note: 'D4',
      lock: { index: 14 },
    })
    expect(tried('bass', { index: 20, finger: 3, stringIndex: 3 })).toMatchObject({
      code: 'lock_unholdable',
      lock: { index: 20 },
    })
    expect(tried('violin', { index: 0, finger: 0 })).toBe('held')
    // On the way down a shift is one upwards to the note before it; its own note is named all the same.
    expect(tried('violin', { index: 18, finger: 0, isShift: true })).toMatchObject({ lock: { index: 18 } })
    // No hand shifts to the first note, or while a string sounds open.
    expect(tried('violin', { index: 0, isShift: true })).toMatchObject({
      code: 'lock_unholdable',
      lock: { index: 0 },
    })
    expect(tried('violin', { index: 4, finger: 0, isShift: true })).toMatchObject({ lock: { index: 4 } })
  })

  it('can be a natural harmonic at a third or a quarter of a string', () => {
    // E5 sounds at a third of the A string: a fifth up, an octave and a fifth above the open string. Any acoustics text.
    const [way] = harmonicsFor(contextOf('violin'), note('E6'))
    expect(way).toMatchObject({ stringIndex: 2, harmonic: 3, semitones: 19 })
    expect(harmonicsFor(contextOf('cello'), note('A5')).map((w) => w.harmonic)).toContain(4)
    const made = fingerNotes(contextOf('violin'), {
      notes: [note('E6')],
      locks: [{ index: 0, harmonic: 3 }],
    })
    expect(made.ok && made.notes[0]!.harmonic).toBe(3)
  })

  it('is kept string by string and finger by finger, and comes back as it was, for every alternative', () => {
    for (const [id, text, octaves] of [
      ['violin', 'A', 3],
      ['cello', 'F', 2],
      ['bass', 'C', 2],
    ] as const)
      for (const { notes } of alternativesFor(contextOf(id), { key: key(text), figure: 'scale', octaves })) {
        const again = scale(id, text, octaves, { locks: locksOf(placesOfFingering(notes)) })
        expect(places(again)).toBe(places(notes))
      }
    // A shift that was settled is kept as one.
    const shifted: Lock[] = [{ index: 10, isShift: true }]
    const early = placesOfFingering(scale('cello', 'G', 2, { locks: shifted }), shifted)
    expect(locksOf(early)[10]).toMatchObject({ index: 10, isShift: true })
    const context = contextOf('violin')
    expect(lineId(lineOf(context, { key: key('D'), figure: 'scale', octaves: 2 }))).toBe(
      'violin/G3 D4 A4 E5/fourth/D:major/scale/2',
    )
  })
})

describe('other fingerings', () => {
  const offered = (id: FamilyId, text: string, octaves: 1 | 2 | 3) =>
    alternativesFor(contextOf(id), { key: key(text), figure: 'scale', octaves })

  it('go by ways that are played less only where the usual reasons give fewer than two', () => {
    const isLess = (id: string) => ['higher', 'one_string', 'other_fingers'].includes(id)
    let [tried, spared] = [0, 0]
    for (const id of FAMILY_IDS)
      for (const major of keysOf('major')) {
        const ids = alternativesFor(contextOf(id), { key: major, figure: 'scale', octaves: 1 }).map(
          (a) => a.id,
        )
        if (ids.some(isLess)) tried++
        else spared++
        if (ids.some(isLess)) expect(ids, `${id} ${major.id}`).toHaveLength(3)
      }
    expect(Math.min(tried, spared)).toBeGreaterThan(10)
    // A♭ lies a half step above the nut: from the second note on the hand is in the second position, no lower and no higher.
    const higher = offered('violin', 'A♭', 1).find((a) => a.id === 'higher')!
    expect(new Set(higher.notes.slice(1, 8).map((n) => n.hand?.position?.id))).toEqual(new Set(['second']))
  })

  it('keep what they are called', () => {
    const of = (id: string) => offered('violin', 'D', 2).find((a) => a.id === id)!
    expect(of('no_open').notes.some((n) => n.finger === 0)).toBe(false)
    // In one shape from 1 in third position, or from 2 in second.
    const shapes = offered('violin', 'C', 2)
    for (const [start, finger] of [
      ['start_first', 1],
      ['start_second', 2],
    ] as const) {
      const { notes } = shapes.find((a) => a.id === start)!
      expect(notes[0]!.finger).toBe(finger)
      expect(notes.slice(1, 8).some((n, i) => isShifted(notes[i]!.hand, n.hand))).toBe(false)
    }
    const closed = offered('cello', 'F', 2).find((a) => a.id === 'closed')!
    expect(closed.notes.every((n) => !n.hand || n.hand.extension === 'none')).toBe(true)
    const [usual, ...others] = offered('violin', 'A', 3)
    // From 2 the hand would have to shift at once: that is no shape.
    expect(others.map((a) => a.id)).not.toContain('start_second')
    expect(others.find((a) => a.id === 'stay')!.shifts).toBeLessThan(usual!.shifts)
  })
})

it('plays every note of any line one of its ways', () => {
  const chromatic = keyOf(note('C4'), 'chromatic')
  const anyLine = fc.array(fc.integer({ min: 55, max: 88 }), { minLength: 1, maxLength: 8 })
  fc.assert(
    fc.property(anyLine, (midis) => {
      const line = midis.map((midi) => noteInKey(chromatic, midi)!)
      const context = contextOf('violin')
      const preferred = fingerNotes(context, line)
      const avoided = fingerNotes(context, line, { ...DEFAULT_FINGERING, openStrings: 'avoid' })
      if (!preferred.ok || !avoided.ok) throw new Error('a note of the violin was out of reach')
      preferred.notes.forEach((n, i) => {
        const ways = optionsFor(context, line[i]!).map((o) => `${o.stringIndex}.${o.finger}`)
        expect(ways).toContain(`${n.stringIndex}.${n.finger}`)
      })
      const open = (notes: typeof preferred.notes) => notes.filter((n) => n.finger === 0).length
      expect(open(preferred.notes)).toBeGreaterThanOrEqual(open(avoided.notes))
    }),
    { seed: 4, numRuns: 100 },
  )
})
