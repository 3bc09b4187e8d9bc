import { v7 as uuid } from 'uuid'
import type { OneTimeKey } from '#contracts'
import type { UserRow } from '../../db/rows'
import type { StudioStore } from '../../db/studio-store'
import type { Secrets } from '../../http/secrets'
import { plainKey, readableKey } from '../session/second-factor'
import { KEY_PURPOSE } from '../session/service'

/** A key that is given out on Thursday opens on Saturday. */
export const KEY_MS = 2 * 24 * 3600_000
/** A hundred bits: nobody guesses one, with or without a limit. */
const KEY_CHARACTERS = 20

/** Makes a key with which `user` comes in once and chooses a password; one that was given before is ended. */
export async function giveKey(
  store: StudioStore,
  secrets: Secrets,
  user: Pick<UserRow, 'id' | 'email'>,
  { by, now }: { readonly by: string; readonly now: Date },
): Promise<OneTimeKey> {
  const { oneTimeKey } = store.models
  const key = readableKey(KEY_CHARACTERS)
  const untilAt = new Date(now.getTime() + KEY_MS)
  // Of two keys the older one may be in the wrong hands.
  await store.update(oneTimeKey, { userId: user.id, usedAt: null }, { usedAt: now })
  const hash = secrets.hash(KEY_PURPOSE, plainKey(key))
  await store.insert(oneTimeKey, [
    { id: uuid(), userId: user.id, hash, madeBy: by, madeAt: now, untilAt, usedAt: null },
  ])
  return { email: user.email, key, until: untilAt.toISOString() }
}
