// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils'
import { beforeEach, expect, it } from 'vitest'
import { ref } from 'vue'
import type { Mastery, Student } from '#contracts'
import { A_STUDENT, fakeServer, freshStores } from '../../testing'
import { useMastery } from './useMastery'

const mark = (item: string, state: Mastery['state']): Mastery => ({
  kind: 'pattern',
  item,
  state,
  by: 'Hester Lowe',
  at: '2026-11-21T09:40:00.000Z',
})

beforeEach(() => freshStores())

it('knows nothing without a student, and what is secure with one', async () => {
  const sent = fakeServer({
    status: 200,
    body: [mark('fourth/1234/212', 'secure'), mark('fourth/1234/122', 'learning')],
  })
  const student = ref<Student>()
  const mastery = useMastery(student)
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
  const mastery = useMastery(ref<Student | undefined>(A_STUDENT))
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
  const mastery = useMastery(student)
  student.value = { ...A_STUDENT, id: '01900000-0000-7000-8000-000000000002' }
  await flushPromises()
  expect(mastery.marks.value).toEqual([])
})
