import type { Handlers } from '../../http/call'
import { checkService } from './service'

export const checkRoutes: Pick<
  Handlers,
  'checks.list' | 'checks.latest' | 'checks.create' | 'checks.track' | 'checks.remove' | 'checks.restore'
> = {
  'checks.list': (call, { params }) => checkService(call).list(params.studentId),
  'checks.latest': (call, { params }) => checkService(call).latest(params.studentId),
  'checks.create': (call, { params, body }) => checkService(call).create(params.studentId, body),
  'checks.track': (call, { params }) => checkService(call).track(params.checkId),
  'checks.remove': (call, { params }) => checkService(call).remove(params.checkId),
  'checks.restore': (call, { params }) => checkService(call).restore(params.checkId),
}
