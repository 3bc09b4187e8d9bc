import type { RouteName } from '#contracts'
import type { Handlers } from '../../http/call'
import { attachmentRepository } from './repository'
import { attachmentService } from './service'

type Name = Extract<RouteName, `attachments.${string}` | `sound.${string}`>

export const attachmentRoutes: Pick<Handlers, Name> = {
  'attachments.list': (call, { params }) => attachmentService(call).list(params.record, params.recordId),
  'attachments.create': (call, { params }) =>
    attachmentService(call).keep(params.record, params.recordId, call),
  'attachments.read': (call, { params }) => attachmentService(call).read(params.attachmentId),
  'attachments.remove': (call, { params }) => attachmentService(call).remove(params.attachmentId),
  'sound.stored': ({ store }) => attachmentRepository(store).storedSound(),
  'sound.remove': async ({ store, now }) => {
    await attachmentRepository(store).removeAllSound(now)
    return null
  },
}
