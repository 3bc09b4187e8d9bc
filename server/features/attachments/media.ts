import { WavStream } from '#core'
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

/** Players play no faster: who claims a higher rate has kept a longer sound. */
const HIGHEST_RATE_HZ = 48_000

/** Follows a recording as its bytes come: how long it is so far, s, and in the end whether it can be played. */
export function soundLengthOf() {
  const wav = new WavStream()
  let samples = 0
  return {
    push(bytes: Buffer): number {
      samples += wav.push(bytes).length
      return samples / Math.min(wav.format?.sampleRateHz ?? HIGHEST_RATE_HZ, HIGHEST_RATE_HZ)
    },
    fault: (): string | undefined => wav.end()?.code,
  }
}
