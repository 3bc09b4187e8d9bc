import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf } from '../instrument'
import { judgeTake } from '../verdict'
import { playExercise, NO_FAULTS, seededSource } from '../simulate'
import { shapeExercise } from '../take'
import { strung } from '../testing'
import {
  answerOf,
  arrangedItems,
  bodyFitDoubts,
  bodyFitJumps,
  isDrawnItem,
  itemsBehind,
  longNearly,
  oddsOf,
  questionsOf,
  roundItems,
  schoolConflicts,
  schoolsOf,
  setupFigure,
  setupLimits,
  setupMeasureOf,
  setupNow,
  standingOf,
  tapeSchoolFor,
  NO_BODY_FIT,
  SCHOOL_QUESTION_IDS,
  SCHOOL_QUESTIONS,
  SETUP_ITEM_IDS,
  USUAL_ARRANGEMENT,
  USUAL_SCHOOLS,
  type OwnItem,
  type SetupAnswer,
} from './index'

const answered = (answers: Readonly<Record<string, SetupAnswer>>) =>
  Object.entries(answers).map(([itemId, answer]) => ({ itemId, answer, measured: null }))
const idsOf = (items: readonly { readonly id: string }[]) => items.map(({ id }) => id)
const own = (id: string, families: OwnItem['families'] = FAMILY_IDS): OwnItem => ({
  id,
  families,
  question: 'Rosin?',
  right: '',
  wrong: '',
  reason: 'It squeaks.',
  change: '',
  test: '',
})

describe('schools', () => {
  it('are the student’s, else the studio’s, else the usual; what is left undefined decides nothing', () => {
    const schools = schoolsOf(
      { contact: 'tips_only', fingertip: 'near_nail' },
      { contact: 'base_of_1', fingertip: undefined },
    )
    expect(schools).toMatchObject({ contact: 'base_of_1', fingertip: 'near_nail', tapes: 'two' })
  })

  it('ask each family what its teachers disagree on: docs/trade.md § 6', () => {
    expect(questionsOf('violin')).toEqual([
      'tapes',
      'waiting_fingers',
      'thumb_violin',
      'contact',
      'fingertip',
      'fourth_finger',
      'fourth_on_neighbour',
      'climbing',
      'chromatic_scales',
    ])
    expect(questionsOf('cello')).toEqual(['tapes', 'waiting_fingers', 'thumb_cello'])
    expect(questionsOf('bass')).toEqual(['tapes', 'waiting_fingers', 'thumb_bass', 'bass_fingering'])
  })

  it('lay no more tapes than they say, and as many as the family has of so few: docs/trade.md § 3', () => {
    expect(tapeSchoolFor('violin', 'two').id).toBe('first_and_third')
    expect(tapeSchoolFor('cello', 'two').id).toBe('first_and_fourth')
    expect(tapeSchoolFor('violin', 'every').marks).toHaveLength(4)
    for (const family of FAMILY_IDS) {
      expect(tapeSchoolFor(family, 'none').marks).toHaveLength(0)
      expect(tapeSchoolFor(family, 'one').marks).toHaveLength(1)
    }
  })
})

describe('a round', () => {
  it('asks pain first and every item of docs/trade.md § 6 and § 10 in its order', () => {
    expect(idsOf(roundItems('violin')).slice(0, 8)).toEqual([
      'pain',
      'tension',
      'tuned',
      'size',
      'nails',
      'collarbone',
      'chin_rest',
      'shoulder_rest',
    ])
    expect(FAMILY_IDS.map((family) => roundItems(family).length)).toEqual([27, 27, 17, 15])
    // Nothing is asked of nobody.
    const asked = new Set(FAMILY_IDS.flatMap((family) => idsOf(roundItems(family))))
    expect(asked.size).toBe(SETUP_ITEM_IDS.length)
  })

  it('stops at the first “no”, goes on past it only where told to, and past pain never', () => {
    const items = roundItems('cello')
    expect(standingOf(items, answered({ pain: 'yes', tension: 'nearly' })).asks?.id).toBe('tuned')
    const stopped = answered({ pain: 'yes', tension: 'no' })
    expect(standingOf(items, stopped)).toMatchObject({
      stoppedAt: { id: 'tension' },
      asks: undefined,
      done: 2,
      of: 17,
    })
    expect(standingOf(items, stopped, ['tension']).asks?.id).toBe('tuned')
    const hurts = answered({ pain: 'no' })
    expect(standingOf(items, hurts, ['pain']).stoppedAt?.id).toBe('pain')
    const all = answered(Object.fromEntries(items.map(({ id }) => [id, 'yes'])))
    expect(standingOf(items, all)).toMatchObject({ asks: undefined, stoppedAt: undefined, done: 17 })
  })

  it('is every item once in any arrangement, pain first, hidden ones left out, whatever ids are named', () => {
    const someIds = fc.array<string>(fc.constantFrom<string[]>(...SETUP_ITEM_IDS, 'own-rosin', 'gone'), {
      maxLength: 30,
    })
    fc.assert(
      fc.property(fc.constantFrom(...FAMILY_IDS), someIds, someIds, (family, order, hidden) => {
        const arrangement = { order, hidden, own: [own('own-rosin')] }
        const all = idsOf(arrangedItems(family, arrangement))
        expect(all[0]).toBe('pain')
        expect([...all].sort()).toEqual([...idsOf(arrangedItems(family)), 'own-rosin'].sort())
        const named = [...new Set(order)].filter((id) => all.includes(id) && id !== 'pain')
        expect(all.filter((id) => named.includes(id))).toEqual(named)
        const round = idsOf(roundItems(family, arrangement))
        expect(round).toEqual(all.filter((id) => id === 'pain' || !hidden.includes(id)))
      }),
      { seed: 12 },
    )
    expect(
      idsOf(arrangedItems('bass', { ...USUAL_ARRANGEMENT, own: [own('own-rosin', ['cello'])] })),
    ).not.toContain('own-rosin')
  })
})

