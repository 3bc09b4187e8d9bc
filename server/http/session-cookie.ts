import { parseCookie, stringifySetCookie } from 'cookie'
import type { Request, Response } from 'express'

const NAME = 'jadefell_session'
/** Browsers take such a cookie only over HTTPS, from this host alone, for all of it: no neighbour can plant one (RFC 6265bis). */
const SECURE_NAME = `__Host-${NAME}`
/** The server ends sessions by its own clock; this only stops a browser from sending a dead one for ever. */
const MAX_AGE_S = 30 * 24 * 3600

/** The cookie that carries the session's token: out of scripts' reach and never sent from another site. */
export function sessionCookie(secure: boolean) {
  const name = secure ? SECURE_NAME : NAME
  return {
    read(request: Request): string | undefined {
      return parseCookie(request.headers.cookie ?? '')[name]
    },
    write(response: Response, token: string | undefined): void {
      const cookie = stringifySetCookie({
        name,
        value: token ?? '',
        httpOnly: true,
        sameSite: 'strict',
        secure,
        path: '/',
        maxAge: token === undefined ? 0 : MAX_AGE_S,
      })
      response.append('set-cookie', cookie)
    },
  }
}

export type SessionCookie = ReturnType<typeof sessionCookie>
