import { randomBytes } from 'node:crypto'
import { Secret, TOTP } from 'otpauth'
import type { Secrets } from '../../http/secrets'

const PERIOD_S = 30
/** A phone's clock is half a minute off, either way (RFC 6238, 5.2). */
const PERIODS_OFF = 1
const SECRET_BYTES = 20
const PURPOSE = 'second factor'

/** How many codes there are for the day that the phone is lost. */
export const SPARE_CODES = 10

const totpOf = (secret: string, label: string) =>
  new TOTP({ issuer: 'Jadefell', label, secret: Secret.fromBase32(secret), period: PERIOD_S })

export function newSecret(email: string): { readonly secret: string; readonly uri: string } {
  const secret = new Secret({ size: SECRET_BYTES }).base32
  return { secret, uri: totpOf(secret, email).toString() }
}

/**
 * The period that a code is of, counted from 1970 (RFC 6238); undefined where it is of none that holds now. What was used
 * before is refused by whoever keeps the period.
 */
export function periodOf(secret: string, code: string, now: Date): number | undefined {
  const token = code.replaceAll(' ', '')
  if (!/^\d{6}$/.test(token)) return undefined
  const off = totpOf(secret, '').validate({ token, timestamp: now.getTime(), window: PERIODS_OFF })
  return off === null ? undefined : Math.floor(now.getTime() / 1000 / PERIOD_S) + off
}

export const sealSecret = (secrets: Secrets, secret: string) => secrets.seal(PURPOSE, secret)
export const unsealSecret = (secrets: Secrets, sealed: string) => secrets.unseal(PURPOSE, sealed)

/** Letters and figures that are not taken for one another (RFC 4648, base 32), in groups of four. */
export function readableKey(characters: number): string {
  const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'
  const text = Array.from(randomBytes(characters), (byte) => alphabet[byte % alphabet.length]).join('')
  return text.replace(/.{4}(?=.)/g, '$&-')
}

/** As it was made, however it was typed. */
export function plainKey(typed: string): string {
  return typed.toUpperCase().replace(/[^A-Z2-7]/g, '')
}
