import { createHash } from 'node:crypto'
import type { Request, RequestHandler, Response } from 'express'
import { ipKeyGenerator, rateLimit, type Store } from 'express-rate-limit'
import { Op, QueryTypes } from 'sequelize'
import type { Database } from '../db/database'
import { problemCodeOf } from './errors'
import { ProblemError } from './problem-error'
import type { DeviceCookie } from './session-cookie'

/** Failed attempts on one account from one address, before a wait. */
export const SIGN_IN_ATTEMPTS = 8
/** On one account from wherever, and from one address on whatever account: more, since a class may share an address. */
export const SIGN_IN_ATTEMPTS_AT_ALL = 40
export const SIGN_IN_WINDOW_MS = 10 * 60_000

/**
 * Slows down guessing passwords: by the account that the typed address really means, however it is spelled, and by where
 * the guesses come from. Counts in the database, so that several servers count together.
 */
export function signInLimits(
  database: Database,
  now: () => Date,
  accountKeyOf: (email: string) => Promise<string>,
  devices: DeviceCookie,
): RequestHandler[] {
  const limit = limiter(database, now)
  const typed = (request: Request) => {
    const email = (request.body as { email?: unknown } | undefined)?.email
    return typeof email === 'string' ? email : ''
  }
  const findAccount: RequestHandler = (request, response, next) => {
    accountKeyOf(typed(request)).then((key) => {
      response.locals['account'] = key
      next()
    }, next)
  }
  const account = (response: Response) => String(response.locals['account'])
  const device = (request: Request, response: Response) => devices.known(request, account(response))
  return [
    findAccount,
    limit(
      SIGN_IN_ATTEMPTS,
      (request, response) => `${account(response)} from ${device(request, response) ?? caller(request)}`,
    ),
    // Guesses from elsewhere do not keep out whoever came in from here before.
    limit(SIGN_IN_ATTEMPTS_AT_ALL, (_request, response) => account(response), device),
    limit(SIGN_IN_ATTEMPTS_AT_ALL, caller, device),
  ]
}

/** Slows down whoever sits at a session that was left open and guesses its password; `sessionOf` tells one from another. */
export function passwordLimit(
  database: Database,
  now: () => Date,
  sessionOf: (request: Request) => string | undefined,
): RequestHandler {
  return limiter(database, now)(
    SIGN_IN_ATTEMPTS,
    (request) => `password of ${sessionOf(request) ?? caller(request)}`,
  )
}

/** A large answer that nobody needs often, and that costs nobody a row: counted in this server's memory. */
export const DESCRIPTION_READS = 30

export function descriptionLimit(): RequestHandler {
  return rateLimit({
    windowMs: 60_000,
    limit: DESCRIPTION_READS,
    standardHeaders: false,
    legacyHeaders: false,
    keyGenerator: caller,
    handler(_request, response, next) {
      response.setHeader('retry-after', '60')
      next(new ProblemError('too_many_requests', { detail: 'Wait a minute, then ask again.' }))
    },
  })
}

/** IPv6 callers by their network, since one caller has millions of addresses in it. */
function caller(request: Request): string {
  return ipKeyGenerator(request.ip ?? '')
}

function limiter(database: Database, now: () => Date) {
  const store = databaseStore(database, now)
  return (
    attempts: number,
    key: (request: Request, response: Response) => string,
    isLetPast: (request: Request, response: Response) => unknown = () => false,
  ) =>
    rateLimit({
      windowMs: SIGN_IN_WINDOW_MS,
      limit: attempts,
      standardHeaders: false,
      legacyHeaders: false,
      skipSuccessfulRequests: true,
      // The password was right: asking for the code is no guess.
      requestWasSuccessful: (_request, response) =>
        response.statusCode < 400 || problemCodeOf(response) === 'code_needed',
      skip: (request, response) => Boolean(isLetPast(request, response)),
      keyGenerator: (request, response) =>
        createHash('sha256')
          .update(`${attempts} ${key(request, response)}`)
          .digest('hex'),
      store,
      // Several limits share the table, each with keys of its own.
      validate: { unsharedStore: false },
      handler(_request, response, next) {
        response.setHeader('retry-after', String(SIGN_IN_WINDOW_MS / 1000))
        next(
          new ProblemError('too_many_attempts', {
            detail: `Wait ${SIGN_IN_WINDOW_MS / 60_000} minutes, then try again.`,
          }),
        )
      },
    })
}

/** Also one that a clock which ran far ahead has set. Two servers' clocks differ by less than a window. */
const RUN_OUT = '(reset_at < :now OR reset_at > :latest)'

function databaseStore({ sequelize, models }: Database, now: () => Date): Store {
  return {
    localKeys: false,
    async increment(id) {
      const resetAt = new Date(now().getTime() + SIGN_IN_WINDOW_MS)
      const latest = new Date(resetAt.getTime() + SIGN_IN_WINDOW_MS)
      await sequelize.query(
        `INSERT INTO rate_limit (id, hits, reset_at) VALUES (:id, 1, :resetAt)
         ON DUPLICATE KEY UPDATE hits = IF(${RUN_OUT}, 1, hits + 1), reset_at = IF(${RUN_OUT}, :resetAt, reset_at)`,
        { type: QueryTypes.INSERT, replacements: { id, resetAt, latest, now: now() } },
      )
      const row = await models.rateLimit.findByPk(id, { raw: true })
      const counted = row as unknown as { hits: number; resetAt: Date } | null
      // No reset time is told: the limiter would hold it against its own clock before it takes a good attempt back.
      return { totalHits: counted?.hits ?? 1, resetTime: undefined }
    },
    async decrement(id) {
      const where = { id, hits: { [Op.gt]: 0 }, resetAt: { [Op.gte]: now() } }
      await models.rateLimit.increment({ hits: -1 }, { where })
    },
    async resetKey(id) {
      await models.rateLimit.destroy({ where: { id } })
    },
  }
}
