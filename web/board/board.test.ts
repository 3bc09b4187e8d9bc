import fc from 'fast-check'
import { Note as TonalNote } from 'tonal'
import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, noteName, placeOfCents, type FamilyId, type Landing } from '#core'
import { strung } from '../../core/testing'
import { dotsOf } from './landings'
import {
  boardScale,
  landingWords,
  spread,
  reachMm,
  readPlace,
  ZOOMS,
  type BoardLanding,
  type BoardLayout,
} from './board'

const LAYOUT: BoardLayout = {
  width: 1000,
  above: 40,
  left: 36,
  right: 12,
  maxBoardHeight: 200,
  isFlipped: false,
}

function instrument(id: FamilyId, size = 1) {
  return strung(id, familyOf(id).board.stringLengthMm * size)
}

const anyBoard = fc.record({
  id: fc.constantFrom(...FAMILY_IDS),
  size: fc.double({ min: 0.5, max: 1.1, noNaN: true }),
  zoom: fc.constantFrom(...ZOOMS),
  width: fc.integer({ min: 320, max: 2400 }),
  isFlipped: fc.boolean(),
})

describe('the board', () => {
  it('keeps its proportion: a millimetre is as long across as along, for any instrument and zoom with room enough', () => {
    fc.assert(
      fc.property(anyBoard, ({ id, size, zoom, width: any, isFlipped }) => {
        const width = any + 540
        const drawn = instrument(id, size)
        const scale = boardScale(drawn, reachMm(drawn, zoom, 100 * size), { ...LAYOUT, width, isFlipped })
        const along = Math.abs(scale.along(30) - scale.along(20)) / 10
        const across = (2 * scale.halfWidthAt(0)) / drawn.board.nutWidthMm
        expect(along).toBeCloseTo(scale.pxPerMm, 9)
        expect(across).toBeCloseTo(scale.pxPerMm, 9)
        expect(scale.bottom - scale.top).toBeLessThanOrEqual(LAYOUT.maxBoardHeight + 1e-6)
        for (const mm of [0, scale.reachMm]) {
          expect(scale.along(mm)).toBeGreaterThanOrEqual(0)
          expect(scale.along(mm)).toBeLessThanOrEqual(width)
        }
      }),
      { seed: 1 },
    )
  })

  it('on a phone keeps strings far enough apart for a fingertip, and begins before a hand that stands higher up', () => {
    for (const id of FAMILY_IDS) {
      const phone = { ...LAYOUT, width: 358 }
      const drawn = instrument(id)
      const low = boardScale(drawn, reachMm(drawn, 'playing', 100), { ...phone, handFromMm: 30 })
      expect(low.fromMm).toBe(0)
      expect(low.stringY(0, 0) - low.stringY(1, 0)).toBeGreaterThanOrEqual(26 - 1e-9)
      const hand = drawn.lengthMm * 0.35
      const high = boardScale(drawn, reachMm(drawn, 'playing', hand * 1.3), { ...phone, handFromMm: hand })
      // Three tenths of the hand’s own length stay in sight before it.
      expect(high.fromMm).toBeCloseTo(hand - 0.3 * (high.reachMm - hand), 9)
      expect(high.pxPerMm).toBeGreaterThan(1.3 * (300 / high.reachMm))
      expect(high.along(high.fromMm)).toBeCloseTo(phone.left, 9)
      expect(high.stringY(0, high.fromMm) - high.stringY(1, high.fromMm)).toBeGreaterThanOrEqual(26 - 1e-9)
      // The nut stays while no more than two fifths would be empty before the hand; on a desk always.
      for (const [share, width, isCut] of [
        [0.38, 358, false],
        [0.42, 358, true],
        [0.42, 850, true],
        [0.42, 870, false],
      ] as const) {
        const reach = boardScale(drawn, 300, { ...LAYOUT, width }).reachMm
        const { fromMm } = boardScale(drawn, 300, { ...LAYOUT, width, handFromMm: reach * share })
        expect([share, width, fromMm > 0]).toEqual([share, width, isCut])
      }
    }
  })

  it('has the nut at the left and the highest string on top; turned round, both change ends', () => {
    const violin = instrument('violin')
    const player = boardScale(violin, 150, LAYOUT)
    const facing = boardScale(violin, 150, { ...LAYOUT, isFlipped: true })
    expect(player.along(0)).toBeLessThan(player.along(100))
    expect(player.stringY(3, 50)).toBeLessThan(player.stringY(0, 50))
    expect(facing.along(0)).toBeGreaterThan(facing.along(100))
    expect(facing.stringY(3, 50)).toBeGreaterThan(facing.stringY(0, 50))
    // half a turn, not a mirror: what was above the middle to the right is below it to the left
    expect(player.stringY(3, 50) - player.middleY).toBeCloseTo(facing.middleY - facing.stringY(3, 50), 9)
  })

  it('spreads its strings within the board, wider towards the bridge', () => {
    for (const id of FAMILY_IDS) {
      const scale = boardScale(instrument(id), reachMm(instrument(id), 'board', 100), LAYOUT)
      for (const mm of [0, scale.reachMm]) {
        const ys = [0, 1, 2, 3].map((index) => scale.stringY(index, mm))
        expect(Math.max(...ys)).toBeLessThan(scale.middleY + scale.halfWidthAt(mm))
        expect(Math.min(...ys)).toBeGreaterThan(scale.middleY - scale.halfWidthAt(mm))
      }
      const spread = (mm: number) => scale.stringY(0, mm) - scale.stringY(3, mm)
      expect(spread(scale.reachMm)).toBeGreaterThan(spread(0))
    }
  })

  it('shows every place asked for, and at least the playing area', () => {
    const cello = instrument('cello')
    const last = placeOfCents(690, 500)
    expect(reachMm(cello, 'playing', last)).toBeGreaterThan(last)
    expect(reachMm(cello, 'octave', last)).toBeGreaterThan(690 / 2)
    expect(reachMm(cello, 'board', last)).toBe(cello.board.lengthMm)
  })
})

