import type { ErrorRequestHandler, RequestHandler, Response } from 'express'
import type { Logger } from 'pino'
import { PROBLEMS, type Problem, type ProblemCode } from '#contracts'
import { isConflict, isFull, isUnavailable } from '../db/errors'
import { ProblemError } from './problem-error'

export const notFound: RequestHandler = () => {
  throw new ProblemError('not_found')
}

/** The one place where failures become answers. Logs what is the server's fault, without anything a person typed. */
export function errorHandler(logger: Logger): ErrorRequestHandler {
  return (error: unknown, _request, response, next) => {
    if (response.headersSent) return next(error)
    const problem = problemOf(error)
    response.locals['problem'] = problem.code
    if (problem.code === 'internal')
      logger.error({
        requestId: response.locals['requestId'] as string,
        route: routeOf(response),
        stack: stackOf(error),
      })
    if (problem.status === 503 || problem.status === 507) response.setHeader('retry-after', '1')
    // Set by what was to be sent packed, a file of the page, before it could not be.
    response.removeHeader('content-encoding')
    response.status(problem.status).type('application/problem+json')
    response.send(
      JSON.stringify({ ...problem, requestId: response.locals['requestId'] as string } satisfies Problem),
    )
  }
}

/** What went wrong with it, once it was answered. */
export function problemCodeOf(response: Response): ProblemCode | undefined {
  return response.locals['problem'] as ProblemCode | undefined
}

export function routeOf(response: Response): string {
  return (response.locals['route'] as string | undefined) ?? 'none'
}

function problemOf(error: unknown): Problem {
  if (error instanceof ProblemError) return { ...describe(error.code), ...error.particulars }
  if (isUnavailable(error))
    return { ...describe('database_unavailable'), detail: 'Nothing was saved. Try again in a moment.' }
  if (isFull(error))
    return {
      ...describe('disk_full'),
      detail:
        'Nothing was saved. It is sent again by itself once somebody has made room on the server’s disk.',
    }
  if (isConflict(error))
    return {
      ...describe('taken_meanwhile'),
      detail: 'Somebody saved something at the same moment. Look at it as it is now, then try again.',
    }
  const type = (error as { type?: unknown }).type
  if (type === 'entity.parse.failed' || type === 'charset.unsupported' || type === 'encoding.unsupported')
    return describe('malformed_json')
  if (type === 'entity.too.large') return describe('too_large')
  // Express throws these for a path that cannot be decoded.
  if (error instanceof URIError) return describe('not_found')
  const code = CODE_OF_STATUS[statusOf(error) ?? 0]
  if (code) return describe(code)
  return { ...describe('internal'), detail: 'It is written down under the request id. Nothing was saved.' }
}

/** What Express and its parts say of a caller's fault: a missing file, a range beyond its end, bytes that do not unpack. */
const CODE_OF_STATUS: Readonly<Record<number, ProblemCode>> = {
  400: 'malformed_request',
  403: 'not_found',
  404: 'not_found',
  412: 'precondition_failed',
  413: 'too_large',
  415: 'malformed_request',
  416: 'range_unsatisfiable',
}

function statusOf(error: unknown): number | undefined {
  const { status } = error as { status?: unknown }
  return typeof status === 'number' ? status : undefined
}

function describe(code: ProblemCode): Problem {
  return { type: `/problems/${code}`, code, ...PROBLEMS[code] }
}

/** The stack without its message: a message of the database can quote a row. */
function stackOf(error: unknown): string {
  if (!(error instanceof Error)) return typeof error
  const frames = (error.stack ?? '').split('\n').filter((row) => /^\s+at /.test(row))
  return [error.name, ...frames].join('\n')
}
