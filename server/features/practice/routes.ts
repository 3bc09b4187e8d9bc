import type { Handlers } from '../../http/call'
import { practiceService } from './service'

type Name = Extract<keyof Handlers, `plans.${string}` | `practice.${string}`>

export const practiceRoutes: Pick<Handlers, Name> = {
  'plans.list': (call, { params }) => practiceService(call).plansOf(params.studentId),
  'plans.give': (call, { params, body }) => practiceService(call).give(params.studentId, body),
  'plans.remove': async (call, { params }) => {
    await practiceService(call).setRemoved(params.planId, true)
    return null
  },
  'plans.restore': (call, { params }) => practiceService(call).setRemoved(params.planId, false),
  'practice.list': (call, { params }) => practiceService(call).practiceOf(params.studentId),
  'practice.say': (call, { params, body }) => practiceService(call).say(params.studentId, body),
  'practice.mends': (call, { query }) => practiceService(call).mends(query),
  'practice.class': (call, { query }) => practiceService(call).ofClass(query),
}
