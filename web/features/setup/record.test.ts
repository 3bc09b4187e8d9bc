import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { familyOf, NO_BODY_FIT, USUAL_SCHOOLS, schoolsOf } from '#core'
import type { BodyFit, BodyFitDraft, GateMarkDraft, SetupRound } from '#contracts'
import { freshStores } from '../../testing'
import { mounted, type Mounted } from '../../mounting'
import { showAs } from '../../words/shown'
import BodyFitCard from './BodyFitCard.vue'
import GatesCard from './GatesCard.vue'
import RoundCompare from './RoundCompare.vue'
import RoundProgress from './RoundProgress.vue'
import SchoolFields from './SchoolFields.vue'

let page: Mounted
beforeEach(() => {
  freshStores()
  showAs({ lengthUnit: 'mm', noteNames: 'letters' })
})

const round = (
  id: string,
  takenAt: string,
  answers: Readonly<Record<string, 'yes' | 'nearly' | 'no'>>,
  more: Partial<SetupRound> = {},
): SetupRound => ({
  id,
  takenAt,
  family: 'violin',
  answers: Object.entries(answers).map(([itemId, answer]) => ({
    itemId,
    answer,
    measured: null,
    question: null,
  })),
  passed: [],
  note: '',
  stoppedAt: Object.entries(answers).find(([, answer]) => answer === 'no')?.[0] ?? null,
  painId: null,
  by: 'Hester Lowe',
  removedAt: null,
  ...more,
})

describe('two rounds side by side', () => {
  const newest = round('b', '2026-11-21T09:00:00Z', { pain: 'yes', gap: 'yes', wrist: 'nearly', elbow: 'no' })
  const older = round('a', '2026-10-24T09:00:00Z', { pain: 'yes', gap: 'no' })
  const third = round('c', '2026-10-03T09:00:00Z', { pain: 'yes', nails: 'no' })
  const rowOf = (name: string) =>
    [...document.querySelectorAll('tbody tr')].find((row) => row.querySelector('th')?.textContent === name)

  it('tell what is not right in either and what changed; what was right twice says nothing', async () => {
    page = await mounted(RoundCompare, { rounds: [newest, older, third], schools: USUAL_SCHOOLS })
    const names = [...document.querySelectorAll('tbody th')].map((th) => th.textContent)
    expect(names).toEqual(['gap under the neck', 'wrist', 'elbow'])
    expect(rowOf('gap under the neck')?.classList.contains('changed')).toBe(true)
    expect(rowOf('wrist')?.textContent).toContain('not asked')
    expect(rowOf('wrist')?.classList.contains('changed')).toBe(false)
    expect(page.text()).toContain('2 of 4 right in the newest round; it stopped at elbow.')
    expect(page.text()).toContain('3 rounds in the file')
  })

  it('show what was measured, in the studio’s unit and as a drawing of this hand', async () => {
    showAs({ lengthUnit: 'cm', noteNames: 'letters' })
    const answers = [
      { itemId: 'gap', answer: 'nearly' as const, measured: 4, question: null },
      { itemId: 'wrist', answer: 'yes' as const, measured: 6, question: null },
    ]
    page = await mounted(RoundCompare, { rounds: [{ ...newest, answers }], schools: USUAL_SCHOOLS })
    expect(rowOf('gap under the neck')?.textContent).toContain('0.4 cm')
    expect(rowOf('wrist')?.textContent).toContain('6°')
    expect(document.querySelectorAll('.measures svg')).toHaveLength(2)
    expect(page.text()).toContain('in line, 6°')
  })

  it('name an item of the studio’s own as it was asked, and hand over the round that is taken out', async () => {
    const own = { itemId: 'own-rosin', answer: 'no' as const, measured: null, question: 'Rosin on?' }
    const taken: SetupRound[] = []
    page = await mounted(RoundCompare, {
      rounds: [round('d', '2026-11-21T09:00:00Z', {}, { answers: [own], stoppedAt: 'own-rosin' })],
      schools: USUAL_SCHOOLS,
      onRemove: (one: SetupRound) => taken.push(one),
    })
    expect(page.text()).toContain('it stopped at Rosin on?.')
    ;(page.named('Delete the round of 21 Nov 2026') as HTMLButtonElement).click()
    expect(taken.map(({ id }) => id)).toEqual(['d'])
  })
})

it('the progress of a round says every item with its answer to who cannot see the marks', async () => {
  page = await mounted(RoundProgress, {
    items: [{ id: 'pain' }, { id: 'gap' }, { id: 'own-rosin', own: { question: 'Rosin on?' } }],
    answers: [{ itemId: 'pain', answer: 'yes', measured: null }],
    atId: 'gap',
    suggested: ['gap'],
  })
  expect(page.text()).toContain(
    '1. pain: nothing hurts2. gap under the neck: not asked yet3. Rosin on?: not asked yet',
  )
  expect(document.querySelector('ol')?.getAttribute('aria-label')).toBe('1 of 3 answered')
  expect(document.querySelectorAll('.looked')).toHaveLength(1)
})

