import { createCipheriv, createDecipheriv, createHmac, hkdfSync, randomBytes } from 'node:crypto'

/** What the server knows and a copy of the database does not. */
export interface Secrets {
  /** Keyed, so that who has the database alone can neither make nor test one. */
  hash(purpose: string, text: string): string
  /** The same by each secret that still holds, the present one first. */
  hashes(purpose: string, text: string): string[]
  /** Readable again with the secret alone (AES-256-GCM, its key by HKDF, RFC 5869). */
  seal(purpose: string, text: string): string
  /** Undefined where it was sealed by a secret that holds no more. */
  unseal(purpose: string, sealed: string): string | undefined
}

const CIPHER = 'aes-256-gcm'
const NONCE_BYTES = 12
const TAG_BYTES = 16

/** Of the secret in use, and of the one before it while what was made by that is still about. */
export function secretsOf(current: string, before?: string): Secrets {
  const all = before === undefined ? [current] : [current, before]
  const hashBy = (secret: string, purpose: string, text: string) =>
    createHmac('sha256', secret).update(`${purpose}:${text}`).digest('hex')
  const keyOf = (secret: string, purpose: string) =>
    Buffer.from(hkdfSync('sha256', secret, '', `jadefell ${purpose}`, 32))
  return {
    hash: (purpose, text) => hashBy(current, purpose, text),
    hashes: (purpose, text) => all.map((secret) => hashBy(secret, purpose, text)),
    seal(purpose, text) {
      const nonce = randomBytes(NONCE_BYTES)
      const cipher = createCipheriv(CIPHER, keyOf(current, purpose), nonce)
      const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()])
      return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64url')
    },
    unseal(purpose, sealed) {
      const bytes = Buffer.from(sealed, 'base64url')
      for (const secret of all)
        try {
          const cipher = createDecipheriv(CIPHER, keyOf(secret, purpose), bytes.subarray(0, NONCE_BYTES))
          cipher.setAuthTag(bytes.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES))
          const open = [cipher.update(bytes.subarray(NONCE_BYTES + TAG_BYTES)), cipher.final()]
          return Buffer.concat(open).toString('utf8')
        } catch {
          // not by this one
        }
      return undefined
    },
  }
}
