import { describe, expect, it } from 'vitest'
import {
  FAMILY_IDS,
  familyOf,
  judgeLength,
  parseLength,
  sizeOf,
  type FamilyId,
  type Finding,
  USUAL_SCHOOLS,
} from '#core'
import type { KeptVerdict } from '#contracts'
import { lengthSentence } from './length'
import { mm, sharpOrFlat, signedCents, signedInUnit } from './numbers'
import { schoolName, shapeName } from './trade'
import { adviceOn, STOP_AT_PAIN } from './advice'
import { ALL_FINDINGS } from './testing'
import { showAs } from './shown'
import { ownExercise } from '../../core/practice/testing'
import {
  alternativeSentence,
  besideSentences,
  certainty,
  checkSentence,
  countsSentence,
  earlierSentence,
  rejudgedSentence,
  steadiness,
  TOLD,
  verdictSentence,
  workSuggestions,
} from './verdict'

const frame: Finding = {
  code: 'frame',
  errorMm: -2.8,
  plusMinusMm: 0.4,
  where: 'last',
  fromFinger: 1,
  toFinger: 4,
  expectedMm: 63.2,
  cents: -22.3,
  shownBy: 4,
}
const explained = (...findings: Finding[]): KeptVerdict => ({
  outcome: 'explained',
  findings,
  alternatives: [],
})

it('rounds half a tenth alike, whatever the last bit of a sum', () => {
  expect([mm(551 / 4), mm(551 * (1 - 2 ** (Math.log2(3) - 2))), mm(-0.04)]).toEqual(['137.8', '137.8', '0.0'])
})

it('says of a size that is hardly known how far it goes, and no range from nothing', () => {
  expect(certainty(explained(frame))).toBe('sure to within 0.4 mm.')
  expect(certainty(explained({ ...frame, plusMinusMm: 3.1 }))).toBe(
    'how far is hardly known yet: up to 5.9 mm.',
  )
})

