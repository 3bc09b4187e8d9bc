import type { Handlers } from '../../http/call'
import { handService } from './service'

type Name = 'hands.list' | 'hands.create' | 'hands.remove' | 'hands.restore'

export const handRoutes: Pick<Handlers, Name> = {
  'hands.list': (call, { params }) => handService(call).list(params.studentId),
  'hands.create': (call, { params, body }) => handService(call).create(params.studentId, body),
  'hands.remove': async (call, { params }) => {
    await handService(call).setRemoved(params.handId, true)
    return null
  },
  'hands.restore': (call, { params }) => handService(call).setRemoved(params.handId, false),
}
