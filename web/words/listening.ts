import type { HeardWholeTake, SoundLevel, TakeReading } from '#core'
import { count, listed, signedCents } from './numbers'

/** Why nothing can be heard, and what to do about it. */
export function microphoneSentence(error: unknown): string {
  const name = error instanceof DOMException ? error.name : ''
  switch (name) {
    case 'NotAllowedError':
    case 'SecurityError':
      return 'The browser was not allowed to listen. Allow the microphone for this page in the address bar, then press Listen again.'
    case 'NotSupportedError':
      return 'A browser listens only on the machine where Jadefell runs, or over https. Choose a recording, or type what a meter shows.'
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

/** What a file holds beyond what its header tells of. */
export function unheardSentence(seconds: number): string {
  return `The end of this recording, ${seconds < 1 ? 'less than a second' : `${Math.round(seconds)} seconds`}, was not heard: its header tells of less than the file holds. Save it as WAV anew to hear all of it.`
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

/**
 * No microphone and its amplifier are so quiet, dB of full scale: the noise of 16 bits alone is at −98 (6.02 × 16 + 1.76, Bennett
 * 1948). Where it lies lower, no sound comes.
 */
const NOTHING_DB = -92

/** What the room is like before anybody plays. */
export function roomSentence(noiseDb: number | null, humHz: number | null = null): string {
  if (humHz !== null)
    return `Something hums at ${humHz} Hz, a lamp or a plug: it is left out. Turn it off, or come nearer.`
  if (noiseDb === null) return 'Listening to the room …'
  if (noiseDb < NOTHING_DB)
    return 'Nothing at all comes from this microphone: is it muted, or is another one meant (M)?'
  if (noiseDb < HUMS_DB) return 'The room is quiet.'
  const noise = `The room is at ${signedCents(noiseDb)} dB`
  return noiseDb < QUIET_DB
    ? `${noise}: good enough.`
    : `${noise}, too loud to hear a string well: come nearer.`
}

/** A room in which a note takes longer to fall by 20 dB rings into the next one, seconds. Common practice, no source. */
const RINGS_ON_S = 0.7

/** What a take says before any hand is judged; empty where nothing stands in the way and nothing was left out. */
export function takeSentence(
  reading: TakeReading,
  whole: Pick<HeardWholeTake, 'hasClipped' | 'humHz' | 'ringsS' | 'doubleStops'>,
  nameOf: (index: number) => string,
): string {
  const { isOther, readings, extra, octaves } = reading
  if (readings.length === 0 && extra.length === 0)
    return 'No note was heard. Play nearer to the microphone, or look which one is chosen.'
  if (octaves !== 0)
    return `What was heard lies ${octaves > 0 ? 'an octave above' : 'an octave below'} this exercise: another string, or another instrument? No finger is judged. Choose what was played, or play it once more.`
  if (isOther)
    return 'Little of what was heard fits this exercise: another piece, or another string? Choose what was played, or a free take, or play it once more.'
  return [...leftOut(reading, nameOf), ...surroundings(reading, whole)].join(' ')
}

/** What was not heard, and what was heard and is not judged. */
function leftOut(
  { missing, readings, extra, hasCompany }: TakeReading,
  nameOf: (index: number) => string,
): string[] {
  const names = (indices: readonly number[]) => listed([...new Set(indices.map(nameOf))])
  const wrong = readings.filter((r) => r.isWrong && !r.doubt).map(({ index }) => index)
  const unsteady = readings.filter(({ doubt }) => doubt === 'unsteady').map(({ index }) => index)
  const octave = readings.filter(({ doubt }) => doubt === 'octave').map(({ index }) => index)
  const faint = readings.filter(({ doubt }) => doubt === 'faint').length
  return [
    missing.length > 0 ? `Not heard: ${names(missing)}.` : '',
    wrong.length > 0 ? `Another note was played for ${names(wrong)}: not judged.` : '',
    octave.length > 0 ? `Heard in another octave: ${names(octave)}; not judged.` : '',
    unsteady.length > 0 ? `No steady pitch: ${names(unsteady)}; not judged.` : '',
    faint > 0
      ? `${count(faint, 'note')} much softer than the others ${faint === 1 ? 'is' : 'are'} not judged.`
      : '',
    extra.length > 0 && !hasCompany ? `${count(extra.length, 'note')} more than the exercise has.` : '',
  ].filter(Boolean)
}

/** What was in the way, and what to do about it. */
function surroundings(
  { readings, hasCompany }: TakeReading,
  {
    hasClipped,
    humHz,
    ringsS,
    doubleStops,
  }: Pick<HeardWholeTake, 'hasClipped' | 'humHz' | 'ringsS' | 'doubleStops'>,
): string[] {
  const rings = readings.some(({ doubt }) => doubt === 'rings') || (ringsS ?? 0) > RINGS_ON_S
  return [
    hasCompany
      ? 'Somebody seems to talk or play beside: short and unsteady sounds are not judged. Play it once more in quiet.'
      : '',
    humHz !== null ? `Something hums at ${humHz} Hz: it is left out.` : '',
    doubleStops.length > 0 ? 'Where two strings sounded together nothing is judged.' : '',
    rings ? 'The room or the strings ring on: leave a little silence between notes.' : '',
    hasClipped
      ? 'Some of it was too loud for the microphone: those notes are less sure. Turn it down a little.'
      : '',
  ].filter(Boolean)
}
