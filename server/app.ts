import compression from 'compression'
import { randomUUID } from 'node:crypto'
import express, { type Express, type RequestHandler } from 'express'
import helmet from 'helmet'
import type { Logger } from 'pino'
import { API_BASE, AUTHORITY_PATH, UNVERSIONED_BASE } from '#contracts'
import type { Database } from './db/database'
import { attachmentRoutes } from './features/attachments/routes'
import { auditRoutes } from './features/audit/routes'
import { checkRoutes } from './features/checks/routes'
import { handRoutes } from './features/hands/routes'
import { healthRoutes } from './features/health/routes'
import { instrumentRoutes } from './features/instruments/routes'
import { fingeringRoutes } from './features/fingerings/routes'
import { masteryRoutes } from './features/mastery/routes'
import { operationsRoutes } from './features/operations/routes'
import { peopleRoutes } from './features/people/routes'
import { practiceRoutes } from './features/practice/routes'
import { roomRoutes } from './features/room/routes'
import { sessionRepository } from './features/session/repository'
import { sessionRoutes } from './features/session/routes'
import { sessionService } from './features/session/service'
import { setupRoutes } from './features/setup/routes'
import { studioRoutes } from './features/studio/routes'
import { tapeRoutes } from './features/tapes/routes'
import { studentRoutes } from './features/students/routes'
import type { Handlers } from './http/call'
import { errorHandler, notFound, routeOf } from './http/errors'
import { sessionGuard } from './http/guard'
import { ProblemError } from './http/problem-error'
import { metricsOf, metricsRoute } from './http/metrics'
import { descriptionLimit, passwordLimit, signInLimits } from './http/rate-limit'
import { isReading } from './http/reading'
import { apiRouter } from './http/router'
import { secretsOf } from './http/secrets'
import { deviceCookie, sessionCookie } from './http/session-cookie'
import { seenTrail, type SeenTrail } from './http/trail'
import { webFiles } from './http/web-files'

const COMPRESSED_FROM_BYTES = 2048

export interface AppDeps {
  readonly database: Database
  readonly logger: Logger
  readonly now: () => Date
  readonly version: string
  readonly sessionSecret: string
  /** The one before it, while sessions of it are open. */
  readonly sessionSecretBefore?: string
  /** Who may look at how the server is, by their addresses. */
  readonly operators?: readonly string[]
  readonly cookieSecure: boolean
  readonly trustProxy: number
  /** The key of the demo studio, where it may hang at the door. */
  readonly demo?: { readonly email: string; readonly password: string }
  /** Whoever signs in by this address finds the door shut: a demo studio that was made and is not wanted any more. */
  readonly shutFor?: string
  /** Folder of the built page; without it only the interface for programs is served. */
  readonly webRoot?: string
  /** Whoever has it reads the server's numbers; without one there are none. */
  readonly metricsToken?: string
  /** Certificate of the authority that this server's own is of, PEM: a tablet installs it once. */
  readonly authority?: string
  /** Where other machines of the network find this server. */
  readonly addresses?: () => readonly string[]
  readonly checkAnswers?: boolean
  /** Who saw what, for whoever ends the server to write it down before. */
  readonly seen?: SeenTrail
  /** A request that is not answered by then is told that the database is away. */
  readonly answerWithinMs?: number
}

/** Longer than the slowest honest answer, shorter than people wait. */
const ANSWER_WITHIN_MS = 8000

/** The largest request body: a take of half an hour with its track is half of it. */
const BODY_LIMIT = '1mb'

