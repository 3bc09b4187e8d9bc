import type { Handlers } from '../../http/call'
import { checkService } from './service'

export const checkRoutes: Pick<
  Handlers,
  | 'checks.list'
  | 'checks.latest'
  | 'checks.history'
  | 'checks.create'
  | 'checks.read'
  | 'checks.decide'
  | 'checks.mend'
  | 'checks.undecide'
  | 'checks.counts'
  | 'checks.track'
  | 'checks.remove'
  | 'checks.restore'
> = {
  'checks.list': (call, { params, query }) => checkService(call).list(params.studentId, query),
  'checks.history': (call, { params }) => checkService(call).history(params.studentId),
  'checks.read': (call, { params }) => checkService(call).read(params.checkId),
  'checks.decide': (call, { params, body }) => checkService(call).decide(params.checkId, body),
  'checks.mend': (call, { params, body }) => checkService(call).mend(params.checkId, body.isMended),
  'checks.undecide': (call, { params }) => checkService(call).undecide(params.checkId),
  'checks.counts': (call) => checkService(call).counts(),
  'checks.latest': (call, { params }) => checkService(call).latest(params.studentId),
  'checks.create': (call, { params, body }) => checkService(call).create(params.studentId, body),
  'checks.track': (call, { params }) => checkService(call).track(params.checkId),
  'checks.remove': (call, { params }) => checkService(call).remove(params.checkId),
  'checks.restore': (call, { params }) => checkService(call).restore(params.checkId),
}
