import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { frameWidthMm, touching } from '../frame'
import { FAMILY_IDS, familyOf, tuningFault } from '../instrument'
import { hasNote, keyOf, keysOf, MODE_IDS, noteInKey, type ModeId } from '../key'
import { INTERVALS, midiNumber, note, noteName, transpose, type Note } from '../pitch'
import type { AtlasCell } from '../technique'
import { placementAt, placementContext } from './index'

const SEED = { seed: 4, numRuns: 250 }
const anyFamily = fc.constantFrom(...FAMILY_IDS).map(familyOf)
/** Scales whose hands are their own, without slides. */
const anyMode = fc.constantFrom(...MODE_IDS.filter((id) => id !== 'chromatic'))
const anyTonic = fc.constantFrom(
  ...['C', 'D', 'E', 'F', 'G', 'A', 'B'].flatMap((l) => [`${l}♭4`, `${l}4`, `${l}♯4`]).map(note),
)
const anyInterval = fc.constantFrom(
  INTERVALS.majorSecond,
  INTERVALS.perfectFourth,
  INTERVALS.perfectFifth,
  INTERVALS.minorThird,
)
const anyPosition = fc.nat(11)
/** Four to six strings, a second to an octave apart, as players tune and mistune them. */
const anyTuning = fc
  .tuple(
    fc.constantFrom('E1', 'B0', 'C2', 'G3', 'F♯2', 'B♭2'),
    fc.array(fc.constantFrom(...Object.values(INTERVALS)), { minLength: 3, maxLength: 5 }),
  )
  .map(([lowest, steps]) =>
    steps.reduce<Note[]>((strings, step) => [...strings, transpose(strings.at(-1)!, step)], [note(lowest)]),
  )
  .filter((tuning) => tuningFault(tuning) === undefined)

/** What a hand does, whatever its notes are called. */
const shape = (cell: AtlasCell) =>
  cell.kind === 'none'
    ? cell.reason
    : `${cell.extension} ${cell.stops.map((s) => `${s.finger}:${s.semitones}`).join(' ')}`

describe('the hand a key asks for', () => {
  it('is the same when strings and key are moved together: only the names change', () => {
    fc.assert(
      fc.property(anyFamily, anyMode, anyTonic, anyInterval, anyPosition, (family, mode, tonic, by, at) => {
        const position = family.positions[at]!
        const here = placementContext(family, family.tuning)
        const there = placementContext(
          family,
          family.tuning.map((open) => transpose(open, by)),
        )
        for (let string = 0; string < family.tuning.length; string++)
          expect(shape(placementAt(there, keyOf(transpose(tonic, by), mode), string, position))).toBe(
            shape(placementAt(here, keyOf(tonic, mode), string, position)),
          )
      }),
      SEED,
    )
  })

  it('stops notes of the key above the open string, in order, on any tuning of four to six strings', () => {
    fc.assert(
      fc.property(anyFamily, anyTuning, anyMode, anyTonic, anyPosition, (family, tuning, mode, tonic, at) => {
        const key = keyOf(tonic, mode)
        const context = placementContext(family, tuning)
        tuning.forEach((open, string) => {
          const cell = placementAt(context, key, string, family.positions[at]!)
          if (cell.kind === 'none') return
          let before = 0
          for (const stop of cell.stops) {
            expect(stop.semitones).toBeGreaterThan(before)
            before = stop.semitones
            expect(midiNumber(stop.note)).toBe(midiNumber(open) + stop.semitones)
            expect(stop.isInScale).toBe(hasNote(key, stop.note))
            if (stop.openString !== undefined)
              expect(midiNumber(tuning[stop.openString]!)).toBe(midiNumber(stop.note))
          }
        })
      }),
      SEED,
    )
  })

  it('is told apart by position: a hand an octave up the string is the same hand, twelve semitones on', () => {
    const violin = familyOf('violin')
    const context = placementContext(violin, violin.tuning)
    for (const key of keysOf('major'))
      for (let string = 0; string < 4; string++) {
        const low = placementAt(context, key, string, violin.positions[1]!)
        const high = placementAt(context, key, string, violin.positions[8]!)
        if (low.kind === 'none' || high.kind === 'none') continue
        expect(high.stops.map((s) => s.semitones - 12)).toEqual(low.stops.map((s) => s.semitones))
        expect(high.pattern).toBe(low.pattern)
      }
  })
})

describe('spelling', () => {
  it('gives every pitch of a key one name, and a pitch outside it none', () => {
    fc.assert(
      fc.property(anyTonic, anyMode, fc.integer({ min: 28, max: 100 }), (tonic, mode: ModeId, midi) => {
        const key = keyOf(tonic, mode)
        const found = noteInKey(key, midi)
        const degree = (((midi - midiNumber(tonic)) % 12) + 12) % 12
        expect(found !== undefined).toBe(key.mode.degrees.some((d) => d.semitones === degree))
        if (found) {
          expect(midiNumber(found)).toBe(midi)
          expect(hasNote(key, found), noteName(found)).toBe(true)
        }
      }),
      SEED,
    )
  })
})

describe('fingertips', () => {
  it('never have more room on a smaller instrument, or higher up the string', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 150, max: 1100, noNaN: true }),
        fc.integer({ min: 1, max: 18 }),
        fc.double({ min: 6, max: 20, noNaN: true }),
        (lengthMm, semitones, tipMm) => {
          const at = (length: number, first: number) => touching(frameWidthMm(length, first, 1), tipMm)
          const here = at(lengthMm, semitones)
          expect(at(lengthMm, semitones + 1).gapMm).toBeLessThan(here.gapMm)
          expect(at(lengthMm * 0.9, semitones).gapMm).toBeLessThan(here.gapMm)
          // A twentieth of a millimetre is none: nobody reads a fingertip closer.
          expect(here.overlapMm).toBe(here.gapMm < -0.05 ? -here.gapMm : 0)
          expect(here.advice === 'room' || here.advice === 'touch').toBe(here.gapMm >= -0.05)
        },
      ),
      SEED,
    )
  })
})
