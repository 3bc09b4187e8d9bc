import { describe, expect, it } from 'vitest'
import {
  arrangedItems,
  FAMILY_IDS,
  isDrawnItem,
  isSetupItem,
  SCHOOL_QUESTION_IDS,
  SCHOOL_QUESTIONS,
  schoolsOf,
  setupFigure,
  USUAL_SCHOOLS,
  type Schools,
} from '#core'
import { captionOf } from '../figure'
import { adviceOn, setupEvidence } from '../advice'
import { schoolWords } from '../schools'
import { cautionOf, FIGURE_WORDS, itemWords, measuredWords } from './index'
import { setupName } from '../setup-names'

const EVERY_SCHOOL: readonly Schools[] = SCHOOL_QUESTION_IDS.flatMap((question) =>
  SCHOOL_QUESTIONS[question].choices.map((choice) => schoolsOf({ [question]: choice })),
)

describe('words of the setup', () => {
  it('has a question, right, wrong, a reason, a change and a test for every item in every school', () => {
    for (const family of FAMILY_IDS)
      for (const { id } of arrangedItems(family))
        for (const schools of EVERY_SCHOOL) {
          if (!isSetupItem(id)) continue
          const words = itemWords(id, schools, family)
          expect(words.question, id).toMatch(/\?$/)
          for (const text of Object.values(words) as string[])
            expect(text.trim().length, id).toBeGreaterThan(3)
          expect(setupName(id)).not.toBe('an item that is no longer asked')
        }
  })

  it('has the caution that fits what it stands under', () => {
    const told = (ids: readonly string[]) => ids.map((id) => cautionOf(id)?.slice(0, 6))
    expect(told(['gap', 'thumb_place', 'squeeze'])).toEqual(['Gently', 'Gently', 'Gently'])
    // No elbow is forced round by a chin rest or a rule of the studio’s own.
    expect(told(['chin_rest', 'tension', 'own-rosin'])).toEqual(['Stop a', 'Stop a', 'Stop a'])
    expect(told(['tuned', 'nails'])).toEqual([undefined, undefined])
  })

  it('says of every school what it is for and when another serves better', () => {
    for (const question of SCHOOL_QUESTION_IDS) {
      for (const choice of SCHOOL_QUESTIONS[question].choices)
        for (const text of Object.values(schoolWords(question, choice as never)))
          expect((text as string).trim(), `${question} ${choice}`).not.toBe('')
    }
  })

  it('says in words what every drawing shows, with its number and unit', () => {
    for (const family of FAMILY_IDS)
      for (const { id } of arrangedItems(family))
        for (const side of ['right', 'wrong'] as const) {
          if (!isDrawnItem(id)) continue
          const figure = setupFigure(id, { side, family, schools: USUAL_SCHOOLS })
          const says = figure.parts.flatMap((part) => (part.kind === 'label' ? [part.says] : []))
          expect(says.length, id).toBeGreaterThan(0)
          for (const one of says) expect(FIGURE_WORDS[one].trim(), `${id}: ${one}`).not.toBe('')
        }
    const wrist = setupFigure('wrist', {
      side: 'wrong',
      family: 'viola',
      schools: USUAL_SCHOOLS,
      measured: 31,
    })
    expect(captionOf(wrist)).toBe('folded in, 31°')
    expect(
      (
        [
          ['thumb_place', -18],
          ['thumb_place', 25],
          ['cello_thumb_place', 36],
          ['thumb_place', 0],
          ['thumb_height', -2],
          ['level', -4],
        ] as const
      ).map(([id, value]) => measuredWords(id, value)),
    ).toEqual(['18 mm in front of 1', '25 mm behind 1', '36 mm in front of 1', 'opposite 1', '−2 mm', '−4°'])
  })
})

describe('a verdict', () => {
  const creeping = {
    outcome: 'explained',
    findings: [{ code: 'whole_hand', offsetMm: 4, plusMinusMm: 1, openStringHeard: true }],
    alternatives: [],
  } as const
  const verdict = creeping as never

  it('looks for the thumb where the student’s school has it', () => {
    const first = (schools: object) =>
      adviceOn(verdict, { family: 'violin', schools: schoolsOf(schools), hasTapes: true })?.checkFirst.join(
        ' ',
      )
    expect(first({ thumb_violin: 'behind_1' })).toContain('about 25 mm behind 1')
    expect(first({ thumb_violin: 'opposite_2' })).toContain('wandered on from opposite 2')
    expect(
      adviceOn(verdict, {
        family: 'bass',
        schools: schoolsOf({ thumb_bass: 'behind_1' }),
        hasTapes: true,
      })?.checkFirst.join(' '),
    ).toContain('level behind 1,')
  })

  it('names what was “no” in the setup, the worst first, and where to look when nothing was', () => {
    const standing = (itemId: string, answer: 'nearly' | 'no') => ({
      itemId,
      answer,
      measured: null,
      question: null,
      since: '2026-11-07',
      seenOn: '2026-11-14',
    })
    const setup = {
      takenAt: '2026-11-14T09:00:00.000Z',
      stoppedAt: null,
      standings: [standing('tuned', 'nearly'), standing('thumb_place', 'no'), standing('wrist', 'no')],
    }
    expect(setupEvidence(verdict, 'violin', setup)).toEqual({
      seen: 'Setup of 14 Nov 2026: thumb’s place not yet and open strings nearly.',
      lookFirst: 'thumb’s place',
    })
    expect(setupEvidence(verdict, 'violin', null)).toEqual({ seen: '', lookFirst: 'thumb’s place' })
    expect(
      setupEvidence({ outcome: 'in_tune', worst: { finger: 1, meanCents: 2 } }, 'violin', setup).lookFirst,
    ).toBeUndefined()
  })
})
