import { describe, expect, it } from 'vitest'
import { exerciseOf } from '../exercise'
import { snapshotOf, type Digit, type FamilyId, type Finger } from '../instrument'
import { placementContext } from '../pattern'
import { noteName } from '../pitch'
import {
  faultyHand,
  NO_FAULTS,
  playExercise,
  seededSource,
  STEADY_HAND,
  type HandFaults,
  type PlayerFaults,
} from '../simulate'
import {
  landingAtCents,
  landingFromMeter,
  placesOf,
  recordedNote,
  targetsOf,
  type Exercise,
  type Landing,
} from '../take'
import { landed, shaped, strung } from '../testing'
import { earlierTakes, judgeTake, summaryOf, type Finding, type Verdict } from './index'

const LENGTHS: Record<FamilyId, number> = { violin: 328, viola: 371, cello: 690, bass: 1050 }

interface Options {
  readonly familyId?: FamilyId
  readonly lengthMm?: number
  readonly toleranceCents?: number
}
const takeOn = ({ familyId = 'violin', lengthMm = LENGTHS[familyId] }: Options) => ({
  stringing: strung(familyId, lengthMm),
  exercise: shaped(familyId),
})

type Heard = readonly (readonly [Digit, number])[]

const judgeLandings = (landings: readonly Landing[], options: Options = {}) =>
  judgeTake({ ...takeOn(options), landings, toleranceCents: options.toleranceCents ?? 10 })
const judge = (heard: Heard, options: Options = {}) => judgeLandings(landed(takeOn(options), heard), options)

const play = (seed: number, faults: PlayerFaults, options: Options = {}, times?: number) => {
  const { stringing, exercise } = takeOn(options)
  return playExercise(seededSource(seed), stringing, exercise, faults, times)
}

const cents = (...values: number[]): Heard => values.map((value, i) => [(i + 1) as Finger, value])
const findings = (verdict: Verdict): readonly Finding[] => ('findings' in verdict ? verdict.findings : [])
const codes = (verdict: Verdict) => findings(verdict).map(({ code }) => code)

/** Hands on several strings, round after round, played with these faults. */
function takeOver(
  familyId: FamilyId,
  strings: readonly number[],
  hand: Partial<HandFaults>,
  rounds = 4,
  shapeId?: string,
) {
  const stringing = strung(familyId, LENGTHS[familyId])
  const once = strings.flatMap((stringIndex) => shaped(familyId, stringIndex, shapeId).notes.slice(1))
  const exercise: Exercise = {
    name: { kind: 'free' },
    notes: Array.from({ length: rounds }, () => once).flat(),
  }
  const source = seededSource(15)
  const at = faultyHand(source, stringing, exercise, { ...STEADY_HAND, scatterCents: 3, ...hand })
  const landings = targetsOf(stringing, exercise).map((target, i, all) =>
    landingAtCents(stringing, target, at(target, i / (all.length - 1)), {
      sigmaCents: 1,
      atMs: 500 * i,
      source: 'simulated',
    }),
  )
  return { stringing, exercise, landings, toleranceCents: 10 }
}

