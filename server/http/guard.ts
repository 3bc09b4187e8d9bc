import { timingSafeEqual } from 'node:crypto'
import type { Request } from 'express'
import { CSRF_HEADER } from '#contracts'
import type { PublicCall, SignedIn } from './call'
import { isReading } from './reading'
import { ProblemError } from './problem-error'

/** Lets a signed-in request through, or says why not. */
export interface Guard {
  admit(request: Request, call: PublicCall): Promise<SignedIn>
}

/** `findSession` looks a token up; a change must also carry the session's CSRF token. */
export function sessionGuard(
  findSession: (token: string, now: Date) => Promise<SignedIn | undefined>,
): Guard {
  return {
    async admit(request, call) {
      const signedIn =
        call.sessionToken === undefined ? undefined : await findSession(call.sessionToken, call.now)
      if (!signedIn) throw new ProblemError('not_signed_in')
      if (!isReading(request) && !sameText(request.get(CSRF_HEADER) ?? '', signedIn.session.csrfToken))
        throw new ProblemError('csrf_failed', { detail: 'Load the page again; what you typed is kept.' })
      if (signedIn.isFrozen && !isReading(request))
        throw new ProblemError('being_restored', {
          detail: 'Nothing was saved. Send the same again in a few minutes.',
        })
      return signedIn
    },
  }
}

function sameText(a: string, b: string): boolean {
  const [left, right] = [Buffer.from(a), Buffer.from(b)]
  return left.length === right.length && timingSafeEqual(left, right)
}
