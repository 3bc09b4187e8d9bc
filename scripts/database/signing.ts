import {
  createPrivateKey,
  createPublicKey,
  generateKeyPairSync,
  sign,
  verify,
  type KeyObject,
} from 'node:crypto'

/** Signs what this installation writes (Ed25519, RFC 8032), so that it knows its own again. */
export interface Signer {
  /** SPKI, base64. */
  readonly publicKey: string
  sign(text: string): string
}

export interface Signed {
  readonly publicKey: string
  readonly signature: string
}

/** A new key, PKCS #8, base64. */
export function newSigningKey(): string {
  return generateKeyPairSync('ed25519').privateKey.export({ type: 'pkcs8', format: 'der' }).toString('base64')
}

export function signerOf(signingKey: string): Signer {
  const key = createPrivateKey({ key: Buffer.from(signingKey, 'base64'), type: 'pkcs8', format: 'der' })
  return {
    publicKey: base64Of(createPublicKey(key)),
    sign: (text) => sign(null, Buffer.from(text), key).toString('base64'),
  }
}

/** Whether the holder of that key signed the text. */
export function isSigned(text: string, { publicKey, signature }: Signed): boolean {
  try {
    const key = createPublicKey({ key: Buffer.from(publicKey, 'base64'), type: 'spki', format: 'der' })
    return verify(null, Buffer.from(text), key, Buffer.from(signature, 'base64'))
  } catch {
    return false
  }
}

function base64Of(key: KeyObject): string {
  return key.export({ type: 'spki', format: 'der' }).toString('base64')
}
