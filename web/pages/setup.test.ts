import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Pain, Student } from '#contracts'
import { useLesson } from '../stores/lesson'
import { useNotices } from '../stores/notices'
import { useStudio } from '../stores/studio'
import { A_STUDENT, fakeServer, freshStores, known, lists, signedIn, until, type Sent } from '../testing'
import { mounted, type Mounted } from '../mounting'
import SetupPage from './SetupPage.vue'
import SetupRecordPage from './SetupRecordPage.vue'
import StudioPage from './StudioPage.vue'

const ROUND_ID = '01900000-0000-7000-8000-000000000051'
const A_PAIN: Pain = {
  id: '01900000-0000-7000-8000-000000000052',
  toldOn: '2026-11-07',
  place: 'left wrist',
  since: 'a week',
  note: '',
  by: 'Hester Lowe',
  clearedOn: null,
  clearedNote: '',
  removedAt: null,
}

let page: Mounted
let sent: Sent[]
let student: Student

/** The server keeps a round as it is sent, and answers with the student as `after` has them. */
async function opened(of: Partial<Student> = {}, settings: object = {}, after: Partial<Student> = {}) {
  student = { ...A_STUDENT, ...of }
  signedIn('hester', 'fifths', settings)
  known({ students: [student] })
  const read = lists({ students: [{ ...student, ...after }] })
  sent = fakeServer((request) => {
    if (request.method === 'POST' && request.path.endsWith('/setup-rounds')) {
      const body = request.body as { answers: { itemId: string; answer: string }[]; pain: unknown }
      const stoppedAt = body.answers.find(({ answer }) => answer === 'no')?.itemId ?? null
      return {
        status: 200,
        body: {
          id: ROUND_ID,
          ...body,
          stoppedAt,
          painId: body.pain ? A_PAIN.id : null,
          by: 'Hester Lowe',
          removedAt: null,
        },
      }
    }
    return read(request) ?? { status: 204, body: null }
  })
  useLesson().begin(student.id)
  page = await mounted(SetupPage)
  await flushPromises()
}
const kept = () => sent.filter(({ method, path }) => method === 'POST' && path.endsWith('/setup-rounds'))
const question = () => document.querySelector('h2')?.textContent ?? ''
async function press(...keys: string[]) {
  for (const key of keys) await page.press(key)
  await flushPromises()
}

beforeEach(() => {
  localStorage.clear()
  sessionStorage.clear()
  freshStores()
})

