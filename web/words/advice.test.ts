import { describe, expect, it } from 'vitest'
import {
  FAMILY_IDS,
  SCHOOL_QUESTION_IDS,
  SCHOOL_QUESTIONS,
  USUAL_SCHOOLS,
  type FamilyId,
  type Finding,
  type Schools,
} from '#core'
import type { KeptVerdict } from '#contracts'
import { ALL_FINDINGS } from './testing'
import { practised } from './practice'
import { adviceOn, STOP_AT_PAIN, type AdviceContext } from './advice'

const explained = (finding: Finding): KeptVerdict => ({
  outcome: 'explained',
  findings: [finding],
  alternatives: [],
})
const CASES: readonly KeptVerdict[] = [
  ...ALL_FINDINGS.map(explained),
  { outcome: 'string_out_of_tune', cents: -14 },
  { outcome: 'other_exercise', finger: 2, halfSteps: 1 },
  { outcome: 'matched', of: 'fourth', cents: -20, plusMinusCents: 4, isOff: true },
  { outcome: 'matched', of: 'octave', cents: -20, plusMinusCents: 4, isOff: true },
]

/** Each choice of each question by itself, the others as usual: no sentence hangs on two. */
function* contexts(): Generator<AdviceContext & { readonly school: string }> {
  for (const family of FAMILY_IDS)
    for (const question of SCHOOL_QUESTION_IDS) {
      const { families, choices } = SCHOOL_QUESTIONS[question]
      if (!(families as readonly FamilyId[]).includes(family)) continue
      for (const choice of choices) {
        const schools = { ...USUAL_SCHOOLS, [question]: choice } as Schools
        yield { family, schools, hasTapes: schools.tapes !== 'none', school: `${question}: ${choice}` }
      }
    }
}

/** Only a cello’s hand extends its first finger. */
function isPlayedOn(family: FamilyId, verdict: KeptVerdict): boolean {
  const code = 'findings' in verdict ? verdict.findings[0]?.code : undefined
  return family === 'cello' || (code !== 'pinched' && code !== 'dragged')
}

function textOf(verdict: KeptVerdict, about: AdviceContext): string {
  const advice = adviceOn(verdict, about)
  return advice ? [...advice.checkFirst, ...advice.thenTry, advice.notThis].join(' ') : ''
}

/** What a school says, that an advice of it must not gainsay. Common practice, no source. */
const GAINSAYS: readonly (readonly [
  when: (about: AdviceContext, verdict: KeptVerdict) => boolean,
  never: RegExp,
])[] = [
  [({ hasTapes }, verdict) => !hasTapes && !isOfTapes(verdict), /\btapes?\b/i],
  [({ family }) => family === 'bass', /1 reach(es)? back/],
  [
    ({ family }, verdict) => (family === 'cello' || family === 'bass') && verdict.outcome !== 'matched',
    /[Ff]ourth finger against|octave/,
  ],
  [
    ({ family }) => family === 'cello' || family === 'bass',
    /base of 1|under the string played|laid out|25 mm/,
  ],
  [({ schools }) => schools.thumb_violin !== 'opposite_2', /opposite 2/],
  [({ schools }) => schools.thumb_violin !== 'opposite_1', /opposite 1/],
  [({ schools }) => schools.thumb_violin !== 'behind_1', /behind 1, soft/],
  [({ family, schools }) => family === 'cello' && schools.thumb_cello !== 'behind_2', /thumb behind 2/],
  [({ family, schools }) => family === 'bass' && schools.thumb_bass !== 'behind_1', /behind 1\b/],
  [({ family, schools }) => family === 'bass' && schools.thumb_bass !== 'behind_2', /behind 2\b/],
  [({ schools }) => schools.contact !== 'base_of_1', /base of 1 beside/],
  [({ schools }) => schools.fourth_finger !== 'long', /laid out/],
  [
    ({ family, schools }) => family !== 'cello' && family !== 'bass' && schools.fourth_finger !== 'rounded',
    /4 falls rounded/,
  ],
  [({ schools }) => schools.waiting_fingers !== 'hover', /hovering/],
  [({ schools }) => schools.waiting_fingers !== 'rest', /comes? from rest/],
  // A hand too far back is no thumb that wandered on.
  [(_, verdict) => 'findings' in verdict && isBack(verdict.findings[0]), /wandered on/],
  [() => true, /stretch 4 up(?!wards;)|by force to|trade\.md|undefined|NaN/],
]
function isOfTapes(verdict: KeptVerdict): boolean {
  return 'findings' in verdict && /^(tape|without_tapes)$/.test(verdict.findings[0]?.code ?? '')
}
function isBack(finding: Finding | undefined): boolean {
  return finding !== undefined && 'offsetMm' in finding && finding.offsetMm < 0
}