describe('measured values', () => {
  it('are right, nearly or not by the student’s school; lengths for the size, angles as they are', () => {
    const at = (id: string, value: number, schools = {}, scale = 1) =>
      answerOf(value, setupLimits(id, schoolsOf(schools), scale)!)
    // docs/trade.md § 6: about 25 mm behind 1 or opposite it, by school, and never as far forward as 3.
    expect(at('thumb_place', 25, { thumb_violin: 'behind_1' })).toBe('yes')
    expect(at('thumb_place', 25, { thumb_violin: 'opposite_1' })).toBe('nearly')
    expect(at('thumb_place', 25, { thumb_violin: 'opposite_2' })).toBe('no')
    for (const thumb_violin of SCHOOL_QUESTIONS.thumb_violin.choices)
      expect(at('thumb_place', -47, { thumb_violin })).toBe('no')
    expect(at('thumb_place', 25, { thumb_violin: 'behind_1' }, 0.55)).toBe('no')
    expect([at('finger_angle', 70), at('finger_angle', 90), at('finger_angle', 20)]).toEqual([
      'yes',
      'no',
      'no',
    ])
    expect([at('wrist', 0, {}, 0.5), at('wrist', 30, {}, 0.5)]).toEqual(['yes', 'no'])
    expect(setupLimits('cello_endpin', USUAL_SCHOOLS)).toBeUndefined()
  })

  it('have nearly around right, and possible around both', () => {
    for (const id of SETUP_ITEM_IDS) {
      const limits = setupLimits(id, USUAL_SCHOOLS)
      if (!limits) continue
      const [[a, b], [c, d], [e, f]] = [limits.right, limits.nearly, setupMeasureOf(id)!.possible]
      expect(e <= c && c <= a && a < b && b <= d && d <= f, id).toBe(true)
    }
  })
})

describe('a history', () => {
  const round = (takenOn: string, answers: Readonly<Record<string, SetupAnswer>>) => ({
    takenOn,
    answers: answered(answers),
  })

  it('counts “nearly” from the first of an unbroken row, and tells it after six weeks', () => {
    const now = setupNow([
      round('2026-09-01', { gap: 'nearly', wrist: 'nearly' }),
      round('2026-09-15', { gap: 'yes' }),
      round('2026-10-17', { gap: 'nearly' }),
      round('2026-11-14', { gap: 'nearly' }),
    ])
    expect(now.map(({ itemId, since }) => [itemId, since])).toEqual([
      ['gap', '2026-10-17'],
      ['wrist', '2026-09-01'],
    ])
    const told = (today: string) => longNearly(today, now).map(({ itemId }) => itemId)
    expect(told('2026-11-27')).toEqual(['wrist'])
    expect(told('2026-11-28')).toEqual(['wrist', 'gap'])
  })
})

