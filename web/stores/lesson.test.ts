import { beforeEach, expect, it } from 'vitest'
import { nextTick } from 'vue'
import {
  A_STUDENT,
  AN_INSTRUMENT,
  fakeServer,
  freshStores,
  known,
  lists,
  problem,
  signedIn,
  until,
  type Reply,
} from '../testing'
import { useLesson } from './lesson'
import { useStudio } from './studio'

/** A lesson with somebody in it, after a reload, on a server that answers so. */
async function reloaded(answer: Reply) {
  freshStores()
  signedIn()
  known({ students: [A_STUDENT] })
  useLesson().begin(A_STUDENT.id)
  await nextTick()
  const sent = fakeServer(answer)
  freshStores()
  signedIn()
  return { lesson: useLesson(), sent }
}

beforeEach(() => sessionStorage.clear())

it('knows again after a reload who is in it, by asking for that one alone', async () => {
  const { lesson, sent } = await reloaded({ status: 200, body: A_STUDENT })
  await until(() => expect(lesson.student?.name).toBe('Orla Venn'))
  expect(sent.map((s) => s.path)).toEqual([`/api/v1/students/${A_STUDENT.id}`])
})

it('ends where there is no such student any more, and not where the server is away', async () => {
  const gone = await reloaded(problem(404, 'not_found'))
  await until(() => expect(gone.lesson.studentId).toBe(''))
  const away = await reloaded(undefined)
  await until(() => expect(away.sent).toHaveLength(1))
  await nextTick()
  expect(away.lesson.studentId).toBe(A_STUDENT.id)
})

it('brings what is laid on the bench for itself as well', async () => {
  freshStores()
  signedIn()
  fakeServer(lists({ instruments: [AN_INSTRUMENT] }))
  const lesson = useLesson()
  lesson.instrumentId = AN_INSTRUMENT.id
  await until(() => expect(lesson.instrument?.label).toBe('no. 7'))
  expect(useStudio().cupboard).toHaveLength(1)
})
