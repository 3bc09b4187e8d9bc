/** How samples are written in a WAV file. */
export type WavEncoding = 'int8' | 'int16' | 'int24' | 'int32' | 'float32' | 'float64'

export interface WavFormat {
  readonly sampleRateHz: number
  readonly channels: number
  readonly encoding: WavEncoding
}

/** Why bytes are not a WAV file that can be read. */
export type WavFault =
  | { readonly code: 'empty' }
  | { readonly code: 'not_wav' }
  | { readonly code: 'no_format' }
  | { readonly code: 'no_samples' }
  /** A header that contradicts itself. */
  | {
      readonly code: 'bad_format'
      readonly channels: number
      readonly bits: number
      readonly blockBytes: number
    }
  /** Compressed, or a width that is not read. */
  | { readonly code: 'unread_encoding'; readonly formatTag: number; readonly bits: number }
  | { readonly code: 'rate_out_of_range'; readonly sampleRateHz: number }
  | { readonly code: 'not_a_number'; readonly sample: number }

/** What is odd about a file that was read all the same. */
export interface WavOddities {
  /** The header promises so many samples a channel that are not there. */
  readonly missingSamples: number
  /** Samples at or beyond full scale. */
  readonly clippedSamples: number
  /** So many samples a channel follow after those that the header tells of: they are not read. */
  readonly unheardSamples: number
}

const BYTES: Record<WavEncoding, number> = { int8: 1, int16: 2, int24: 3, int32: 4, float32: 4, float64: 8 }
const PCM = 1
const FLOAT = 3
const EXTENSIBLE = 0xfffe
/** Chunks that come before the samples are not longer than this. */
const LONGEST_HEADER = 4 << 20
const LOWEST_RATE_HZ = 1000
const HIGHEST_RATE_HZ = 768_000

/**
 * Reads a WAV file as it comes, channels mixed to one, in memory that does not grow with the file. Chunks other than `fmt ` and
 * `data` are passed over; a length of the samples that is 0 or the largest, as a recorder that was cut off leaves it, means
 * "to the end". Source: Multimedia Programming Interface and Data Specifications 1.0 (IBM and Microsoft, 1991), RIFF WAVE;
 * Multiple Channel Audio Data and WAVE Files (Microsoft, 2001), WAVE_FORMAT_EXTENSIBLE.
 *
 * @example
 * const wav = new WavStream()
 * for await (const bytes of file) for (const block of wav.push(bytes)) ear.push(block)
 * const fault = wav.end()
 */
export class WavStream {
  #format: WavFormat | undefined
  #fault: WavFault | undefined
  #kept = new Uint8Array(0)
  #phase: 'riff' | 'chunks' | 'samples' | 'done' = 'riff'
  #skip = 0
  /** Bytes of samples that are still to come, as the header has it. */
  #left = Infinity
  #declared = false
  #samples = 0
  #clipped = 0
  #isEmpty = true
  /** What comes after the samples that the header tells of: its first bytes, and how many there are. */
  #tail = new Uint8Array(0)
  #tailBytes = 0

  /** Known once its header has come. */
  get format(): WavFormat | undefined {
    return this.#format
  }

  get fault(): WavFault | undefined {
    return this.#fault
  }

