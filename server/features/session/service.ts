import { createHmac, randomBytes } from 'node:crypto'
import type { Session } from '#contracts'
import type { SignedIn } from '../../http/call'
import { ProblemError } from '../../http/problem-error'
import { passwordMatches } from './password'
import type { Account, SessionRepository } from './repository'

const DAY_MS = 24 * 3600 * 1000
/** A session that nobody uses ends after a fortnight. */
export const SESSION_MS = 14 * DAY_MS

/** Signing in and out. `secret` keys the hashes, so a copy of the database alone opens no session. */
export function sessionService(repository: SessionRepository, secret: string) {
  const keyed = (purpose: string, token: string) =>
    createHmac('sha256', secret).update(`${purpose}:${token}`).digest('hex')

  function sessionOf({ user, studio }: Account, token: string): Session {
    return {
      user: { id: user.id, name: user.name, email: user.email },
      studio: { id: studio.id, name: studio.name, system: studio.system },
      csrfToken: keyed('csrf', token),
    }
  }

  return {
    /** Throws `wrong_credentials`, without saying which half is wrong. */
    async open(email: string, password: string, now: Date): Promise<{ token: string; session: Session }> {
      const account = await repository.accountByEmail(email.toLowerCase())
      if (!(await passwordMatches(account?.passwordHash, password)) || !account)
        throw new ProblemError('wrong_credentials', { detail: 'Check both and try again.' })
      const token = randomBytes(32).toString('base64url')
      await repository.addSession({
        id: keyed('session', token),
        studioId: account.studio.id,
        userId: account.user.id,
        createdAt: now,
        expiresAt: new Date(now.getTime() + SESSION_MS),
      })
      return { token, session: sessionOf(account, token) }
    },

    /** Who a cookie's token belongs to. Extends the session, at most once a day. */
    async find(token: string, now: Date): Promise<SignedIn | undefined> {
      const sessionId = keyed('session', token)
      const found = await repository.sessionById(sessionId, now)
      if (!found) return undefined
      if (found.expiresAt.getTime() - now.getTime() < SESSION_MS - DAY_MS)
        await repository.extendSession(sessionId, new Date(now.getTime() + SESSION_MS))
      return { session: sessionOf(found, token), sessionId }
    },

    close: (sessionId: string) => repository.removeSession(sessionId),
  }
}

export type SessionService = ReturnType<typeof sessionService>
