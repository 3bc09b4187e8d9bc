import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { effectScope, ref, type Ref } from 'vue'
import type { Mastery, Student } from '#contracts'
import { A_STUDENT, fakeServer, freshStores, problem, until } from '../testing'
import { useMasteryOf } from './mastery'

/** A room that shows a student’s mastery. */
const room = (student: Ref<Student | undefined>) => effectScope().run(() => useMasteryOf(student))!

const mark = (item: string, state: Mastery['state']): Mastery => ({
  kind: 'pattern',
  item,
  state,
  by: 'Hester Lowe',
  at: '2026-11-21T09:40:00.000Z',
})

beforeEach(() => {
  localStorage.clear()
  freshStores()
})
afterEach(() => void vi.unstubAllGlobals())

it('knows nothing without a student, and what is secure with one', async () => {
  const sent = fakeServer({
    status: 200,
    body: [mark('fourth/1234/212', 'secure'), mark('fourth/1234/122', 'learning')],
  })
  const student = ref<Student>()
  const mastery = room(student)
  await flushPromises()
  expect(sent).toHaveLength(0)
  expect(mastery.secure.value).toBeUndefined()
  student.value = A_STUDENT
  await flushPromises()
  expect([...mastery.secure.value!]).toEqual(['fourth/1234/212'])
  expect(mastery.stateOf('pattern', 'fourth/1234/122')).toBe('learning')
  expect(mastery.stateOf('position', 'first')).toBe('not_met')
})

it('keeps the teacher’s word and shows what the server kept', async () => {
  const sent = fakeServer(
    { status: 200, body: [] },
    { status: 200, body: [mark('fourth/1234/212', 'secure')] },
  )
  const mastery = room(ref<Student | undefined>(A_STUDENT))
  await flushPromises()
  await mastery.mark('pattern', 'fourth/1234/212', 'secure')
  expect(sent[1]).toMatchObject({
    method: 'POST',
    body: { marks: [{ kind: 'pattern', item: 'fourth/1234/212', state: 'secure' }] },
  })
  expect(mastery.stateOf('pattern', 'fourth/1234/212')).toBe('secure')
})

it('shows nothing of one student to the next, even when the answer comes late', async () => {
  const student = ref<Student | undefined>(A_STUDENT)
  fakeServer({ status: 200, body: [mark('fourth/1234/212', 'secure')] }, { status: 200, body: [] })
  const mastery = room(student)
  student.value = { ...A_STUDENT, id: '01900000-0000-7000-8000-000000000002' }
  await flushPromises()
  expect(mastery.marks.value).toEqual([])
})

it('is known in every room at once, and is newer than a list that was asked for before', async () => {
  const answers: ((body: unknown) => void)[] = []
  vi.stubGlobal(
    'fetch',
    () => new Promise((resolve) => answers.push((body) => resolve(new Response(JSON.stringify(body))))),
  )
  const onHandPage = room(ref<Student | undefined>(A_STUDENT))
  const inPatterns = room(ref<Student | undefined>(A_STUDENT))
  const said = onHandPage.mark('pattern', 'fourth/1234/212', 'secure')
  expect([...inPatterns.secure.value!]).toEqual(['fourth/1234/212'])
  // Both rooms had asked before: their answers come late and know nothing of it.
  await until(() => expect(answers).toHaveLength(3))
  answers[2]!([mark('fourth/1234/212', 'secure')])
  await said
  answers[0]!([])
  answers[1]!([])
  await flushPromises()
  expect([...inPatterns.secure.value!]).toEqual(['fourth/1234/212'])
})

it('that is refused shows again what the server has', async () => {
  fakeServer({ status: 200, body: [] }, problem(422, 'invalid_request'), { status: 200, body: [] })
  const mastery = room(ref<Student | undefined>(A_STUDENT))
  await flushPromises()
  await expect(mastery.mark('pattern', 'no pattern', 'secure')).rejects.toMatchObject({
    code: 'invalid_request',
  })
  await flushPromises()
  expect(mastery.marks.value).toEqual([])
})