describe('what lies at a place', () => {
  it('is the note that tonal finds for the same number of semitones, on every string of every family', () => {
    for (const id of FAMILY_IDS)
      familyOf(id).tuning.forEach((open, index) => {
        for (let semitones = 0; semitones <= 12; semitones++) {
          const drawn = instrument(id)
          const read = readPlace(drawn, index, placeOfCents(drawn.lengthMm, 100 * semitones + 7))
          const midi = (TonalNote.midi(noteName(open).replace('♭', 'b').replace('♯', '#')) ?? NaN) + semitones
          const plain = (read?.note ?? '').replaceAll('♯', '#').replaceAll('♭', 'b')
          expect(TonalNote.chroma(plain), `${id} ${noteName(open)} + ${semitones}: ${read?.note}`).toBe(
            midi % 12,
          )
          expect(read?.noteCents).toBeCloseTo(7, 6)
        }
      })
  })

  it('is nothing on a string that is not there', () => {
    expect(readPlace(instrument('violin'), 7, 30)).toBeUndefined()
  })
})

describe('labels that would lie on one another', () => {
  it('move apart, no further than they must, and keep their order', () => {
    expect(spread([100, 300], 56)).toEqual([100, 300])
    expect(spread([310, 100, 300], 56)).toEqual([333, 100, 277])
    expect(spread([], 56)).toEqual([])
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 900 }), { minLength: 1, maxLength: 9 }), (wanted) => {
        const placed = spread(wanted, 56)
        const inOrder = [...placed].sort((a, b) => a - b)
        for (const [i, x] of inOrder.slice(1).entries())
          expect(x - inOrder[i]!).toBeGreaterThanOrEqual(56 - 1e-9)
        // They give way to both sides alike: their middle stays.
        const mean = (of: readonly number[]) => of.reduce((a, b) => a + b) / of.length
        expect(mean(placed)).toBeCloseTo(mean(wanted), 9)
        const byWanted = wanted
          .map((w, i) => [w, placed[i]!] as const)
          .sort((a, b) => a[0] - b[0] || a[1] - b[1])
        expect(byWanted.map(([, x]) => x)).toEqual(inOrder)
      }),
      { seed: 1 },
    )
  })
})