describe('what an answer implies', () => {
  it('of a simulated hand, the verdict is led back to what goes with it (docs/trade.md § 10)', () => {
    const itemsOf = (familyId: 'violin' | 'cello' | 'bass', faults: object) => {
      const family = familyOf(familyId)
      const stringing = strung(familyId, family.board.stringLengthMm)
      const exercise = shapeExercise(stringing.tuning, 2, family.shapes[0]!)
      const landings = playExercise(
        seededSource(5),
        stringing,
        exercise,
        { ...NO_FAULTS, scatterCents: 1, ...faults },
        4,
      )
      const verdict = judgeTake({ stringing, exercise, landings, toleranceCents: 8 })
      return itemsBehind(verdict, familyId, idsOf(roundItems(familyId)))
    }
    expect(itemsOf('cello', { fingerOffsetMm: { 2: 9 } })).toContain('cello_thumb_joints')
    expect(itemsOf('violin', { frameErrorMm: -6 })).toEqual(
      expect.arrayContaining(['gap', 'squeeze', 'elbow', 'knuckles']),
    )
    expect(itemsOf('violin', { handOffsetMm: 5 })).toContain('thumb_place')
    expect(itemsOf('bass', { frameErrorMm: -14 })).toContain('bass_hand')
    expect(itemsBehind({ outcome: 'string_out_of_tune' }, 'violin', ['pain', 'tuned'])).toEqual(['tuned'])
    expect(itemsBehind({ outcome: 'in_tune' }, 'violin', [...SETUP_ITEM_IDS])).toEqual([])
  })

  it('makes a finding likelier by every “no” that goes with it, and less likely by “yes”', () => {
    const odds = (answers: Readonly<Record<string, SetupAnswer>>) => oddsOf('one_two_wide', answered(answers))
    expect(odds({ cello_thumb_joints: 'no' })).toBeGreaterThan(odds({ cello_thumb_joints: 'nearly' }))
    expect(odds({ cello_thumb_joints: 'nearly' })).toBeGreaterThan(odds({}))
    expect(odds({ cello_thumb_joints: 'yes' })).toBeLessThan(1)
    expect(odds({ gap: 'no', 'own-rosin': 'no' })).toBe(1)
  })
})

describe('conflicts of schools', () => {
  it('are told where a hand is to hover over a frame it does not span, and where two settings contradict', () => {
    const codes = (family: 'violin' | 'cello' | 'bass', schools: object, facts = {}) =>
      schoolConflicts(family, schoolsOf(schools), facts).map(({ code }) => code)
    expect(codes('violin', {}, { fit: 'comfortable' })).toEqual([])
    expect(codes('violin', {}, { fit: 'too_big' })).toEqual(['hover_beyond_span'])
    expect(codes('violin', { waiting_fingers: 'rest' }, { fit: 'too_big' })).toEqual([])
    expect(codes('cello', { waiting_fingers: 'rest', tapes: 'every' })).toEqual(['every_tape_with_rest'])
    expect(codes('cello', { waiting_fingers: 'rest', tapes: 'every' }, { tapeCount: 2 })).toEqual([])
    expect(codes('violin', { thumb_violin: 'opposite_2' })).toEqual(['contact_with_reach_back'])
    // What a bassist is not asked cannot contradict anything of a bassist.
    expect(
      codes(
        'bass',
        { thumb_violin: 'opposite_2', bass_fingering: 'four_finger' },
        { fourFingerFit: 'too_big' },
      ),
    ).toEqual(['four_fingers_beyond_span'])
  })
})

