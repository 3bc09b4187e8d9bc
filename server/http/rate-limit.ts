import { createHash } from 'node:crypto'
import type { RequestHandler } from 'express'
import { ipKeyGenerator, rateLimit, type Store } from 'express-rate-limit'
import { Op, QueryTypes } from 'sequelize'
import type { Database } from '../db/database'
import { ProblemError } from './problem-error'

/** Failed attempts to sign in, by one caller with one address, before a wait. */
export const SIGN_IN_ATTEMPTS = 8
export const SIGN_IN_WINDOW_MS = 10 * 60_000

/** Slows down guessing passwords. Counts in the database, so that several servers count together. */
export function signInLimit(database: Database, now: () => Date): RequestHandler {
  return rateLimit({
    windowMs: SIGN_IN_WINDOW_MS,
    limit: SIGN_IN_ATTEMPTS,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    skipSuccessfulRequests: true,
    keyGenerator(request) {
      const email = (request.body as { email?: unknown } | undefined)?.email
      const who = typeof email === 'string' ? email.trim().toLowerCase() : ''
      return createHash('sha256')
        .update(`${ipKeyGenerator(request.ip ?? '')} ${who}`)
        .digest('hex')
    },
    store: databaseStore(database, now),
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

function databaseStore({ sequelize, models }: Database, now: () => Date): Store {
  return {
    localKeys: false,
    async increment(id) {
      const resetAt = new Date(now().getTime() + SIGN_IN_WINDOW_MS)
      await sequelize.query(
        `INSERT INTO rate_limit (id, hits, reset_at) VALUES (:id, 1, :resetAt)
         ON DUPLICATE KEY UPDATE hits = IF(reset_at < :now, 1, hits + 1), reset_at = IF(reset_at < :now, :resetAt, reset_at)`,
        { type: QueryTypes.INSERT, replacements: { id, resetAt, now: now() } },
      )
      const row = await models.rateLimit.findByPk(id, { raw: true })
      const counted = row as unknown as { hits: number; resetAt: Date } | null
      return { totalHits: counted?.hits ?? 1, resetTime: counted?.resetAt ?? resetAt }
    },
    async decrement(id) {
      await models.rateLimit.increment({ hits: -1 }, { where: { id, hits: { [Op.gt]: 0 } } })
    },
    async resetKey(id) {
      await models.rateLimit.destroy({ where: { id } })
    },
  }
}
