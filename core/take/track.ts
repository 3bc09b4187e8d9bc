/** The pitch and level of a take, moment by moment: what can be drawn and sounded again where no sound is stored. */
export interface PitchTrack {
  /** From one moment to the next, seconds. */
  readonly stepS: number
  /** Above 440 Hz, whole cents; NaN where there was no one pitch. */
  readonly cents: Float32Array
  /** Whole dB of full scale. */
  readonly levelDb: Float32Array
}

/** Moments are so far apart that five minutes fit in 20 kB: two frames of the ear at 44.1 kHz. */
export const TRACK_STEP_S = 1024 / 44_100
/** Longest track that is kept: half an hour of lively playing. */
export const MAX_TRACK_BYTES = 150_000

const VERSION = 1
/** A level is kept for every fourth moment. */
const LEVEL_EVERY = 4
const QUIETEST_DB = -120
/** Longest track that is read: a day, whatever a damaged one claims. */
const MOST_MOMENTS = 24 * 3600 * 50

/**
 * A track in few bytes: what changed since the moment before, in numbers of variable length; a silence is one number. Bytes:
 * version, step in microseconds, count of moments, pitches, levels.
 */
export function encodeTrack({ stepS, cents, levelDb }: PitchTrack): Uint8Array {
  const out: number[] = [VERSION]
  putNumber(out, Math.round(stepS * 1e6))
  putNumber(out, cents.length)
  let before = 0
  for (let i = 0; i < cents.length;) {
    const value = cents[i]!
    if (Number.isNaN(value)) {
      let run = 1
      while (i + run < cents.length && Number.isNaN(cents[i + run]!)) run++
      putNumber(out, 0)
      putNumber(out, run)
      i += run
    } else {
      const now = Math.round(value)
      putNumber(out, 1 + zigzag(now - before))
      before = now
      i++
    }
  }
  let level = 0
  for (let i = 0; i < levelDb.length; i += LEVEL_EVERY) {
    const now = Math.round(Math.max(QUIETEST_DB, levelDb[i]!))
    putNumber(out, zigzag(now - level))
    level = now
  }
  return Uint8Array.from(out)
}

/** Inverse of {@link encodeTrack}, to the cent and the dB. Throws a RangeError for bytes that are no whole track. */
export function decodeTrack(bytes: Uint8Array): PitchTrack {
  const reader = new Reader(bytes)
  const version = reader.number()
  if (version !== VERSION) throw new RangeError(`a track of version ${version} cannot be read here`)
  const stepS = reader.number() / 1e6
  const count = reader.number()
  if (!(stepS > 0) || count > MOST_MOMENTS) throw new RangeError('the track is damaged')
  const cents = new Float32Array(count).fill(NaN)
  let before = 0
  for (let i = 0; i < count;) {
    const code = reader.number()
    if (code === 0) {
      const run = reader.number()
      if (run < 1 || i + run > count) throw new RangeError('the track is damaged')
      i += run
    } else {
      before += unzigzag(code - 1)
      cents[i++] = before
    }
  }
  const levelDb = new Float32Array(count)
  let level = 0
  for (let i = 0; i < count; i += LEVEL_EVERY) {
    level += unzigzag(reader.number())
    levelDb.fill(level, i, i + LEVEL_EVERY)
  }
  if (!reader.isAtEnd) throw new RangeError('the track is longer than it says')
  return { stepS, cents, levelDb }
}

/** Small numbers of either sign as small numbers: 0, −1, 1, −2, 2 … as 0, 1, 2, 3, 4 … */
function zigzag(value: number): number {
  return value < 0 ? -2 * value - 1 : 2 * value
}

function unzigzag(code: number): number {
  return code % 2 === 0 ? code / 2 : -(code + 1) / 2
}

/** Seven bits a byte, the lowest first; the eighth says that more follow. */
function putNumber(out: number[], value: number): void {
  let left = value
  while (left >= 128) {
    out.push((left % 128) + 128)
    left = Math.floor(left / 128)
  }
  out.push(left)
}

class Reader {
  #at = 0
  constructor(private readonly bytes: Uint8Array) {}

  get isAtEnd(): boolean {
    return this.#at === this.bytes.length
  }

  number(): number {
    let value = 0
    for (let scale = 1; scale < 2 ** 42; scale *= 128) {
      const byte = this.bytes[this.#at++]
      if (byte === undefined) throw new RangeError('the track ends too soon')
      value += (byte % 128) * scale
      if (byte < 128) return value
    }
    throw new RangeError('the track is damaged')
  }
}