describe('advice', () => {
  it('gainsays no school of any family; in full, for a teacher to read', () => {
    const table = new Map<string, string[]>()
    for (const about of contexts())
      for (const verdict of CASES.filter((one) => isPlayedOn(about.family, one))) {
        const text = textOf(verdict, about)
        const code = 'findings' in verdict ? verdict.findings[0]!.code : verdict.outcome
        expect(text, `${code} of a ${about.family}`).not.toBe('')
        for (const [when, never] of GAINSAYS)
          if (when(about, verdict))
            expect(text, `${about.family}, ${about.school}, ${code}`).not.toMatch(never)
        const row = `${code.padEnd(18)} ${text}`
        table.set(row, [...(table.get(row) ?? []), `${about.family} ${about.school}`])
      }
    if (process.env['ADVICE'])
      for (const [row, who] of [...table].sort()) console.log(`${row}   [${who.join('; ')}]`)
  })

  it('on what is right with its tape and off without is to fade the tape, whatever the hand then looks like', () => {
    const about = { family: 'violin', schools: USUAL_SCHOOLS, hasTapes: true } as const
    const frame = ALL_FINDINGS.find(({ code }) => code === 'frame')!
    const leaning: Finding = { code: 'without_tapes', finger: 4, cents: -24, seenCents: -2 }
    const leans: KeptVerdict = {
      outcome: 'explained',
      findings: [frame],
      alternatives: [],
      beside: [leaning],
    }
    expect(textOf(leans, about)).toContain('Fade the tape')
    const seen = (seenCents: number) => textOf({ ...leans, beside: [{ ...leaning, seenCents }] }, about)
    // Off by half of it with the tape as well, it is the frame.
    expect(seen(-11)).toContain('Fade the tape')
    expect(seen(-13)).toBe(textOf(explained(frame), about))
  })

  it('never stretches 4 up, and says once when to stop', () => {
    for (const about of contexts())
      for (const verdict of CASES) expect(textOf(verdict, about)).not.toMatch(/pain|doctor/)
    expect(STOP_AT_PAIN).toMatch(/^Stop at any pain, numbness or tingling, rest, and ask a doctor/)
  })
})

it('says how much of an exercise where the trade does, and how a creeping hand comes home apart from one that stands wrong', () => {
  const about = { hasTapes: false }
  expect(practised('shake_out', about)).toMatch(/at the start of practice\. 5 to 10 minutes a day\.$/)
  expect(practised('hands_away', about)).toMatch(/back\. 5 minutes a day\.$/)
  expect(practised('tap_on_wood', about)).toMatch(/ 30 seconds at a time\.$/)
  expect(practised('open_and_first', about)).toBe(
    'Open and 1, aiming past the place. About 20 times on each string.',
  )
  expect(practised('drop_fourth', about)).toBe('Drop 4 without the hand moving. 10 times a day.')
  expect(practised('fourth_against_open', about)).toMatch(/A few times a day\.$/)
  // Nobody counts what is done only as long as it is comfortable.
  expect(practised('octave_one_four', about)).toBe(
    'Octave of 1 and 4, slowly, only as long as it is comfortable.',
  )
  const far = { plusMinusMm: 1, offsetMm: 5 }
  expect(practised('come_home', { ...about, finding: { code: 'creep', ...far, cents: 20 } })).toBe(
    'Stop between the notes; bring the hand back to the place where 1 rings each time.',
  )
  expect(practised('come_home', { hasTapes: true })).toBe(
    'Open and 1, stopping between notes; bring the hand back to the first tape each time.',
  )
})
