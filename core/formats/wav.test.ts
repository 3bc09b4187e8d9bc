import { describe, expect, it } from 'vitest'
import wavefile from 'wavefile'
import { parseWav, WavStream, writeWav, type WavEncoding } from './wav'

const samples = Float32Array.from({ length: 500 }, (_, i) => 0.8 * Math.sin(i / 7))
const ENCODINGS: readonly (readonly [WavEncoding, string, number])[] = [
  ['int8', '8', 1 / 128],
  ['int16', '16', 1 / 0x8000],
  ['int24', '24', 1 / 0x800000],
  ['int32', '32', 1 / 0x800000],
  ['float32', '32f', 1e-7],
  ['float64', '64', 1e-7],
]

function furthest(a: ArrayLike<number>, b: ArrayLike<number>): number {
  expect(a.length).toBe(b.length)
  return Math.max(...Array.from(a, (v, i) => Math.abs(v - b[i]!)))
}

/** A file by another hand: the library wavefile. */
function filed(channels: readonly ArrayLike<number>[], rate: number, depth: string): Uint8Array {
  const wav = new wavefile.WaveFile()
  const scale = depth.endsWith('f') || depth === '64' ? 1 : 2 ** (Number(depth) - 1)
  const scaled = channels.map((c) =>
    Array.from(c, (v) => (scale === 1 ? v : Math.round(v * (scale - 1)) + (depth === '8' ? 128 : 0))),
  )
  wav.fromScratch(channels.length, rate, depth, channels.length === 1 ? scaled[0]! : scaled)
  return wav.toBuffer()
}

describe('a WAV file', () => {
  it.each(ENCODINGS)(
    'of %s by another library is read, and what is written is read by it',
    (encoding, depth, step) => {
      const read = parseWav(filed([samples], 48_000, depth))
      if (!read.ok) throw new Error(read.fault.code)
      expect(read.format).toEqual({ sampleRateHz: 48_000, channels: 1, encoding })
      expect(furthest(read.samples, samples)).toBeLessThan(1.6 * step)

      const theirs = new wavefile.WaveFile(writeWav(samples, 22_050, encoding))
      expect((theirs.fmt as { sampleRate: number }).sampleRate).toBe(22_050)
      expect(theirs.bitDepth).toBe(depth)
      const again = parseWav(theirs.toBuffer())
      expect(again.ok && furthest(again.samples, samples)).toBeLessThan(1.6 * step)
    },
  )

  it('of six channels is mixed to one', () => {
    const channels = [1, 2, 3, 4, 5, 6].map((k) => samples.map((v) => (v * k) / 6))
    const bytes = filed(channels, 96_000, '24')
    const read = parseWav(bytes)
    if (!read.ok) throw new Error(read.fault.code)
    expect(read.format).toEqual({ sampleRateHz: 96_000, channels: 6, encoding: 'int24' })
    expect(
      furthest(
        read.samples,
        samples.map((v) => (v * 21) / 36),
      ),
    ).toBeLessThan(1e-6)
  })

  it('comes out the same in pieces of any size, with other chunks around its samples', () => {
    const plain = writeWav(samples, 44_100)
    const note = Uint8Array.of(...'LIST'.split('').map((c) => c.charCodeAt(0)), 3, 0, 0, 0, 1, 2, 3, 0)
    const bytes = Uint8Array.of(...plain.subarray(0, 36), ...note, ...plain.subarray(36), ...note)
    const whole = parseWav(bytes)
    for (const size of [1, 7, 100]) {
      const stream = new WavStream()
      const read: number[] = []
      for (let i = 0; i < bytes.length; i += size) read.push(...stream.push(bytes.subarray(i, i + size)))
      expect(stream.end()).toBeUndefined()
      expect(whole.ok && [...whole.samples]).toEqual(read)
    }
  })

  it('of two hours is read as it comes, and nothing of it is kept', () => {
    const stream = new WavStream()
    const head = writeWav([], 44_100)
    const samplesInAll = 2 * 3600 * 44_100
    new DataView(head.buffer).setUint32(40, 2 * samplesInAll, true)
    stream.push(head)
    for (let i = 0; i < 10; i++) expect(stream.push(new Uint8Array(2 * 44_100))).toHaveLength(44_100)
    expect(stream.end()).toBeUndefined()
    expect(stream.oddities.missingSamples).toBe(samplesInAll - 441_000)
  })

  it('that was cut off is read as far as it goes, and says what is missing', () => {
    const bytes = writeWav(samples, 44_100).slice(0, 44 + 2 * 300 + 1)
    const read = parseWav(bytes)
    expect(read.ok && read.samples.length).toBe(300)
    expect(read.ok && read.oddities.missingSamples).toBe(200)
  })

  it.each([0, 0xffffffff])('whose recorder never wrote its length (%i) is read to its end', (length) => {
    const bytes = writeWav(samples, 44_100)
    new DataView(bytes.buffer).setUint32(40, length, true)
    const read = parseWav(bytes)
    expect(read.ok && read.samples.length).toBe(500)
    expect(read.ok && read.oddities.missingSamples).toBe(0)
  })

  it('whose header tells of less than it holds says what was not heard; chunks after the sound are none of it', () => {
    const bytes = writeWav(samples, 44_100)
    const short = bytes.slice()
    new DataView(short.buffer).setUint32(40, 2 * 200, true)
    // In pieces, as a file comes.
    const stream = new WavStream()
    const heard = [0, 44, 300, 460, 461].map(
      (from, i, all) => stream.push(short.slice(from, all[i + 1])).length,
    )
    expect(heard.reduce((a, b) => a + b)).toBe(200)
    expect(stream.oddities.unheardSamples).toBe(300)
    const list = [...'LIST'].map((c) => c.charCodeAt(0))
    const followed = parseWav(Uint8Array.from([...bytes, ...list, 4, 0, 0, 0, ...list]))
    expect(followed.ok && followed.oddities.unheardSamples).toBe(0)
    expect(followed.ok && followed.samples.length).toBe(500)
  })

  it.each([Infinity, -Infinity, 1e38])(
    'of floating point that holds %d is refused as what is no number is',
    (value) => {
      const read = parseWav(writeWav(Float32Array.of(0, 0.1, value), 44_100, 'float32'))
      expect(read).toMatchObject({ ok: false, fault: { code: 'not_a_number', sample: 2 } })
    },
  )

  it('says how many of its samples are at full scale', () => {
    const loud = samples.map((v) => Math.max(-1, Math.min(1, 2 * v)))
    const read = parseWav(writeWav(loud, 44_100))
    expect(read.ok && read.oddities.clippedSamples).toBeGreaterThan(100)
  })
})

