import { createHash } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import { ATTACHMENT_LIMIT_BYTES, ATTACHMENT_TYPES, type RecordKind } from '#contracts/attachments'
import type { Attachment } from '#contracts'
import type { z } from 'zod'
import type { AttachmentRow } from '../../db/rows'
import type { By } from '../../db/studio-store'
import type { Call, Download, UploadCall } from '../../http/call'
import { ProblemError } from '../../http/problem-error'
import { inPieces } from './chunks'
import { isOfType, mediaTypeOf, SIGNATURE_BYTES, SOUND_TYPE, type MediaType } from './media'
import { attachmentRepository, type Beside } from './repository'

type Kind = z.output<typeof RecordKind>

/** Bytes of one row: few statements, and far below what a server takes in one. */
const CHUNK_BYTES = 256 * 1024

/** Files beside a record: recordings, pictures. */
export function attachmentService({ store, signedIn, now }: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const attachments = attachmentRepository(store)
  const { user } = signedIn.session

  async function besideRecord(record: Kind, recordId: string): Promise<Beside> {
    const { check, student, instrument } = store.models
    const row = {
      check: () => store.one(check, { id: recordId }),
      student: () => store.one(student, { id: recordId }),
      instrument: () => store.one(instrument, { id: recordId }),
    }[record]
    if (!(await row())) throw new ProblemError('not_found')
    return { [`${record}Id`]: recordId }
  }

  async function existing(id: string): Promise<By<AttachmentRow>> {
    const row = await attachments.byId(id)
    if (!row) throw new ProblemError('not_found')
    return row
  }

  /** Sound of a student is kept where the studio keeps sound and the student's file says that it may. */
  async function insistOnConsent({ checkId, studentId }: Beside, within = store): Promise<void> {
    const { check, student } = within.models
    const id = studentId ?? (checkId ? (await within.one(check, { id: checkId }))?.studentId : undefined)
    if (!id) return
    if (!signedIn.session.studio.settings.keepsSound)
      throw new ProblemError('sound_not_allowed', {
        detail: 'This studio keeps no sound. Switch it on in Studio first, if your school’s rules allow it.',
      })
    if (!(await within.one(student, { id }))?.soundConsent)
      throw new ProblemError('sound_not_allowed', {
        detail:
          'Nobody has given consent to keep this student’s sound. Write it in the student’s file first.',
      })
  }

  /** Writes the bytes down piece by piece as they come, and says what they were. */
  async function take(id: string, mediaType: MediaType, bytes: AsyncIterable<Buffer>) {
    const hash = createHash('sha256')
    let byteCount = 0
    let position = 0
    for await (const piece of inPieces(arriving(bytes), CHUNK_BYTES)) {
      if (position === 0 && !isOfType(mediaType, piece.subarray(0, SIGNATURE_BYTES)))
        throw new ProblemError('unsupported_type', {
          detail: `The file is called ${mediaType} and does not begin like one. Save it again and choose it anew.`,
        })
      byteCount += piece.length
      if (byteCount > ATTACHMENT_LIMIT_BYTES) throw tooLarge()
      hash.update(piece)
      await attachments.addChunk(id, position++, piece)
    }
    if (byteCount === 0) throw new ProblemError('upload_incomplete', { detail: 'The file is empty.' })
    return { byteCount, sha256: hash.digest('hex') }
  }

  return {
    async list(record: Kind, recordId: string): Promise<Attachment[]> {
      return (await attachments.beside(await besideRecord(record, recordId))).map(attachmentDto)
    },

    async keep(record: Kind, recordId: string, { upload, once }: UploadCall): Promise<Attachment> {
      const beside = await besideRecord(record, recordId)
      const mediaType = mediaTypeOf(upload.contentType)
      if (!mediaType)
        throw new ProblemError('unsupported_type', { detail: `Send one of ${ATTACHMENT_TYPES.join(', ')}.` })
      if (mediaType === SOUND_TYPE) await insistOnConsent(beside)
      if ((upload.declaredBytes ?? 0) > ATTACHMENT_LIMIT_BYTES) throw tooLarge()
      const row: Omit<AttachmentRow, 'studioId'> = {
        id: uuid(),
        userId: user.id,
        checkId: null,
        studentId: null,
        instrumentId: null,
        ...beside,
        mediaType,
        byteCount: 0,
        sha256: '',
        isWhole: false,
        recordedAt: now,
      }
      await attachments.begin(row)
      let isKept = false
      try {
        const taken = await take(row.id, mediaType, upload.bytes)
        const answer = await once([mediaType, taken.sha256], async (within) => {
          // It may have been withdrawn while the bytes came.
          if (mediaType === SOUND_TYPE) await insistOnConsent(beside, within)
          await attachmentRepository(within).finish(row.id, taken)
          return attachmentDto({ ...row, ...taken, studioId: '', by: user.name })
        })
        isKept = answer.id === row.id
        return answer
      } finally {
        // What was refused, cut short or sent a second time leaves nothing behind.
        if (!isKept) await attachments.remove(row.id)
      }
    },

    async read(id: string): Promise<Download> {
      const { mediaType, byteCount } = await existing(id)
      async function* bytes() {
        for (let position = 0; position * CHUNK_BYTES < byteCount; position++) {
          const piece = await attachments.chunk(id, position)
          if (!piece) throw new Error('a file was removed while it was read')
          yield piece
        }
      }
      return { mediaType, byteCount, bytes: bytes() }
    },

    async remove(id: string): Promise<null> {
      await existing(id)
      await attachments.remove(id)
      return null
    },
  }
}

/** The bytes of a request. One that breaks off is the sender's, not the database's, whatever the code of the error. */
async function* arriving(bytes: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
  try {
    yield* bytes
  } catch {
    throw new ProblemError('upload_incomplete', { detail: 'The file broke off on its way. Send it again.' })
  }
}

function tooLarge(): ProblemError {
  return new ProblemError('too_large', {
    detail: `Keep a file to ${ATTACHMENT_LIMIT_BYTES / 1024 / 1024} MB: about ten minutes of sound.`,
  })
}

function attachmentDto(row: By<AttachmentRow>): Attachment {
  const [record, recordId] = row.checkId
    ? (['check', row.checkId] as const)
    : row.studentId
      ? (['student', row.studentId] as const)
      : (['instrument', row.instrumentId ?? ''] as const)
  return {
    id: row.id,
    record,
    recordId,
    mediaType: row.mediaType as MediaType,
    byteCount: row.byteCount,
    sha256: row.sha256,
    by: row.by,
    recordedAt: row.recordedAt.toISOString(),
  }
}
