import { supermemo } from 'supermemo'
import { describe, expect, it } from 'vitest'
import { USUAL_SCHOOLS } from '../setup'
import type { Finding } from '../verdict'
import {
  daysUntilReview,
  minutesOf,
  mostMinutes,
  planWeek,
  PRACTICE,
  PRACTICE_IDS,
  type PlanFacts,
  type PlannedCard,
  type WeekPlan,
} from './index'
import { fingerFinding, frameFinding, ownExercise } from './testing'

const DAYS = ['2026-11-28', '2026-11-29', '2026-11-30', '2026-12-02', '2026-12-03']
const [TODAY] = DAYS as [string]
const FOURTH = fingerFinding(4, -27)
const LOW: Finding = { code: 'whole_hand', openStringHeard: true, plusMinusMm: 1, offsetMm: -4 }
const NOBODY: PlanFacts = {
  familyId: 'violin',
  strings: 4,
  schools: USUAL_SCHOOLS,
  isBeginner: true,
  pains: 0,
  closedGates: [],
  found: [],
  held: [],
  setup: [],
  learning: [],
  pieces: [],
  log: [],
  asked: [],
}
const found = (finding: Finding, takenOn = '2026-11-14') => ({ finding, takenOn, certainty: 1 })
const plan = (facts: Partial<PlanFacts>, minutesADay = 30, terms = {}) =>
  planWeek(TODAY, { ...NOBODY, ...facts }, { days: DAYS, minutesADay, ...terms })
const daysOf = ({ cards }: WeekPlan, id: string) => cards.filter((c) => c.exerciseId === id).map((c) => c.on)
const why = ({ leftOut }: WeekPlan, id: string) => leftOut.find((one) => one.exerciseId === id)?.why

