import { Op } from 'sequelize'
import type { Database } from '../../db/database'
import type { SessionRow, StudioRow, UserRow } from '../../db/rows'

export interface Account {
  readonly user: UserRow
  readonly studio: StudioRow
}

/** Accounts and their sessions. The only repository that looks across studios: it is what finds the studio. */
export function sessionRepository({ models }: Database) {
  async function accountOf(user: UserRow | undefined): Promise<Account | undefined> {
    const studio =
      user && ((await models.studio.findByPk(user.studioId, { raw: true })) as unknown as StudioRow | null)
    return user && studio ? { user, studio } : undefined
  }

  return {
    async accountByEmail(email: string): Promise<Account | undefined> {
      const user = await models.user.findOne({ where: { email }, raw: true })
      return accountOf((user as unknown as UserRow | null) ?? undefined)
    },
    async sessionById(id: string, now: Date): Promise<(Account & { session: SessionRow }) | undefined> {
      const found = await models.session.findOne({ where: { id, expiresAt: { [Op.gt]: now } }, raw: true })
      const session = found as unknown as SessionRow | null
      if (!session) return undefined
      const user = await models.user.findByPk(session.userId, { raw: true })
      const account = await accountOf((user as unknown as UserRow | null) ?? undefined)
      return account && { ...account, session }
    },
    async addSession(session: SessionRow): Promise<void> {
      await models.session.create(session)
    },
    async extendSession(id: string, expiresAt: Date): Promise<void> {
      await models.session.update({ expiresAt }, { where: { id } })
    },
    async removeSession(id: string): Promise<void> {
      await models.session.destroy({ where: { id } })
    },
  }
}

export type SessionRepository = ReturnType<typeof sessionRepository>
