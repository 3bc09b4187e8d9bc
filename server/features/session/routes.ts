import type { Handlers } from '../../http/call'
import type { SessionService } from './service'

export function sessionRoutes(
  service: SessionService,
  demo: { readonly email: string; readonly password: string } | undefined,
): Pick<
  Handlers,
  | 'door.read'
  | 'session.open'
  | 'session.read'
  | 'session.close'
  | 'sessions.list'
  | 'sessions.end'
  | 'sessions.endOthers'
  | 'password.change'
  | 'key.use'
  | 'secondFactor.read'
  | 'secondFactor.begin'
  | 'secondFactor.confirm'
  | 'secondFactor.end'
> {
  return {
    async 'door.read'({ sessionToken, now }) {
      const found = sessionToken === undefined ? undefined : await service.find(sessionToken, now)
      const isThere = demo !== undefined && !found && (await service.hasAccount(demo.email))
      return { session: found?.session ?? null, demo: isThere ? demo : null }
    },
    async 'session.open'(call, { body }) {
      const { token, session } = await service.open(body, call.userAgent, call.now)
      call.setSessionToken(token)
      call.rememberDevice(session.user.id)
      return session
    },
    async 'key.use'(call, { body }) {
      const { token, session } = await service.useKey(body, call.userAgent, call.now)
      call.setSessionToken(token)
      call.rememberDevice(session.user.id)
      return session
    },
    'secondFactor.read': ({ signedIn }) => service.secondFactor(signedIn),
    'secondFactor.begin': ({ signedIn, now }, { body }) => service.beginFactor(signedIn, body.current, now),
    'secondFactor.confirm': async ({ signedIn, now }, { body }) => ({
      codes: await service.confirmFactor(signedIn, body.code, now),
    }),
    async 'secondFactor.end'({ signedIn }, { body }) {
      await service.endFactor(signedIn, body.current)
      return null
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
