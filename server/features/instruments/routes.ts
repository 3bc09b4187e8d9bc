import type { Handlers } from '../../http/call'
import { importTable } from './import'
import { instrumentService } from './service'

type Name =
  | 'instruments.list'
  | 'instruments.labels'
  | 'instruments.create'
  | 'instruments.read'
  | 'instruments.update'
  | 'measurements.list'
  | 'measurements.create'
  | 'instruments.import'
  | 'instruments.unimport'
  | 'instruments.remove'
  | 'instruments.restore'
  | 'tapeSets.list'

export const instrumentRoutes: Pick<Handlers, Name> = {
  'instruments.list': (call, { query }) => instrumentService(call).list(query),
  'instruments.labels': (call) => instrumentService(call).labels(),
  'instruments.create': (call, { body }) => instrumentService(call).create(body),
  'instruments.import': (call, { body }) => importTable(call, body),
  'instruments.unimport': (call, { body }) => instrumentService(call).removeAll(body.ids),
  'instruments.read': (call, { params }) => instrumentService(call).read(params.instrumentId),
  'instruments.update': (call, { params, body }) => instrumentService(call).update(params.instrumentId, body),
  'instruments.remove': (call, { params }) => instrumentService(call).remove(params.instrumentId),
  'instruments.restore': (call, { params }) => instrumentService(call).restore(params.instrumentId),
  'measurements.list': (call, { params }) => instrumentService(call).measurements(params.instrumentId),
  'measurements.create': (call, { params, body }) =>
    instrumentService(call).measure(params.instrumentId, body),
  'tapeSets.list': (call, { params }) => instrumentService(call).tapeSets(params.instrumentId),
}