describe('the verdict’s sentence', () => {
  it.each<[KeptVerdict, string]>([
    [
      explained(frame),
      'The frame is 2.8 mm too narrow: the fourth finger lands 22 cents flat; the others stand well.',
    ],
    [
      explained({ code: 'whole_hand', offsetMm: 3.04, plusMinusMm: 0.3, openStringHeard: true }),
      'The whole hand sits 3.0 mm too far up the board, sharp; the fingers stand rightly to each other.',
    ],
    [
      explained({
        code: 'whole_hand',
        offsetMm: -5,
        plusMinusMm: 1,
        openStringHeard: true,
        positionId: 'third',
      }),
      'The whole hand sits 5.0 mm too far back towards the nut, flat in third position; the fingers stand rightly to each other.',
    ],
    [
      explained({ code: 'finger', finger: 2, offsetMm: 4, plusMinusMm: 0.5, cents: 27.6 }),
      'The second finger lands 4.0 mm too high, 28 cents sharp; the others stand well.',
    ],
    [
      { outcome: 'string_out_of_tune', cents: -14 },
      'The open string is 14 cents flat: tune it, then read the hand again.',
    ],
    [
      { outcome: 'not_enough_notes', fingersHeard: [1, 2], fingersNeeded: 3 },
      'Not enough notes yet: 1 and 2 heard; one more finger tells.',
    ],
    [
      { outcome: 'string_out_of_tune', cents: 9.4, string: 'D4' },
      'The open D string is 9 cents sharp: tune it, then read the hand again.',
    ],
    [
      { outcome: 'not_enough_notes', fingersHeard: [1, 2, 3], fingersNeeded: 3, more: 4, moreTo: 10 },
      'Not enough notes yet: about 4 to 10 notes more on these fingers would tell.',
    ],
    [
      { outcome: 'not_enough_notes', fingersHeard: [1, 2, 3], fingersNeeded: 3, more: null },
      'Not enough notes yet, and more of them today would hardly tell: look again in another lesson.',
    ],
    [
      { outcome: 'not_enough_notes', fingersHeard: [1, 2, 3, 4], fingersNeeded: 3, more: 12, maybe: [frame] },
      'Not enough notes yet: about 12 notes more on these fingers would tell.',
    ],
    [
      {
        outcome: 'not_enough_notes',
        ...{ fingersHeard: [1, 2, 3, 4], fingersNeeded: 3, more: 2, moreTo: 5, maybe: [frame], leans: true },
      },
      'So far it looks as if the frame is 2.8 mm too narrow: the fourth finger lands 22 cents flat. About 2 to 5 notes more on these fingers would tell.',
    ],
    [
      explained({ code: 'steps', errorMm: 2, plusMinusMm: 0.5 }),
      'Half steps are 2.0 mm too wide, whole steps too narrow.',
    ],
    [
      explained({
        code: 'steps',
        errorMm: 3.6,
        plusMinusMm: 0.5,
        halves: [[2, 3]],
        wholes: [
          [1, 2],
          [3, 4],
        ],
      }),
      '2–3 is 3.6 mm too wide, 1–2 and 3–4 too narrow.',
    ],
    [
      explained(frame, { code: 'whole_hand', offsetMm: 3.04, plusMinusMm: 0.3, openStringHeard: true }),
      'The frame is 2.8 mm too narrow, and the whole hand sits 3.0 mm too far up the board, sharp.',
    ],
    [
      explained(
        { code: 'whole_hand', offsetMm: 3.04, plusMinusMm: 0.3, openStringHeard: true },
        { code: 'finger', finger: 2, offsetMm: -4, plusMinusMm: 0.5, cents: -6 },
      ),
      'The whole hand sits 3.0 mm too far up the board, sharp, and beside the others the second finger stands 4.0 mm too low.',
    ],
    [
      explained({ code: 'locked_thumb', offsetMm: 6, plusMinusMm: 1 }),
      'From 1 to 2 is wide and from 2 to 3 narrow: 2 stands 6.0 mm too high.',
    ],
    [
      explained({ code: 'elbow', shortMm: 5, plusMinusMm: 1, finger: 4, cents: -33 }),
      'The hand falls short on the lowest strings: there the fourth finger lands 33 cents flat.',
    ],
    [
      explained({ code: 'pinched', offsetMm: 7, plusMinusMm: 1 }),
      'The extended 1 is pinched 7.0 mm up towards the others.',
    ],
    [
      explained({ code: 'dragged', offsetMm: 7, plusMinusMm: 1 }),
      '2, 3 and 4 have gone 7.0 mm back with the extended 1.',
    ],
    [
      explained({ code: 'creep', offsetMm: 4, plusMinusMm: 1, cents: 24 }),
      'The hand creeps 4.0 mm up the board from the first note to the last, to 24 cents sharp.',
    ],
    [
      explained({ code: 'string', string: 'D4', cents: -14, plusMinusCents: 3 }),
      'Everything on the D string is 14 cents flat, and nobody has read the open string.',
    ],
    [
      explained({ code: 'scatter', cents: 18, leastCents: 14 }),
      'The fingers are right on average and land differently every time: one note scatters by 18 cents.',
    ],
    [
      { outcome: 'in_tune', worst: { finger: 4, meanCents: -8.2 } },
      'The hand stands in tune: at most 8 cents flat, on 4.',
    ],
  ])('%#', (verdict, sentence) => {
    expect(verdictSentence(verdict)).toBe(sentence)
  })

  it('says what else is possible only when something is', () => {
    expect(alternativeSentence(explained(frame))).toBe('')
    const other: Finding = { code: 'steps', errorMm: 2, plusMinusMm: 0.5 }
    expect(alternativeSentence({ outcome: 'explained', findings: [frame], alternatives: [other] })).toContain(
      'also allow: half steps are 2.0 mm too wide',
    )
  })

  it('never advises stretching the last finger up, and always says when to stop (common practice, no source)', () => {
    for (const family of FAMILY_IDS)
      expect(
        adviceOn(explained(frame), { family, schools: USUAL_SCHOOLS, hasTapes: true })?.notThis,
      ).toContain('Do not stretch 4 upwards')
    expect(STOP_AT_PAIN).toMatch(/^Stop at any pain.*doctor/)
  })
})

