import type { Handlers } from '../../http/call'
import { studentService } from './service'

type Name =
  | 'students.list'
  | 'students.lessons'
  | 'students.create'
  | 'students.read'
  | 'students.update'
  | 'students.remove'
  | 'students.restore'
  | 'students.lend'

export const studentRoutes: Pick<Handlers, Name> = {
  'students.list': (call, { query }) => studentService(call).list(query),
  'students.lessons': (call, { query }) => studentService(call).lessons(query),
  'students.create': (call, { body }) => studentService(call).create(body),
  'students.read': (call, { params }) => studentService(call).read(params.studentId),
  'students.update': (call, { params, body: { version, ...change } }) =>
    studentService(call).update(params.studentId, version, change),
  'students.remove': (call, { params }) => studentService(call).remove(params.studentId),
  'students.restore': (call, { params }) => studentService(call).restore(params.studentId),
  'students.lend': (call, { params, body }) =>
    studentService(call).lend(params.studentId, body.instrumentId, body.on),
}