describe('a hand judged from its notes (faults: docs/trade.md § 7, common practice, no source)', () => {
  it('of a free take is judged with notes that no hand of it holds, and hands of one place', () => {
    const { stringing, exercise, landings } = takeOver('violin', [1, 2], { handOffsetMm: 4 })
    const some = exercise.notes.filter(({ stringIndex, finger }) => stringIndex === 1 || finger === 2)
    for (const notes of [some, some.slice(0, 3), some.slice(0, 1), []]) {
      const verdict = judgeTake({ stringing, exercise: { ...exercise, notes }, landings, toleranceCents: 10 })
      expect(verdict).toMatchObject({ outcome: 'explained', findings: [{ code: 'whole_hand' }] })
    }
  })

  it('says nothing from two fingers, however often they are read', () => {
    const verdict = judge([...cents(-20, -20), ...cents(-21, -22)])
    expect(verdict).toMatchObject({
      outcome: 'not_enough_notes',
      fingersHeard: [1, 2],
      fingersNeeded: 3,
      more: null,
    })
  })

  it('sees the worked example of the check: frame narrow at the fourth finger, the others well', () => {
    // half-size 284.5 mm; landings +3, +5, −4, −22 cents: 1 to 4 measures 2.4 mm less than 63.2
    const heard = [...cents(3, 5, -4, -22), ...cents(1, 4, -3, -24)]
    const [frame, ...more] = findings(judge(heard, { lengthMm: 284.5 }))
    expect(more).toEqual([])
    expect(frame).toMatchObject({ code: 'frame', where: 'last', shownBy: 4, fromFinger: 1, toFinger: 4 })
    // Chosen since it is large, it is told a little smaller than the 2.5 mm of the notes.
    expect(frame?.code === 'frame' && Math.abs(frame.errorMm + 2.45)).toBeLessThan(0.05)
    expect(frame?.code === 'frame' && frame.expectedMm).toBeCloseTo((284.5 * 2) / 9, 9)
  })

  it('calls an untuned string by its name before it looks at the hand, and only where that is sure', () => {
    const hand = cents(15, 13, 14, 16)
    expect(judge([[0, 16], ...hand])).toMatchObject({
      outcome: 'string_out_of_tune',
      string: 'A4',
      cents: 16,
    })
    // One reading of seven cents is no proof; three are.
    expect(judge([[0, 7], ...cents(0, 0, 0, 0)]).outcome).not.toBe('string_out_of_tune')
    const read = landed(takeOn({}), [[0, 9], [0, 8], [0, 9], ...cents(0, 0, 0, 0)], 1)
    expect(judgeLandings(read).outcome).toBe('string_out_of_tune')
  })

  it('holds the fingers against their string as it is tuned, where it is a little off', () => {
    // Four cents flat, and every finger with it: the hand is well.
    const rounds = [1, -1, 2, 0].flatMap((off): Heard => [
      [0, -4],
      ...cents(-4 + off, -4 - off, -4, -4 + off),
    ])
    expect(judge(rounds)).toMatchObject({ outcome: 'in_tune' })
    const [first] = judge(rounds).fingers
    expect(Math.abs(first!.meanCents)).toBeLessThan(1)
  })

  it('tells a hand that moved from one that stretched, and knows whether the open string was heard', () => {
    const landings = play(1, { ...NO_FAULTS, handOffsetMm: 4, scatterCents: 2 }, {}, 2)
    const moved = judgeLandings(landings)
    expect(findings(moved)).toMatchObject([{ code: 'whole_hand', openStringHeard: false }])
    expect(Math.abs((findings(moved)[0] as { offsetMm: number }).offsetMm - 4)).toBeLessThan(0.3)
    const withOpen = judgeLandings([...landed(takeOn({}), [[0, 0]]), ...landings])
    expect(findings(withOpen)).toMatchObject([{ code: 'whole_hand', openStringHeard: true }])
  })

  it('names two faults together when one is not enough', () => {
    const hand = { handOffsetMm: 5, fingerOffsetMm: { 2: -7 } }
    expect(codes(judgeTake(takeOver('violin', [1, 2], hand))).sort()).toEqual(['finger', 'whole_hand'])
  })

  it('says about how many notes more would tell, and fewer once there are more', () => {
    const more = (times: number) => {
      const fault = { ...NO_FAULTS, fingerOffsetMm: { 3: 2.2 }, scatterCents: 9 }
      const verdict = judgeLandings(play(14, fault, {}, times))
      return verdict.outcome === 'not_enough_notes' ? verdict.more! : 0
    }
    expect(more(2)).toBeGreaterThan(4)
    expect(more(2)).toBeLessThan(200)
    expect(more(12)).toBeLessThan(more(2))
    const maybe = judgeLandings(
      play(14, { ...NO_FAULTS, fingerOffsetMm: { 3: 2.2 }, scatterCents: 9 }, {}, 4),
    )
    expect(maybe.outcome === 'not_enough_notes' && maybe.maybe!.length).toBeLessThan(3)
  })

  it('asks for a range of notes, and for another lesson where they would be too many', () => {
    const asked = judgeLandings(
      play(14, { ...NO_FAULTS, fingerOffsetMm: { 3: 2.2 }, scatterCents: 9 }, {}, 2),
    )
    expect(asked.outcome).toBe('not_enough_notes')
    const { more, moreTo } = asked as { more: number; moreTo: number }
    expect(moreTo).toBe(Math.ceil(2.5 * more))
    // Scattered so far that no fault of three cents is told in one sitting.
    const rounds = [1, -1, 2, -2, 1.5, -1.5].flatMap((k) => [...cents(9 * k, -11 * k, 13 * k, -8 * k)])
    const many = judge(rounds, { toleranceCents: 3 })
    expect(many.outcome === 'not_enough_notes' ? many.more : 'told').toBeNull()
  })

  it('gives a first answer to four single notes where one fault is likelier than all else, and none where it is not', () => {
    const first = (...heard: readonly [number, number, number, number]) => judge(cents(...heard))
    expect(first(-4, 3, -2, -25)).toMatchObject({
      outcome: 'not_enough_notes',
      leans: true,
      maybe: [{ code: 'frame' }],
    })
    expect(first(12, 14, 11, 13)).toMatchObject({ leans: true, maybe: [{ code: 'whole_hand' }] })
    // The odds of a narrow frame against all else pass even between these two.
    expect(first(2, -3, 4, -22)).toMatchObject({ leans: true })
    const open = first(2, -3, 4, -19)
    expect(open).toMatchObject({ outcome: 'not_enough_notes', maybe: [{ code: 'frame' }] })
    expect(open).not.toHaveProperty('leans')
  })

  it('says of a finger what was heard of it, whatever earlier takes made likely of the size', () => {
    const heard = judge([...cents(1, -1, 0, -31), ...cents(-1, 1, 2, -29)])
    const [finding] = heard.outcome === 'explained' ? heard.findings : []
    expect(finding).toMatchObject({ code: 'frame', shownBy: 4 })
    expect(finding?.code === 'frame' && finding.cents).toBeCloseTo(-30, 9)
  })

  it('is not changed by one wild note, nor made surer by notes that are written down twice', () => {
    const take = takeOver('violin', [1, 2], { frameErrorMm: -5 }, 3)
    const before = judgeTake(take)
    expect(codes(before)).toEqual(['frame'])
    for (const wild of [80, -80, 900])
      for (const at of [0, 7, 15]) {
        const landings = take.landings.map((l, i) => (i === at ? { ...l, cents: wild } : l))
        expect(codes(judgeTake({ ...take, landings })), `${wild} at ${at}`).toEqual(['frame'])
      }
    const well = takeOver('violin', [1, 2], {}, 3)
    const one = { ...well, landings: well.landings.map((l, i) => (i === 5 ? { ...l, cents: 60 } : l)) }
    expect(judgeTake(one).outcome).toBe('in_tune')
    const typed = landed(takeOn({}), [...cents(-9, 11, 6, -14), ...cents(3, 14, -7, -20)])
    expect(judgeLandings([...typed, ...typed])).toEqual(judgeLandings(typed))
    expect(judgeLandings([...typed, ...typed, ...typed])).toEqual(judgeLandings(typed))
    const broken = { ...take, landings: [...take.landings, { ...take.landings[0]!, cents: NaN }] }
    expect(codes(judgeTake(broken))).toEqual(['frame'])
  })
})

