import type { Key, KeyFault, ModeId } from '#core'
import { noteLabel } from './notes'

export const MODE_NAMES: Record<ModeId, string> = {
  major: 'major',
  natural_minor: 'natural minor',
  harmonic_minor: 'harmonic minor',
  melodic_minor: 'melodic minor',
  dorian: 'dorian',
  phrygian: 'phrygian',
  lydian: 'lydian',
  mixolydian: 'mixolydian',
  locrian: 'locrian',
  major_pentatonic: 'major pentatonic',
  minor_pentatonic: 'minor pentatonic',
  chromatic: 'chromatic',
}

/** `F♯ harmonic minor` */
export function keyName({ tonic, mode }: Key): string {
  return `${noteLabel(tonic, { octave: false })} ${MODE_NAMES[mode.id]}`
}

export function keyFaultSentence(fault: KeyFault): string {
  if (fault.code === 'key_mode')
    return `“${fault.text}” is no scale here: type one as in D major, A harmonic minor, E dorian.`
  return fault.text === ''
    ? 'Type a key, as in D major or F♯ harmonic minor.'
    : `“${fault.text}” is no key: begin with a letter from A to G, as in B♭ major.`
}
