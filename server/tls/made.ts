import 'reflect-metadata'
import {
  AuthorityKeyIdentifierExtension,
  BasicConstraintsExtension,
  ExtendedKeyUsage,
  ExtendedKeyUsageExtension,
  KeyUsageFlags,
  KeyUsagesExtension,
  PemConverter,
  SubjectAlternativeNameExtension,
  SubjectKeyIdentifierExtension,
  X509Certificate as X509,
  X509CertificateGenerator,
} from '@peculiar/x509'
import { webcrypto, X509Certificate } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync } from 'node:fs'
import { isIP } from 'node:net'
import { join } from 'node:path'

/** What a server shows of itself, PEM. */
export interface Tls {
  readonly key: string
  /** Its certificate, those above it behind. */
  readonly cert: string
  /** The authority that a tablet must know, where it is one of this machine's own. */
  readonly authority?: string
}

const DAY_MS = 24 * 3600_000
/** Apple's devices take no longer one, also of an authority that somebody installed (825 days; HT210176, from memory). */
const CERTIFICATE_MS = 395 * DAY_MS
/** Once installed on every tablet of a school, it should stay there. */
const AUTHORITY_MS = 10 * 365 * DAY_MS
/** Renewed while there is time left, s: a server that is started once a month never shows one that has run out. */
const RENEWED_BEFORE_MS = 40 * DAY_MS

export interface Making {
  /** Where they are kept. */
  readonly folder: string
  /** Names and IP addresses by which the machine is called. */
  readonly names: readonly string[]
  readonly now: Date
  /** Writes a file that its owner alone can read. */
  readonly write: (path: string, text: string) => void
}

/**
 * A certificate for a machine on a network without a name of its own, out of an authority that is made once. It is made anew before
 * it runs out, and where the machine has moved to another address.
 */
export async function madeCertificate({ folder, names, now, write }: Making): Promise<Tls> {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const file = (name: string) => join(folder, name)
  const read = (name: string) => (existsSync(file(name)) ? readFileSync(file(name), 'utf8') : undefined)
  const lasts = (pem: string | undefined, forMs: number) =>
    pem !== undefined && Date.parse(new X509Certificate(pem).validTo) - now.getTime() > forMs

  let authority = read('authority.pem')
  let authorityKey = read('authority-key.pem')
  if (!authorityKey || !authority || !lasts(authority, CERTIFICATE_MS)) {
    const made = await makeAuthority(now)
    ;[authority, authorityKey] = [made.cert, made.key]
    write(file('authority-key.pem'), authorityKey)
    write(file('authority.pem'), authority)
  }
  const chain = (cert: string) => [cert, authority].map((pem) => `${pem.trim()}\n`).join('')
  const [cert, key] = [read('server.pem'), read('server-key.pem')]
  if (key && cert && lasts(cert, RENEWED_BEFORE_MS) && isFor(cert, names, authority))
    return { key, cert: chain(cert), authority }
  const made = await makeCertificate(names, now, { cert: authority, key: authorityKey })
  write(file('server-key.pem'), made.key)
  write(file('server.pem'), made.cert)
  return { key: made.key, cert: chain(made.cert), authority }
}

function isFor(cert: string, names: readonly string[], authority: string): boolean {
  const certificate = new X509Certificate(cert)
  const named = (name: string) => (isIP(name) ? certificate.checkIP(name) : certificate.checkHost(name))
  return (
    names.every((name) => named(name) !== undefined) &&
    certificate.checkIssued(new X509Certificate(authority))
  )
}

const EC = { name: 'ECDSA', namedCurve: 'P-256' }
const SIGNED = { name: 'ECDSA', hash: 'SHA-256' }

interface Pems {
  readonly cert: string
  readonly key: string
}

async function makeAuthority(now: Date): Promise<Pems> {
  const keys = await newKeys()
  const certificate = await X509CertificateGenerator.createSelfSigned({
    // One authority is told from another by its date, where a tablet has seen two.
    name: `CN=Jadefell on this network (${now.toISOString().slice(0, 10)})`,
    keys,
    signingAlgorithm: SIGNED,
    notBefore: new Date(now.getTime() - DAY_MS),
    notAfter: new Date(now.getTime() + AUTHORITY_MS),
    extensions: [
      new BasicConstraintsExtension(true, 0, true),
      new KeyUsagesExtension(KeyUsageFlags.keyCertSign | KeyUsageFlags.cRLSign, true),
      await SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  })
  return { cert: certificate.toString('pem'), key: await pemOf(keys.privateKey) }
}

async function makeCertificate(names: readonly string[], now: Date, authority: Pems): Promise<Pems> {
  const keys = await newKeys()
  const issuer = new X509(authority.cert)
  const certificate = await X509CertificateGenerator.create({
    subject: `CN=${names[0] ?? 'localhost'}`,
    issuer: issuer.subject,
    publicKey: keys.publicKey,
    signingKey: await webcrypto.subtle.importKey(
      'pkcs8',
      PemConverter.decodeFirst(authority.key),
      EC,
      false,
      ['sign'],
    ),
    signingAlgorithm: SIGNED,
    // A tablet's clock may be behind.
    notBefore: new Date(now.getTime() - DAY_MS),
    notAfter: new Date(now.getTime() + CERTIFICATE_MS),
    extensions: [
      new BasicConstraintsExtension(false, undefined, true),
      new KeyUsagesExtension(KeyUsageFlags.digitalSignature, true),
      new ExtendedKeyUsageExtension([ExtendedKeyUsage.serverAuth]),
      new SubjectAlternativeNameExtension(
        names.map((value) => ({ type: isIP(value) ? ('ip' as const) : ('dns' as const), value })),
      ),
      await SubjectKeyIdentifierExtension.create(keys.publicKey),
      await AuthorityKeyIdentifierExtension.create(issuer.publicKey),
    ],
  })
  return { cert: certificate.toString('pem'), key: await pemOf(keys.privateKey) }
}

function newKeys(): Promise<webcrypto.CryptoKeyPair> {
  return webcrypto.subtle.generateKey(EC, true, ['sign', 'verify'])
}

async function pemOf(key: webcrypto.CryptoKey): Promise<string> {
  return PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', key), 'PRIVATE KEY')
}