describe('a round', () => {
  it('asks one question at a time, stops at the first “no” with what to change and why, and is kept by Enter', async () => {
    await opened({}, {}, { setup: { takenAt: '2026-11-26T10:00:00Z', stoppedAt: 'tension', standings: [] } })
    expect(question()).toBe('Does nothing hurt, now or after practice?')
    await press('y')
    expect(question()).toBe('Do the shoulders hang, and does the breath go on?')
    await press('x')
    expect(page.text()).toContain('Stop here: tension')
    expect(page.text()).toContain('Tension there reaches the fingers.')
    await press('Enter')
    await until(() => expect(page.text()).toContain('Today’s one thing: tension'))
    expect(kept()[0]?.body).toMatchObject({
      family: 'violin',
      answers: [
        { itemId: 'pain', answer: 'yes', measured: null },
        { itemId: 'tension', answer: 'no', measured: null },
      ],
      pain: null,
    })
    const undo = useNotices().undoable!
    await useNotices().act(undo)
    await flushPromises()
    expect(page.text()).toContain('Stop here: tension')
    expect(page.text()).not.toMatch(/Kept\.|one thing/)
    // Escape leaves the stop: what was answered by mistake is asked again.
    await press('Escape')
    expect(question()).toBe('Do the shoulders hang, and does the breath go on?')
  })

  it('goes on past what is not right where the teacher says so, or once it is right', async () => {
    await opened()
    await press('y', 'x', 'g')
    expect(question()).toBe('Are the open strings in tune?')
    await press('x', 'y')
    expect(question()).toBe('Does the size suit hand and arm?')
    await press('b')
    expect(question()).toBe('Are the open strings in tune?')
  })

  it('stays where it was over a reload, and is another one for another student or another family', async () => {
    await opened()
    await press('y', 'n')
    freshStores()
    await opened()
    expect(question()).toBe('Are the open strings in tune?')
    freshStores()
    await opened({ family: 'viola' })
    expect(question()).toBe('Does nothing hurt, now or after practice?')
  })

  it('begins with pain also where it goes on from what stopped the last one', async () => {
    await opened({ setup: { takenAt: '2026-11-14T10:00:00Z', stoppedAt: 'elbow', standings: [] } })
    await press('f')
    expect(question()).toBe('Does nothing hurt, now or after practice?')
    await press('y')
    expect(question()).toBe('Does the elbow come under the string that is played?')
  })

  it('asks in the student’s school, marks what the last check points to, and lets a number answer', async () => {
    const frame = {
      code: 'frame',
      errorMm: -3,
      plusMinusMm: 1,
      where: 'last',
      fromFinger: 1,
      toFinger: 4,
      expectedMm: 63,
      cents: -26,
      shownBy: 4,
    } as const
    const lastCheck = {
      id: ROUND_ID,
      takenAt: '2026-11-21T09:41:00.000Z',
      exercise: { kind: 'shape', string: 'A4', shapeId: 'first' },
      verdict: { outcome: 'explained', findings: [frame], alternatives: [] },
    } as const
    await opened(
      { schools: { thumb_violin: 'behind_1' }, lastCheck: lastCheck as never },
      {
        setup: {
          hidden: [
            'tension',
            'tuned',
            'size',
            'nails',
            'collarbone',
            'chin_rest',
            'shoulder_rest',
            'body_angle',
            'level',
            'gap',
            'squeeze',
          ],
        },
      },
    )
    await press('y')
    expect(question()).toBe('Does the thumb stand about 25 mm behind 1?')
    const field = page.named('Measured') as HTMLInputElement
    const type = async (text: string) => {
      field.value = text
      field.dispatchEvent(new Event('input'))
      await flushPromises()
    }
    // On a half-size the 25 mm shrink with the string: 284.5 of 328.
    await type('21')
    expect(page.text()).toContain('Right: it may be 13 to 29 mm.')
    await type('90')
    expect(page.text()).toContain('Nobody measures that here: -60 to 60 mm.')
    await type('−38')
    field.form?.dispatchEvent(new Event('submit', { cancelable: true }))
    await flushPromises()
    expect(page.text()).toContain('Stop here: thumb’s place')
    await press('g', 'y', 'y')
    expect(question()).toBe('Is the wrist in line with the forearm?')
    expect(page.text()).toContain('The last check says: look here')
  })

  it('shows an item of the studio’s own as the text it is, markup and all', async () => {
    const own = [
      {
        id: 'own-rosin',
        families: ['violin'],
        question: '<b>Rosin</b> on?',
        reason: 'It squeaks.',
        change: '<img src=x>',
      },
    ]
    await opened({}, { setup: { order: ['own-rosin', 'tension'], own } })
    await press('y')
    expect(question()).toBe('<b>Rosin</b> on?')
    await press('x')
    expect(document.querySelector('.stop img, .stop b')).toBeNull()
    expect(page.text()).toContain('Stop here: <b>Rosin</b> on?')
    await press('Enter')
    await until(() => expect(kept()).toHaveLength(1))
    expect(kept()[0]?.body).toMatchObject({
      answers: [{}, { itemId: 'own-rosin', answer: 'no', question: '<b>Rosin</b> on?' }],
    })
  })
})

describe('pain', () => {
  it('stops everything with its caution, wants a place, and is taken back by one key', async () => {
    await opened()
    await press('x')
    expect(page.text()).toContain('Ask a doctor or a physiotherapist who treats players')
    await press('Enter')
    expect(kept()).toHaveLength(0)
    await press('y')
    expect(question()).toBe('Do the shoulders hang, and does the breath go on?')
  })

  it('is marked by Enter while the chosen place still has the focus', async () => {
    await opened()
    await press('x')
    const place = [...document.querySelectorAll('button')].find((b) => b.textContent?.trim() === 'thumb')!
    place.focus()
    place.click()
    await flushPromises()
    await page.press('Enter', place)
    await flushPromises()
    expect(kept()[0]?.body).toMatchObject({ pain: { place: 'thumb' } })
  })

  it('that was told keeps every question away until somebody says who cleared it', async () => {
    await opened({ pains: [A_PAIN] })
    expect(page.text()).toContain('Pain: left wrist, since a week.')
    expect(page.text()).toContain('Nothing else is asked while this stands.')
    expect(document.querySelector('.asks')).toBeNull()
    ;(page.named('It is cleared') as HTMLButtonElement).click()
    await flushPromises()
    expect((page.named('Clear it') as HTMLButtonElement).disabled).toBe(true)
  })
})

