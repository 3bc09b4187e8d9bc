import {
  mannerOf,
  parseWav,
  perform,
  readSnapshot,
  record,
  seededSource,
  SAMPLE_RATES_HZ,
  TakeListener,
} from '#core'
import type { ListenFault, ListenOrder, ListenReport, StudentOrder } from './messages'

/** Longest recording that is heard at once. */
const LONGEST_MINUTES = 60
/** A recording is heard piece by piece, so that the page can say how far it is. */
const PIECE_S = 2

let listener: TakeListener | undefined

function report(message: ListenReport, transfer: Transferable[] = []) {
  self.postMessage(message, { transfer })
}

function hear(samples: Float32Array) {
  if (!listener) return
  const news = listener.push(samples)
  report({ kind: 'news', news })
  if (news.phase === 'over') end()
}

function end() {
  if (listener) report({ kind: 'over', take: listener.end() })
  listener = undefined
}

function hearWhole(samples: Float32Array, sampleRateHz: number) {
  const fault = faultOf(samples, sampleRateHz)
  if (fault) return report({ kind: 'failed', fault })
  // Whatever pauses there are, a recording is one take.
  const whole = new TakeListener(sampleRateHz, { silenceS: Infinity, longestS: Infinity })
  const piece = Math.ceil(PIECE_S * sampleRateHz)
  for (let at = 0; at < samples.length; at += piece) {
    whole.push(samples.subarray(at, at + piece))
    report({ kind: 'progress', part: Math.min(1, (at + piece) / samples.length) })
  }
  report({ kind: 'over', take: whole.end() })
}

function faultOf(samples: Float32Array, sampleRateHz: number): ListenFault | undefined {
  const { lowest, highest } = SAMPLE_RATES_HZ
  if (!(sampleRateHz >= lowest && sampleRateHz <= highest)) return { code: 'rate', sampleRateHz }
  const minutes = samples.length / sampleRateHz / 60
  return minutes > LONGEST_MINUTES ? { code: 'too_long', minutes } : undefined
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
  report({ kind: 'sound', samples }, [samples.buffer])
}

self.onmessage = ({ data }: MessageEvent<ListenOrder>) => {
  try {
    switch (data.kind) {
      case 'begin':
        listener = new TakeListener(data.sampleRateHz, { silenceS: data.silenceS })
        if (data.port)
          data.port.onmessage = ({ data: block }: MessageEvent<Float32Array>) => hearSafely(block)
        break
      case 'end':
        end()
        break
      case 'file': {
        const parsed = parseWav(new Uint8Array(data.bytes))
        if (!parsed.ok) report({ kind: 'failed', fault: { code: 'no_sound_file' } })
        else hearWhole(parsed.samples, parsed.format.sampleRateHz)
        break
      }
      case 'samples':
        hearWhole(data.samples, data.sampleRateHz)
        break
      case 'student':
        simulate(data.order)
    }
  } catch (error) {
    fail(error)
  }
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
  report({
    kind: 'failed',
    fault: { code: 'broken', message: error instanceof Error ? error.message : String(error) },
  })
}
