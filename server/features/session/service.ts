import bowser from 'bowser'
import { randomBytes } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import type { OpenSession, SecondFactor, SecondFactorKey, Session } from '#contracts'
import type { SecondFactorRow, SessionRow } from '../../db/rows'
import type { SignedIn } from '../../http/call'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import type { Secrets } from '../../http/secrets'
import { isFrozenAt } from '../../maintenance'
import { settingsOf } from '../studio/settings'
import { normalEmail } from './email'
import { hashPassword, passwordMatches, weaknessOf } from './password'
import type { Account, SessionRepository, Whose } from './repository'
import {
  newSecret,
  periodOf,
  plainKey,
  readableKey,
  sealSecret,
  SPARE_CODES,
  unsealSecret,
} from './second-factor'

const HOUR_MS = 3600 * 1000
const DAY_MS = 24 * HOUR_MS
/** A session that nobody uses ends after a fortnight. */
export const SESSION_MS = 14 * DAY_MS
/** However much it is used, a session ends after a term and a holiday: a lost tablet does not stay a door for ever. */
export const LONGEST_SESSION_MS = 120 * DAY_MS

export interface SessionDeps {
  readonly repository: SessionRepository
  /** Key the hashes, so a copy of the database alone opens no session. */
  readonly secrets: Secrets
  readonly shutFor?: string | undefined
  /** Who may look at how the server is, by their addresses. */
  readonly operators: readonly string[]
}

