import { ATTACHMENT_TYPES } from '#contracts/attachments'

export const SOUND_TYPE = 'audio/wav' satisfies (typeof ATTACHMENT_TYPES)[number]

export type MediaType = (typeof ATTACHMENT_TYPES)[number]

/** How many bytes {@link isOfType} wants to see. */
export const SIGNATURE_BYTES = 12

const ascii = (bytes: Buffer, from: number, to: number) => bytes.subarray(from, to).toString('latin1')

/**
 * Whether a file begins as files of its type do. Sources: RIFF/WAVE, Multimedia Programming Interface 1.0; PNG, ISO/IEC
 * 15948; JPEG, ITU-T T.81; WebP container specification.
 */
const SIGNATURES: Record<MediaType, (bytes: Buffer) => boolean> = {
  'audio/wav': (b) => ascii(b, 0, 4) === 'RIFF' && ascii(b, 8, 12) === 'WAVE',
  'image/png': (b) => b.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])),
  'image/jpeg': (b) => b.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff])),
  'image/webp': (b) => ascii(b, 0, 4) === 'RIFF' && ascii(b, 8, 12) === 'WEBP',
}

/** The media type a header names, without its parameters; undefined for one that is not kept. */
export function mediaTypeOf(header: string | undefined): MediaType | undefined {
  const name = header?.split(';')[0]?.trim().toLowerCase()
  return ATTACHMENT_TYPES.find((type) => type === name)
}

export function isOfType(type: MediaType, firstBytes: Buffer): boolean {
  return SIGNATURES[type](firstBytes)
}

/** Bytes of a second of sound in a format that a browser or a recorder writes at most: 48 kHz, two channels, 16 bit. */
const MOST_BYTES_A_SECOND = 48_000 * 2 * 2

/**
 * Bytes of a second of sound, as the `fmt ` chunk of a WAV file says (RIFF/WAVE, Multimedia Programming Interface 1.0); no
 * more than two channels of a good recorder, whatever it says.
 */
export function wavBytesPerSecond(firstBytes: Buffer): number {
  let at = SIGNATURE_BYTES
  while (at + 8 <= firstBytes.length && ascii(firstBytes, at, at + 4) !== 'fmt ')
    // A chunk of an odd length is followed by a byte of nothing.
    at += 8 + firstBytes.readUInt32LE(at + 4) + (firstBytes.readUInt32LE(at + 4) % 2)
  const said = at + 20 <= firstBytes.length ? firstBytes.readUInt32LE(at + 16) : 0
  return said > 0 ? Math.min(said, MOST_BYTES_A_SECOND) : MOST_BYTES_A_SECOND
}
