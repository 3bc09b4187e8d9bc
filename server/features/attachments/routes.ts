import type { Handlers } from '../../http/call'
import { attachmentService } from './service'

type Name = 'attachments.list' | 'attachments.create' | 'attachments.read' | 'attachments.remove'

export const attachmentRoutes: Pick<Handlers, Name> = {
  'attachments.list': (call, { params }) => attachmentService(call).list(params.record, params.recordId),
  'attachments.create': (call, { params }) =>
    attachmentService(call).keep(params.record, params.recordId, call),
  'attachments.read': (call, { params }) => attachmentService(call).read(params.attachmentId),
  'attachments.remove': (call, { params }) => attachmentService(call).remove(params.attachmentId),
}
