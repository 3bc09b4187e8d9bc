import { createPrivateKey, X509Certificate } from 'node:crypto'
import { readFileSync, statSync } from 'node:fs'
import type { Server } from 'node:https'
import { createSecureContext } from 'node:tls'
import type { Tls } from './made'

export interface TlsFiles {
  /** PEM; the certificates above it behind it. */
  readonly cert: string
  readonly key: string
}

/** Reads a certificate and its key; throws, in a sentence, where they cannot be used. */
export function givenCertificate(files: TlsFiles): Tls {
  const tls = { cert: readText('HTTPS', files.cert), key: readText('HTTPS_KEY', files.key) }
  let fits: boolean
  try {
    fits = new X509Certificate(tls.cert).checkPrivateKey(createPrivateKey(tls.key))
    if (fits) createSecureContext(tls)
  } catch (error) {
    throw new Error(
      `${files.cert} and ${files.key} cannot be used for HTTPS: ${(error as Error).message}. Both are PEM files, the key without a passphrase.`,
      { cause: error },
    )
  }
  if (!fits) throw new Error(`The key ${files.key} is not of the certificate ${files.cert}.`)
  return tls
}

function readText(setting: string, path: string): string {
  try {
    return readFileSync(path, 'utf8')
  } catch (error) {
    throw new Error(`${setting}: ${path} cannot be read (${(error as NodeJS.ErrnoException).code}).`, {
      cause: error,
    })
  }
}

const ASKED_EVERY_MS = 60 * 60_000

/** Takes over a certificate that was renewed beside a running server, within the hour. `fail` hears of one that cannot be used yet. */
export function followRenewal(
  server: Pick<Server, 'setSecureContext'>,
  files: TlsFiles,
  fail: (error: Error) => void,
): { readonly look: () => void; readonly stop: () => void } {
  const written = () => statSync(files.cert).mtimeMs
  let seen = written()
  const look = () => {
    try {
      const now = written()
      if (now === seen) return
      server.setSecureContext(givenCertificate(files))
      seen = now
    } catch (error) {
      // Half written, or the key is still the old one: the next look finds both.
      fail(error as Error)
    }
  }
  const timer = setInterval(look, ASKED_EVERY_MS)
  timer.unref()
  return { look, stop: () => clearInterval(timer) }
}