/** Signing in and out. */
export function sessionService({ repository, secrets, shutFor, operators }: SessionDeps) {
  const endOf = (createdAt: Date) => createdAt.getTime() + LONGEST_SESSION_MS
  const expiryAt = (now: Date, createdAt: Date) =>
    new Date(Math.min(now.getTime() + SESSION_MS, endOf(createdAt)))

  /** `nth` of the secrets: a session of before another was taken keeps its own. */
  function sessionOf({ user, studio }: Account, token: string, nth = 0): Session {
    return {
      user: { id: user.id, name: user.name, email: user.email, role: user.role },
      isOperator: operators.includes(user.email),
      studio: {
        id: studio.id,
        version: studio.version,
        name: studio.name,
        system: studio.system,
        settings: settingsOf(studio.settings),
      },
      csrfToken: secrets.hashes('csrf', token)[nth]!,
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

    /** Throws `wrong_credentials`, without saying which half is wrong, and where there is a second factor what is missing of it. */
    async open(
      { email, password, code }: Typed,
      userAgent: string,
      now: Date,
    ): Promise<{ token: string; session: Session }> {
      const address = normalEmail(email)
      const found = await repository.accountByEmail(address)
      const account = address === shutFor ? undefined : found
      if (!(await passwordMatches(account?.passwordHash, password)) || !account) {
        if (account) await repository.note({ ...whoseOf(account), at: now, deed: 'session.refused' })
        throw new ProblemError('wrong_credentials', { detail: 'Check both and try again.' })
      }
      const factor = await repository.factorOf(whoseOf(account))
      if (factor?.confirmedAt) {
        if (!code) throw new ProblemError('code_needed', { detail: 'Type the six figures.' })
        if (!(await isCodeOf(whoseOf(account), factor, code, now))) {
          await repository.note({ ...whoseOf(account), at: now, deed: 'session.refused' })
          throw wrongCode()
        }
      }
      return begin(account, userAgent, now)
    },

    /** Chooses a password with a key that was given out, and comes in; what was open before is ended. */
    async useKey(
      { email, key, password }: { email: string; key: string; password: string },
      userAgent: string,
      now: Date,
    ): Promise<{ token: string; session: Session }> {
      const address = normalEmail(email)
      const account = address === shutFor ? undefined : await repository.accountByEmail(address)
      const wrong = new ProblemError('wrong_key', {
        detail: 'A key holds for two days and opens once. Ask an owner of your studio for another.',
      })
      // Before anything is looked up: by what is refused nobody learns who has an account.
      insistOnStrength('password', password, [address])
      if (!account) throw wrong
      const hashes = secrets.hashes(KEY_PURPOSE, plainKey(key))
      if (!(await repository.useKey(whoseOf(account), hashes, now))) throw wrong
      await repository.endAllSessions(account.user.id)
      await repository.endFactor(whoseOf(account))
      await repository.setPasswordHash(account.user.id, await hashPassword(password))
      await repository.note({ ...whoseOf(account), at: now, deed: 'key.use' })
      return begin(account, userAgent, now)
    },

    /** Who a cookie's token belongs to. Extends the session, at most once an hour and never beyond its absolute end. */
    async find(token: string, now: Date): Promise<SignedIn | undefined> {
      const ids = secrets.hashes('session', token)
      const found = await repository.sessionById(ids, now)
      if (!found || found.user.email === shutFor || now.getTime() >= endOf(found.createdAt)) return undefined
      if (now.getTime() - found.seenAt.getTime() >= HOUR_MS)
        await repository.useSession(found.id, { seenAt: now, expiresAt: expiryAt(now, found.createdAt) })
      const isFrozen = isFrozenAt(found.frozenUntil, now)
      return { session: sessionOf(found, token, ids.indexOf(found.id)), sessionId: found.id, isFrozen }
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
      insistOnStrength('next', next, [session.user.name, session.user.email, session.studio.name])
      await repository.setPasswordHash(id, await hashPassword(next))
      await repository.endSessionsBut(id, sessionId)
    },

    async secondFactor({ session }: SignedIn): Promise<SecondFactor> {
      const whose = whoseOf(session)
      const since = (await repository.factorOf(whose))?.confirmedAt?.toISOString() ?? null
      return { since, spareCodes: since === null ? 0 : await repository.spareCodesLeft(whose) }
    },

    /** A secret for a program of codes; the one in use, if there is one, ends only when the new one was confirmed elsewhere. */
    async beginFactor({ session }: SignedIn, current: string, now: Date): Promise<SecondFactorKey> {
      await insistOnPassword(session.user.id, current)
      if ((await repository.factorOf(whoseOf(session)))?.confirmedAt)
        throw fieldProblem('current', 'There is a second factor already. End that one first.')
      const made = newSecret(session.user.email)
      await repository.beginFactor(whoseOf(session), sealSecret(secrets, made.secret), now)
      return made
    },

    /** From now on a code is asked for: the first one shows that the program has the secret. */
    async confirmFactor({ session }: SignedIn, code: string, now: Date): Promise<string[]> {
      const whose = whoseOf(session)
      const factor = await repository.factorOf(whose)
      if (!factor || factor.confirmedAt || !(await isTotpOf(whose, factor, code, now))) throw wrongCode()
      const codes = Array.from({ length: SPARE_CODES }, () => readableKey(SPARE_CHARACTERS))
      const hashes = codes.map((one) => secrets.hash(SPARE_PURPOSE, plainKey(one)))
      await repository.confirmFactor(whose, now, hashes)
      return codes
    },

    async endFactor({ session }: SignedIn, current: string): Promise<void> {
      await insistOnPassword(session.user.id, current)
      await repository.endFactor(whoseOf(session))
    },
  }

  async function begin(account: Account, userAgent: string, now: Date) {
    const token = randomBytes(32).toString('base64url')
    await repository.addSession({
      id: secrets.hash('session', token),
      studioId: account.studio.id,
      userId: account.user.id,
      publicId: uuid(),
      device: deviceOf(userAgent),
      createdAt: now,
      seenAt: now,
      expiresAt: expiryAt(now, now),
    })
    await repository.note({ ...whoseOf(account), at: now, deed: 'session.open' })
    return { token, session: sessionOf(account, token) }
  }

  async function insistOnPassword(userId: string, password: string): Promise<void> {
    if (!(await passwordMatches(await repository.passwordHashOf(userId), password)))
      throw fieldProblem('current', 'This is not your password.')
  }

  async function isTotpOf(
    whose: Whose,
    { sealed }: SecondFactorRow,
    code: string,
    now: Date,
  ): Promise<boolean> {
    const secret = unsealSecret(secrets, sealed)
    const period = secret === undefined ? undefined : periodOf(secret, code, now)
    if (secret === undefined || period === undefined) return false
    return repository.takeStep(whose, period, sealSecret(secrets, secret))
  }

  async function isCodeOf(whose: Whose, factor: SecondFactorRow, code: string, now: Date): Promise<boolean> {
    const hashes = secrets.hashes(SPARE_PURPOSE, plainKey(code))
    return (await isTotpOf(whose, factor, code, now)) || repository.useSpareCode(whose, hashes, now)
  }
}

/** Purposes of hashes: one of one kind is none of another. */
export const KEY_PURPOSE = 'one-time key'
const SPARE_PURPOSE = 'spare code'
/** Fifty bits beside a password, eight tries in ten minutes. */
const SPARE_CHARACTERS = 10

interface Typed {
  readonly email: string
  readonly password: string
  readonly code?: string | undefined
}

const whoseOf = ({ user, studio }: Pick<Account, 'studio' | 'user'> | Session): Whose => ({
  studioId: studio.id,
  userId: user.id,
})
const wrongCode = () =>
  new ProblemError('wrong_code', { detail: 'Take the one that is shown now: each holds once, for a minute.' })

function insistOnStrength(field: string, password: string, about: readonly string[]): void {
  const weakness = weaknessOf(password, about)
  if (weakness !== undefined) throw fieldProblem(field, weakness)
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
