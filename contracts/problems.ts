/** Every error the server answers with, as problem+json (RFC 9457): HTTP status and title by code. */
export const PROBLEMS = {
  invalid_request: { status: 422, title: 'Some of this cannot be saved' },
  malformed_json: { status: 400, title: 'The request is not JSON' },
  malformed_request: { status: 400, title: 'The request cannot be read' },
  range_unsatisfiable: { status: 416, title: 'There is no such part of this' },
  precondition_failed: { status: 412, title: 'The page is not the one that was asked for' },
  too_many_requests: { status: 429, title: 'Too many requests' },
  too_large: { status: 413, title: 'The request is too large' },
  unsupported_type: { status: 415, title: 'This kind of file is not kept here' },
  sound_not_allowed: { status: 403, title: 'The sound may not be kept' },
  removed_since: { status: 410, title: 'This was kept, and removed since' },
  upload_incomplete: { status: 400, title: 'The file did not arrive whole' },
  idempotency_key_missing: { status: 400, title: 'A save needs an Idempotency-Key header' },
  idempotency_key_reused: { status: 422, title: 'This Idempotency-Key was used for something else' },
  not_signed_in: { status: 401, title: 'Sign in first' },
  wrong_credentials: { status: 401, title: 'The address or the password is wrong' },
  code_needed: { status: 401, title: 'The code of your second factor is needed' },
  wrong_code: { status: 401, title: 'This code does not hold' },
  wrong_key: { status: 401, title: 'This key does not open the door' },
  not_allowed: { status: 403, title: 'This is not yours to do' },
  last_owner: { status: 409, title: 'A studio keeps an owner' },
  too_many_attempts: { status: 429, title: 'Too many attempts to sign in' },
  csrf_failed: { status: 403, title: 'This page is out of date' },
  not_found: { status: 404, title: 'There is nothing here' },
  changed_meanwhile: { status: 409, title: 'Somebody changed this meanwhile' },
  taken_meanwhile: { status: 409, title: 'Somebody was quicker' },
  instrument_lent: { status: 409, title: 'Somebody has this instrument' },
  instrument_not_measured: { status: 409, title: 'The string length is not measured yet' },
  length_doubtful: { status: 422, title: 'This length does not suit the size' },
  length_impossible: { status: 422, title: 'No instrument of this family has this length' },
  place_doubtful: { status: 422, title: 'No tape creeps that far' },
  database_unavailable: { status: 503, title: 'The database is away' },
  disk_full: { status: 507, title: 'The disk of the server is full' },
  being_restored: { status: 503, title: 'A backup is being put back' },
  internal: { status: 500, title: 'Something went wrong here' },
} as const

export type ProblemCode = keyof typeof PROBLEMS

/** A fault in one field of what was sent. */
export interface FieldProblem {
  /** Dotted path, as in `readings.2.cents`. */
  readonly path: string
  /** What is wrong and what to do, in a sentence. */
  readonly message: string
}

export interface Problem {
  readonly type: string
  readonly title: string
  readonly status: number
  readonly code: ProblemCode
  readonly detail?: string
  readonly fields?: readonly FieldProblem[]
  /** What the code promises beside itself: the judgement of a length, the row as it is now. */
  readonly data?: unknown
  readonly requestId?: string
}
