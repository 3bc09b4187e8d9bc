import { LOUDEST } from '#contracts'
import type { Tone } from './tone'

/** A click has no pitch that an ear could take for a note: a hundredth of a second of noise that dies away. */
const LASTS_S = 0.01
const DIES_AFTER_S = 0.002

/** A click on every beat until it is stopped, on the sound's own clock. */
export function playClicks(context: BaseAudioContext, perMinute: number, loudness: number): Tone {
  const { sampleRate } = context
  const beat = context.createBuffer(1, Math.round((60 / perMinute) * sampleRate), sampleRate)
  const samples = beat.getChannelData(0)
  for (let i = 0; i < LASTS_S * sampleRate && i < samples.length; i++)
    samples[i] = (2 * Math.random() - 1) * Math.exp(-i / (DIES_AFTER_S * sampleRate))
  const source = context.createBufferSource()
  source.buffer = beat
  source.loop = true
  const gain = context.createGain()
  gain.gain.value = Math.min(LOUDEST, Math.max(0, loudness))
  source.connect(gain).connect(context.destination)
  source.start()
  return { stop: () => source.stop() }
}