export function createApp(deps: AppDeps): Express {
  const { database, logger, now } = deps
  const secrets = secretsOf(deps.sessionSecret, deps.sessionSecretBefore)
  const sessions = sessionService({
    repository: sessionRepository(database),
    secrets,
    shutFor: deps.shutFor,
    operators: deps.operators ?? [],
  })
  const seen = deps.seen ?? seenTrail(database, logger)
  const metrics = metricsOf(database, deps.version, { withProcess: deps.metricsToken !== undefined })
  const handlers: Handlers = {
    ...healthRoutes(database, deps.version),
    ...roomRoutes({ addresses: deps.addresses ?? (() => []), hasAuthority: deps.authority !== undefined }),
    ...sessionRoutes(sessions, deps.demo),
    ...studentRoutes,
    ...instrumentRoutes,
    ...tapeRoutes,
    ...checkRoutes,
    ...handRoutes,
    ...fingeringRoutes,
    ...masteryRoutes,
    ...practiceRoutes,
    ...setupRoutes,
    ...studioRoutes,
    ...attachmentRoutes,
    ...auditRoutes,
    ...peopleRoutes(secrets),
    ...operationsRoutes({ database, metrics, seen, version: deps.version, since: now() }),
  }
  const cookie = sessionCookie(deps.cookieSecure)
  const devices = deviceCookie(secrets, deps.cookieSecure)
  const guesses = signInLimits(database, now, (email) => sessions.accountKeyOf(email), devices)
  const guessesAtSession = passwordLimit(database, now, (request) => cookie.read(request))
  const routerDeps = {
    database,
    handlers,
    now,
    guard: sessionGuard((token, at) => sessions.find(token, at)),
    cookie,
    devices,
    seen,
    before: {
      'openapi.read': [descriptionLimit()],
      'session.open': guesses,
      'key.use': guesses,
      'password.change': [guessesAtSession],
      'secondFactor.begin': [guessesAtSession],
      'secondFactor.confirm': [guessesAtSession],
      'secondFactor.end': [guessesAtSession],
    },
    checkAnswers: deps.checkAnswers ?? false,
    answerWithinMs: deps.answerWithinMs ?? ANSWER_WITHIN_MS,
  }

  const app = express()
  app.disable('x-powered-by')
  app.set('trust proxy', deps.trustProxy)
  app.set('query parser', 'simple')
  // Answers are not kept (`no-store`): nobody asks whether one has changed.
  app.set('etag', false)
  app.use(security(deps.cookieSecure), requestLog(logger))
  app.use(metrics.timing)
  if (deps.metricsToken !== undefined)
    app.get(`${UNVERSIONED_BASE}/metrics`, noStore, metricsRoute(metrics, deps.metricsToken))
  // A list is long and says much twice. What is secret is short, and stays as it is: its length would tell of it.
  app.use(compression({ threshold: COMPRESSED_FROM_BYTES }))
  app.use(UNVERSIONED_BASE, noStore, ownSite, express.json({ limit: BODY_LIMIT, type: 'application/json' }))
  app.use(API_BASE, apiRouter(routerDeps), notFound)
  app.use(UNVERSIONED_BASE, apiRouter(routerDeps, ['health.read', 'live.read', 'openapi.read']), notFound)
  const { authority } = deps
  if (authority !== undefined)
    app.get(AUTHORITY_PATH, (_request, response) => {
      response
        .set({ 'content-type': 'application/x-x509-ca-cert', 'content-disposition': 'attachment' })
        .send(Buffer.from(authority))
    })
  if (deps.webRoot !== undefined) app.use(webFiles(deps.webRoot))
  app.use(notFound)
  app.use(errorHandler(logger))
  return app
}

function security(https: boolean): RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'"],
        fontSrc: ["'self'"],
        imgSrc: ["'self'", 'data:'],
        mediaSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        formAction: ["'self'"],
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: https,
    referrerPolicy: { policy: 'no-referrer' },
  })
}

/** One line a request: route by name, never by address, since an address can hold what somebody searched for. */
function requestLog(logger: Logger): RequestHandler {
  return (request, response, next) => {
    const requestId = randomUUID()
    const startedAt = performance.now()
    response.locals['requestId'] = requestId
    response.setHeader('x-request-id', requestId)
    response.on('finish', () => {
      const ms = Math.round(performance.now() - startedAt)
      logger.info({
        requestId,
        method: request.method,
        route: routeOf(response),
        status: response.statusCode,
        ms,
      })
    })
    next()
  }
}

const noStore: RequestHandler = (_request, response, next) => {
  response.setHeader('cache-control', 'no-store')
  next()
}

/** A change that a browser says another site asked for is refused, signing in included. */
const ownSite: RequestHandler = (request, _response, next) => {
  if (!isReading(request) && request.get('sec-fetch-site') === 'cross-site')
    throw new ProblemError('csrf_failed')
  next()
}
