import type { Handlers } from '../../http/call'
import type { SessionService } from './service'

export function sessionRoutes(
  service: SessionService,
): Pick<Handlers, 'session.open' | 'session.read' | 'session.close'> {
  return {
    async 'session.open'(call, { body }) {
      const { token, session } = await service.open(body.email, body.password, call.now)
      call.setSessionToken(token)
      return session
    },
    'session.read': ({ signedIn }) => Promise.resolve(signedIn.session),
    async 'session.close'(call) {
      await service.close(call.signedIn.sessionId)
      call.setSessionToken(undefined)
      return null
    },
  }
}
