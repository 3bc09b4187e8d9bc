import { closeSync, createReadStream, createWriteStream, openSync, readSync, rmSync } from 'node:fs'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream } from 'node:stream/web'
import { Decrypter, Encrypter } from 'age-encryption'

/** The first line of a file in the age format, version 1. */
const AGE = 'age-encryption.org/v1'
/** Shorter than this is guessed by who has the file for ever. */
export const SHORTEST_PASSPHRASE = 12

/** Whether a file opens by a passphrase alone. */
export function isLocked(file: string): boolean {
  const head = Buffer.alloc(AGE.length)
  const descriptor = openSync(file, 'r')
  try {
    return readSync(descriptor, head, 0, head.length, 0) === head.length && head.toString() === AGE
  } finally {
    closeSync(descriptor)
  }
}

/** Writes what is in `from` to `to`, readable with the passphrase alone: in the age format, which other programs read as well. */
export async function lockFile(from: string, to: string, passphrase: string): Promise<void> {
  if (passphrase.length < SHORTEST_PASSPHRASE)
    throw new Error(`Take a passphrase of ${SHORTEST_PASSPHRASE} characters or more. Nothing was written.`)
  const encrypter = new Encrypter()
  encrypter.setPassphrase(passphrase)
  await pass(from, to, (bytes) => encrypter.encrypt(bytes))
}

/** The opposite; throws where the passphrase is another, or the file is not as it was written. */
export async function unlockFile(from: string, to: string, passphrase: string): Promise<void> {
  const decrypter = new Decrypter()
  decrypter.addPassphrase(passphrase)
  try {
    await pass(from, to, (bytes) => decrypter.decrypt(bytes))
  } catch (error) {
    rmSync(to, { force: true })
    throw new Error(`${from} does not open: the passphrase is another, or the file was cut or damaged.`, {
      cause: error,
    })
  }
}

type Bytes = globalThis.ReadableStream<Uint8Array>

async function pass(from: string, to: string, change: (bytes: Bytes) => Promise<Bytes>): Promise<void> {
  const changed = await change(Readable.toWeb(createReadStream(from)) as unknown as Bytes)
  await pipeline(
    Readable.fromWeb(changed as unknown as ReadableStream<Uint8Array>),
    createWriteStream(to, { mode: 0o600, flush: true }),
  )
}