describe('a week', () => {
  it('is planned from what was found, with the reason beside each line, and is the same every time', () => {
    const facts = { found: [found(FOURTH)], pieces: ['Ferry Steps'] }
    const week = plan(facts)
    expect(daysOf(week, 'one_finger')).toEqual(DAYS)
    expect(week.cards[0]).toMatchObject({
      minutes: 2,
      isFixed: false,
      reason: { code: 'finding', finding: { finger: 4 }, on: '2026-11-14' },
    })
    expect(week.cards[1]?.reason).toEqual({ code: 'piece', title: 'Ferry Steps', finger: 4 })
    expect(plan(facts)).toEqual(week)
  })

  it('goes from tension over hold, frame and aim to patterns and an old piece, each day', () => {
    const known = PRACTICE_IDS.map((exerciseId) => ({ exerciseId, on: '2026-11-27' }))
    const week = plan(
      {
        log: known,
        found: [found(FOURTH), found(frameFinding(-4))],
        setup: [{ itemId: 'tension', answer: 'no', seenOn: TODAY }],
        learning: ['fourth/1234/212'],
        pieces: ['Ferry Steps'],
      },
      60,
    )
    expect(week.cards.filter(({ on }) => on === TODAY).map(({ exerciseId }) => exerciseId)).toEqual([
      'shake_out',
      'find_elbow',
      'one_finger',
      'finger_rounds',
      'scale_two_bows',
      'review_piece',
    ])
  })

  it('begins one new thing at a time, the weightiest first, and says what waits', () => {
    const facts = {
      setup: [{ itemId: 'tension', answer: 'no', seenOn: TODAY }] as const,
      found: [found(FOURTH), found(LOW)],
    }
    const week = plan(facts)
    expect(daysOf(week, 'shake_out')).toEqual(DAYS)
    expect(daysOf(week, 'one_finger')).toEqual(DAYS.slice(3))
    expect(why(week, 'open_and_first')).toEqual({ code: 'one_new' })
    const later = plan({ ...facts, log: [{ exerciseId: 'shake_out', on: '2026-11-21' }] })
    expect(daysOf(later, 'one_finger')).toEqual(DAYS)
    expect(daysOf(later, 'open_and_first')).toEqual(DAYS.slice(3))
  })

  it('never asks for more than the minutes of a day, and drops what is worth least', () => {
    const log = ['shake_out', 'one_finger'].map((exerciseId) => ({ exerciseId, on: '2026-11-21' }))
    const setup = [{ itemId: 'tension', answer: 'no', seenOn: TODAY }] as const
    const week = plan({ found: [found(FOURTH)], setup, pieces: ['Low Tide'], log }, 7)
    expect(week.cards.filter(({ on }) => on === TODAY).map(({ exerciseId }) => exerciseId)).toEqual([
      'shake_out',
      'one_finger',
    ])
    expect(why(week, 'review_piece')).toEqual({ code: 'no_minutes' })
    expect(plan({ found: [found(FOURTH)] }, 0).cards).toEqual([])
  })

  it('asks a few exercises at once, the weightiest, and of a hundred wishes no day more than it holds', () => {
    const items = ['tension', 'gap', 'wrist', 'elbow', 'fourth_side', 'first_side', 'palm'] as const
    const setup = items.map((itemId) => ({ itemId, answer: 'no', seenOn: TODAY }) as const)
    const log = PRACTICE_IDS.map((exerciseId) => ({ exerciseId, on: '2026-11-27' }))
    const week = plan({ setup, log, found: [found(FOURTH)], pieces: ['Low Tide'] }, 60)
    expect(new Set(week.cards.map(({ exerciseId }) => exerciseId)).size).toBe(6)
    expect(why(week, 'one_finger')).toEqual({ code: 'enough' })
    const everything = plan({ asked: [...PRACTICE_IDS, ...PRACTICE_IDS, ...PRACTICE_IDS] }, 120)
    for (const day of DAYS) {
      const own = everything.cards.filter(({ on }) => on === day).map(({ exerciseId }) => exerciseId)
      expect(new Set(own).size).toBe(own.length)
      expect(minutesOn(everything.cards, day)).toBeLessThanOrEqual(120)
    }
  })

  it('gives scarce minutes to what is wrong in the setup, then to what was heard and accepted, then to what is learned', () => {
    const log = PRACTICE_IDS.map((exerciseId) => ({ exerciseId, on: '2026-11-27' }))
    const heard = { ...found(FOURTH), says: 'accepted' } as const
    // Each takes two minutes, and a day holds two: of each pair the first.
    const setup = (answer: 'no' | 'nearly') => [{ itemId: 'gap', answer, seenOn: TODAY }] as const
    const other = { finding: LOW, takenOn: TODAY }
    for (const [facts, first] of [
      [{ setup: setup('no'), found: [heard] }, 'thumb_taps'],
      [{ setup: setup('nearly'), found: [heard] }, 'one_finger'],
      [{ setup: setup('nearly'), found: [{ ...other, finding: FOURTH, certainty: 0.5 }] }, 'thumb_taps'],
      [{ found: [found(FOURTH)], learning: ['fourth/1234/212'] }, 'one_finger'],
      [{ found: [{ ...found(FOURTH), certainty: 0.5 }], learning: ['fourth/1234/212'] }, 'finger_rounds'],
      [{ learning: ['fourth/1234/212'], closedGates: ['shifting'] }, 'finger_rounds'],
      [{ found: [heard], asked: ['long_notes'] }, 'long_notes'],
    ] as const)
      expect(plan({ log, ...facts }, 2).cards[0]?.exerciseId, JSON.stringify(facts)).toBe(first)
  })

  it('asks no forty minutes of a child of six, and says so', () => {
    expect(mostMinutes(6)).toBe(24)
    expect(mostMinutes(13)).toBe(Infinity)
    const everything = PRACTICE_IDS.filter((id) => id !== 'tune_strings')
    const week = plan({ age: 6, asked: everything }, 40)
    for (const day of DAYS) expect(minutesOn(week.cards, day)).toBeLessThanOrEqual(24)
    expect(week.leftOut).toContainEqual({
      exerciseId: 'review_piece',
      why: { code: 'minutes_of_age', most: 24 },
    })
    expect(why(week, 'stop_before_repair')).toEqual({ code: 'age', fromAge: 8 })
    expect(why(week, 'roll_the_hand')).toEqual({ code: 'family' })
  })

  it('waits for a gate with what comes before it, and follows the school', () => {
    const vibrato: Finding = { code: 'vibrato', aboveCents: 12, widthCents: 30 }
    const shut = plan({ found: [found(vibrato)], closedGates: ['vibrato'] })
    expect(daysOf(shut, 'slow_swings')).toEqual([])
    expect(daysOf(shut, 'silent_slides')).toEqual(DAYS)
    expect(why(shut, 'slow_swings')).toEqual({ code: 'gate', gate: 'vibrato', until: 'silent_slides' })
    expect(daysOf(plan({ found: [found(vibrato)] }), 'slow_swings')).toEqual(DAYS)
    const resting = { ...USUAL_SCHOOLS, waiting_fingers: 'rest' } as const
    expect(why(plan({ learning: ['fourth/1234/212'], schools: resting }), 'scale_two_bows')).toEqual({
      code: 'school',
    })
    expect(plan({ closedGates: ['fourth_finger'] }).cards[0]?.reason).toEqual({
      code: 'gate',
      gate: 'fourth_finger',
    })
    expect(plan({ closedGates: ['fourth_finger'], isBeginner: false }).cards).toEqual([])
  })

  it('is empty while a pain is told, and follows no finding that was overruled', () => {
    const set = {
      exerciseId: 'one_finger',
      on: TODAY,
      minutes: 2,
      reason: { code: 'asked' },
      isFixed: true,
    } as const
    const week = plan({ pains: 1, found: [found(FOURTH)] }, 30, { fixed: [set] })
    expect(week.cards).toEqual([])
    expect(why(week, 'one_finger')).toEqual({ code: 'pain' })
    expect(plan({ found: [{ ...found(FOURTH), says: 'overruled' }] }).cards).toEqual([])
  })

  it('replaces what did not help after its weeks by the next that mends the same, and does not double it', () => {
    const elbow: Finding = { code: 'elbow', shortMm: 5, plusMinusMm: 1, finger: 4, cents: -30 }
    const log = [{ exerciseId: 'swing_elbow', on: '2026-10-17' }]
    const week = plan({ found: [found(elbow)], log })
    expect(daysOf(week, 'swing_elbow')).toEqual([])
    expect(daysOf(week, 'move_arm')).toEqual(DAYS)
    expect(why(week, 'swing_elbow')).toEqual({ code: 'not_helped', since: '2026-10-17', next: 'move_arm' })
    // Three weeks are not over yet.
    expect(daysOf(plan({ found: [found(elbow, '2026-11-07')], log }), 'swing_elbow')).toEqual(DAYS)
    // Where nothing else is known it begins again; and a frame takes years.
    const both = [...log, { exerciseId: 'move_arm', on: '2026-10-17' }]
    expect(daysOf(plan({ found: [found(elbow)], log: both }), 'swing_elbow')).toEqual(DAYS)
    const narrow = found(frameFinding(-4))
    const begun = [{ exerciseId: 'find_elbow', on: '2026-01-10' }]
    expect(daysOf(plan({ found: [narrow], log: begun }), 'find_elbow')).toEqual(DAYS)
  })

  it('looks again at what holds at growing intervals, once, and never before its day', () => {
    const log = [{ exerciseId: 'one_finger', on: '2026-11-07' }]
    const held = (heldOn: string[]) => plan({ log, held: [{ finding: FOURTH, heldOn }] })
    expect(daysOf(held(['2026-11-27']), 'one_finger')).toEqual([TODAY])
    expect(daysOf(held(['2026-11-20', '2026-11-26']), 'one_finger')).toEqual(['2026-12-02'])
    expect(daysOf(held(['2026-11-01', '2026-11-20', '2026-11-26']), 'one_finger')).toEqual([])
    expect(held(['2026-11-27']).cards[0]?.reason).toMatchObject({ code: 'review', times: 1, days: 1 })
  })

  it('works round what the teacher set, and leaves out what she dropped', () => {
    const facts = { found: [found(FOURTH)], pieces: ['Ferry Steps'] }
    const piece = plan(facts).cards.find(({ exerciseId }) => exerciseId === 'review_piece')!
    const set: PlannedCard = { ...piece, minutes: 6, isFixed: true }
    const week = plan(facts, 7, { fixed: [set], dropped: [{ exerciseId: 'one_finger', on: DAYS[1] }] })
    expect(week.cards.filter(({ on }) => on === TODAY)).toEqual([set])
    expect(daysOf(week, 'one_finger')).toEqual(DAYS.slice(2))
    expect(
      plan(facts, 7, { dropped: [{ exerciseId: 'one_finger' }] }).cards.map((c) => c.exerciseId),
    ).toEqual(DAYS.map(() => 'review_piece'))
    const longer = plan(facts, 9, { minutes: { one_finger: 4 } })
    expect(longer.cards[0]?.minutes).toBe(4)
  })
})