it('has a sentence and its certainty for everything that can be found', () => {
  for (const finding of ALL_FINDINGS) {
    const verdict = explained(finding)
    if ('plusMinusMm' in finding || 'plusMinusCents' in finding || finding.code === 'scatter')
      expect(certainty(verdict)).toMatch(
        /^(sure to within|surely more than|how far is hardly known yet: up to) /,
      )
    expect(verdictSentence(verdict)).toMatch(/^[A-Z0-9].*\.$/)
  }
  const open: KeptVerdict = {
    outcome: 'not_enough_notes',
    fingersHeard: [1, 2, 3],
    fingersNeeded: 3,
    more: 4,
    maybe: [frame],
  }
  expect(alternativeSentence(open)).toMatch(/^It may be: the frame is 2.8 mm too narrow/)
})

describe('the sentence on a length', () => {
  const sentence = (familyId: FamilyId, sizeId: string, text: string) => {
    const family = familyOf(familyId)
    const parsed = parseLength(text)
    if (!parsed.ok) throw new Error(text)
    return lengthSentence(familyId, sizeId, judgeLength(family, sizeOf(family, sizeId)!, parsed))
  }

  it.each([
    ['violin', '1/2', '284.5', 'Fits a violin ½ (276 to 294 mm, from memory).'],
    ['violin', '4/4', '328 cm', 'In centimetres no violin is that long. Did you mean millimetres, 328.0 mm?'],
    ['violin', '1/4', '328', 'That is the string of a 4/4, not of a ¼.'],
    ['bass', '3/4', '1100', 'That is the string of a 4/4, not of a ¾. Or that is the length of the body.'],
    [
      'viola',
      '14 in',
      '14 in',
      '355.6 mm is the length of the body. Measure the string: nut to the top of the bridge, about 325 mm. Or the instrument is a 15.5 in or 15 in.',
    ],
  ] as const)('%s %s, %s', (family, size, text, expected) => {
    expect(sentence(family, size, text)).toBe(expected)
  })
})

it('has a word for every shape and school the families know', () => {
  for (const family of FAMILY_IDS.map(familyOf)) {
    for (const { id } of family.shapes) expect(shapeName(id)).not.toBe(id)
    for (const { id } of family.schools) expect(schoolName(id)).not.toBe(id)
  }
})

it('writes numbers with a real minus and no minus zero', () => {
  expect([
    mm(-0.04),
    mm(-2.25),
    signedCents(-0.4),
    signedCents(3.4),
    signedInUnit(-0.04),
    signedInUnit(0.44),
  ]).toEqual(['0.0', '−2.3', '0', '+3', '0.0', '+0.4'])
  expect(sharpOrFlat(-1.2)).toBe('1 cent flat')
})

