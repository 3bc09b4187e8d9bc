import { flushPromises } from '@vue/test-utils'
import { beforeEach, expect, it } from 'vitest'
import { defineComponent, ref } from 'vue'
import type { Student } from '#contracts'
import { mounted } from '../../mounting'
import { useNotices } from '../../stores/notices'
import { useStudio } from '../../stores/studio'
import {
  aCheck,
  known,
  A_STUDENT,
  AN_INSTRUMENT,
  fakeServer,
  freshStores,
  signedIn,
  type Reply,
  type Sent,
} from '../../testing'
import { useStudentFile } from './useStudentFile'

const ok = (body: unknown): Reply => ({ status: 200, body })
const OTHER = { ...AN_INSTRUMENT, id: '01900000-0000-7000-8000-000000000008', label: 'no. 8' }

async function opened(answer: (request: Sent) => Reply | undefined, of: Student = A_STUDENT) {
  const sent = fakeServer((request) => answer(request) ?? (request.path.endsWith(of.id) ? ok(of) : ok([])))
  freshStores()
  signedIn()
  known({ students: [of] })
  let file!: ReturnType<typeof useStudentFile>
  const page = await mounted(
    defineComponent({
      setup() {
        file = useStudentFile(ref(of.id))
        return () => null
      },
    }),
  )
  await flushPromises()
  return { file, page, sent, posts: () => sent.filter((s) => s.method !== 'GET') }
}
const notice = () => useNotices().notices.at(-1)

beforeEach(() => localStorage.clear())

it('lends, takes back and, with the next one lent, leads to old and new places', async () => {
  const lent = (instrument: Student['instrument']) => ok({ ...A_STUDENT, version: 4, instrument })
  const { file, page, posts } = await opened(({ path, body }) =>
    path.endsWith('/loans')
      ? lent((body as { instrumentId: string | null }).instrumentId === null ? null : OTHER)
      : undefined,
  )
  await file.lend(null)
  expect(file.student.value?.instrument).toBeNull()
  expect(notice()?.text).toBe('no. 7 is back in the cupboard.')
  await file.lend(OTHER.id)
  expect(posts().map((s) => (s.body as { instrumentId: string | null }).instrumentId)).toEqual([
    null,
    OTHER.id,
  ])
  expect([file.student.value?.instrument?.label, notice()?.text]).toEqual([
    'no. 8',
    'Every tape moves with the new instrument.',
  ])
  await notice()?.action?.run()
  await flushPromises()
  expect(page.router.currentRoute.value).toMatchObject({
    name: 'compare',
    query: { from: AN_INSTRUMENT.id, to: OTHER.id },
  })
})

it('lends again what was taken back by mistake, and takes back what was lent by mistake', async () => {
  const { file, posts } = await opened(({ path, body }) => {
    const { instrumentId } = (body ?? {}) as { instrumentId?: string | null }
    const lent = [AN_INSTRUMENT, OTHER].find((i) => i.id === instrumentId) ?? null
    return path.endsWith('/loans') ? ok({ ...A_STUDENT, instrument: lent }) : undefined
  })
  await file.lend(null)
  await notice()?.action?.run()
  expect([file.student.value?.instrument?.label, notice()?.text]).toEqual([
    'no. 7',
    'Orla Venn has no. 7 again.',
  ])
  await file.lend(OTHER.id)
  await useNotices()
    .notices.find((n) => n.text.startsWith('no. 8 is lent'))
    ?.action?.run()
  expect(file.student.value?.instrument?.label).toBe('no. 7')
  expect(posts().map((s) => (s.body as { instrumentId: string | null }).instrumentId)).toEqual([
    null,
    AN_INSTRUMENT.id,
    OTHER.id,
    AN_INSTRUMENT.id,
  ])
})

it('writes down a new instrument and lends it', async () => {
  const without = { ...A_STUDENT, instrument: null }
  const { file, posts } = await opened(
    ({ method, path }) =>
      method === 'GET'
        ? undefined
        : path.endsWith('/loans')
          ? ok({ ...A_STUDENT, instrument: OTHER })
          : ok(OTHER),
    without,
  )
  await file.add('1/2', 'no. 8')
  expect(posts().map((s) => s.body)).toEqual([
    { family: 'violin', sizeId: '1/2', label: 'no. 8' },
    expect.objectContaining({ instrumentId: OTHER.id }) as unknown,
  ])
  expect(notice()?.text).toBe('no. 8 is lent to Orla Venn.')
})

it('takes a student off the roster and back', async () => {
  const { file, page, posts } = await opened(({ path }) =>
    path.endsWith('/restore') ? ok(A_STUDENT) : path.endsWith('/students?') ? ok([]) : undefined,
  )
  await file.removeStudent()
  await flushPromises()
  expect([page.router.currentRoute.value.name, useStudio().roster]).toEqual(['students', []])
  await notice()?.action?.run()
  await flushPromises()
  expect(posts().map((s) => `${s.method} ${s.path.split('/').at(-1)}`)).toEqual([
    `DELETE ${A_STUDENT.id}`,
    'POST restore',
  ])
  expect(page.router.currentRoute.value.params['studentId']).toBe(A_STUDENT.id)
})

it('reads older checks when somebody asks, and takes the teacher’s word on any, and takes it back', async () => {
  const all = Array.from({ length: 45 }, (_, i) => aCheck(`check-${i}`, '2026-11-20T09:00:00.000Z', [[1, 0]]))
  const { file, posts } = await opened(({ method, path, body }) => {
    const query = new URLSearchParams(path.split('?')[1] ?? '')
    const offset = Number(query.get('offset') ?? 0)
    if (method === 'GET' && /\/checks\?/.test(path))
      return ok(all.slice(offset, offset + Number(query.get('limit'))))
    if (!path.endsWith('/decision')) return undefined
    const decision =
      method === 'DELETE' ? null : { ...(body as object), by: 'Hester Lowe', at: '2026-11-27T09:00:00.000Z' }
    return ok({ ...all[3], decision })
  })
  expect([file.checks.value?.length, file.hasOlder.value]).toEqual([40, true])
  await file.readOlder()
  expect([file.checks.value?.length, file.hasOlder.value]).toEqual([45, false])
  await file.decide(all[3]!, { says: 'overruled', reason: 'tape' })
  expect(file.checks.value?.[3]?.decision).toMatchObject({ says: 'overruled', reason: 'tape' })
  await notice()?.action?.run()
  expect(file.checks.value?.[3]?.decision).toBeNull()
  expect(posts().map(({ method }) => method)).toEqual(['PATCH', 'DELETE'])
})
