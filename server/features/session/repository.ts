import { Op, QueryTypes } from 'sequelize'
import type { Database } from '../../db/database'
import type { SessionRow, StudioRow, UserRow } from '../../db/rows'

/** Who somebody is, and where they teach. */
export interface Account {
  readonly user: Pick<UserRow, 'id' | 'name' | 'email'>
  readonly studio: Pick<StudioRow, 'id' | 'version' | 'name' | 'system' | 'settings'>
}

type SessionTimes = Pick<SessionRow, 'createdAt' | 'seenAt' | 'expiresAt'>

/** A session with whose it is, and until when nothing is saved, since it is asked in the same statement. */
export type FoundSession = Account & SessionTimes & { readonly frozenUntil: Date | null }

interface JoinedSession extends SessionTimes {
  readonly frozenUntil: Date | null
  readonly userId: string
  readonly email: string
  readonly userName: string
  readonly studioId: string
  readonly studioName: string
  readonly system: string
  readonly version: number
  readonly settings: unknown
}

/** Accounts and their sessions. The only repository that looks across studios: it is what finds the studio. */
export function sessionRepository({ models, sequelize }: Database) {
  return {
    /** By its address exactly as it is kept. */
    async accountByEmail(email: string): Promise<(Account & Pick<UserRow, 'passwordHash'>) | undefined> {
      const found = await models.user.findOne({ where: { email }, raw: true })
      const user = found as unknown as UserRow | null
      const studio =
        user && ((await models.studio.findByPk(user.studioId, { raw: true })) as unknown as StudioRow | null)
      return user && studio ? { user, studio, passwordHash: user.passwordHash } : undefined
    },
    /** Asked with every request, so in one statement. */
    async sessionById(id: string, now: Date): Promise<FoundSession | undefined> {
      const [row] = await sequelize.query<JoinedSession>(
        `SELECT s.created_at AS createdAt, s.seen_at AS seenAt, s.expires_at AS expiresAt, u.id AS userId, u.email, u.name AS userName,
                t.id AS studioId, t.name AS studioName, t.system, t.version, t.settings,
                (SELECT MAX(until_at) FROM maintenance) AS frozenUntil
         FROM session s JOIN user u ON u.id = s.user_id JOIN studio t ON t.id = s.studio_id
         WHERE s.id = :id AND s.expires_at > :now`,
        { type: QueryTypes.SELECT, replacements: { id, now } },
      )
      return (
        row && {
          frozenUntil: row.frozenUntil,
          createdAt: row.createdAt,
          seenAt: row.seenAt,
          expiresAt: row.expiresAt,
          user: { id: row.userId, name: row.userName, email: row.email },
          studio: {
            id: row.studioId,
            version: row.version,
            name: row.studioName,
            system: row.system,
            settings: row.settings,
          },
        }
      )
    },
    async addSession(session: SessionRow): Promise<void> {
      await models.session.create(session)
    },
    async useSession(id: string, times: Pick<SessionRow, 'seenAt' | 'expiresAt'>): Promise<void> {
      await models.session.update(times, { where: { id } })
    },
    async removeSession(id: string): Promise<void> {
      await models.session.destroy({ where: { id } })
    },
    async sessionsOf(userId: string, now: Date): Promise<SessionRow[]> {
      return (await models.session.findAll({
        where: { userId, expiresAt: { [Op.gt]: now } },
        order: [['createdAt', 'DESC']],
        raw: true,
      })) as unknown as SessionRow[]
    },
    /** Ends one of somebody's own sessions; false where they have no such. */
    async endSession(userId: string, publicId: string): Promise<boolean> {
      return (await models.session.destroy({ where: { userId, publicId } })) === 1
    },
    async endSessionsBut(userId: string, id: string): Promise<void> {
      await models.session.destroy({ where: { userId, id: { [Op.ne]: id } } })
    },
    async passwordHashOf(userId: string): Promise<string | undefined> {
      const user = (await models.user.findByPk(userId, { raw: true })) as unknown as UserRow | null
      return user?.passwordHash
    },
    async setPasswordHash(userId: string, passwordHash: string): Promise<void> {
      await models.user.update({ passwordHash }, { where: { id: userId } })
    },
  }
}

export type SessionRepository = ReturnType<typeof sessionRepository>
