import { hash, verify, type Options } from '@node-rs/argon2'

/** Argon2id with 19 MiB, two passes, one lane: the OWASP Password Storage Cheat Sheet's first recommendation. */
const ARGON2ID: Options = { algorithm: 2, memoryCost: 19_456, timeCost: 2, parallelism: 1 }

export function hashPassword(password: string): Promise<string> {
  return hash(password, ARGON2ID)
}

/** Takes as long for an account that does not exist as for a wrong password. */
export async function passwordMatches(stored: string | undefined, password: string): Promise<boolean> {
  if (stored !== undefined) return verify(stored, password)
  await hash(password, ARGON2ID)
  return false
}
