import { QueryTypes } from 'sequelize'
import { v7 as uuid } from 'uuid'
import type { StoredSound } from '#contracts'
import { SOUND_TYPE } from './media'
import type { AttachmentRow } from '../../db/rows'
import type { Database } from '../../db/database'
import type { By, StudioStore } from '../../db/studio-store'

const IN_ORDER_OF_TIME: [string, string][] = [
  ['recordedAt', 'ASC'],
  ['id', 'ASC'],
]

/** What a file lies beside, as a column of its row. */
export type Beside = Partial<Pick<AttachmentRow, 'checkId' | 'studentId' | 'instrumentId'>>

export function attachmentRepository(store: StudioStore) {
  const { attachment, attachmentChunk, check, soundRemoval } = store.models
  return {
    beside: (where: Beside): Promise<By<AttachmentRow>[]> =>
      store.written(attachment, { ...where, isWhole: true }, { order: IN_ORDER_OF_TIME }),
    byId: async (id: string) => (await store.written(attachment, { id, isWhole: true }))[0],
    begin: (row: Omit<AttachmentRow, 'studioId'>) => store.insert(attachment, [row]),
    addChunk: (attachmentId: string, position: number, bytes: Buffer) =>
      store.insert(attachmentChunk, [{ attachmentId, position, bytes }]),
    chunk: async (attachmentId: string, position: number): Promise<Buffer | undefined> =>
      (await store.one(attachmentChunk, { attachmentId, position }))?.bytes,
    /** False where it was taken away while its bytes came. */
    finish: async (id: string, values: Pick<AttachmentRow, 'byteCount' | 'sha256'>): Promise<boolean> =>
      (await store.update(attachment, { id }, { ...values, isWhole: true })) === 1,
    /** With its bytes, for good. */
    remove: (id: string) => store.remove(attachment, { id }),
    /** One recording of a student, for good, also out of backups that are put back. */
    async removeSound(attachmentId: string, removedAt: Date): Promise<void> {
      await store.remove(attachment, { id: attachmentId })
      await store.insert(soundRemoval, [{ id: uuid(), studentId: null, attachmentId, removedAt }])
    },
    /** Every recording of a student, beside the file and beside checks, for good. */
    async removeSoundOf(studentId: string, removedAt: Date): Promise<void> {
      const checks = await store.all(check, { studentId })
      await store.insert(soundRemoval, [{ id: uuid(), studentId, attachmentId: null, removedAt }])
      const beside = [{ studentId }, { checkId: checks.map(({ id }) => id) }]
      for (const where of beside) await store.remove(attachment, { ...where, mediaType: SOUND_TYPE })
    },
    /** Every recording of every student of the studio, for good. */
    async removeAllSound(removedAt: Date): Promise<void> {
      await store.insert(soundRemoval, [{ id: uuid(), studentId: null, attachmentId: null, removedAt }])
      await store.remove(attachment, { mediaType: SOUND_TYPE, instrumentId: null })
    },
    /** Whether a consent was ever withdrawn. */
    hasWithdrawn: async (studentId: string): Promise<boolean> =>
      (await store.one(soundRemoval, { studentId })) !== undefined,
    /** Recordings of students, not of strings that were plucked. */
    async storedSound(): Promise<StoredSound> {
      const [row] = await store.select<Record<keyof StoredSound, number | string | null>>(
        `SELECT COUNT(*) AS recordings, COUNT(DISTINCT COALESCE(a.student_id, c.student_id)) AS students,
                SUM(a.byte_count) AS byteCount
         FROM attachment a LEFT JOIN hand_check c ON c.studio_id = a.studio_id AND c.id = a.check_id
         WHERE a.studio_id = :studioId AND a.is_whole AND a.media_type = :type AND a.instrument_id IS NULL`,
        { type: SOUND_TYPE },
      )
      return {
        recordings: Number(row?.recordings ?? 0),
        students: Number(row?.students ?? 0),
        byteCount: Number(row?.byteCount ?? 0),
      }
    },
  }
}

/** Clears files whose bytes never arrived whole, of every studio. */
export async function clearUnfinished({ sequelize }: Database, before: Date): Promise<void> {
  await sequelize.query('DELETE FROM attachment WHERE is_whole = FALSE AND recorded_at < :before', {
    type: QueryTypes.BULKDELETE,
    replacements: { before },
  })
}