describe('what stands of a check', () => {
  const verdict = explained(frame)
  const by = { by: 'Hester Lowe', at: '2026-11-21T10:00:00.000Z' }
  it('is the teacher’s sentence before the tool’s, and says what was overruled', () => {
    const said = verdictSentence(verdict)
    expect(checkSentence({ verdict, decision: null })).toBe(said)
    const accepted = {
      says: 'accepted',
      reason: null,
      sentence: 'Her 4 is new.',
      workOn: null,
      ...by,
    } as const
    expect(checkSentence({ verdict, decision: accepted })).toBe('Her 4 is new.')
    const overruled = { ...accepted, says: 'overruled', reason: 'seen_otherwise', sentence: null } as const
    expect(checkSentence({ verdict, decision: overruled })).toMatch(
      /^Overruled \(I saw it otherwise\): the frame is/,
    )
    const tape = { ...overruled, reason: 'tape' } as const
    expect(checkSentence({ verdict, decision: tape })).toMatch(/^Overruled \(it was a tape\)/)
  })

  it('tells bias from scatter only where the interval does, in the same words as its numbers', () => {
    const of = (lowCents: number, highCents: number) =>
      steadiness({ ...verdict, scatter: { cents: 8, lowCents, highCents } }, 10)
    expect(of(6, 9.4)).toBe('Steady: each finger lands within about 8 cents of itself.')
    expect(of(11, 19)).toMatch(/^Not steady yet: /)
    expect(of(6, 13)).toMatch(/cannot be told yet/)
    expect(steadiness(verdict, 10)).toBe('')
  })

  it('is told by a later length only where that says something else', () => {
    const rejudged = (errorMm: number) => ({
      measuredOn: '2026-11-27',
      lengthsMm: [287, 287],
      verdict: explained({ ...frame, errorMm }),
    })
    expect(rejudgedSentence({ verdict, rejudged: rejudged(-2.8) })).toBe(
      'Measured again on 27 Nov 2026, 287.0 mm: the verdict stands.',
    )
    expect(rejudgedSentence({ verdict, rejudged: rejudged(-3.1) })).toMatch(
      /^Measured again on 27 Nov 2026, 287\.0 mm: by that length, the frame is 3\.1 mm too narrow/,
    )
    expect(rejudgedSentence({ verdict, rejudged: null })).toBe('')
  })

  it('is counted within a tolerance, where anybody said anything', () => {
    const row = { told: 'frame', count: 5, accepted: 2, overruled: 3, tooStrict: 1 }
    const counts = [
      { toleranceCents: 10, ...row },
      { toleranceCents: 10, ...row, told: 'finger', overruled: 0, tooStrict: 0 },
      { toleranceCents: 20, ...row, accepted: 0, overruled: 0 },
    ]
    expect(countsSentence(counts, 10)).toBe(
      'Within 10 cents 4 verdicts accepted and 3 overruled, 1 of them as too strict, by everybody here.',
    )
    expect(countsSentence(counts, 20)).toBe('')
    expect(countsSentence([], 10)).toBe('')
  })

  it('says how much earlier takes had to say', () => {
    const earlier = (count: number) => ({ ...verdict, earlier: { count, daysAgo: 6.8, share: 0.324 } })
    expect(earlierSentence(earlier(3))).toBe(
      '3 earlier takes of this hand, the newest 7 days old, count for 32 % of what was expected.',
    )
    expect(earlierSentence(earlier(1))).toContain('counts for')
    expect(earlierSentence(verdict)).toBe('')
  })

  it('says explanations that read alike once, and none that is told already', () => {
    const narrow = (errorMm: number): Finding => ({ ...frame, errorMm })
    const told: KeptVerdict = {
      outcome: 'explained',
      findings: [narrow(-7.71)],
      alternatives: [narrow(-7.74)],
    }
    expect(alternativeSentence(told)).toBe('')
    const maybe = [narrow(-7.71), narrow(-7.74)]
    const unsure = { outcome: 'not_enough_notes' as const, fingersHeard: [], fingersNeeded: 3, maybe }
    expect(alternativeSentence(unsure)).not.toContain('; or')
    expect(alternativeSentence(unsure)).toContain('7.7 mm too narrow')
  })

  it('says what is off every time, and what was left out', () => {
    const place = { code: 'place' as const, finger: 2 as const, string: 'D4', note: 'F♯4', cents: -62 }
    expect(verdictSentence(explained({ ...place, plusMinusCents: 7, count: 4 }))).toBe(
      'On the D string the second finger, F♯, lands 62 cents flat all 4 times.',
    )
    expect(besideSentences({ ...verdict, strays: [{ finger: 3, string: 'A4', cents: 71 }] })).toEqual([
      'Left out, far from its like: 3 on A, 71 cents sharp.',
    ])
  })

  it('tries what the studio wrote for it first, with the hands that it is for', () => {
    const rock = ownExercise({ id: 'own-rock', families: ['violin'], findings: ['frame'] })
    showAs({ lengthUnit: 'mm', noteNames: 'letters', exercises: [rock] })
    const tried = (family: FamilyId) =>
      adviceOn(explained(frame), { family, schools: USUAL_SCHOOLS, hasTapes: true })?.thenTry
    expect(tried('violin')?.slice(0, 2)).toEqual([
      'Rock the hand. 3 minutes a day.',
      expect.stringContaining('Find the elbow'),
    ])
    expect(tried('viola')?.[0]).toContain('Find the elbow')
    showAs({ lengthUnit: 'mm', noteNames: 'letters' })
    expect(tried('violin')?.[0]).toContain('Find the elbow')
  })

  it('has words for every finding and every outcome: sentence, count and thing to work on', () => {
    const findings: Finding[] = [
      frame,
      { code: 'ear_repairs', landedCents: 21, settledCents: 4 },
      { code: 'wobble', finger: 3, cents: 9 },
      { code: 'dull', finger: 2, lessDb: 8 },
      { code: 'vibrato', aboveCents: 14, widthCents: 30 },
      { code: 'without_tapes', finger: 2, cents: -24, seenCents: 0.2 },
      {
        ...{ code: 'place', finger: 2, string: 'D4', note: 'F♯4' },
        ...{ cents: -62, plusMinusCents: 7, count: 4 },
      },
      { code: 'tape', finger: 1, tapeMm: 37.5, placeMm: 36.4, cents: 6 },
    ]
    for (const finding of findings) {
      expect(verdictSentence(explained(finding))).not.toMatch(/undefined|NaN/)
      expect(workSuggestions(explained(finding))[0]).toMatch(/^[A-Z]/)
      expect(
        adviceOn(explained(finding), { family: 'violin', schools: USUAL_SCHOOLS, hasTapes: true })
          ?.thenTry[0],
      ).toBeTruthy()
    }
    const outcomes: KeptVerdict[] = [
      { outcome: 'tape_misplaced', finger: 3, tapeMm: 85, placeMm: 82, cents: 21 },
      {
        outcome: 'tape_misplaced',
        ...{ finger: 4, tapeMm: 112, placeMm: 109, cents: 24 },
        others: [{ finger: 1, tapeMm: 39.4, placeMm: 36.4, cents: 18 }],
      },
      { outcome: 'other_exercise', finger: 2, halfSteps: -1 },
      { outcome: 'other_exercise', finger: 2, with: [3], halfSteps: 1, string: 'D4' },
      { outcome: 'other_exercise', finger: null, halfSteps: -1 },
      { outcome: 'other_exercise', finger: null, halfSteps: -1, string: 'D4' },
      { outcome: 'matched', of: 'fourth', cents: -14, plusMinusCents: 3, isOff: true },
    ]
    expect(outcomes.map(verdictSentence)).toEqual([
      'The tape of the third finger lies 3.0 mm too far up the board, and the finger follows it: 21 cents sharp.',
      'The tapes of 1 and 4 lie 3.0 mm too far up the board, and the fingers follow them.',
      'The second finger was played a half step lower than asked, the others as asked: another pattern?',
      '2 and 3 were played a half step higher than asked on the D string, the others as asked: another pattern?',
      'Everything was a half step lower than asked: another position, another key, or strings tuned so?',
      'Everything on the D string was a half step lower than asked, the rest as asked: another position there, or is the string tuned so?',
      '4 is 14 cents flat against the open string.',
    ])
    for (const verdict of outcomes) {
      expect(TOLD[verdict.outcome]).toBeTruthy()
      expect(
        adviceOn(verdict, { family: 'violin', schools: USUAL_SCHOOLS, hasTapes: true })?.checkFirst[0],
      ).toBeTruthy()
    }
  })
})
