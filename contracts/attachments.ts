import { z } from 'zod'
import { Id, Instant } from './common'

/** Records that a file can lie beside. */
export const RECORD_KINDS = ['check', 'student', 'instrument'] as const
export const RecordKind = z.enum(RECORD_KINDS)

/** Sound and pictures, by their media types; the first bytes must agree. */
export const ATTACHMENT_TYPES = ['audio/wav', 'image/png', 'image/jpeg', 'image/webp'] as const

/** Ten minutes of one voice at 48 kHz and 16 bit are 58 MB. */
export const ATTACHMENT_LIMIT_BYTES = 64 * 1024 * 1024

/** A string that is plucked to show how it rings, s. Longer is somebody’s playing, and needs consent. */
export const LONGEST_PLUCK_S = 10

/** Sound of students that a studio has stored. */
export const StoredSound = z
  .object({ recordings: z.int(), students: z.int(), byteCount: z.int() })
  .meta({ id: 'StoredSound' })

export const Attachment = z
  .object({
    id: Id,
    record: RecordKind,
    recordId: Id,
    mediaType: z.enum(ATTACHMENT_TYPES),
    byteCount: z.int(),
    /** Of the bytes, in hexadecimal figures. */
    sha256: z.string(),
    by: z.string(),
    recordedAt: Instant,
  })
  .meta({ id: 'Attachment' })
