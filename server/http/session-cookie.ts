import { parseCookie, stringifySetCookie } from 'cookie'
import type { Request, Response } from 'express'

const NAME = 'jadefell_session'
/** The server ends sessions by its own clock; this only stops a browser from sending a dead one for ever. */
const MAX_AGE_S = 30 * 24 * 3600

/** The cookie that carries the session's token: out of scripts' reach and never sent from another site. */
export function sessionCookie(secure: boolean) {
  return {
    read(request: Request): string | undefined {
      return parseCookie(request.headers.cookie ?? '')[NAME]
    },
    write(response: Response, token: string | undefined): void {
      const cookie = stringifySetCookie({
        name: NAME,
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
