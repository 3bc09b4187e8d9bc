import { ZxcvbnFactory } from '@zxcvbn-ts/core'
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common'
import { hash, verify, type Options } from '@node-rs/argon2'

/** Argon2id with 19 MiB, two passes, one lane: the OWASP Password Storage Cheat Sheet's first recommendation. */
const ARGON2ID: Options = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 }

export function hashPassword(password: string): Promise<string> {
  return hash(password, ARGON2ID)
}

/** Guessed in fewer tries than this by a list of what people choose, it is refused (OWASP ASVS 2.1.7). */
const FEWEST_GUESSES = 1e8

let strength: ZxcvbnFactory | undefined

/** What is wrong with a password that somebody chooses, in a sentence; undefined where it is hard enough to guess. */
export function weaknessOf(password: string, about: readonly string[]): string | undefined {
  strength ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs })
  const words = about.flatMap((text) => [text, ...text.split(/[\s@.]+/)]).filter((word) => word.length > 2)
  return strength.check(password, [...words, 'jadefell']).guesses < FEWEST_GUESSES
    ? 'This one is guessed early: it is among what many take, or close to your name. Take a few words that do not belong together.'
    : undefined
}

/** Takes as long for an account that does not exist as for a wrong password. */
export async function passwordMatches(stored: string | undefined, password: string): Promise<boolean> {
  if (stored) return verify(stored, password)
  await hash(password, ARGON2ID)
  return false
}
