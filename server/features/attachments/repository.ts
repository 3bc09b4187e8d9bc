import { QueryTypes } from 'sequelize'
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
  const { attachment, attachmentChunk, check } = store.models
  return {
    beside: (where: Beside): Promise<By<AttachmentRow>[]> =>
      store.written(attachment, { ...where, isWhole: true }, { order: IN_ORDER_OF_TIME }),
    byId: async (id: string) => (await store.written(attachment, { id, isWhole: true }))[0],
    begin: (row: Omit<AttachmentRow, 'studioId'>) => store.insert(attachment, [row]),
    addChunk: (attachmentId: string, position: number, bytes: Buffer) =>
      store.insert(attachmentChunk, [{ attachmentId, position, bytes }]),
    chunk: async (attachmentId: string, position: number): Promise<Buffer | undefined> =>
      (await store.one(attachmentChunk, { attachmentId, position }))?.bytes,
    finish: (id: string, values: Pick<AttachmentRow, 'byteCount' | 'sha256'>) =>
      store.update(attachment, { id }, { ...values, isWhole: true }),
    /** With its bytes, for good. */
    remove: (id: string) => store.remove(attachment, { id }),
    /** Every recording of a student, beside the file and beside checks, for good. */
    async removeSoundOf(studentId: string): Promise<void> {
      const checks = await store.all(check, { studentId })
      const beside = [{ studentId }, { checkId: checks.map(({ id }) => id) }]
      for (const where of beside) await store.remove(attachment, { ...where, mediaType: SOUND_TYPE })
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
