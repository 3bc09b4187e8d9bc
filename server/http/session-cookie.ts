import { randomBytes } from 'node:crypto'
import { parseCookie, stringifySetCookie } from 'cookie'
import type { Request, Response } from 'express'
import type { Secrets } from './secrets'

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

const DEVICE_NAME = 'jadefell_device'
/** A term away and a long holiday; it opens nothing. */
const DEVICE_AGE_S = 400 * 24 * 3600
/** A tablet of the studio knows several teachers. */
const MOST_ACCOUNTS = 6
const DEVICE_PURPOSE = 'device'

/**
 * Marks of accounts that came in from this browser before: guesses from it are counted by themselves, so that nobody's guesses
 * from elsewhere keep its teacher out (OWASP, "Slow Down Online Guessing Attacks with Device Cookies"). It lets nobody in.
 */
export function deviceCookie(secrets: Secrets, secure: boolean) {
  const name = secure ? `__Host-${DEVICE_NAME}` : DEVICE_NAME
  const marks = (request: Request) =>
    (parseCookie(request.headers.cookie ?? '')[name] ?? '').split('.').slice(0, MOST_ACCOUNTS)
  const isOf = (mark: string, account: string) => {
    const [nonce = '', hash = ''] = mark.split('-')
    return secrets.hashes(DEVICE_PURPOSE, `${account} ${nonce}`).includes(hash)
  }
  return {
    /** The device as far as this account knows it. */
    known: (request: Request, account: string): string | undefined =>
      marks(request).find((mark) => isOf(mark, account)),
    remember(request: Request, response: Response, account: string): void {
      const others = marks(request).filter((mark) => /^\w+-\w+$/.test(mark) && !isOf(mark, account))
      const nonce = randomBytes(12).toString('hex')
      const mark = `${nonce}-${secrets.hash(DEVICE_PURPOSE, `${account} ${nonce}`)}`
      const value = [mark, ...others].slice(0, MOST_ACCOUNTS).join('.')
      const more = { httpOnly: true, sameSite: 'strict', secure, path: '/', maxAge: DEVICE_AGE_S } as const
      response.append('set-cookie', stringifySetCookie({ name, value, ...more }))
    },
  }
}

export type DeviceCookie = ReturnType<typeof deviceCookie>
