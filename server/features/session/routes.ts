import type { Handlers } from '../../http/call'
import type { SessionService } from './service'

export function sessionRoutes(
  service: SessionService,
): Pick<
  Handlers,
  | 'session.open'
  | 'session.read'
  | 'session.close'
  | 'sessions.list'
  | 'sessions.end'
  | 'sessions.endOthers'
  | 'password.change'
> {
  return {
    async 'session.open'(call, { body }) {
      const { token, session } = await service.open(body, call.userAgent, call.now)
      call.setSessionToken(token)
      return session
    },
    'session.read': ({ signedIn }) => Promise.resolve(signedIn.session),
    async 'session.close'(call) {
      await service.close(call.signedIn.sessionId)
      call.setSessionToken(undefined)
      return null
    },
    'sessions.list': ({ signedIn, now }) => service.list(signedIn, now),
    async 'sessions.end'({ signedIn }, { params }) {
      await service.end(signedIn, params.sessionId)
      return null
    },
    async 'sessions.endOthers'({ signedIn }) {
      await service.endOthers(signedIn)
      return null
    },
    async 'password.change'({ signedIn }, { body }) {
      await service.changePassword(signedIn, body.current, body.next)
      return null
    },
  }
}
