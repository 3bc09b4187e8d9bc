import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import type { Finger } from '#core'
import type { Check, CheckDraft, Student } from '#contracts'
import { mounted, type Mounted } from '../mounting'
import { useBench } from '../stores/bench'
import { useExerciseChoice } from '../stores/exercise-choice'
import { useLesson } from '../stores/lesson'
import { useStudio } from '../stores/studio'
import { useNotices } from '../stores/notices'
import {
  aCheck,
  known,
  A_STUDENT,
  AN_INSTRUMENT,
  fakeServer,
  freshStores,
  problem,
  signedIn,
  type Reply,
  type Sent,
  lists,
  until,
} from '../testing'
import CheckPage from './CheckPage.vue'
import StudentPage from './StudentPage.vue'
import StudentsPage from './StudentsPage.vue'
import TodayPage from './TodayPage.vue'

const ok = (body: unknown): Reply => ({ status: 200, body })
const TODAY = new Date()

let page: Mounted
let sent: Sent[]
function serve(...replies: (Reply | ((request: Sent) => Reply))[]) {
  sent = fakeServer(...replies)
  freshStores()
  signedIn()
}
beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
})
afterEach(() => {
  page.wrapper.unmount()
  vi.unstubAllGlobals()
})

const student = (name: string, more: Partial<Student> = {}): Student => ({
  ...A_STUDENT,
  id: name,
  name,
  lesson: { weekday: TODAY.getDay(), time: '09:40' },
  ...more,
})

const check = (id: string, takenAt: string, ...heard: readonly (readonly [Finger, number])[]) =>
  aCheck(id, takenAt, heard)

describe('the day’s lessons', () => {
  it('are walked by the arrows, and C does what the row needs first', async () => {
    const students = [
      student('Orla Venn', { lesson: { weekday: TODAY.getDay(), time: '09:00' } }),
      student('Finn Aske', { instrument: { ...AN_INSTRUMENT, id: 'unmeasured', measurement: null } }),
      student('Beck Tarn', { instrument: null, lesson: { weekday: TODAY.getDay(), time: '10:20' } }),
    ]
    serve(lists({ students }))
    page = await mounted(TodayPage)
    await flushPromises()
    const { press, router, text } = page
    expect(text()).toMatch(/09:00\s?Orla Venn.*09:40\s?Finn Aske.*10:20\s?Beck Tarn/)
    const rooms: unknown[] = []
    for (const key of ['c', 'ArrowDown', 'c', 'ArrowDown', 'ArrowDown', 'c', 'ArrowUp', 'Enter']) {
      await press(key)
      await flushPromises()
      if (!key.startsWith('Arrow')) rooms.push(router.currentRoute.value.name)
    }
    expect(rooms).toEqual(['check', 'tapes', 'student', 'student'])
    expect(router.currentRoute.value.params['studentId']).toBe('Finn Aske')
    expect(useLesson().studentId).toBe('Beck Tarn')
  })

  it('tell pain first and lead to it, and what has been nearly right for long', async () => {
    const pain = {
      id: 'p',
      toldOn: '2026-11-07',
      place: 'left wrist',
      since: '',
      note: '',
      by: '',
      clearedOn: null,
      clearedNote: '',
      removedAt: null,
    }
    const standing = {
      itemId: 'gap',
      answer: 'nearly',
      measured: null,
      question: null,
      since: '2026-01-10',
      seenOn: '2026-02-10',
    } as const
    const setup = { takenAt: '2026-02-10T09:00:00.000Z', stoppedAt: null, standings: [standing] }
    serve(lists({ students: [student('Orla Venn', { pains: [pain] }), student('Finn Aske', { setup })] }))
    page = await mounted(TodayPage)
    await flushPromises()
    expect(page.text()).toContain('pain: left wrist')
    expect(page.text()).toMatch(/gap under the neck nearly for \d+ weeks/)
    const row = [...document.querySelectorAll('.row')].findIndex((one) =>
      one.textContent?.includes('Orla Venn'),
    )
    for (let i = 0; i < row; i++) await page.press('ArrowDown')
    await page.press('c')
    await flushPromises()
    expect(page.router.currentRoute.value.name).toBe('setup')
    expect(useLesson().studentId).toBe('Orla Venn')
  })

  it('are none until somebody has a time', async () => {
    serve(lists({ students: [student('Orla Venn', { lesson: null })] }))
    page = await mounted(TodayPage)
    await flushPromises()
    expect(page.text()).toContain('No lessons in the week yet')
  })

  it('of a studio without anybody lead to the first student, and so does whoever asks whose hand it is', async () => {
    serve(lists({ students: [] }))
    await useStudio().findStudents({ limit: 1 })
    page = await mounted(TodayPage)
    await flushPromises()
    expect(page.text()).toContain('No students yet')
    await page.press('n')
    await flushPromises()
    expect(page.router.currentRoute.value).toMatchObject({ name: 'students', query: { new: '1' } })
    page.wrapper.unmount()
    page = await mounted(CheckPage)
    await flushPromises()
    expect(page.text()).toContain('No students yet: enrol the first')
    // Once somebody is, the day is spoken of again.
    known({ students: [student('Orla Venn', { lesson: null })] })
    await nextTick()
    expect(page.text()).not.toContain('No students yet')
  })
})

