import { pipeline } from 'node:stream/promises'
import { Router, type Request, type RequestHandler, type Response } from 'express'
import { z } from 'zod'
import { ROUTES, type FieldProblem, type RouteName } from '#contracts'
import { ENDPOINTS } from '#contracts/endpoints'
import type { Endpoint } from '#contracts'
import type { Database } from '../db/database'
import { StudioStore } from '../db/studio-store'
import type { Call, Download, Handlers, PublicCall, SignedIn, UploadCall } from './call'
import { answerOnce } from './idempotency'
import { ProblemError } from './problem-error'
import type { DeviceCookie, SessionCookie } from './session-cookie'
import type { Guard } from './guard'
import { isReading } from './reading'
import { noteChange, type SeenTrail } from './trail'
import { within } from '../within'

export interface RouterDeps {
  readonly database: Database
  readonly handlers: Handlers
  readonly guard: Guard
  readonly now: () => Date
  readonly cookie: SessionCookie
  readonly devices: DeviceCookie
  readonly seen: SeenTrail
  /** Stand before a handler, as the limits on signing in do. */
  readonly before: Partial<Record<RouteName, readonly RequestHandler[]>>
  /** Checks every answer against its contract; for tests, it costs time. */
  readonly checkAnswers: boolean
  readonly answerWithinMs: number
}

/** A router with every route of the contracts bound to its handler. */
export function apiRouter(deps: RouterDeps, names = Object.keys(ROUTES) as RouteName[]): Router {
  const router = Router({ caseSensitive: true })
  for (const name of names) {
    const [method, path] = ROUTES[name]
    const before = deps.before[name] ?? []
    const verb = method.toLowerCase() as Lowercase<typeof method>
    router[verb](path, ...before, (request, response) => inTime(deps, name, request, response))
  }
  return router
}

/** Answers, or says after a while that the database does not: whoever waits for a hung one hears of it. Files take their time. */
async function inTime(
  deps: RouterDeps,
  name: RouteName,
  request: Request,
  response: Response,
): Promise<void> {
  const { upload, download }: Endpoint = ENDPOINTS[name]
  const answered = answer(deps, name, request, response).then(() => true)
  if (upload ?? download) await answered
  else if (!(await within(deps.answerWithinMs, answered)))
    throw new ProblemError('database_unavailable', {
      detail: 'It does not answer. Send the same again in a moment; it is kept once.',
    })
}

async function answer(
  deps: RouterDeps,
  name: RouteName,
  request: Request,
  response: Response,
): Promise<void> {
  const endpoint: Endpoint = ENDPOINTS[name]
  response.locals['route'] = name
  const publicCall = publicCallOf(deps, request, response)
  const signedIn = endpoint.isPublic ? undefined : await deps.guard.admit(request, publicCall)
  if (signedIn) insistOnRight(endpoint, signedIn)
  const input = checkedInput(endpoint, request)
  const params = (input as { params?: Record<string, string> }).params ?? {}
  const handle = deps.handlers[name] as (call: PublicCall & Partial<Call>, input: unknown) => Promise<unknown>

  if (signedIn && endpoint.download) {
    const file = await reading(signedIn)
    void deps.seen.saw(signedIn, publicCall.now, name, params)
    return sendFile(request, response, file)
  }
  const body = !signedIn
    ? await handle(publicCall, input)
    : endpoint.upload
      ? await handle(
          { ...publicCall, ...uploadCallOf(deps, name, signedIn, request, publicCall.now, params) },
          input,
        ).finally(() => request.resume())
      : isReading(request)
        ? await reading(signedIn)
        : await deps.database.inTransaction((transaction) => {
            const store = new StudioStore(deps.database, signedIn.session.studio.id, transaction)
            const note = (made?: unknown) => noteChange(store, signedIn, publicCall.now, name, params, made)
            const work = async () => {
              if (!endpoint.creates) await note()
              const made = await handle({ ...publicCall, signedIn, transaction, store }, input)
              if (endpoint.creates) await note(made)
              return made
            }
            const fingerprint = [name, request.params, request.body]
            return endpoint.creates ? answerOnce(store, publicCall.now, request, fingerprint, work) : work()
          })
  if (signedIn && isReading(request)) void deps.seen.saw(signedIn, publicCall.now, name, params)
  if (deps.checkAnswers) endpoint.response.parse(body)
  // Too late: whoever asked was told that the database is away.
  if (response.headersSent) return
  if (body === null) response.status(204).end()
  else response.json(body)

  function reading(who: SignedIn): Promise<unknown> {
    const store = new StudioStore(deps.database, who.session.studio.id)
    return handle({ ...publicCall, signedIn: who, transaction: undefined, store }, input)
  }
}

