import { randomBytes } from 'node:crypto'
import {
  chmodSync,
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeSync,
} from 'node:fs'
import { join, resolve } from 'node:path'
import { newSigningKey } from './signing'

export interface Secrets {
  readonly databasePassword: string
  readonly rootPassword: string
  readonly sessionSecret: string
  /** Still known, so that nobody is signed out by the new one. */
  readonly sessionSecretBefore?: string
  /** By which backups are known again as this installation's own. */
  readonly signingKey: string
}

/** The folder that holds everything of one installation: database, secrets, what runs. */
export interface DataDirectory {
  readonly path: string
  readonly secrets: Secrets
  file(name: string): string
}

/** Where everything of an installation lies, as long as nobody says otherwise. */
export function dataPath(): string {
  return resolve(process.env['JADEFELL_DATA'] ?? '.jadefell')
}

const MARKER = 'jadefell.json'

/** Opens the folder, or makes it. Refuses one that holds something else. */
export function openDataDirectory(path: string): DataDirectory {
  const absolute = resolve(path)
  const file = (name: string) => join(absolute, name)
  if (existsSync(absolute) && readdirSync(absolute).length > 0 && !existsSync(file(MARKER)))
    throw new Error(
      `${absolute} is not empty and not a data directory of Jadefell. Point JADEFELL_DATA at an empty folder.`,
    )
  mkdirSync(absolute, { recursive: true, mode: 0o700 })
  chmodSync(absolute, 0o700)
  if (!existsSync(file(MARKER)))
    writePrivate(file(MARKER), JSON.stringify({ layout: 1, ...newSecrets() }, null, 2))
  const kept = JSON.parse(readFileSync(file(MARKER), 'utf8')) as Secrets
  const secrets = { ...kept, signingKey: kept.signingKey ?? newSigningKey() }
  // One of a version before there were signatures.
  if (secrets.signingKey !== kept.signingKey) writePrivate(file(MARKER), JSON.stringify(secrets, null, 2))
  return { path: absolute, secrets, file }
}

/** Another secret for sessions, which holds from the next start on; the one of now is known until the next time. */
export function rotateSessionSecret(data: DataDirectory): void {
  const { secrets } = data
  const { sessionSecret } = newSecrets()
  const next = { ...secrets, sessionSecret, sessionSecretBefore: secrets.sessionSecret }
  writePrivate(data.file(MARKER), JSON.stringify(next, null, 2))
}

/** A file that only its owner can read, there whole or as it was before: a full disk or a cut in the middle leaves no half of it. */
export function writePrivate(path: string, text: string): void {
  const beside = `${path}.${process.pid}.new`
  try {
    const file = openSync(beside, 'w', 0o600)
    try {
      writeSync(file, text)
      fsyncSync(file)
    } finally {
      closeSync(file)
    }
    renameSync(beside, path)
  } catch (error) {
    rmSync(beside, { force: true })
    throw error
  }
}

function newSecrets(): Secrets {
  const secret = () => randomBytes(24).toString('base64url')
  return {
    databasePassword: secret(),
    rootPassword: secret(),
    sessionSecret: `${secret()}${secret()}`,
    signingKey: newSigningKey(),
  }
}
