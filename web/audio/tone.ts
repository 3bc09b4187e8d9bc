import { LOUDEST } from '#contracts'

/** A tone that begins or ends at once clicks. */
const FADE_S = 0.06
/** A string-like tone: partials falling as 1/n², so that its pitch is plain also low down. */
const PARTIALS = [0, 1, 0.25, 0.11, 0.06, 0.04]

export interface Tone {
  stop(): void
}

/** What plays tones; handed in by tests. */
export interface PlayerParts {
  readonly newContext: () => AudioContext
  readonly play: typeof playTone
}

/** A reference tone of `frequencyHz` until it is stopped; needs a key press or click before it, as browsers ask. */
export function playTone(context: BaseAudioContext, frequencyHz: number, loudness: number): Tone {
  const oscillator = context.createOscillator()
  const gain = context.createGain()
  oscillator.setPeriodicWave(
    context.createPeriodicWave(new Float32Array(PARTIALS.length), new Float32Array(PARTIALS)),
  )
  oscillator.frequency.value = frequencyHz
  const level = Math.min(LOUDEST, Math.max(0, loudness))
  gain.gain.setValueAtTime(0, context.currentTime)
  gain.gain.linearRampToValueAtTime(level, context.currentTime + FADE_S)
  oscillator.connect(gain).connect(context.destination)
  oscillator.start()
  return {
    stop() {
      const now = context.currentTime
      gain.gain.cancelScheduledValues(now)
      gain.gain.setValueAtTime(level, now)
      gain.gain.linearRampToValueAtTime(0, now + FADE_S)
      oscillator.stop(now + FADE_S)
    },
  }
}
