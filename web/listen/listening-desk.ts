import {
  mannerOf,
  perform,
  readSnapshot,
  record,
  seededSource,
  SAMPLE_RATES_HZ,
  TAKE_OPTIONS,
  TakeListener,
  WavStream,
} from '#core'
import type { ListenFault, ListenOrder, ListenReport, StudentOrder } from './messages'

/** Sends word to the page. */
export type Tell = (report: ListenReport, transfer?: Transferable[]) => void

/** Longest recording that is heard at once: no longer a take is kept. */
const LONGEST_MINUTES = TAKE_OPTIONS.longestS / 60
/** A recording is heard piece by piece, so that the page can say how far it is. */
const PIECE_S = 2
const PIECE_BYTES = 1 << 19
/** Sound that is kept from before the first note, and of a whole take: what is longer is not kept at all. */
const LEAD_S = 0.5
const LONGEST_SOUND_S = 300
/** Whatever pauses there are, a recording is one take. */
const WHOLE = { silenceS: Infinity, longestS: Infinity }

function faultOf(sampleCount: number, sampleRateHz: number): ListenFault | undefined {
  const { lowest, highest } = SAMPLE_RATES_HZ
  if (!(sampleRateHz >= lowest && sampleRateHz <= highest)) return { code: 'rate', sampleRateHz }
  const minutes = sampleCount / sampleRateHz / 60
  return minutes > LONGEST_MINUTES ? { code: 'too_long', minutes } : undefined
}

function joined(pieces: readonly Float32Array[]): Float32Array {
  const all = new Float32Array(pieces.reduce((sum, piece) => sum + piece.length, 0))
  let at = 0
  for (const piece of pieces) {
    all.set(piece, at)
    at += piece.length
  }
  return all
}

/**
 * The listening itself, wherever it runs: takes orders one after the other and tells what is heard.
 */
export function listeningDesk(tell: Tell): (order: ListenOrder) => void {
  let listener: TakeListener | undefined
  /** What sounded, from a moment before the first note. */
  let pieces: Float32Array[] | undefined = []

  function hear(samples: Float32Array) {
    if (!listener) return
    const news = listener.push(samples)
    keep(samples, news.phase === 'waiting', listener.sampleRateHz)
    tell({ kind: 'news', news })
    if (news.phase === 'over') end()
  }

  function keep(samples: Float32Array, isWaiting: boolean, sampleRateHz: number) {
    if (!pieces) return
    pieces.push(samples)
    const lastsS = (pieces.length * samples.length) / sampleRateHz
    if (isWaiting && lastsS > LEAD_S) pieces.shift()
    else if (lastsS > LONGEST_SOUND_S) pieces = undefined
  }

  function end() {
    if (!listener) return
    const { sampleRateHz } = listener
    const sound = pieces && { samples: joined(pieces), sampleRateHz }
    tell({ kind: 'over', take: listener.end(), sound })
    listener = undefined
  }

  function hearWhole(samples: Float32Array, sampleRateHz: number) {
    const fault = faultOf(samples.length, sampleRateHz)
    if (fault) return tell({ kind: 'failed', fault })
    const whole = new TakeListener(sampleRateHz, WHOLE)
    const piece = Math.ceil(PIECE_S * sampleRateHz)
    for (let at = 0; at < samples.length; at += piece) {
      whole.push(samples.subarray(at, at + piece))
      tell({ kind: 'progress', part: Math.min(1, (at + piece) / samples.length) })
    }
    const isShort = samples.length <= LONGEST_SOUND_S * sampleRateHz
    tell({ kind: 'over', take: whole.end(), sound: isShort ? { samples, sampleRateHz } : undefined })
  }

  /** A WAV file piece by piece, in memory that does not grow with it. */
  async function hearFile(file: Blob) {
    const wav = new WavStream()
    let whole: TakeListener | undefined
    pieces = []
    let length = 0
    for (let at = 0; at < file.size && !wav.fault; at += PIECE_BYTES) {
      const bytes = new Uint8Array(await file.slice(at, at + PIECE_BYTES).arrayBuffer())
      const samples = wav.push(bytes)
      if (!wav.format) continue
      const { sampleRateHz } = wav.format
      if (!whole) {
        const fault = faultOf((samples.length * file.size) / bytes.length, sampleRateHz)
        if (fault) return tell({ kind: 'failed', fault })
        whole = new TakeListener(sampleRateHz, WHOLE)
      }
      whole.push(samples)
      pieces?.push(samples)
      length += samples.length
      if (length > LONGEST_SOUND_S * sampleRateHz) pieces = undefined
      tell({ kind: 'progress', part: Math.min(1, (at + PIECE_BYTES) / file.size) })
    }
    if (wav.end() || !whole) tell({ kind: 'failed', fault: { code: 'no_sound_file' } })
    else {
      const unheardS = wav.oddities.unheardSamples / whole.sampleRateHz
      const sound = pieces && { samples: joined(pieces), sampleRateHz: whole.sampleRateHz }
      tell({ kind: 'over', take: whole.end(), sound, ...(unheardS > 0 && { unheardS }) })
    }
  }

  function simulate({
    stringing: snapshot,
    exercise,
    level,
    faults,
    stroke,
    seed,
    a4Hz,
    sampleRateHz,
  }: StudentOrder) {
    const read = readSnapshot(snapshot)
    if (!read.ok) throw new Error(`the strings cannot be read: ${read.fault.code}`)
    const manner = { ...mannerOf(level, faults), stroke }
    const performance = perform(seededSource(seed), read.stringing, exercise, manner)
    const sound = record(seededSource(seed + 1), performance, { sampleRateHz, a4Hz })
    const samples = new Float32Array(sound)
    tell({ kind: 'sound', samples }, [samples.buffer])
  }

  function hearSafely(block: Float32Array) {
    try {
      hear(block)
    } catch (error) {
      fail(error)
    }
  }

  function fail(error: unknown) {
    listener = undefined
    tell({
      kind: 'failed',
      fault: { code: 'broken', message: error instanceof Error ? error.message : String(error) },
    })
  }
  return (order: ListenOrder) => {
    try {
      switch (order.kind) {
        case 'begin':
          listener = new TakeListener(order.sampleRateHz, {
            silenceS: order.silenceS,
            droneHz: order.droneHz,
          })
          pieces = []
          if (order.port) order.port.onmessage = ({ data }: MessageEvent<Float32Array>) => hearSafely(data)
          break
        case 'end':
          end()
          break
        case 'file':
          void hearFile(order.file).catch(fail)
          break
        case 'samples':
          hearWhole(order.samples, order.sampleRateHz)
          break
        case 'student':
          simulate(order.order)
      }
    } catch (error) {
      fail(error)
    }
  }
}