describe('every row that landings can show (docs/trade.md § 7) is found in a hand that does it', () => {
  it.each([
    ['the whole hand too far up', 'violin', [1, 2], { handOffsetMm: 4 }, 'whole_hand'],
    ['the whole hand too far back', 'bass', [1, 2], { handOffsetMm: -12 }, 'whole_hand'],
    ['a narrow frame', 'viola', [1, 2], { frameErrorMm: -6 }, 'frame'],
    ['a wide frame', 'violin', [0, 1], { frameErrorMm: 5 }, 'frame'],
    ['4 alone short', 'violin', [1, 2], { fingerOffsetMm: { 4: -4 } }, 'frame'],
    ['2 alone high', 'violin', [1, 2], { fingerOffsetMm: { 2: 4 } }, 'finger'],
    ['half steps too wide', 'violin', [1, 2], { halfStepMm: 3 }, 'steps'],
    ['a locked thumb', 'cello', [1, 2], { lockedThumbMm: 9 }, 'locked_thumb'],
    ['an elbow that stays out', 'violin', [0, 1, 2, 3], { elbowMm: 8 }, 'elbow'],
    ['a hand that creeps', 'violin', [1, 2], { creepMm: 6 }, 'creep'],
    [
      'a string out of tune that nobody has read',
      'violin',
      [1, 2, 3],
      { openCents: [0, -18, 0, 0] },
      'string',
    ],
    ['fingers that land anywhere', 'violin', [1, 2], { scatterCents: 25 }, 'scatter'],
  ] as const)('%s (%s)', (_, familyId, strings, hand, code) => {
    expect(codes(judgeTake(takeOver(familyId, strings, hand, 6)))).toEqual([code])
  })

  it.each([
    ['pinched', { pinchedMm: 9 }],
    ['dragged', { draggedMm: 10 }],
  ] as const)('an extension that is %s (cello)', (code, hand) => {
    const stringing = strung('cello', 690)
    const extended = takeOver('cello', [1, 2], hand, 4, 'extended_back')
    const closed = takeOver('cello', [1, 2], hand, 3)
    const landings = [...extended.landings, ...closed.landings]
    const notes = [...extended.exercise.notes, ...closed.exercise.notes]
    const exercise = {
      ...extended.exercise,
      notes: notes.map((n, i) => ({ ...n, positionId: i < 32 ? 'extended' : 'first' })),
    }
    const placed = landings.map((l, i) => ({ ...l, positionId: i < 32 ? 'extended' : 'first' }))
    expect(codes(judgeTake({ stringing, exercise, landings: placed, toleranceCents: 10 }))).toEqual([code])
  })

  it.each(['violin', 'viola', 'cello', 'bass'] as const)('and a good hand is well (%s)', (familyId) => {
    const verdict = judgeTake(takeOver(familyId, [1, 2], {}, 6))
    expect(verdict.outcome).toBe('in_tune')
  })

  it('with its size: intervals hold the truth about nineteen times in twenty', () => {
    const trials = 300
    let [told, held] = [0, 0]
    for (let seed = 0; seed < trials; seed++) {
      const fault = { ...NO_FAULTS, handOffsetMm: 5, scatterCents: 6 }
      const [finding] = findings(judgeLandings(play(seed + 1, fault, {}, 4), { toleranceCents: 15 }))
      if (finding?.code !== 'whole_hand') continue
      told++
      if (Math.abs(finding.offsetMm - 5) <= finding.plusMinusMm) held++
    }
    expect(told).toBeGreaterThan(trials / 2)
    expect(held / told).toBeGreaterThan(0.91)
  })
})

