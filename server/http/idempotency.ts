import { createHash } from 'node:crypto'
import type { Request } from 'express'
import { stringify } from 'safe-stable-stringify'
import { IDEMPOTENCY_HEADER } from '#contracts'
import { errorCodeOf } from '../db/errors'
import type { StudioStore } from '../db/studio-store'
import { ProblemError } from './problem-error'

/**
 * Runs `work` once for each key a studio sends, inside the transaction of `store`: the key is claimed first, so a
 * second request with it waits for the first to commit and then gets the first one's answer. `fingerprint` tells what is
 * saved: the same key with another is refused.
 */
export async function answerOnce<T>(
  store: StudioStore,
  now: Date,
  request: Request,
  fingerprint: readonly unknown[],
  work: () => Promise<T>,
): Promise<T> {
  const idempotencyKey = request.get(IDEMPOTENCY_HEADER)
  if (!idempotencyKey || !/^[\x21-\x7e]{8,80}$/.test(idempotencyKey))
    throw new ProblemError('idempotency_key_missing', {
      detail:
        'Send 8 to 80 printable characters that are new for every save and the same when it is sent again.',
    })
  const { idempotencyKey: table } = store.models
  const hashOf = (text: string) => createHash('sha256').update(text).digest('hex')
  // Fields in another order are the same save.
  const requestHash = hashOf(stringify(fingerprint) ?? '')
  try {
    await store.insert(table, [{ idempotencyKey, requestHash, answer: null, createdAt: now }])
  } catch (error) {
    if (errorCodeOf(error) !== 'ER_DUP_ENTRY') throw error
    const earlier = await store.one(table, { idempotencyKey })
    if (!earlier) throw error
    // Keys of before fields were put in order.
    const known = [requestHash, hashOf(JSON.stringify(fingerprint))]
    if (!known.includes(earlier.requestHash)) throw new ProblemError('idempotency_key_reused')
    return earlier.answer as T
  }
  const answer = await work()
  await store.update(table, { idempotencyKey }, { answer })
  return answer
}
