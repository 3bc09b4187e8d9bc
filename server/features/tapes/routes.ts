import type { Handlers } from '../../http/call'
import { tapeService } from './service'

type Name =
  | 'tapeSets.create'
  | 'tapeEvents.list'
  | 'tapeEvents.create'
  | 'tapeEvents.remove'
  | 'tapeEvents.restore'
  | 'ringFinds.list'
  | 'ringFinds.create'
  | 'ringFinds.update'
  | 'ringFinds.remove'
  | 'ringFinds.restore'

export const tapeRoutes: Pick<Handlers, Name> = {
  'tapeSets.create': (call, { params, body }) => tapeService(call).lay(params.instrumentId, body),
  'tapeEvents.list': (call, { params }) => tapeService(call).events(params.instrumentId),
  'tapeEvents.create': (call, { params, body }) => tapeService(call).log(params.instrumentId, body),
  'tapeEvents.remove': (call, { params }) => tapeService(call).setEventRemoved(params.eventId, true),
  'tapeEvents.restore': (call, { params }) => tapeService(call).setEventRemoved(params.eventId, false),
  'ringFinds.list': (call, { params }) => tapeService(call).finds(params.instrumentId),
  'ringFinds.create': (call, { params, body }) => tapeService(call).find(params.instrumentId, body),
  'ringFinds.update': (call, { params, body }) => tapeService(call).trustFind(params.findId, body.isTrusted),
  'ringFinds.remove': async (call, { params }) => {
    await tapeService(call).setFindRemoved(params.findId, true)
    return null
  },
  'ringFinds.restore': (call, { params }) => tapeService(call).setFindRemoved(params.findId, false),
}
