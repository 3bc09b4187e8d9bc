import { Op, QueryTypes } from 'sequelize'
import { v7 as uuid } from 'uuid'
import type { Database } from '../../db/database'
import type { AuditRow, SecondFactorRow, SessionRow, StudioRow, UserRow } from '../../db/rows'

/** Who somebody is, and where they teach. */
export interface Account {
  readonly user: Pick<UserRow, 'id' | 'name' | 'email' | 'role'>
  readonly studio: Pick<StudioRow, 'id' | 'version' | 'name' | 'system' | 'settings'>
}

/** Somebody of a studio. */
export interface Whose {
  readonly studioId: string
  readonly userId: string
}

type SessionTimes = Pick<SessionRow, 'createdAt' | 'seenAt' | 'expiresAt'>

/** A session with whose it is, and until when nothing is saved, since it is asked in the same statement. */
export type FoundSession = Account & SessionTimes & { readonly id: string; readonly frozenUntil: Date | null }

interface JoinedSession extends SessionTimes {
  readonly id: string
  readonly frozenUntil: Date | null
  readonly userId: string
  readonly email: string
  readonly userName: string
  readonly role: UserRow['role']
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
      const found = await models.user.findOne({ where: { email, leftAt: null }, raw: true })
      const user = found as unknown as UserRow | null
      const studio =
        user && ((await models.studio.findByPk(user.studioId, { raw: true })) as unknown as StudioRow | null)
      return user && studio ? { user, studio, passwordHash: user.passwordHash } : undefined
    },
    /** By its token's hashes; asked with every request, so in one statement. */
    async sessionById(ids: readonly string[], now: Date): Promise<FoundSession | undefined> {
      const [row] = await sequelize.query<JoinedSession>(
        `SELECT s.id, s.created_at AS createdAt, s.seen_at AS seenAt, s.expires_at AS expiresAt, u.id AS userId, u.email, u.name AS userName, u.role,
                t.id AS studioId, t.name AS studioName, t.system, t.version, t.settings,
                (SELECT MAX(until_at) FROM maintenance) AS frozenUntil
         FROM session s JOIN user u ON u.id = s.user_id JOIN studio t ON t.id = s.studio_id
         WHERE s.id IN (:ids) AND s.expires_at > :now AND u.left_at IS NULL`,
        { type: QueryTypes.SELECT, replacements: { ids, now } },
      )
      return (
        row && {
          id: row.id,
          frozenUntil: row.frozenUntil,
          createdAt: row.createdAt,
          seenAt: row.seenAt,
          expiresAt: row.expiresAt,
          user: { id: row.userId, name: row.userName, email: row.email, role: row.role },
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
    async endAllSessions(userId: string): Promise<void> {
      await models.session.destroy({ where: { userId } })
    },
    async note(row: Omit<AuditRow, 'id' | 'studentId' | 'subjectId'>): Promise<void> {
      await models.audit.create({ ...row, id: uuid(), studentId: null, subjectId: null })
    },
    /** Uses a key up; false where it is not of that account, has run out, or was used. */
    async useKey({ studioId, userId }: Whose, hashes: readonly string[], now: Date): Promise<boolean> {
      const where = { studioId, userId, hash: [...hashes], usedAt: null, untilAt: { [Op.gt]: now } }
      const [count] = await models.oneTimeKey.update({ usedAt: now }, { where })
      return count === 1
    },
    async factorOf({ studioId, userId }: Whose): Promise<SecondFactorRow | undefined> {
      const row = await models.secondFactor.findOne({ where: { studioId, userId }, raw: true })
      return (row ?? undefined) as unknown as SecondFactorRow | undefined
    },
    /** In place of one that was begun and not confirmed. */
    async beginFactor({ studioId, userId }: Whose, sealed: string, now: Date): Promise<void> {
      await models.secondFactor.destroy({ where: { studioId, userId } })
      const row = { id: uuid(), studioId, userId, sealed, confirmedAt: null, lastStep: 0, recordedAt: now }
      await models.secondFactor.create(row)
    },
    /** A code of a later period than any before, its secret sealed anew by the secret of now; false where another request was quicker with the same. */
    async takeStep({ studioId, userId }: Whose, lastStep: number, sealed: string): Promise<boolean> {
      const where = { studioId, userId, lastStep: { [Op.lt]: lastStep } }
      const [count] = await models.secondFactor.update({ lastStep, sealed }, { where })
      return count === 1
    },
    async confirmFactor({ studioId, userId }: Whose, now: Date, spare: readonly string[]): Promise<void> {
      const where = { studioId, userId }
      await models.spareCode.destroy({ where })
      const rows = spare.map((hash) => ({ id: uuid(), studioId, userId, hash, usedAt: null }))
      await models.spareCode.bulkCreate(rows, { hooks: false })
      await models.secondFactor.update({ confirmedAt: now }, { where })
    },
    async endFactor({ studioId, userId }: Whose): Promise<void> {
      await models.secondFactor.destroy({ where: { studioId, userId } })
      await models.spareCode.destroy({ where: { studioId, userId } })
    },
    async useSpareCode({ studioId, userId }: Whose, hashes: readonly string[], now: Date): Promise<boolean> {
      const where = { studioId, userId, hash: [...hashes], usedAt: null }
      const [count] = await models.spareCode.update({ usedAt: now }, { where })
      return count === 1
    },
    spareCodesLeft: ({ studioId, userId }: Whose): Promise<number> =>
      models.spareCode.count({ where: { studioId, userId, usedAt: null } }),
  }
}

export type SessionRepository = ReturnType<typeof sessionRepository>