function insistOnRight({ needs }: Endpoint, { session }: SignedIn): void {
  if (needs === 'owner' && session.user.role !== 'owner')
    throw new ProblemError('not_allowed', { detail: 'Ask an owner of your studio.' })
  if (needs === 'operator' && !session.isOperator)
    throw new ProblemError('not_allowed', { detail: 'Whoever runs the server sees this.' })
}

function uploadCallOf(
  { database }: RouterDeps,
  name: RouteName,
  signedIn: SignedIn,
  request: Request,
  now: Date,
  params: Readonly<Record<string, string>>,
): UploadCall {
  const { studio } = signedIn.session
  const declared = Number(request.get('content-length'))
  return {
    signedIn,
    now,
    transaction: undefined,
    store: new StudioStore(database, studio.id),
    upload: {
      contentType: request.get('content-type'),
      declaredBytes: Number.isFinite(declared) ? declared : undefined,
      // What is left of a file that was refused is read away, not cut off: the next request comes on the same line.
      bytes: request.iterator({ destroyOnReturn: false }),
    },
    once: (fingerprint, work) =>
      database.inTransaction((transaction) => {
        const store = new StudioStore(database, studio.id, transaction)
        return answerOnce(store, now, request, [name, request.params, ...fingerprint], async () => {
          const made = await work(store)
          await noteChange(store, signedIn, now, name, params, made)
          return made
        })
      }),
  }
}

/** A file, or the part of it that was asked for: a player that winds asks for the rest from there (RFC 9110, 14). */
async function sendFile(request: Request, response: Response, answer: unknown): Promise<void> {
  const { mediaType, byteCount, sha256, bytes } = answer as Download
  const tag = `"${sha256}"`
  const asked = request.range(byteCount, { combine: true })
  const isOfThis = request.get('if-range') === undefined || request.get('if-range') === tag
  if (asked === -1 && isOfThis) {
    response.set('content-range', `bytes */${byteCount}`)
    throw new ProblemError('range_unsatisfiable', { detail: `The file has ${byteCount} bytes.` })
  }
  // Several parts at once are answered with the whole, as one may.
  const isOnePart = typeof asked === 'object' && asked.type === 'bytes' && asked.length === 1
  const part = isOnePart && isOfThis ? asked[0] : undefined
  const { start, end } = part ?? { start: 0, end: byteCount - 1 }
  response
    .status(part ? 206 : 200)
    .type(mediaType)
    .set({
      'accept-ranges': 'bytes',
      etag: tag,
      'content-length': String(end - start + 1),
      'content-disposition': 'attachment',
      ...(part && { 'content-range': `bytes ${start}-${end}/${byteCount}` }),
    })
  if (request.method === 'HEAD') response.end()
  else await pipeline(bytes(start, end), response)
}

function publicCallOf(deps: RouterDeps, request: Request, response: Response): PublicCall {
  const { cookie } = deps
  return {
    now: deps.now(),
    sessionToken: cookie.read(request),
    userAgent: request.get('user-agent') ?? '',
    setSessionToken: (token) => cookie.write(response, token),
    rememberDevice: (account) => deps.devices.remember(request, response, account),
    mayBeKept: (seconds) => response.setHeader('cache-control', `public, max-age=${seconds}`),
    setStatus: (status) => void response.status(status),
  }
}

function checkedInput(endpoint: Endpoint, request: Request): unknown {
  const parts = { params: request.params, query: request.query, body: request.body as unknown }
  const input: Record<string, unknown> = {}
  const fields: FieldProblem[] = []
  for (const part of ['params', 'query', 'body'] as const) {
    const schema = endpoint[part]
    if (!schema) continue
    fields.push(...brokenTexts(parts[part], part === 'params' ? 'address' : ''))
    const parsed = schema.safeParse(parts[part] ?? {})
    if (parsed.success) input[part] = parsed.data
    // A path that names no possible row is a path to nothing, not a slip of the pen.
    else if (part === 'params') throw new ProblemError('not_found')
    else fields.push(...fieldProblems(parsed.error))
  }
  if (fields.length > 0) throw new ProblemError('invalid_request', { fields })
  return input
}

/** Text with half of a character, as something that cuts texts leaves it: the database would keep another one than was sent. */
function brokenTexts(value: unknown, path: string): FieldProblem[] {
  if (typeof value === 'string')
    return !/\p{Surrogate}/u.test(value)
      ? []
      : [{ path, message: 'Half of a character stands in this text. Type it again.' }]
  if (typeof value !== 'object' || value === null) return []
  return Object.entries(value).flatMap(([name, part]) =>
    brokenTexts(part, path === '' ? name : `${path}.${name}`),
  )
}

function fieldProblems(error: z.ZodError): FieldProblem[] {
  return error.issues.map((issue) => ({ path: issue.path.join('.'), message: issue.message }))
}
