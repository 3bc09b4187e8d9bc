import type { Handlers } from '../../http/call'
import { setupService } from './service'

type Name = Extract<
  keyof Handlers,
  `setup.${string}` | `pains.${string}` | `bodyFits.${string}` | `gates.${string}`
>

export const setupRoutes: Pick<Handlers, Name> = {
  'setup.list': (call, { params }) => setupService(call).list(params.studentId),
  'setup.create': (call, { params, body }) => setupService(call).create(params.studentId, body),
  'setup.remove': async (call, { params }) => {
    await setupService(call).remove(params.roundId)
    return null
  },
  'setup.restore': (call, { params }) => setupService(call).restore(params.roundId),
  'pains.list': (call, { params }) => setupService(call).painsOf(params.studentId),
  'pains.create': (call, { params, body }) => setupService(call).tellPain(params.studentId, body),
  'pains.clear': (call, { params, body }) => setupService(call).clearPain(params.painId, body),
  'pains.reopen': (call, { params }) => setupService(call).reopenPain(params.painId),
  'pains.remove': async (call, { params }) => {
    await setupService(call).setPainRemoved(params.painId, true)
    return null
  },
  'pains.restore': (call, { params }) => setupService(call).setPainRemoved(params.painId, false),
  'bodyFits.list': (call, { params }) => setupService(call).fitsOf(params.studentId),
  'bodyFits.create': (call, { params, body }) => setupService(call).fit(params.studentId, body),
  'bodyFits.remove': async (call, { params }) => {
    await setupService(call).setFitRemoved(params.fitId, true)
    return null
  },
  'bodyFits.restore': (call, { params }) => setupService(call).setFitRemoved(params.fitId, false),
  'gates.list': (call, { params }) => setupService(call).gatesOf(params.studentId),
  'gates.mark': (call, { params, body }) => setupService(call).markGate(params.studentId, body),
}
