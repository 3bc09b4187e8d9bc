import { QueryTypes } from 'sequelize'
import type { Database } from '../../db/database'
import type { SessionRow, StudioRow, UserRow } from '../../db/rows'

/** Who somebody is, and where they teach. */
export interface Account {
  readonly user: Pick<UserRow, 'id' | 'name' | 'email'>
  readonly studio: Pick<StudioRow, 'id' | 'name' | 'system'>
}

interface JoinedSession {
  readonly expiresAt: Date
  readonly userId: string
  readonly email: string
  readonly userName: string
  readonly studioId: string
  readonly studioName: string
  readonly system: string
}

/** Accounts and their sessions. The only repository that looks across studios: it is what finds the studio. */
export function sessionRepository({ models, sequelize }: Database) {
  return {
    async accountByEmail(email: string): Promise<(Account & Pick<UserRow, 'passwordHash'>) | undefined> {
      const found = await models.user.findOne({ where: { email }, raw: true })
      const user = found as unknown as UserRow | null
      const studio =
        user && ((await models.studio.findByPk(user.studioId, { raw: true })) as unknown as StudioRow | null)
      return user && studio ? { user, studio, passwordHash: user.passwordHash } : undefined
    },
    /** Asked with every request, so in one statement. */
    async sessionById(id: string, now: Date): Promise<(Account & Pick<SessionRow, 'expiresAt'>) | undefined> {
      const [row] = await sequelize.query<JoinedSession>(
        `SELECT s.expires_at AS expiresAt, u.id AS userId, u.email, u.name AS userName,
                t.id AS studioId, t.name AS studioName, t.system
         FROM session s JOIN user u ON u.id = s.user_id JOIN studio t ON t.id = s.studio_id
         WHERE s.id = :id AND s.expires_at > :now`,
        { type: QueryTypes.SELECT, replacements: { id, now } },
      )
      return (
        row && {
          expiresAt: row.expiresAt,
          user: { id: row.userId, name: row.userName, email: row.email },
          studio: { id: row.studioId, name: row.studioName, system: row.system },
        }
      )
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
