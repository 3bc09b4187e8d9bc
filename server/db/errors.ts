/** Nothing of the transaction was kept, and it may well be another time: it lost a deadlock, or read what was just replaced. */
export const TRIED_AGAIN: ReadonlySet<string> = new Set(['ER_LOCK_DEADLOCK', 'ER_CHECKREAD'])

/** Of a node that lost its cluster, or is still joining it: it answers, and knows nothing that may be relied on. */
export const NOT_OF_CLUSTER = 'ER_UNKNOWN_COM_ERROR'

/** The server's or connector's own code behind an error, as in `ER_DUP_ENTRY`. */
export function errorCodeOf(error: unknown): string | undefined {
  for (let e: unknown = error; e instanceof Error; e = nested(e)) {
    const { code } = e as { code?: unknown }
    if (typeof code === 'string') return code
  }
  return undefined
}

/** True when the database could not be reached, or went away in the middle: nothing is known to be wrong with the request. */
export function isUnavailable(error: unknown): boolean {
  if (!isOfDatabase(error)) return false
  if (error.name.startsWith('SequelizeConnection')) return true
  const code = errorCodeOf(error)
  return code !== undefined && UNAVAILABLE.has(code)
}

/** True where nothing could be kept for want of room. */
export function isFull(error: unknown): boolean {
  return isOfDatabase(error) && FULL.has(errorCodeOf(error) ?? '')
}

/** True where two saves met and the other was quicker: a key is taken, or what it pointed at is gone. */
export function isConflict(error: unknown): boolean {
  return isOfDatabase(error) && CONFLICTS.has(errorCodeOf(error) ?? '')
}

/** A file that is missing and a caller who hangs up have codes of the same names. */
function isOfDatabase(error: unknown): error is Error {
  for (let e: unknown = error; e instanceof Error; e = nested(e))
    if (e.name.startsWith('Sequelize') || e.name === 'SqlError') return true
  return false
}

const CONFLICTS = new Set(['ER_DUP_ENTRY', 'ER_NO_REFERENCED_ROW', 'ER_NO_REFERENCED_ROW_2'])

const UNAVAILABLE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOENT',
  'ER_SOCKET_UNEXPECTED_CLOSE',
  'ER_CMD_CONNECTION_CLOSED',
  'ER_CONNECTION_TIMEOUT',
  'ER_GET_CONNECTION_TIMEOUT',
  'ER_SOCKET_BAD_PORT',
  'ER_SERVER_SHUTDOWN',
  'ER_SOCKET_TIMEOUT',
  'ER_CONNECTION_ALREADY_CLOSED',
  'ER_CONNECTION_KILLED',
  'ER_LOCK_WAIT_TIMEOUT',
  NOT_OF_CLUSTER,
  // A node that lost its cluster while it kept something: whether it is kept the others know, asked by its key.
  'ER_ERROR_DURING_COMMIT',
  ...TRIED_AGAIN,
])

/** The disk is full, a table may not grow, or a file of it could not be written: the outbox tries again until somebody has made room. */
const FULL = new Set(['ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ER_ERROR_ON_WRITE', 'ENOSPC', 'EDQUOT'])

function nested(error: Error): unknown {
  const { parent, original, cause } = error as Error & {
    parent?: unknown
    original?: unknown
    cause?: unknown
  }
  return [parent, original, cause].find((e) => e instanceof Error && e !== error)
}
