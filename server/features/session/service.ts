import bowser from 'bowser'
import { createHmac, randomBytes } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import type { OpenSession, Session } from '#contracts'
import type { SessionRow } from '../../db/rows'
import type { SignedIn } from '../../http/call'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { isFrozenAt } from '../../maintenance'
import { settingsOf } from '../studio/settings'
import { normalEmail } from './email'
import { hashPassword, passwordMatches } from './password'
import type { Account, SessionRepository } from './repository'

const HOUR_MS = 3600 * 1000
const DAY_MS = 24 * HOUR_MS
/** A session that nobody uses ends after a fortnight. */
export const SESSION_MS = 14 * DAY_MS
/** However much it is used, a session ends after a term and a holiday: a lost tablet does not stay a door for ever. */
export const LONGEST_SESSION_MS = 120 * DAY_MS

/** Signing in and out. `secret` keys the hashes, so a copy of the database alone opens no session. */
export function sessionService(repository: SessionRepository, secret: string, shutFor?: string) {
  const keyed = (purpose: string, token: string) =>
    createHmac('sha256', secret).update(`${purpose}:${token}`).digest('hex')
  const endOf = (createdAt: Date) => createdAt.getTime() + LONGEST_SESSION_MS
  const expiryAt = (now: Date, createdAt: Date) =>
    new Date(Math.min(now.getTime() + SESSION_MS, endOf(createdAt)))

  function sessionOf({ user, studio }: Account, token: string): Session {
    return {
      user: { id: user.id, name: user.name, email: user.email },
      studio: {
        id: studio.id,
        version: studio.version,
        name: studio.name,
        system: studio.system,
        settings: settingsOf(studio.settings),
      },
      csrfToken: keyed('csrf', token),
    }
  }

  return {
    /**
     * Names the account that a typed address means, however it is spelled. An address without an account is one of its own:
     * it must not be told from another by when guessing it is slowed.
     */
    async accountKeyOf(email: string): Promise<string> {
      const address = normalEmail(email)
      return (await repository.accountByEmail(address))?.user.id ?? `no account ${address}`
    },

    hasAccount: async (email: string) => (await repository.accountByEmail(normalEmail(email))) !== undefined,

    /** Throws `wrong_credentials`, without saying which half is wrong. */
    async open(
      { email, password }: { readonly email: string; readonly password: string },
      userAgent: string,
      now: Date,
    ): Promise<{ token: string; session: Session }> {
      const address = normalEmail(email)
      const found = await repository.accountByEmail(address)
      const account = address === shutFor ? undefined : found
      if (!(await passwordMatches(account?.passwordHash, password)) || !account)
        throw new ProblemError('wrong_credentials', { detail: 'Check both and try again.' })
      const token = randomBytes(32).toString('base64url')
      await repository.addSession({
        id: keyed('session', token),
        studioId: account.studio.id,
        userId: account.user.id,
        publicId: uuid(),
        device: deviceOf(userAgent),
        createdAt: now,
        seenAt: now,
        expiresAt: expiryAt(now, now),
      })
      return { token, session: sessionOf(account, token) }
    },

    /** Who a cookie's token belongs to. Extends the session, at most once an hour and never beyond its absolute end. */
    async find(token: string, now: Date): Promise<SignedIn | undefined> {
      const sessionId = keyed('session', token)
      const found = await repository.sessionById(sessionId, now)
      if (!found || found.user.email === shutFor || now.getTime() >= endOf(found.createdAt)) return undefined
      if (now.getTime() - found.seenAt.getTime() >= HOUR_MS)
        await repository.useSession(sessionId, { seenAt: now, expiresAt: expiryAt(now, found.createdAt) })
      const isFrozen = isFrozenAt(found.frozenUntil, now)
      return { session: sessionOf(found, token), sessionId, isFrozen }
    },

    close: (sessionId: string) => repository.removeSession(sessionId),

    async list({ session, sessionId }: SignedIn, now: Date): Promise<OpenSession[]> {
      return (await repository.sessionsOf(session.user.id, now)).map((row) => ({
        id: row.publicId,
        device: row.device,
        since: row.createdAt.toISOString(),
        seenAt: row.seenAt.toISOString(),
        endsAt: new Date(endOf(row.createdAt)).toISOString(),
        isThis: row.id === sessionId,
      }))
    },

    async end({ session }: SignedIn, publicId: string): Promise<void> {
      if (!(await repository.endSession(session.user.id, publicId))) throw new ProblemError('not_found')
    },

    endOthers: ({ session, sessionId }: SignedIn) => repository.endSessionsBut(session.user.id, sessionId),

    /** Another password; whoever is signed in with the old one elsewhere is not any more. */
    async changePassword({ session, sessionId }: SignedIn, current: string, next: string): Promise<void> {
      const { id } = session.user
      if (!(await passwordMatches(await repository.passwordHashOf(id), current)))
        throw fieldProblem('current', 'This is not your password.')
      if (current === next) throw fieldProblem('next', 'Take another one than you have now.')
      await repository.setPasswordHash(id, await hashPassword(next))
      await repository.endSessionsBut(id, sessionId)
    },
  }
}

export type SessionService = ReturnType<typeof sessionService>

const DEVICE_OF: Readonly<Record<string, SessionRow['device']>> = {
  desktop: 'computer',
  tablet: 'tablet',
  mobile: 'phone',
}

/** What somebody signs in from, as far as its browser tells: enough to know one's own tablet again. */
function deviceOf(userAgent: string): SessionRow['device'] {
  if (userAgent === '') return 'unknown'
  return DEVICE_OF[bowser.parse(userAgent).platform.type ?? ''] ?? 'unknown'
}