describe('the students', () => {
  it('are found by parts of a name or an instrument, and opened by Enter', async () => {
    serve(
      lists({
        students: [student('Orla Venn'), student('נועה'), student('Finn Aske', { instrument: null })],
      }),
    )
    page = await mounted(StudentsPage)
    await flushPromises()
    const { named, press, router, text } = page
    const search = named('Search students') as HTMLInputElement
    const find = async (words: string) => {
      search.value = words
      search.dispatchEvent(new Event('input'))
      await until(() =>
        expect(sent.findLast(({ path }) => path.includes('/students?'))!.path).toContain(
          `q=${encodeURIComponent(words).replaceAll('%20', '+')}&`,
        ),
      )
      await flushPromises()
      return [...document.querySelectorAll('[role="row"] a')].map((a) => a.textContent)
    }
    expect(await find('no. 7')).toEqual(['Orla Venn', 'נועה'])
    expect(await find('violin asKE')).toEqual(['Finn Aske'])
    expect(await find('nobody')).toEqual([])
    expect(text()).toContain('Nobody is called that')
    await find('')
    // Enter at once is about what was typed, not about what stood there.
    search.value = 'aske'
    search.dispatchEvent(new Event('input'))
    await press('Enter', search)
    await until(() => expect(router.currentRoute.value.params['studentId']).toBe('Finn Aske'))
    await find('')
    await press('Escape')
    ;(named('Instrument') as HTMLElement).click()
    await flushPromises()
    expect(sent.at(-1)!.path).toContain('sort=instrument&direction=up')
    await press('ArrowDown')
    await press('Enter')
    await flushPromises()
    expect(router.currentRoute.value.params['studentId']).toBe('נועה')
  })
})

describe('a student’s file', () => {
  const reading = (checks: Check[], of: Student) => (request: Sent) =>
    /\/checks(\?|$)/.test(request.path)
      ? ok(checks)
      : request.method === 'GET'
        ? lists({ students: [of] })(request)
        : ok(null)

  it('tells each check as it was judged, newest first, and takes one out and back', async () => {
    const checks = [
      check('new', '2026-11-21T09:40:00Z', [1, 0], [2, -1], [3, 1], [4, -26]),
      check('old', '2026-11-07T09:40:00Z', [1, 20], [2, 19], [3, 21], [4, 20]),
    ]
    serve(reading(checks, A_STUDENT))
    page = await mounted(StudentPage, { studentId: A_STUDENT.id })
    await flushPromises()
    const items = () => [...document.querySelectorAll('.history li')].map((li) => li.textContent)
    expect(items()[0]).toMatch(/21 Nov.*The frame is .* narrow.*A string, first position.*4 −26.*4 notes/s)
    expect(items()[1]).toMatch(/whole hand/i)
    expect(page.text()).toContain('Landings over time')
    ;(page.named('Delete the check of 21 Nov 2026') as HTMLElement).click()
    await flushPromises()
    expect(sent.find((s) => s.method === 'DELETE')?.path).toBe('/api/v1/checks/new')
    expect(items()).toHaveLength(1)
    await useNotices().notices.at(-1)?.action?.run()
    expect(sent.some((s) => s.path === '/api/v1/checks/new/restore')).toBe(true)
  })

  it('opens with the lend list where Today leads there for an instrument, once', async () => {
    const without = { ...A_STUDENT, instrument: null }
    serve(reading([], without))
    page = await mounted(StudentPage, { studentId: A_STUDENT.id })
    await flushPromises()
    const dialog = () => document.querySelector<HTMLDialogElement>('dialog[aria-label="Lend an instrument"]')!
    expect(dialog().open).toBe(false)
    await page.router.push({ name: 'student', params: { studentId: A_STUDENT.id }, query: { lend: '1' } })
    await until(() => expect(dialog().open).toBe(true))
    await until(() => expect(page.router.currentRoute.value.query).toEqual({}))
    expect(page.text()).toContain('An instrument for Orla Venn')
  })

  it('stays as it was when the student has moved from a violin to a bass', async () => {
    const onBass = { ...A_STUDENT, family: 'bass' as const, instrument: null }
    serve(reading([check('old', '2026-11-07T09:40:00Z', [1, 0], [2, 1], [3, 26], [4, 0])], onBass))
    page = await mounted(StudentPage, { studentId: A_STUDENT.id })
    await flushPromises()
    // a bass in 1-2-4 has no third finger, nor an A string that high
    expect(page.text()).toMatch(/A string, first position · 1 02 \+13 \+264 0/)
  })

  it('shows the verdict alone where a check was kept in a way that is no longer read', async () => {
    const kept = check('old', '2026-11-07T09:40:00Z', [1, 0], [2, -1], [3, 1], [4, -26])
    const lost = {
      ...kept,
      exercise: null,
      stringing: null,
      landings: [],
      unreadable: 'a scale that is no scale',
    }
    serve(reading([lost], A_STUDENT))
    page = await mounted(StudentPage, { studentId: A_STUDENT.id })
    await flushPromises()
    expect(page.text()).toMatch(/The frame is .* narrow/)
    expect(page.text()).toContain('only the verdict can be read: a scale that is no scale')
  })
})

