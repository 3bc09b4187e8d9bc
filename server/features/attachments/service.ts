import { createHash } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import {
  ATTACHMENT_LIMIT_BYTES,
  ATTACHMENT_TYPES,
  LONGEST_PLUCK_S,
  type RecordKind,
} from '#contracts/attachments'
import type { Attachment } from '#contracts'
import type { z } from 'zod'
import { isConflict } from '../../db/errors'
import type { AttachmentRow } from '../../db/rows'
import type { By } from '../../db/studio-store'
import type { Call, Download, UploadCall } from '../../http/call'
import { ProblemError } from '../../http/problem-error'
import { inPieces } from './chunks'
import { settingsOf } from '../studio/settings'
import { isOfType, mediaTypeOf, SIGNATURE_BYTES, SOUND_TYPE, soundLengthOf, type MediaType } from './media'
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

  /** Sound of a student is kept where the studio keeps sound and the student's file says that it may: as both are now. */
  async function insistOnConsent({ checkId, studentId }: Beside, within = store): Promise<void> {
    const { check, student } = within.models
    const id = studentId ?? (checkId ? (await within.one(check, { id: checkId }))?.studentId : undefined)
    if (!id) return
    if (!settingsOf((await within.studio())?.settings).keepsSound)
      throw notAllowed(
        'This studio keeps no sound. Switch it on in Studio first, if your school’s rules allow it.',
      )
    if ((await within.one(student, { id }))?.soundConsent) return
    throw notAllowed(
      (await attachmentRepository(within).hasWithdrawn(id))
        ? 'The consent to keep this student’s sound was withdrawn. This recording is not kept, and need not be sent again.'
        : 'Nobody has given consent to keep this student’s sound. Write it in the student’s file first.',
    )
  }

  /** Writes the bytes down piece by piece as they come, and says what they were. */
  async function take(
    { id, instrumentId, mediaType }: Pick<AttachmentRow, 'id' | 'instrumentId'> & { mediaType: MediaType },
    bytes: AsyncIterable<Buffer>,
  ) {
    const sound = mediaType === SOUND_TYPE ? soundLengthOf() : undefined
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
      if ((sound?.push(piece) ?? 0) > LONGEST_PLUCK_S && instrumentId !== null)
        throw notAllowed(
          `Beside an instrument goes the sound of a string plucked for up to ${LONGEST_PLUCK_S} seconds. What a student plays is kept beside the student, with consent.`,
        )
      hash.update(piece)
      await attachments.addChunk(id, position++, piece).catch(insistItIsThere)
    }
    if (byteCount === 0) throw new ProblemError('upload_incomplete', { detail: 'The file is empty.' })
    const fault = sound?.fault()
    if (fault)
      throw new ProblemError('unsupported_type', {
        detail: `The sound in the file cannot be read (${fault}). Save it again as WAV and choose it anew.`,
      })
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
        const taken = await take({ ...row, mediaType }, upload.bytes)
        const answer = await once([mediaType, taken.sha256], async (within) => {
          // Either may have been taken back while the bytes came, and with it what has come of them.
          if (mediaType === SOUND_TYPE) await insistOnConsent(beside, within)
          if (!(await attachmentRepository(within).finish(row.id, taken))) throw removedSince()
          return attachmentDto({ ...row, ...taken, studioId: '', by: user.name })
        })
        isKept = answer.id === row.id
        if (!isKept && !(await attachments.byId(answer.id))) throw removedSince()
        return answer
      } finally {
        // What was refused, cut short or sent a second time leaves nothing behind.
        if (!isKept) await attachments.remove(row.id)
      }
    },

    async read(id: string): Promise<Download> {
      const { mediaType, byteCount, sha256 } = await existing(id)
      async function* bytes(from: number, to: number) {
        for (let position = Math.floor(from / CHUNK_BYTES); position * CHUNK_BYTES <= to; position++) {
          const piece = await attachments.chunk(id, position)
          if (!piece) throw new Error('a file was removed while it was read')
          const begin = position * CHUNK_BYTES
          yield piece.subarray(Math.max(0, from - begin), Math.min(piece.length, to + 1 - begin))
        }
      }
      return { mediaType, byteCount, sha256, bytes }
    },

    async remove(id: string): Promise<null> {
      const { mediaType, instrumentId } = await existing(id)
      const isOfStudent = mediaType === SOUND_TYPE && instrumentId === null
      await (isOfStudent ? attachments.removeSound(id, now) : attachments.remove(id))
      return null
    },
  }
}

const notAllowed = (detail: string) => new ProblemError('sound_not_allowed', { detail })
const removedSince = () =>
  new ProblemError('removed_since', {
    detail: 'The recording was removed for good. It is not kept again; record anew if it is wanted.',
  })

/** What a piece belongs to is gone where it was taken away, or all of it changed for a backup, while it came. */
function insistItIsThere(error: unknown): never {
  if (isConflict(error))
    throw new ProblemError('removed_since', {
      detail:
        'While the file came, what it lies beside was removed, or a backup was put back. Nothing of it is kept; send it again where it is still wanted.',
    })
  throw error
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
