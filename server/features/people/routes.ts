import { Op } from 'sequelize'
import { v7 as uuid } from 'uuid'
import type { Person, PersonChange } from '#contracts'
import type { UserRow } from '../../db/rows'
import type { StudioStore } from '../../db/studio-store'
import type { Call, Handlers } from '../../http/call'
import { ProblemError } from '../../http/problem-error'
import type { Secrets } from '../../http/secrets'
import { normalEmail } from '../session/email'
import { giveKey } from './one-time-key'

/** Who teaches in the studio. */
export function peopleRoutes(
  secrets: Secrets,
): Pick<Handlers, 'people.list' | 'people.invite' | 'people.change' | 'people.key'> {
  const keyFor = ({ store, signedIn, now }: Call, user: UserRow) =>
    giveKey(store, secrets, user, { by: signedIn.session.user.id, now })

  return {
    'people.list': (call) => peopleOf(call),
    async 'people.invite'(call, { body }) {
      const { store } = call
      const user = {
        id: uuid(),
        email: normalEmail(body.email),
        name: body.name,
        passwordHash: '',
        role: body.role,
        leftAt: null,
      }
      const studioId = store.studioId
      if ((await store.models.user.count({ where: { email: user.email } })) > 0)
        throw new ProblemError('taken_meanwhile', {
          detail:
            'Somebody has this address already. Who left comes back by the list; otherwise take another.',
        })
      await store.insert(store.models.user, [user])
      const key = await keyFor(call, { ...user, studioId })
      return { person: await personOf(call, user.id), key }
    },
    async 'people.change'(call, { params: { userId }, body }) {
      const { store, now } = call
      const user = await userOf(store, userId)
      await insistOnOwner(store, user, body)
      const leftAt = body.hasLeft === undefined ? user.leftAt : body.hasLeft ? (user.leftAt ?? now) : null
      await store.update(store.models.user, { id: userId }, { role: body.role ?? user.role, leftAt })
      // Whoever left has no door open, and no key to one.
      if (leftAt) {
        await store.update(store.models.oneTimeKey, { userId, usedAt: null }, { usedAt: now })
        await store.remove(store.models.session, { userId })
      }
      return personOf(call, userId)
    },
    async 'people.key'(call, { params: { userId } }) {
      const user = await userOf(call.store, userId)
      if (user.leftAt) throw new ProblemError('not_found')
      return keyFor(call, user)
    },
  }
}

async function userOf(store: StudioStore, id: string): Promise<UserRow> {
  const user = await store.one(store.models.user, { id })
  if (!user) throw new ProblemError('not_found')
  return user
}

/** Somebody must be left who can let others in. */
async function insistOnOwner(store: StudioStore, user: UserRow, change: PersonChange): Promise<void> {
  const stays = change.hasLeft !== true && (change.role ?? user.role) === 'owner'
  if (user.role !== 'owner' || user.leftAt || stays) return
  // Two owners who end one another at the same moment: the second waits for the first, and sees what it did.
  const others = await store.select<{ id: string }>(
    `SELECT id FROM user WHERE studio_id = :studioId AND role = 'owner' AND left_at IS NULL FOR UPDATE`,
  )
  if (others.every(({ id }) => id === user.id))
    throw new ProblemError('last_owner', { detail: 'Make somebody else an owner first.' })
}

async function peopleOf({ store, signedIn, now }: Call, id?: string): Promise<Person[]> {
  const { models } = store
  const of = id === undefined ? {} : { userId: id }
  const users = await store.all(models.user, id === undefined ? {} : { id }, { order: [['name', 'ASC']] })
  const sessions = await store.all(models.session, { ...of, expiresAt: { [Op.gt]: now } })
  const factors = await store.all(models.secondFactor, { ...of, confirmedAt: { [Op.ne]: null } })
  const keys = await store.all(models.oneTimeKey, { ...of, usedAt: null, untilAt: { [Op.gt]: now } })
  return users.map((user): Person => {
    const seen = sessions.filter(({ userId }) => userId === user.id).map(({ seenAt }) => seenAt.getTime())
    return {
      id: user.id,
      name: user.name,
      email: user.email,
      role: user.role,
      isSelf: user.id === signedIn.session.user.id,
      hasPassword: user.passwordHash !== '',
      hasSecondFactor: factors.some(({ userId }) => userId === user.id),
      seenAt: seen.length > 0 ? new Date(Math.max(...seen)).toISOString() : null,
      keyUntil: keys.find(({ userId }) => userId === user.id)?.untilAt.toISOString() ?? null,
      leftAt: user.leftAt?.toISOString() ?? null,
    }
  })
}

async function personOf(call: Call, id: string): Promise<Person> {
  const [person] = await peopleOf(call, id)
  if (!person) throw new ProblemError('not_found')
  return person
}