describe('a check', () => {
  const type = async (label: string, text: string) => {
    const field = page.named(label) as HTMLInputElement
    field.focus()
    field.value = text
    field.dispatchEvent(new Event('input'))
    await nextTick()
    return field
  }
  async function checkOf(of: Student, ...replies: (Reply | ((request: Sent) => Reply))[]) {
    serve(...replies)
    known({ students: [of] })
    useLesson().begin(of.id)
    page = await mounted(CheckPage)
    await flushPromises()
  }

  it('names what was not right in the setup beside the verdict, and leads there by S', async () => {
    const standing = {
      itemId: 'palm',
      answer: 'no',
      measured: null,
      question: null,
      since: '2026-11-07',
      seenOn: '2026-11-14',
    } as const
    const setup = { takenAt: '2026-11-14T09:00:00.000Z', stoppedAt: 'palm', standings: [standing] }
    await checkOf({ ...A_STUDENT, setup }, lists({ students: [A_STUDENT] }))
    for (const [finger, shown] of [
      [1, '+4'],
      [2, '+7'],
      [3, '−1'],
      [4, '-24'],
    ] as const)
      await type(`Finger ${finger}, cents`, shown)
    expect(page.text()).toContain('Setup of 14 Nov 2026: palm side not yet.')
    expect(page.text()).toContain('Look first at: palm side')
    await page.press('s')
    await flushPromises()
    expect(page.router.currentRoute.value.name).toBe('setup')
  })

  it('says that something hurts above everything that could be read', async () => {
    const pain = {
      id: 'p',
      toldOn: '2026-11-07',
      place: 'jaw',
      since: '',
      note: '',
      by: 'Hester Lowe',
      clearedOn: null,
      clearedNote: '',
      removedAt: null,
    }
    await checkOf({ ...A_STUDENT, pains: [pain] }, lists({ students: [A_STUDENT] }))
    expect(page.text()).toContain('Pain: jaw. Told on 7 Nov 2026 to Hester Lowe.')
    expect(page.text()).toContain('this tool measures, it does not treat')
  })

  it('is kept as played with covered tapes where the teacher says so by O, and said anew for the next', async () => {
    const kept = { ...check('kept', '2026-11-28T09:40:00Z', [1, 0]), tapesCovered: true }
    const tape = { markId: '1.2', laidMm: 31.6, placeMm: 31.6, laidOn: '2026-10-03', seenOn: '2026-10-03' }
    const taped = { ...A_STUDENT, instrument: { ...AN_INSTRUMENT, tapes: [tape] as never } }
    const studio = lists({ students: [taped] })
    await checkOf(taped, (request) => (request.method === 'POST' ? ok(kept) : studio(request)))
    const last = await type('Finger 4, cents', '-20')
    await page.press('o', last)
    await page.press('Enter', last)
    await until(() =>
      expect(sent.find((s) => s.method === 'POST')?.body).toMatchObject({ tapesCovered: true }),
    )
  })

  it('is read, judged while it is typed, and kept by one key with where the cursor was', async () => {
    const kept = check('kept', '2026-11-28T09:40:00Z', [1, 0], [4, -26])
    const studio = lists({ students: [A_STUDENT] })
    await checkOf(A_STUDENT, (request) => (request.method === 'POST' ? ok(kept) : studio(request)))
    expect(document.activeElement).toBe(page.named('Finger 1, cents'))
    expect(page.text()).toContain('Not enough notes yet')
    let last: Element | undefined
    for (const [finger, shown] of [
      [1, '+4'],
      [2, '+7'],
      [3, '−1'],
      [4, '-24'],
    ] as const)
      last = await type(`Finger ${finger}, cents`, shown)
    expect(page.text()).toMatch(/The frame is \d\.\d mm too narrow: the fourth finger lands 26 cents flat/)
    await page.press('Enter', last)
    await flushPromises()
    expect(sent.find((s) => s.method === 'POST')).toMatchObject({
      path: `/api/v1/students/${A_STUDENT.id}/checks`,
      body: {
        instrumentId: AN_INSTRUMENT.id,
        exercise: { kind: 'shape', string: 'A4', shapeId: 'first' },
        system: 'fifths',
        readings: [
          { finger: 1, shownCents: 4 },
          { finger: 2, shownCents: 7 },
          { finger: 3, shownCents: -1 },
          { finger: 4, shownCents: -24 },
        ],
      },
    })
    expect((page.named('Finger 4, cents') as HTMLInputElement).value).toBe('')
    expect(document.activeElement).toBe(page.named('Finger 1, cents'))
  })

  it('is of a scale where that is chosen: its places string by string, its notes sent with it', async () => {
    const studio = lists({ students: [A_STUDENT] })
    await checkOf(A_STUDENT, (request) =>
      request.method === 'POST' ? ok(check('kept', '2026-11-28T09:40:00Z')) : studio(request),
    )
    useExerciseChoice().choose({ kind: 'scale', keyId: 'D:major', octaves: 1, openStrings: 'prefer' })
    await nextTick()
    const fields = [...document.querySelectorAll('tbody input')].map((one) => one.getAttribute('aria-label'))
    expect(fields).toHaveLength(8)
    expect(fields.slice(3, 6)).toEqual([
      'D string, Finger 3, cents',
      'A string, Open string, cents',
      'A string, Finger 1, cents',
    ])
    for (const [finger, shown] of [
      [1, '+24'],
      [2, '+28'],
      [3, '+18'],
    ] as const)
      await type(`A string, Finger ${finger}, cents`, shown)
    expect(page.text()).toMatch(/The whole hand sits \d\.\d mm too far up the board/)
    await page.press('Enter', page.named('A string, Finger 3, cents'))
    await flushPromises()
    const { exercise, readings } = sent.find((s) => s.method === 'POST')!.body as CheckDraft
    expect(exercise).toMatchObject({ kind: 'scale', keyId: 'D:major', octaves: 1 })
    expect('notes' in exercise && exercise.notes).toHaveLength(15)
    expect(readings).toEqual([
      { finger: 1, index: 5, shownCents: 24 },
      { finger: 2, index: 6, shownCents: 28 },
      { finger: 3, index: 7, shownCents: 18 },
    ])
  })

  it('is of the scale that was chosen after a reload too, though the student comes later than the page', async () => {
    serve(lists({ students: [A_STUDENT] }))
    useLesson().begin(A_STUDENT.id)
    useExerciseChoice().choose({ kind: 'scale', keyId: 'G:major', octaves: 2, openStrings: 'prefer' })
    page = await mounted(CheckPage)
    await until(() => expect(page.text()).toContain('Orla Venn'))
    expect(useExerciseChoice().name).toMatchObject({ kind: 'scale', keyId: 'G:major', octaves: 2 })
    // Once hers, it stays hers; somebody else begins with the usual hand.
    known({ students: [student('Finn Aske')] })
    useLesson().begin('Finn Aske')
    await until(() => expect(page.text()).toContain('Finn Aske'))
    expect(useExerciseChoice().name).toMatchObject({ kind: 'shape', shapeId: 'first' })
  })

  it('offers what the strings have: no 4 beside an open string on a cello, no string without one above it', async () => {
    const options = (name: string) =>
      [...(page.named(name) as HTMLSelectElement).options].map(({ text }) => text)
    await checkOf(A_STUDENT)
    await page.press('h', document.body)
    await nextTick()
    expect(options('Exercise')).toEqual(expect.arrayContaining(['4 and open', 'Octave 1–4']))
    useExerciseChoice().choose({ kind: 'fourth', stringIndex: 3 })
    await nextTick()
    // From the highest string to the one beside which there is another.
    expect(page.text()).toContain('4 on the A string against the next open string')
    useExerciseChoice().choose({ kind: 'free' })
    await nextTick()
    page.wrapper.unmount()
    const cello = {
      ...AN_INSTRUMENT,
      family: 'cello' as const,
      sizeId: '4/4',
      tuning: ['C2', 'G2', 'D3', 'A3'],
    }
    await checkOf({ ...A_STUDENT, family: 'cello', instrument: { ...cello, tapes: [], tapeSet: null } })
    await page.press('h', document.body)
    await nextTick()
    expect(options('Exercise').filter((text) => /Hand shape|4 and open|Octave/.test(text))).toEqual([
      'Hand shape',
    ])
  })

  it('proposes what was off when it was played last, and E takes it', async () => {
    const off = check('off', '2026-11-14T09:40:00Z', [1, 20], [2, 20], [3, 20], [4, 20])
    const summary = {
      id: 'off',
      takenAt: off.takenAt,
      exercise: { kind: 'hand', keyId: 'G:major', string: 'D4', positionId: 'third' },
      verdict: off.verdict,
    }
    const studio = lists({ students: [A_STUDENT] })
    await checkOf(A_STUDENT, (request) =>
      request.path.endsWith('/exercises') ? ok([summary]) : studio(request),
    )
    expect(page.text()).toContain('Next: D string, hand of G major, third position, off on 14 Nov 2026')
    await page.press('e', document.body)
    await nextTick()
    expect(useExerciseChoice().name).toEqual({
      kind: 'hand',
      keyId: 'G:major',
      stringIndex: 1,
      positionId: 'third',
    })
    expect(page.text()).not.toContain('Take it')
    // G, A, B and C of the D string, by 1 to 4.
    expect(page.text()).toMatch(/1 G.*2 A.*3 B.*4 C/)
  })

  /** The check of the test above, kept, with Finn Aske’s lesson after it. */
  async function keptCheck() {
    const kept = check('kept', '2026-11-28T09:40:00Z', [1, 0], [2, -1], [3, 1], [4, -26])
    const weekday = { weekday: TODAY.getDay(), time: '09:40' }
    const orla = { ...A_STUDENT, lesson: weekday }
    const finn = student('Finn Aske', { instrument: { ...AN_INSTRUMENT, id: 'finn’s', label: 'no. 8' } })
    const studio = lists({ students: [orla, finn] })
    await checkOf(orla, (request) =>
      request.method === 'POST' ? ok(kept) : request.method === 'DELETE' ? ok(null) : studio(request),
    )
    for (const [finger, shown] of [
      [1, '4'],
      [2, '7'],
      [3, '-1'],
      [4, '-24'],
    ] as const)
      await type(`Finger ${finger}, cents`, shown)
    await page.press('Enter', page.named('Finger 4, cents'))
    await until(() => expect(page.text()).toContain('Kept verdict'))
  }
  const NARROW = /The frame is \d\.\d mm too narrow/
  const landings = () => [...document.querySelectorAll('td.landing')].map((td) => td.textContent)

  it('leaves the kept verdict to be read aloud, with its landings, until the next note is typed', async () => {
    await keptCheck()
    expect(page.text()).toMatch(/Kept verdict, A string, first position ?The frame is \d\.\d mm too narrow/)
    expect(page.text()).not.toContain('Not enough notes yet')
    expect(landings().at(-1)).toMatch(/^◀ −26/)
    // Another string is looked at while it is read.
    await page.press('h')
    ;(document.querySelectorAll('[aria-label="String"] input')[1] as HTMLElement).click()
    await nextTick()
    expect(page.text()).toMatch(NARROW)
    await type('Finger 1, cents', '2')
    expect(page.text()).not.toContain('Kept verdict')
    expect(page.text()).toContain('Not enough notes yet: 1 heard')
  })

  it('gives way to the next student of the day by one key', async () => {
    await keptCheck()
    await page.press('n')
    await flushPromises()
    expect(page.text()).toContain('Finn Aske')
    expect(page.text()).toContain('Not enough notes yet')
    expect(page.text()).not.toMatch(NARROW)
  })

  it('is undone with its readings on the sheet again, unless others stand there', async () => {
    await keptCheck()
    const undo = () =>
      useNotices()
        .notices.find((n) => n.action)
        ?.action?.run()
    await undo()
    await nextTick()
    const texts = () => [1, 2, 3, 4].map((f) => (page.named(`Finger ${f}, cents`) as HTMLInputElement).value)
    expect(texts()).toEqual(['4', '7', '-1', '-24'])
    expect(page.text()).toMatch(/Verdict ?The frame is \d\.\d mm too narrow/)
    page.wrapper.unmount()
    localStorage.clear()
    await keptCheck()
    await type('Finger 1, cents', '9')
    await undo()
    await nextTick()
    expect(texts()).toEqual(['9', '', '', ''])
  })

  it('with nobody chosen is of a student of today, of somebody found, or of a walk-in', async () => {
    serve(lists({ students: [student('Orla Venn'), student('Finn Aske')] }))
    page = await mounted(CheckPage)
    await until(() => expect(page.text()).toMatch(/Today.*09:40\s?Orla Venn/))
    await page.press('ArrowDown')
    await page.press('Enter')
    await nextTick()
    expect(useLesson().studentId).toBe('Finn Aske')
    useLesson().end()
    await nextTick()
    const search = await type('Find a student', 'orla')
    await until(() => expect(page.text()).toMatch(/Found.*Orla Venn/))
    expect(page.text()).not.toContain('Finn Aske')
    await type('Find a student', 'finn')
    await page.press('Enter', search)
    await until(() => expect(useLesson().studentId).toBe('Finn Aske'))
  })

  it('of a walk-in needs a family and a length, is judged, and is not kept', async () => {
    serve(lists({}))
    page = await mounted(CheckPage)
    await flushPromises()
    const read = () => document.querySelector<HTMLFormElement>('form[aria-label="Walk-in"]')!
    const button = () => read().querySelector<HTMLButtonElement>('button[type="submit"]')!
    expect(button().disabled).toBe(true)
    useBench().setup.method = 'strings' // as another instrument was measured before
    await nextTick()
    await type('String length, nut to bridge', '32')
    expect(page.text()).toContain('Did you mean')
    expect(button().disabled).toBe(true)
    await type('String length, nut to bridge', '32.8 cm')
    expect(button().disabled).toBe(false)
    read().dispatchEvent(new Event('submit'))
    await flushPromises()
    expect(page.text()).toContain('A walk-in · violin')
    for (const finger of [1, 2, 3, 4]) await type(`Finger ${finger}, cents`, '30')
    expect(page.text()).toContain('The whole hand sits')
    expect(page.text()).not.toContain('Keep this verdict')
    await page.press('Enter', page.named('Finger 4, cents'))
    expect(sent.filter((s) => s.method === 'POST')).toEqual([])
  })

  it('is not kept while a row cannot be read', async () => {
    await checkOf(A_STUDENT, lists({}))
    await type('Finger 1, cents', '4')
    await page.press('Enter', await type('Finger 4, cents', '900'))
    expect(sent.filter((s) => s.method !== 'GET')).toEqual([])
    expect(page.text()).toContain('900 cents is another note')
  })

  it('says that the server is away, and that nothing is lost', async () => {
    await checkOf(A_STUDENT, problem(503, 'database_unavailable'))
    await page.press('Enter', await type('Finger 4, cents', '-24'))
    await flushPromises()
    expect(page.text()).toContain('Waits to be sent')
    expect((page.named('Finger 4, cents') as HTMLInputElement).value).toBe('-24')
  })

  it('needs an instrument, and its length', async () => {
    await checkOf({ ...A_STUDENT, instrument: null }, lists({}))
    expect(page.text()).toContain('Orla Venn has no instrument yet')
    page.wrapper.unmount()
    await checkOf({ ...A_STUDENT, instrument: { ...AN_INSTRUMENT, measurement: null } }, lists({}))
    expect(page.text()).toContain('The string is not measured yet')
  })
})
