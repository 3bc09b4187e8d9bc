import type { SoundLevel, TakeReading } from '#core'
import { signedCents } from './numbers'

/** Why nothing can be heard, and what to do about it. */
export function microphoneSentence(error: unknown): string {
  const name = error instanceof DOMException ? error.name : ''
  switch (name) {
    case 'NotAllowedError':
    case 'SecurityError':
      return 'The browser was not allowed to listen. Allow the microphone for this page in the address bar, then press Listen again.'
    case 'NotFoundError':
      return 'There is no microphone. Plug one in, choose a recording, or type what a meter shows.'
    case 'OverconstrainedError':
      return 'The microphone used last is not there. Choose another one.'
    case 'NotReadableError':
      return 'Another program holds the microphone. Close it, then press Listen again.'
    default:
      return 'The microphone could not be opened. Choose a recording, or type what a meter shows.'
  }
}

/** Why a take ended by itself: what was heard until then stays. */
export function goneSentence(reason: 'unplugged' | 'silenced' | 'rate'): string {
  switch (reason) {
    case 'unplugged':
      return 'The microphone was unplugged. What it heard so far is here; plug it in and play the rest once more.'
    case 'silenced':
      return 'The browser silenced the microphone, as when the page is put aside. What it heard so far is here; keep the page in front and play the rest once more.'
    case 'rate':
      return 'The microphone works at another rate by now, as when headphones are plugged in. What it heard so far is here; press Listen again for the rest.'
  }
}

/** Why a file or a sound could not be heard, and what to do. */
export function listenFaultSentence(
  fault:
    | { readonly code: 'no_sound_file' }
    | { readonly code: 'too_large' }
    | { readonly code: 'too_long'; readonly minutes: number }
    | { readonly code: 'rate'; readonly sampleRateHz: number }
    | { readonly code: 'broken'; readonly message: string },
): string {
  switch (fault.code) {
    case 'no_sound_file':
      return 'This file holds no sound that can be read here. Choose a WAV, or another recording this browser plays.'
    case 'too_large':
      return 'This recording is too large to be opened at once. Save the exercise alone, or as WAV.'
    case 'too_long':
      return `This recording lasts ${Math.round(fault.minutes)} minutes. Cut it to half an hour, or to the exercise.`
    case 'rate':
      return `This recording has ${Math.round(fault.sampleRateHz)} samples a second. Save it with 8,000 to 192,000.`
    case 'broken':
      return `Listening broke off: ${fault.message}. Play it once more.`
  }
}

/** Quieter than this a note is heard badly, dB of full scale. Common practice, no source. */
const QUIET_DB = -45
/** A note stands so far above the room, at least. Common practice, no source. */
const ABOVE_NOISE_DB = 20

/** A room that is quieter than this is not worth a word. */
const HUMS_DB = -65
/** Nothing that sounds is quieter. */
const SILENT_DB = -75

/** How the sound arrives, in a word or two. */
export function levelWord({
  levelDb,
  isClipped,
  noiseDb,
}: SoundLevel): 'too loud' | 'good' | 'too quiet' | 'silent' {
  if (isClipped) return 'too loud'
  const floor = Math.max(SILENT_DB, noiseDb ?? SILENT_DB)
  if (levelDb > QUIET_DB && levelDb > floor + ABOVE_NOISE_DB) return 'good'
  return levelDb > floor + ABOVE_NOISE_DB / 2 ? 'too quiet' : 'silent'
}

/** What the room is like before anybody plays. */
export function roomSentence(noiseDb: number | null): string {
  if (noiseDb === null) return 'Listening to the room …'
  if (noiseDb < HUMS_DB) return 'The room is quiet.'
  const hums = `The room hums at ${signedCents(noiseDb)} dB`
  return noiseDb < QUIET_DB
    ? `${hums}: good enough.`
    : `${hums}, too loud to hear a string well: come nearer.`
}

/** What a take says before any hand is judged; empty where nothing stands in the way. */
export function takeSentence(
  { isOther, readings, extra, octaves }: TakeReading,
  hasClipped: boolean,
): string {
  if (readings.length === 0 && extra.length === 0)
    return 'No note was heard. Play nearer to the microphone, or look which one is chosen.'
  if (isOther)
    return 'Little of what was heard fits this exercise. Choose what was played, or a free take, or play it once more.'
  if (octaves !== 0)
    return `All of it was heard ${octaves > 0 ? 'an octave above' : 'an octave below'} the exercise; the fingers are judged all the same.`
  if (hasClipped)
    return 'Some of it was too loud for the microphone: those notes are less sure. Turn it down a little.'
  return ''
}