describe('bytes that are no sound', () => {
  const with16 = (at: number, value: number, bytes = writeWav(samples, 44_100)) => {
    new DataView(bytes.buffer).setUint16(at, value, true)
    return bytes
  }
  const withNaN = writeWav(Float32Array.of(0, 0.1, NaN), 44_100, 'float32')
  it.each([
    ['nothing', new Uint8Array(0), { code: 'empty' }],
    ['text', new TextEncoder().encode('This is a letter and not a recording.'), { code: 'not_wav' }],
    ['half a header', writeWav(samples, 44_100).slice(0, 20), { code: 'no_format' }],
    ['a header alone', writeWav([], 44_100).slice(0, 44), { code: 'no_samples' }],
    ['compressed samples', with16(20, 0x55), { code: 'unread_encoding', formatTag: 0x55, bits: 16 }],
    ['a width nobody writes', with16(34, 12), { code: 'unread_encoding', formatTag: 1, bits: 12 }],
    ['no channel', with16(22, 0), { code: 'bad_format', channels: 0, bits: 16, blockBytes: 2 }],
    ['a wrong block', with16(32, 3), { code: 'bad_format', channels: 1, bits: 16, blockBytes: 3 }],
    ['a rate of 1 Hz', with16(24, 1, with16(26, 0)), { code: 'rate_out_of_range', sampleRateHz: 1 }],
    ['what is not a number', withNaN, { code: 'not_a_number', sample: 2 }],
  ])('%s: the fault is named', (_, bytes, fault) => {
    expect(parseWav(bytes)).toEqual({ ok: false, fault })
  })
})