it('draws each note of a place, and those that were left out apart; of many the last', () => {
  const at = (placeMm: number) => ({ placeMm }) as Landing
  const [one, stray, two] = [at(30), at(45), at(31)]
  const place = { landings: [one, stray, two] as const, strays: [stray] }
  expect(dotsOf(place)).toEqual({ notesMm: [30, 31], straysMm: [45] })
  expect(dotsOf(place, 2)).toEqual({ notesMm: [31], straysMm: [45] })
  expect(dotsOf(place, 1)).toEqual({ notesMm: [31], straysMm: [] })
})

describe('words for landings that are off', () => {
  const landing = (finger: 1 | 2 | 3 | 4, meanMm: number, meanCents: number): BoardLanding => ({
    stringIndex: 1,
    finger,
    targetMm: meanMm,
    meanMm,
    meanCents,
    notesMm: [meanMm],
    toleranceMm: [meanMm - 2, meanMm + 2],
    isOff: Math.abs(meanCents) > 15,
  })
  const violin = instrument('violin', 284.5 / 328)

  it('stand under their landings, within the drawing, and never on one another, however many and however close', () => {
    fc.assert(
      fc.property(
        fc.record({
          width: fc.integer({ min: 320, max: 1400 }),
          isFlipped: fc.boolean(),
          cents: fc.array(fc.integer({ min: -99, max: 99 }), { minLength: 4, maxLength: 4 }),
        }),
        ({ width, isFlipped, cents }) => {
          const scale = boardScale(violin, reachMm(violin, 'playing', 95), { ...LAYOUT, width, isFlipped })
          const places = [31.6, 59.7, 71.1, 94.8]
          const landings = places.map((mm, i) => landing((i + 1) as 1, mm, cents[i]!))
          const words = landingWords(scale, landings, isFlipped)
          expect(words).toHaveLength(cents.filter((c) => Math.abs(c) > 15).length)
          for (const [i, a] of words.entries()) {
            const half = (word: typeof a) => word.text.length * 4.1
            expect(a.x - half(a)).toBeGreaterThanOrEqual(-0.01)
            expect(a.x + half(a)).toBeLessThanOrEqual(width + 0.01)
            for (const b of words.slice(i + 1).filter((w) => w.row === a.row))
              expect(Math.abs(a.x - b.x)).toBeGreaterThanOrEqual(half(a) + half(b))
          }
        },
      ),
      { seed: 1 },
    )
  })

  it('say finger, cents and side by word, and point to where sharp lies on a board turned round', () => {
    const scale = boardScale(violin, 130, LAYOUT)
    const said = (isFlipped: boolean) =>
      landingWords(scale, [landing(1, 31, -22), landing(3, 80, 31), landing(4, 95, 2)], isFlipped).map(
        (w) => w.text,
      )
    expect(said(false)).toEqual(['◀ 1: 22 cents flat', '3: 31 cents sharp ▶'])
    expect(said(true)).toEqual(['1: 22 cents flat ▶', '◀ 3: 31 cents sharp'])
  })
})

it('fills its width on a check, of every family and size, unless the whole board is shown already', () => {
  for (const id of FAMILY_IDS)
    for (const { typicalLengthMm } of familyOf(id).sizes)
      for (const width of [340, 760, 1000]) {
        const drawn = strung(id, typicalLengthMm)
        const last = placeOfCents(typicalLengthMm, 700)
        const scale = boardScale(drawn, reachMm(drawn, 'playing', last), {
          ...LAYOUT,
          width,
          maxBoardHeight: 146,
        })
        const end = scale.along(scale.reachMm)
        const isWhole = scale.reachMm >= drawn.board.lengthMm - 0.5
        expect(isWhole || end > 0.97 * (width - LAYOUT.right), `${id} ${typicalLengthMm} on ${width}`).toBe(
          true,
        )
      }
})