describe('gates', () => {
  const said: GateMarkDraft[] = []
  const shown = (gates: object[]) =>
    mounted(GatesCard, { gates, onSay: (mark: GateMarkDraft) => said.push(mark) })
  beforeEach(() => void (said.length = 0))

  it('say what is missing, what to do until then, and take the teacher’s word for what only a teacher sees', async () => {
    page = await shown([
      {
        id: 'vibrato',
        isOpen: false,
        standsOpen: false,
        said: undefined,
        missing: [
          { code: 'setup', itemId: 'thumb_joints', answer: 'nearly' },
          { code: 'position', position: familyOf('violin').positions.find(({ id }) => id === 'third') },
          { code: 'said', item: 'steady_bow' },
        ],
      },
    ])
    expect(page.text()).toContain('Vibrato')
    expect(page.text()).toContain('thumb’s joints: nearly')
    expect(page.text()).toContain('third position: not marked secure')
    expect(page.text()).toContain('It goes from the pitch downwards and back.')
    document.querySelector<HTMLInputElement>('input[type="checkbox"]')?.click()
    await flushPromises()
    expect(said).toEqual([{ gate: 'vibrato', item: 'steady_bow', state: 'yes' }])
  })

  it('stand as the teacher says, with whose word it is, and go back to what was reckoned', async () => {
    const mark = {
      gate: 'shifting',
      item: 'gate',
      state: 'open',
      note: '',
      by: 'Hester Lowe',
      at: '2026-11-14T09:00:00Z',
    }
    page = await shown([
      {
        id: 'shifting',
        isOpen: false,
        standsOpen: true,
        said: mark,
        missing: [{ code: 'strings', have: 1, need: 2, fingers: [1, 2, 3] }],
      },
    ])
    expect(page.text()).toContain('Shiftingstands open by Hester Lowe, 14 Nov 2026')
    expect(page.text()).toContain('1, 2 and 3 within tolerance on 2 strings: 1 so far')
    ;(page.named('As reckoned again') as HTMLButtonElement).click()
    expect(said).toEqual([{ gate: 'shifting', item: 'gate', state: 'reckoned' }])
  })

  it('that stand open can be kept shut', async () => {
    page = await shown([{ id: 'tapes_off', isOpen: true, standsOpen: true, said: undefined, missing: [] }])
    expect(page.text()).not.toContain('Until then')
    ;(page.named('Keep it shut') as HTMLButtonElement).click()
    expect(said).toEqual([{ gate: 'tapes_off', item: 'gate', state: 'shut' }])
  })
})

describe('the fit to the body', () => {
  const kept: BodyFitDraft[] = []
  beforeEach(() => void (kept.length = 0))
  const fit = (more: Partial<BodyFit>): BodyFit => ({
    id: 'f',
    family: 'cello',
    fittedOn: '2026-11-07',
    ...NO_BODY_FIT,
    note: '',
    by: 'Hester Lowe',
    removedAt: null,
    ...more,
  })
  const shown = (fits: BodyFit[], family = 'cello') =>
    mounted(BodyFitCard, { family, fits, onKeep: (draft: BodyFitDraft) => kept.push(draft) })
  async function type(name: string, text: string) {
    const field = [...document.querySelectorAll('input')].find(
      (input) => input.labels?.[0]?.textContent.trim() === name,
    )
    if (!field) throw new Error(`no field ${name}`)
    field.value = text
    field.dispatchEvent(new Event('input'))
    await flushPromises()
  }
  const keep = () => document.querySelector('form')?.dispatchEvent(new Event('submit', { cancelable: true }))

  it('says what was typed and no more: another teacher may have measured the rest meanwhile', async () => {
    page = await shown([fit({ endpinMm: 300, seatMm: 420, note: 'Stool no. 2.' })])
    await type('Endpin that shows', '31 cm')
    await type('Lowest peg or machine above the ear', '−20')
    keep()
    const { fittedOn, ...said } = kept[0]!
    expect(said).toEqual({ family: 'cello', endpinMm: 310, pegMm: -20 })
    expect(fittedOn).toMatch(/^\d{4}-\d\d-\d\d$/)
  })

  it('says what cannot be, keeps nothing of it, and asks of a family only what it has', async () => {
    page = await shown([], 'bass')
    expect(document.body.textContent).not.toContain('Chin rest')
    keep()
    await type('Endpin that shows', '9000')
    expect(page.text()).toContain('Give 0 to 700 mm.')
    keep()
    expect(kept).toEqual([])
  })

  it('is of the instrument family that is played: another’s numbers are not shown', async () => {
    page = await shown([fit({ family: 'violin', handsOff: 2 }), fit({ endpinMm: 300 })])
    expect(document.querySelector('svg text')?.textContent).toBe('300 mm')
    expect(page.text()).not.toContain('It does not stay')
  })
})

describe('schools', () => {
  it('are chosen, or follow again what is usual; each with what it is for and when another serves better', async () => {
    const chosen: (readonly [string, string | undefined])[] = []
    const schools = schoolsOf({ thumb_violin: 'behind_1' })
    page = await mounted(SchoolFields, {
      questions: ['thumb_violin', 'waiting_fingers'],
      chosen: { thumb_violin: 'behind_1' },
      schools,
      usual: () => 'As the studio: Opposite 1',
      onChoose: (question: string, choice: string | undefined) => chosen.push([question, choice]),
    })
    expect(page.text()).toContain('Opens the hand and softens the thumb.')
    expect(page.text()).toContain('A short fourth finger then has far to go.')
    const field = document.querySelector('select')
    for (const value of ['opposite_2', 'usual']) {
      field!.value = value
      field!.dispatchEvent(new Event('change'))
    }
    expect(chosen).toEqual([
      ['thumb_violin', 'opposite_2'],
      ['thumb_violin', undefined],
    ])
  })
})
