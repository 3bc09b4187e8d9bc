import type { Handlers } from '../../http/call'
import { fingeringService } from './service'

export const fingeringRoutes: Pick<Handlers, 'fingerings.list' | 'fingerings.keep'> = {
  'fingerings.list': (call, { query }) => fingeringService(call).list(query.family),
  'fingerings.keep': (call, { body }) => fingeringService(call).keep(body),
}