describe('drawings', () => {
  it('are there for every item, family, school and side, all numbers finite, right unlike wrong', () => {
    for (const family of FAMILY_IDS)
      for (const { id } of arrangedItems(family)) {
        if (!isDrawnItem(id)) continue
        const paths = (['right', 'wrong'] as const).map((side) =>
          JSON.stringify(setupFigure(id, { side, family, schools: USUAL_SCHOOLS })),
        )
        expect(paths[0], id).not.toBe(paths[1])
        for (const text of paths) expect(text, id).not.toMatch(/NaN|Infinity|null/)
      }
    for (const question of SCHOOL_QUESTION_IDS)
      for (const choice of SCHOOL_QUESTIONS[question].choices)
        for (const id of SETUP_ITEM_IDS.filter(isDrawnItem))
          expect(() =>
            setupFigure(id, { side: 'right', family: 'violin', schools: schoolsOf({ [question]: choice }) }),
          ).not.toThrow()
  })

  it('show a hand of its own size: a small one has smaller bones, on the same neck', () => {
    const drawn = (hand: number) =>
      setupFigure('gap', { side: 'right', family: 'violin', schools: USUAL_SCHOOLS, hand }).parts
    const [small, own, absurd] = [0.85, 1, 9].map((hand) => JSON.stringify(drawn(hand)))
    expect(new Set([small, own, absurd]).size).toBe(3)
    expect(absurd).toBe(JSON.stringify(drawn(1.15)))
    const neckOf = (hand: number) => drawn(hand).find((part) => part.kind === 'body' && part.of === 'neck')
    expect(neckOf(0.85)).toEqual(neckOf(1))
  })

  it('show a measured value by as much as was measured', () => {
    const said = (id: 'wrist' | 'finger_angle' | 'body_angle' | 'gap' | 'thumb_place', measured: number) =>
      setupFigure(id, { side: 'wrong', family: 'violin', schools: USUAL_SCHOOLS, measured }).parts.flatMap(
        (part) => (part.kind === 'label' && part.value !== undefined ? [part.value] : []),
      )
    expect(said('wrist', 31)).toEqual([31])
    expect(said('finger_angle', 55)).toEqual([55])
    expect(said('body_angle', 15)).toEqual([15])
    expect(said('gap', 5)).toEqual([5])
    expect(said('thumb_place', 25)[0]).toBeCloseTo(25, 9)
  })

  it('call a child’s millimetres what they are, drawn where the full size has them', () => {
    const asked = { family: 'violin', schools: schoolsOf({ thumb_violin: 'behind_1' }) } as const
    const mmOf = (figure: ReturnType<typeof setupFigure>) =>
      figure.parts.flatMap((part) => (part.kind === 'label' && part.unit === 'mm' ? [part.value] : []))
    const drawingOf = (figure: ReturnType<typeof setupFigure>) =>
      figure.parts.filter(({ kind }) => kind !== 'label')
    const full = setupFigure('thumb_place', { ...asked, side: 'wrong', measured: 25 })
    const half = setupFigure('thumb_place', { ...asked, side: 'wrong', measured: 20, scale: 0.8 })
    expect(drawingOf(half)).toEqual(drawingOf(full))
    expect(mmOf(half)[0]).toBeCloseTo(20, 9)
    // What is right is told for the child as well, and an angle is the same on every size.
    expect(mmOf(setupFigure('thumb_place', { ...asked, side: 'right', scale: 0.8 }))[0]).toBeCloseTo(20, 9)
    const wrist = setupFigure('wrist', { ...asked, side: 'wrong', measured: 31, scale: 0.5 })
    expect(wrist.parts.find((part) => part.kind === 'label')).toMatchObject({ value: 31 })
  })
})

describe('a fit to the body', () => {
  it('is doubted where the rest tilts steeply, the instrument falls, or the machine is far from the ear', () => {
    const doubts = (family: 'violin' | 'cello' | 'bass', fit: object) =>
      bodyFitDoubts(family, { ...NO_BODY_FIT, ...fit })
    expect(doubts('violin', { restNearMm: 30, restFarMm: 62, handsOff: 3, bodyAngle: 5 })).toEqual([
      'steep_rest',
      'falls',
      'too_far_front',
    ])
    expect(doubts('violin', { restNearMm: 30, restFarMm: 40, handsOff: 5, bodyAngle: 45 })).toEqual([])
    expect(doubts('bass', { pegMm: 140 })).toEqual(['pegs_off'])
    expect(doubts('violin', { restNearMm: 80, restFarMm: 34 })).toEqual(['falling_rest'])
    expect(doubts('violin', { restNearMm: 80, restFarMm: 36 })).toEqual([])
    for (const [family, lean, told] of [
      ['bass', 31, ['leans_far']],
      ['bass', 29, []],
      ['cello', 51, ['leans_far']],
      ['cello', 49, []],
    ] as const)
      expect([family, lean, doubts(family, { lean })]).toEqual([family, lean, told])
  })

  it.each([
    ['chinRestMm', 20],
    ['restNearMm', 30],
    ['restFarMm', 30],
    ['bodyAngle', 45],
    ['thumbMm', 40],
    ['endpinMm', 250],
    ['pegMm', 200],
    ['seatMm', 250],
    ['lean', 20],
  ] as const)('asks of %s after more than %d', (part, most) => {
    const jumpsAt = (by: number) =>
      bodyFitJumps({ ...NO_BODY_FIT, [part]: 10 }, { ...NO_BODY_FIT, [part]: 10 + by })
    expect([jumpsAt(most), jumpsAt(most + 1), jumpsAt(-most - 1)]).toEqual([[], [part], [part]])
  })

  it('is asked about where a part has changed by more than is set up in one go', () => {
    const before = { ...NO_BODY_FIT, restNearMm: 80, endpinMm: 300, handsOff: 0, lean: 10 }
    const now = { ...before, restFarMm: 40, restNearMm: 51, endpinMm: 549, handsOff: 5, lean: 29 }
    expect(bodyFitJumps(before, now)).toEqual([])
    expect(bodyFitJumps(before, { ...now, restNearMm: 10, endpinMm: 551, lean: 31 })).toEqual([
      'restNearMm',
      'endpinMm',
      'lean',
    ])
  })
})