  get oddities(): WavOddities {
    const { channels, encoding } = this.#format ?? { channels: 1, encoding: 'int16' }
    const missing =
      this.#declared && this.#phase === 'samples' ? this.#left / (channels * BYTES[encoding]) : 0
    const unheard = this.#isTailSound() ? Math.floor(this.#tailBytes / (channels * BYTES[encoding])) : 0
    return { missingSamples: Math.ceil(missing), clippedSamples: this.#clipped, unheardSamples: unheard }
  }

  /** Chunks may follow the samples; what does not look like one is sound that a recorder's header forgot. */
  #isTailSound(): boolean {
    if (this.#tailBytes < 8) return false
    // A chunk begins at an even place.
    return ![0, 1].some((at) => {
      const name = ascii(this.#tail, at)
      return (
        /^[\x20-\x7e]{4}$/.test(name) &&
        view(this.#tail).getUint32(at + 4, true) <= this.#tailBytes - at - 8 + 1
      )
    })
  }

  #passOver(bytes: Uint8Array): void {
    if (this.#tail.length < 9) this.#tail = joined(this.#tail, bytes.subarray(0, 9))
    this.#tailBytes += bytes.length
  }

  /** Mono samples, −1 … 1, of what has come; nothing more after a fault. */
  push(bytes: Uint8Array): Float32Array {
    if (bytes.length > 0) this.#isEmpty = false
    if (this.#phase === 'done') this.#passOver(bytes)
    if (this.#fault || this.#phase === 'done') return new Float32Array(0)
    this.#kept = joined(this.#kept, bytes)
    if (this.#phase !== 'samples') this.#readHeader()
    return this.#phase === 'samples' && !this.#fault ? this.#readSamples() : new Float32Array(0)
  }

  /** What kept the whole from being read, if anything did. */
  end(): WavFault | undefined {
    if (this.#fault) return this.#fault
    if (this.#isEmpty) return { code: 'empty' }
    if (this.#phase === 'riff') return { code: 'not_wav' }
    if (!this.#format) return { code: 'no_format' }
    return this.#samples === 0 ? { code: 'no_samples' } : undefined
  }

  #take(count: number): Uint8Array {
    const taken = this.#kept.subarray(0, count)
    this.#kept = this.#kept.subarray(count)
    return taken
  }

  #readHeader(): void {
    for (;;) {
      if (this.#skip > 0) {
        const skipped = Math.min(this.#skip, this.#kept.length)
        this.#take(skipped)
        this.#skip -= skipped
        if (this.#skip > 0) return
      }
      if (this.#phase === 'riff') {
        if (this.#kept.length < 12) return
        const head = this.#take(12)
        if (ascii(head, 0) !== 'RIFF' || ascii(head, 8) !== 'WAVE') {
          this.#fault = { code: 'not_wav' }
          return
        }
        this.#phase = 'chunks'
      }
      if (this.#kept.length < 8) return
      const length = view(this.#kept).getUint32(4, true)
      const name = ascii(this.#kept, 0)
      if (name === 'data') {
        this.#take(8)
        this.#startSamples(length)
        return
      }
      if (name === 'fmt ') {
        if (length > LONGEST_HEADER || length < 16) {
          this.#fault = { code: 'no_format' }
          return
        }
        if (this.#kept.length < 8 + length) return
        const format = readFormat(view(this.#take(8 + length).slice(8)))
        if ('code' in format) {
          this.#fault = format
          return
        }
        this.#format = format
        this.#skip = length % 2
      } else {
        this.#take(8)
        this.#skip = length + (length % 2)
      }
    }
  }

  #startSamples(length: number): void {
    if (!this.#format) {
      this.#fault = { code: 'no_format' }
      return
    }
    this.#phase = 'samples'
    this.#declared = length > 0 && length < 0xffffff00
    this.#left = this.#declared ? length : Infinity
  }

  #readSamples(): Float32Array {
    const { channels, encoding } = this.#format!
    const step = channels * BYTES[encoding]
    const count = Math.floor(Math.min(this.#kept.length, this.#left) / step)
    const bytes = view(this.#take(count * step))
    this.#left -= count * step
    const output = new Float32Array(count)
    for (let i = 0; i < count; i++) {
      let sum = 0
      for (let c = 0; c < channels; c++) {
        const value = decode(bytes, i * step + c * BYTES[encoding], encoding)
        if (!(Math.abs(value) <= FURTHEST)) {
          this.#fault = { code: 'not_a_number', sample: this.#samples + i }
          return output.subarray(0, i)
        }
        if (Math.abs(value) >= FULL_SCALE) this.#clipped++
        sum += value
      }
      output[i] = sum / channels
    }
    this.#samples += count
    if (this.#left < step) {
      this.#phase = 'done'
      this.#passOver(this.#kept)
      this.#kept = new Uint8Array(0)
    }
    return output
  }
}

/** Beyond this, 80 dB over full scale, a floating-point sample is damage, as are infinities and what is no number. */
const FURTHEST = 1e4
/** The largest value of eight bits is short of one by this much. */
const FULL_SCALE = 1 - 1 / 127

export type ParsedWav =
  | {
      readonly ok: true
      readonly samples: Float32Array
      readonly format: WavFormat
      readonly oddities: WavOddities
    }
  | { readonly ok: false; readonly fault: WavFault }

/** Reads a whole WAV file, channels mixed to one; see {@link WavStream}. */
export function parseWav(bytes: Uint8Array): ParsedWav {
  const stream = new WavStream()
  const samples = stream.push(bytes)
  const fault = stream.end()
  if (fault) return { ok: false, fault }
  return { ok: true, samples, format: stream.format!, oddities: stream.oddities }
}

/** A WAV file of one channel. What lies beyond full scale is cut off in whole numbers. */
export function writeWav(
  samples: ArrayLike<number>,
  sampleRateHz: number,
  encoding: WavEncoding = 'int16',
): Uint8Array<ArrayBuffer> {
  const width = BYTES[encoding]
  const isFloat = encoding.startsWith('float')
  const length = samples.length * width
  const bytes = new Uint8Array(44 + length + (length % 2))
  const out = view(bytes)
  const text = (at: number, word: string) => [...word].forEach((c, i) => (bytes[at + i] = c.charCodeAt(0)))
  text(0, 'RIFF')
  out.setUint32(4, bytes.length - 8, true)
  text(8, 'WAVEfmt ')
  out.setUint32(16, 16, true)
  out.setUint16(20, isFloat ? FLOAT : PCM, true)
  out.setUint16(22, 1, true)
  out.setUint32(24, sampleRateHz, true)
  out.setUint32(28, sampleRateHz * width, true)
  out.setUint16(32, width, true)
  out.setUint16(34, 8 * width, true)
  text(36, 'data')
  out.setUint32(40, length, true)
  for (let i = 0; i < samples.length; i++) encode(out, 44 + i * width, encoding, samples[i]!)
  return bytes
}

function readFormat(fmt: DataView): WavFormat | WavFault {
  const [tag, channels, sampleRateHz] = [
    fmt.getUint16(0, true),
    fmt.getUint16(2, true),
    fmt.getUint32(4, true),
  ]
  const [blockBytes, bits] = [fmt.getUint16(12, true), fmt.getUint16(14, true)]
  // The extension's own tag stands in the first bytes of its sub-format.
  const formatTag = tag === EXTENSIBLE && fmt.byteLength >= 26 ? fmt.getUint16(24, true) : tag
  const encoding = encodingOf(formatTag, bits)
  if (!encoding) return { code: 'unread_encoding', formatTag, bits }
  if (channels < 1 || blockBytes !== channels * BYTES[encoding])
    return { code: 'bad_format', channels, bits, blockBytes }
  if (sampleRateHz < LOWEST_RATE_HZ || sampleRateHz > HIGHEST_RATE_HZ)
    return { code: 'rate_out_of_range', sampleRateHz }
  return { sampleRateHz, channels, encoding }
}

function encodingOf(formatTag: number, bits: number): WavEncoding | undefined {
  if (formatTag === PCM)
    return ({ 8: 'int8', 16: 'int16', 24: 'int24', 32: 'int32' } as Record<number, WavEncoding>)[bits]
  if (formatTag === FLOAT) return ({ 32: 'float32', 64: 'float64' } as Record<number, WavEncoding>)[bits]
  return undefined
}

function decode(bytes: DataView, at: number, encoding: WavEncoding): number {
  switch (encoding) {
    // Eight bits are written without a sign.
    case 'int8':
      return (bytes.getUint8(at) - 128) / 128
    case 'int16':
      return bytes.getInt16(at, true) / 0x8000
    case 'int24':
      return (bytes.getUint16(at, true) + bytes.getInt8(at + 2) * 0x10000) / 0x800000
    case 'int32':
      return bytes.getInt32(at, true) / 0x80000000
    case 'float32':
      return bytes.getFloat32(at, true)
    case 'float64':
      return bytes.getFloat64(at, true)
  }
}

function encode(out: DataView, at: number, encoding: WavEncoding, value: number): void {
  const whole = (scale: number) => Math.max(-scale, Math.min(scale - 1, Math.round(value * scale)))
  switch (encoding) {
    case 'int8':
      return out.setUint8(at, whole(128) + 128)
    case 'int16':
      return out.setInt16(at, whole(0x8000), true)
    case 'int24':
      out.setUint16(at, whole(0x800000) & 0xffff, true)
      return out.setInt8(at + 2, whole(0x800000) >> 16)
    case 'int32':
      return out.setInt32(at, whole(0x80000000), true)
    case 'float32':
      return out.setFloat32(at, value, true)
    case 'float64':
      return out.setFloat64(at, value, true)
  }
}

function joined(first: Uint8Array, second: Uint8Array): Uint8Array<ArrayBuffer> {
  const all = new Uint8Array(first.length + second.length)
  all.set(first)
  all.set(second, first.length)
  return all
}

function view(bytes: Uint8Array): DataView {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
}

function ascii(bytes: Uint8Array, at: number): string {
  return String.fromCharCode(...bytes.subarray(at, at + 4))
}
