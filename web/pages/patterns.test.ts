import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import type { Instrument, Student } from '#contracts'
import { mounted, type Mounted } from '../mounting'
import { useBench } from '../stores/bench'
import { useExerciseChoice } from '../stores/exercise-choice'
import { useLesson } from '../stores/lesson'
import { usePatterns } from '../features/patterns/usePatterns'
import {
  known,
  A_HAND,
  A_STUDENT,
  AN_INSTRUMENT,
  fakeServer,
  freshStores,
  type Reply,
  type Sent,
  lists,
} from '../testing'
import FramePage from './FramePage.vue'
import HandPage from './HandPage.vue'
import ScalesPage from './ScalesPage.vue'

// Notes are drawn by a browser: what is drawn is tested in `core/score/score.test.ts`, that it is drawn end to end.
vi.mock('../features/patterns/alternatives.worker?worker', async () => ({
  default: (await import('../features/patterns/testing')).AlternativesAtOnce,
}))
vi.mock('../notation/draw', () => ({ drawScore: () => Promise.resolve([]) }))

const PLAYER: Student = { ...A_STUDENT, hand: A_HAND }
const ok = (body: unknown): Reply => ({ status: 200, body })

const INSTRUMENTS: Instrument[] = [
  AN_INSTRUMENT,
  {
    ...AN_INSTRUMENT,
    id: '01900000-0000-7000-8000-000000000008',
    label: 'no. 4',
    sizeId: '1/4',
    measurement: null,
  },
  {
    ...AN_INSTRUMENT,
    id: '01900000-0000-7000-8000-000000000009',
    label: 'own violin',
    sizeId: '4/4',
    measurement: { ...AN_INSTRUMENT.measurement!, lengthMm: 345 },
  },
]
const CUPBOARD = lists({ instruments: INSTRUMENTS })

let page: Mounted
let sent: Sent[]
function serve(...replies: (Reply | ((request: Sent) => Reply))[]) {
  sent = fakeServer(...replies)
  freshStores()
  known({ students: [PLAYER] })
  known({ instruments: INSTRUMENTS })
}

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
})
afterEach(() => page.wrapper.unmount())

describe('the frame and who it fits', () => {
  it('draws the hand as a band, says from where it is comfortable, and judges every size', async () => {
    serve(CUPBOARD)
    useLesson().begin(PLAYER.id)
    page = await mounted(FramePage)
    await flushPromises()
    const text = page.text()
    expect(text).toContain('comfortable, 62.0 mm')
    expect(text).toContain('reached, 68.0 mm')
    // By the ring B to E on an A string is 8:9 less 2:3 of 284.5 mm, 63.2 mm; from three semitones on it is less than 62.
    expect(text).toContain('The frame is comfortable from 3 semitones on, 2nd position.')
    expect(text).toContain('Never stretch 4 upwards')
    const half = [...document.querySelectorAll('tr.own')].map((row) => row.textContent.replace(/\s+/g, ' '))
    expect(half[0]).toContain('Reach back with 1')
    expect(half[0]).toContain('284.5 mm, measured')
    expect(half[0]).toContain('−1.2')
  })

  it('asks for a hand where there is none, and for a cello finds no frame for the octave', async () => {
    serve(CUPBOARD)
    page = await mounted(FramePage)
    useBench().setup.familyId = 'cello'
    await nextTick()
    const text = page.text()
    expect(text).toContain('With a student in the lesson whose hand is measured')
    expect(text).toContain('5 semitones: no frame of this hand')
    expect(text).toMatch(/Closed, mm.*Extended, mm/)
  })
})

describe('a hand in its file', () => {
  it('is kept by keys alone, and the file is read anew', async () => {
    serve((request) => {
      if (request.method === 'POST') return ok({ ...A_HAND, comfortableSpanMm: 63 })
      return request.path.endsWith('/hands') ? ok([A_HAND]) : lists({ students: [PLAYER] })(request)
    })
    page = await mounted(HandPage, { studentId: PLAYER.id })
    await flushPromises()
    await page.press('m')
    const field = page.named(/Span 1 to 4, comfortable/) as HTMLInputElement
    expect(document.activeElement).toBe(field)
    field.value = '63'
    field.dispatchEvent(new Event('input'))
    await nextTick()
    document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }))
    await flushPromises()
    const saved = sent.find((s) => s.method === 'POST')
    expect(saved?.path).toContain('/hands')
    expect(saved?.body).toMatchObject({ comfortableSpanMm: 63, reachedSpanMm: null })
  })

  it('names what in the studio the hand can hold, largest first, and nothing too big', async () => {
    serve((request) => (request.path.endsWith('/hands') ? ok([A_HAND]) : CUPBOARD(request)))
    page = await mounted(HandPage, { studentId: PLAYER.id })
    await flushPromises()
    const section = page.named('Instruments that fit')
    const labels = [...section.querySelectorAll('tbody th a')].map((a) => a.textContent)
    expect(labels).toEqual(['no. 7', 'no. 4'])
    expect(section.textContent).toContain('not measured, typical length')
  })
})

describe('scales and drills', () => {
  it('goes from figure to figure by keys, offers only what the family has, and says why one cannot be played', async () => {
    serve(CUPBOARD)
    page = await mounted(ScalesPage)
    await flushPromises()
    expect(page.text()).toContain('D major scale, one octave')
    expect(page.text()).toContain('As it is mostly played. 0 shifts, 1 crossing going up')
    await page.press('v')
    expect(page.text()).toContain('Every note in the hand, for vibrato and one colour.')
    await page.press('n')
    expect(page.text()).toContain('D major arpeggio, one octave')
    // What stands here is checked by one key.
    await page.press('h')
    await flushPromises()
    expect(page.router.currentRoute.value.name).toBe('check')
    expect(useExerciseChoice().name).toEqual({
      kind: 'arpeggio',
      keyId: 'D:major',
      octaves: 1,
      openStrings: 'prefer',
    })
    await page.press('n')
    expect(page.text()).toContain('Open and 1: D major, first position')
    expect(page.text()).toContain('20 times on each string.')
    usePatterns().choice.positionId = 'half'
    await nextTick()
    expect(page.text()).toContain('The key has no hand on this string in this position')
    useBench().setup.familyId = 'bass'
    await nextTick()
    await page.press('ArrowDown')
    expect(page.text()).toContain('A major')
  })
})
