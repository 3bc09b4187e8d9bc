import type { Handlers } from '../../http/call'
import { masteryService } from './service'

export const masteryRoutes: Pick<Handlers, 'mastery.list' | 'mastery.mark'> = {
  'mastery.list': (call, { params }) => masteryService(call).list(params.studentId),
  'mastery.mark': (call, { params, body }) => masteryService(call).mark(params.studentId, body),
}