it('judges a whole scale at once: what one string alone leaves open, four tell', () => {
  const stringing = strung('violin', 328)
  const made = exerciseOf(placementContext(stringing.family, stringing.tuning), {
    kind: 'scale',
    keyId: 'G:major',
    octaves: 2,
    openStrings: 'prefer',
  })
  if (!made.ok) throw new Error(made.code)
  const { exercise } = made
  const faults = { ...NO_FAULTS, handOffsetMm: 4, scatterCents: 5 }
  const landings = playExercise(seededSource(2), stringing, exercise, faults)
  const take = { stringing, exercise, landings, toleranceCents: 10 }
  expect(codes(judgeTake(take))).toEqual(['whole_hand'])
})

it('says one fault by its name, and not in a roundabout way: 2 high on a cello is no wide half step with 3 set right again', () => {
  const stringing = strung('cello', 690)
  const scale = { kind: 'scale', keyId: 'C:major', octaves: 2, openStrings: 'prefer' } as const
  const made = exerciseOf(placementContext(stringing.family, stringing.tuning), scale)
  if (!made.ok) throw new Error(made.code)
  const { exercise } = made
  const shown = { 1: [4, 1, 3], 2: [28, 31, 30], 3: [-2, 1, 0], 4: [1, -3, 2] }
  const landings = placesOf(exercise.notes).flatMap((note) =>
    (shown[note.finger as Finger] ?? []).map((cents) => landingFromMeter(stringing, note, cents)),
  )
  const verdict = judgeTake({ stringing, exercise, landings, toleranceCents: 20 })
  expect(codes(verdict)).toEqual(['locked_thumb'])
})

