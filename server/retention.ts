import { Op } from 'sequelize'
import { v7 as uuid } from 'uuid'
import type { Deed } from '#contracts'
import { TRAIL_KEPT_AT_LEAST_DAYS } from './db/append-only'
import type { Database } from './db/database'
import type { StudioRow } from './db/rows'
import { StudioStore } from './db/studio-store'
import { SOUND_TYPE } from './features/attachments/media'
import { attachmentRepository } from './features/attachments/repository'
import { eraseStudent } from './features/students/erase'
import { settingsOf } from './features/studio/settings'

const DAY_MS = 24 * 3600_000

/** Takes away what each studio's rules say is kept no longer; each of it in a transaction of its own, and written into the trail. */
export async function keepRules(database: Database, now: Date): Promise<void> {
  const studios = (await database.models.studio.findAll({ raw: true })) as unknown as StudioRow[]
  for (const { id, settings } of studios) {
    const { leftDays, soundDays, trailDays } = settingsOf(settings).retention
    const before = (days: number) => new Date(now.getTime() - days * DAY_MS)
    if (soundDays !== null) await expireSound(database, id, before(soundDays), now)
    if (leftDays !== null) await eraseLeft(database, id, before(leftDays), now)
    await database.models.audit.destroy({
      where: { studioId: id, at: { [Op.lt]: before(Math.max(trailDays, TRAIL_KEPT_AT_LEAST_DAYS + 1)) } },
    })
  }
}

async function eraseLeft(database: Database, studioId: string, before: Date, now: Date): Promise<void> {
  const store = new StudioStore(database, studioId)
  const left = await store.all(store.models.student, { removedAt: { [Op.lt]: before } })
  for (const { id } of left)
    await database.inTransaction(async (transaction) => {
      const within = new StudioStore(database, studioId, transaction)
      await eraseStudent(within, id, now)
      await note(within, now, 'student.erased', id)
    })
}

async function expireSound(database: Database, studioId: string, before: Date, now: Date): Promise<void> {
  const store = new StudioStore(database, studioId)
  const { attachment, check } = store.models
  const old = await store.all(attachment, {
    mediaType: SOUND_TYPE,
    instrumentId: null,
    recordedAt: { [Op.lt]: before },
  })
  for (const { id, studentId, checkId } of old)
    await database.inTransaction(async (transaction) => {
      const within = new StudioStore(database, studioId, transaction)
      const whose = studentId ?? (checkId && (await within.one(check, { id: checkId }))?.studentId) ?? null
      await attachmentRepository(within).removeSound(id, now)
      await note(within, now, 'sound.expired', whose, id)
    })
}

/** By a rule, and so by nobody. */
function note(
  store: StudioStore,
  at: Date,
  deed: Deed,
  studentId: string | null,
  subjectId: string | null = studentId,
): Promise<void> {
  return store.insert(store.models.audit, [{ id: uuid(), userId: null, at, deed, studentId, subjectId }])
}