describe('the record', () => {
  it('tells what a gate waits for, lets the teacher say otherwise, and tells schools that contradict the hand', async () => {
    const hand = {
      id: ROUND_ID,
      measuredOn: '2026-11-07',
      comfortableSpanMm: 45,
      reachedSpanMm: 50,
      fingerLengthsMm: null,
      fingertipWidthMm: null,
      thumb: null,
      by: '',
    }
    signedIn()
    known({ students: [{ ...A_STUDENT, hand }] })
    sent = fakeServer(
      (request) => lists({ students: [{ ...A_STUDENT, hand }] })(request) ?? { status: 200, body: [] },
    )
    page = await mounted(SetupRecordPage, { studentId: A_STUDENT.id })
    await flushPromises()
    expect(page.text()).toContain('this hand does not span the frame')
    expect(page.text()).toContain('gap under the neck: not looked at yet')
    expect(page.text()).toContain('a span of 68.4 mm for the ¾: it has 45.0 mm')
    ;(page.named('Open it all the same') as HTMLButtonElement).click()
    await until(() =>
      expect(sent.find(({ method }) => method === 'POST')?.body).toMatchObject({
        gate: 'fourth_finger',
        item: 'gate',
        state: 'open',
      }),
    )
    expect(useStudio().student(A_STUDENT.id)?.name).toBe('Orla Venn')
  })

  it('keeps what was told and how it ended, marks pain outside a round, and takes back what was a mistake', async () => {
    signedIn()
    known({ students: [A_STUDENT] })
    const over = { ...A_PAIN, clearedOn: '2026-11-21', clearedNote: 'The doctor says play.' }
    sent = fakeServer((request) => {
      if (request.method === 'GET' && request.path.endsWith('/pains')) return { status: 200, body: [over] }
      return lists({ students: [A_STUDENT] })(request) ?? { status: 200, body: null }
    })
    page = await mounted(SetupRecordPage, { studentId: A_STUDENT.id })
    await flushPromises()
    expect(page.text()).toContain('left wrist, since a week. Cleared on 21 Nov 2026: The doctor says play.')
    ;(page.named('Mark pain') as HTMLButtonElement).click()
    await flushPromises()
    const marking = () =>
      document
        .querySelector('[aria-label="Pain that was told"] form')
        ?.dispatchEvent(new Event('submit', { cancelable: true }))
    marking()
    await flushPromises()
    expect(page.text()).toContain('Name the place that hurts.')
    const where = page.named('Where') as HTMLInputElement
    where.value = 'jaw'
    where.dispatchEvent(new Event('input'))
    marking()
    await until(() =>
      expect(sent.find(({ method }) => method === 'POST')?.body).toMatchObject({ place: 'jaw', since: '' }),
    )
    ;(page.named('Take back: left wrist, 7 Nov 2026') as HTMLButtonElement).click()
    await until(() =>
      expect(sent.some(({ method, path }) => method === 'DELETE' && path.endsWith(A_PAIN.id))).toBe(true),
    )
  })
})

describe('the studio', () => {
  it('refuses an item without a question or a reason beside their fields, and moves items in one family', async () => {
    signedIn()
    sent = fakeServer((request) =>
      request.method === 'PATCH'
        ? {
            status: 200,
            body: { name: 'Harbour Strings', system: 'fifths', ...(request.body as object), version: 2 },
          }
        : { status: 200, body: [] },
    )
    page = await mounted(StudioPage)
    ;(page.named('Ask open strings earlier') as HTMLButtonElement).click()
    const saves = () => sent.filter(({ method }) => method === 'PATCH')
    await until(() => expect(saves()).toHaveLength(1))
    const order = (saves()[0]?.body as { settings: { setup: { order: string[] } } }).settings.setup.order
    expect(order.slice(0, 3)).toEqual(['tuned', 'tension', 'size'])
    expect(order).not.toContain('pain')
    ;(page.named('Add an item') as HTMLButtonElement).click()
    await flushPromises()
    document.querySelector('form.own')?.dispatchEvent(new Event('submit', { cancelable: true }))
    await flushPromises()
    expect(page.text()).toContain('Give the question.')
    expect(page.text()).toContain('Give the reason')
    expect(saves()).toHaveLength(1)
  })

  it('says what sound is stored when it is switched off, and removes it only when asked', async () => {
    let isOn = true
    let recordings = 12
    signedIn('hester', 'fifths', { keepsSound: true })
    sent = fakeServer(({ method, path, body }) => {
      if (path.endsWith('/studio/sound')) {
        if (method === 'DELETE') recordings = 0
        return method === 'DELETE'
          ? { status: 204 }
          : { status: 200, body: { recordings, students: 4, byteCount: 35_400_000 } }
      }
      if (method !== 'PATCH') return { status: 200, body: [] }
      isOn = (body as { settings: { keepsSound: boolean } }).settings.keepsSound
      return {
        status: 200,
        body: { name: 'Harbour Strings', system: 'fifths', ...(body as object), version: 2 },
      }
    })
    page = await mounted(StudioPage)
    await until(() => expect(page.text()).toContain('12 recordings of 4 students (35 MB) are stored.'))
    const box = document.querySelector<HTMLInputElement>(
      '[aria-label="Sound and writing"] input[type=checkbox]',
    )!
    box.click()
    await until(() => expect(page.text()).toContain('No more sound is kept from now on.'))
    expect(isOn).toBe(false)
    const button = (name: string) =>
      [...document.querySelectorAll('button')].find((one) => one.textContent?.includes(name))!
    button('Leave it stored').click()
    await flushPromises()
    expect(sent.some(({ method }) => method === 'DELETE')).toBe(false)
    expect(page.text()).toContain('stored, though no more are kept.')
    button('Remove …').click()
    await flushPromises()
    button('Remove all for good').click()
    await until(() => expect(page.text()).not.toContain('recordings'))
    expect(recordings).toBe(0)
  })
})
