import type { Transaction } from 'sequelize'
import { v7 as uuid } from 'uuid'
import { DEFAULT_SYSTEM_ID } from '#core'
import type { Session } from '#contracts'
import type { Database } from '../../db/database'
import { settingsOf } from '../studio/settings'
import { normalEmail } from './email'
import { hashPassword } from './password'

export interface NewStudio {
  readonly studioName: string
  readonly teacherName: string
  readonly email: string
  readonly password: string
  readonly now: Date
}

/** A new studio with its first teacher. Fails where the e-mail address has an account already. */
export async function addStudio(
  { models }: Database,
  transaction: Transaction,
  { studioName, teacherName, email, password, now }: NewStudio,
): Promise<Session> {
  const studio = {
    id: uuid(),
    name: studioName,
    system: DEFAULT_SYSTEM_ID,
    version: 1,
    settings: null,
    createdAt: now,
  }
  const passwordHash = await hashPassword(password)
  const user = {
    id: uuid(),
    studioId: studio.id,
    email: normalEmail(email),
    name: teacherName,
    passwordHash,
    role: 'owner' as const,
    leftAt: null,
  }
  await models.studio.create(studio, { transaction })
  await models.user.create(user, { transaction })
  return {
    studio: {
      id: studio.id,
      version: studio.version,
      name: studio.name,
      system: studio.system,
      settings: settingsOf(null),
    },
    user: { id: user.id, name: user.name, email: user.email, role: user.role },
    isOperator: false,
    csrfToken: '',
  }
}