it('takes off what a meter in equal temperament shows for a hand that is right', () => {
  const { stringing, exercise } = takeOn({})
  // fifths on A: B +4, C♯ +8, D −2, E +2 (multiples of 1.955); open A 0
  const shown = [0, 3.91, 7.82, -1.955, 1.955]
  for (const [i, shownCents] of shown.entries())
    expect(landingFromMeter(stringing, exercise.notes[i]!, shownCents).cents).toBeCloseTo(0, 2)
})

it('judges by the places of the instrument: pressed and rung places move the hand’s with them', () => {
  const exercise = shaped('violin')
  const finds = [{ stringIndex: 2, cents: 203.91, placeMm: 38, isTrusted: true }]
  const rung = strung('violin', 328, undefined, { finds })
  const plain = strung('violin', 328)
  const landings = landed({ stringing: rung, exercise }, [...cents(0, 0, 0, -30), ...cents(1, -1, 1, -30)])
  const [onRung] = findings(judgeTake({ stringing: rung, exercise, landings, toleranceCents: 10 }))
  expect(onRung).toMatchObject({ code: 'frame', where: 'last' })
  const [first] = landings
  expect(first!.placeMm).toBeGreaterThan(328 / 9 + 0.5)
  expect(onRung?.code === 'frame' && onRung.expectedMm).not.toBeCloseTo((328 * 2) / 9, 3)
  const [onPlain] = findings(judgeTake({ stringing: plain, exercise, landings, toleranceCents: 10 }))
  expect(onPlain?.code === 'frame' && onPlain.expectedMm).toBeCloseTo((328 * 2) / 9, 9)
})

it('tells no creeping of what was typed finger by finger: nobody said which note came when', () => {
  // Alike in cents is not alike in mm: from 1 to 4 it reads as a hand that moves, in the order of the sheet.
  const typed = ([1, 2, 3, 4] as const).flatMap((finger) =>
    [30, 32, 29, 31].map((cents) => [finger, cents] as const),
  )
  const verdict = judgeLandings(landed(takeOn({}), typed))
  const codes = 'findings' in verdict ? verdict.findings.map(({ code }) => code) : []
  expect(codes).toContain('whole_hand')
  expect(codes).not.toContain('creep')
})

it('has no drift of such a sheet either, and one of the same notes in the order of their playing', () => {
  const drift = (heard: Heard) =>
    summaryOf({ ...takeOn({}), landings: landed(takeOn({}), heard), toleranceCents: 15 })?.driftCents
  const rounds = [0, 4, 8, 12].flatMap((cents) =>
    ([1, 2, 3, 4] as const).map((finger) => [finger, cents] as const),
  )
  // The least-squares line of four steps of four cents, by hand: 15 × (4² − 1) 4² / (16² − 1) = 14.12 from the first note to the last.
  expect(drift(rounds)).toBeCloseTo((15 * 15 * 16) / 255, 6)
  expect(drift([...rounds].sort(([a], [b]) => a - b))).toBeNull()
})

it('counts of earlier takes those that can be read and were not overruled, as old as they are', () => {
  const { stringing, exercise, landings } = takeOver('violin', [1], {})
  const record = {
    stringing: snapshotOf(stringing),
    exercise: { kind: 'free' as const, notes: exercise.notes.map(recordedNote) },
    landings: landings.map((landing) => ({ ...landing, note: noteName(landing.note) })),
    takenAt: '2026-11-20T10:00:00.000Z',
    tapesCovered: true,
    isOverruled: false,
    likely: { 'whole_hand 1': 1 },
  }
  const now = Date.parse('2026-11-23T22:00:00.000Z')
  const [kept, ...more] = earlierTakes(
    [record, { ...record, isOverruled: true }, { ...record, stringing: null }],
    now,
  )
  expect(more).toEqual([])
  expect(kept).toMatchObject({ daysAgo: 3.5, tapesCovered: true, likely: { 'whole_hand 1': 1 } })
  expect(kept!.landings.map(({ cents }) => cents)).toEqual(landings.map(({ cents }) => cents))
  // Taken by a clock that goes before this one.
  expect(earlierTakes([record], now - 7 * 86_400_000)[0]!.daysAgo).toBe(0)
})