function minutesOn(cards: readonly PlannedCard[], day: string): number {
  return cards.filter(({ on }) => on === day).reduce((sum, { minutes }) => sum + minutes, 0)
}

describe('an exercise of the studio’s own', () => {
  const rock = ownExercise({
    id: 'own-rock',
    part: 'hold',
    findings: ['finger'],
    items: ['elbow'],
    minutes: 4,
  })
  const asked = (of: Partial<typeof rock>, facts: Partial<PlanFacts> = {}) =>
    plan({ asked: ['own-rock'], own: [{ ...rock, ...of }], ...facts })

  it('is tried first for what it is for, in its place of the day, and the trade’s when its weeks are over', () => {
    const facts = { own: [rock], found: [found(FOURTH)], setup: [], pieces: ['Ferry Steps'] }
    const week = plan(facts)
    expect(week.cards.slice(0, 2).map((c) => [c.exerciseId, c.minutes])).toEqual([
      ['own-rock', 4],
      ['review_piece', 5],
    ])
    const hurried = plan({ ...facts, asked: ['shake_out', 'one_finger'] }, 60)
    const first = hurried.cards.filter(({ on }) => on === TODAY).map(({ exerciseId }) => exerciseId)
    expect(first).toEqual(['shake_out', 'own-rock', 'one_finger', 'review_piece'])
    const since = { exerciseId: 'own-rock', on: '2026-10-01' }
    const later = plan({ ...facts, log: [since] })
    expect(daysOf(later, 'one_finger')).toHaveLength(DAYS.length)
    expect(why(later, 'own-rock')).toEqual({ code: 'not_helped', since: '2026-10-01', next: 'one_finger' })
    const asIs = plan({ own: [rock], setup: [{ itemId: 'elbow', answer: 'no', seenOn: '2026-11-14' }] })
    expect(asIs.cards[0]?.exerciseId).toBe('own-rock')
  })

  it('that a teacher asks for stands before two faults of the hand where there is time for no more, and not before three', () => {
    const asks = { ...rock, id: 'own-asked', findings: [], items: [] } as const
    // Whatever is chosen has been begun.
    const log = [...PRACTICE_IDS, 'own-asked'].map((exerciseId) => ({ exerciseId, on: '2026-11-27' }))
    const joint = { itemId: 'last_joint', answer: 'no', seenOn: TODAY } as const
    const elbow = { itemId: 'elbow', answer: 'nearly', seenOn: TODAY } as const
    const chosen = (minutes: number, setup: PlanFacts['setup']) => {
      const week = plan(
        { own: [{ ...asks, minutes }], asked: ['own-asked'], log, setup, found: [found(FOURTH)] },
        minutes,
      )
      return daysOf(week, 'own-asked').length > 0
    }
    expect(chosen(4, [joint])).toBe(true)
    expect(chosen(6, [joint, elbow])).toBe(false)
  })

  it('is taken up to the thirtieth that is asked for; what goes beyond waits, and is named', () => {
    const own = Array.from({ length: 33 }, (_, i) => ({ ...rock, id: `own-${i}` as const, minutes: 1 }))
    const week = plan({ own, asked: own.map(({ id }) => id) }, 120)
    expect(new Set(week.cards.map(({ exerciseId }) => exerciseId)).size).toBe(30)
    expect(week.leftOut.map(({ why }) => why)).toEqual(Array(3).fill({ code: 'enough' }))
  })

  it('that a child is too young for makes room for the next, and so does one of the tool’s', () => {
    const older = asked({ fromAge: 8 }, { age: 6, asked: [], found: [found(FOURTH)] })
    expect(older.cards[0]?.exerciseId).toBe('one_finger')
    expect(why(older, 'own-rock')).toEqual({ code: 'age', fromAge: 8 })
    const young = plan({ age: 6, setup: [{ itemId: 'last_joint', answer: 'no', seenOn: '2026-11-14' }] })
    expect(daysOf(young, 'tap_on_wood')).toEqual(DAYS)
    expect(why(young, 'half_the_pressure')).toEqual({ code: 'age', fromAge: 7 })
  })

  it('waits for the gates that its notes ask for, on this instrument', () => {
    const shut = { closedGates: ['fourth_finger', 'shifting'] as const }
    expect(daysOf(asked({ notes: 'A4/0 B C# D' }, shut), 'own-rock')).toEqual(DAYS)
    const fourth = asked({ notes: 'A4/0 B C# D E/4' }, shut)
    expect(why(fourth, 'own-rock')).toEqual({
      code: 'gate',
      gate: 'fourth_finger',
      until: 'fourth_against_open',
    })
    expect(daysOf(fourth, 'fourth_against_open')).toEqual(DAYS)
    expect(why(asked({ notes: 'E5/0 B5/4 C6/2' }, { closedGates: ['shifting'] }), 'own-rock')).toMatchObject({
      gate: 'shifting',
    })
    expect(daysOf(asked({ notes: 'A4/0 B C# D E/4' }), 'own-rock')).toEqual(DAYS)
  })

  it('is given to whom it is for, and no more once it is taken off', () => {
    expect(daysOf(asked({}), 'own-rock')).toEqual(DAYS)
    expect(why(asked({ families: ['cello'] }), 'own-rock')).toEqual({ code: 'family' })
    expect(why(asked({ fromAge: 8 }, { age: 7 }), 'own-rock')).toEqual({ code: 'age', fromAge: 8 })
    for (const of of [{ isOffered: false }, { families: ['cello'] as const }])
      expect(plan({ own: [{ ...rock, ...of }], found: [found(FOURTH)] }).cards[0]?.exerciseId).toBe(
        'one_finger',
      )
  })
})

describe('minutes of a plan', () => {
  it('are the least of the dose that the trade has (docs/trade.md § 8)', () => {
    expect(minutesOf(PRACTICE.shake_out, 4)).toBe(5)
    expect(minutesOf(PRACTICE.open_and_first, 5)).toBe(5)
    expect(minutesOf(PRACTICE.tap_on_wood, 4)).toBe(2)
    expect(minutesOf(PRACTICE.drop_fourth, 4)).toBe(1)
  })
})

describe('the schedule of reviews', () => {
  it('is that of SM-2 as the library supermemo has it, with the grade 4 (P. A. Woźniak 1990)', () => {
    let item = { interval: 0, repetition: 0, efactor: 2.5 }
    for (let held = 1; held <= 7; held++) {
      item = supermemo(item, 4)
      expect(daysUntilReview(held)).toBe(item.interval)
    }
    expect([1, 2, 3, 4, 5].map(daysUntilReview)).toEqual([1, 6, 15, 38, 95])
  })
})
