import { PROBLEMS, type FieldProblem, type ProblemCode } from '#contracts'

interface Particulars {
  readonly detail?: string
  readonly fields?: readonly FieldProblem[]
  readonly data?: unknown
}

/** An expected failure on its way to the one error middleware, which answers it as problem+json. */
export class ProblemError extends Error {
  constructor(
    readonly code: ProblemCode,
    readonly particulars: Particulars = {},
  ) {
    super(particulars.detail ?? PROBLEMS[code].title)
  }
}

/** One field cannot be used; the message says what to do. */
export function fieldProblem(path: string, message: string): ProblemError {
  return new ProblemError('invalid_request', { fields: [{ path, message }] })
}
