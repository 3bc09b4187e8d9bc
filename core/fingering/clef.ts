import { mean } from 'd3-array'
import type { FamilyId } from '../instrument'
import { midiNumber, type Note } from '../pitch'

export type Clef = 'treble' | 'alto' | 'tenor' | 'bass'

/** A family's own clef, and the one its high passages are written in. Common practice, no source. */
const CLEFS: Record<FamilyId, { readonly own: Clef; readonly high: Clef; readonly highFromMidi: number }> = {
  violin: { own: 'treble', high: 'treble', highFromMidi: Infinity },
  viola: { own: 'alto', high: 'treble', highFromMidi: 76 },
  cello: { own: 'bass', high: 'tenor', highFromMidi: 62 },
  bass: { own: 'bass', high: 'tenor', highFromMidi: 62 },
}

/** A double bass is written an octave above where it sounds. */
export function writtenNote(family: FamilyId, sounding: Note): Note {
  return family === 'bass' ? { ...sounding, octave: sounding.octave + 1 } : sounding
}

/** The clef for sounding notes: the family's own while the middle of them is not high for it. */
export function clefFor(family: FamilyId, sounding: readonly Note[]): Clef {
  const { own, high, highFromMidi } = CLEFS[family]
  const middle = mean(sounding, (n) => midiNumber(writtenNote(family, n))) ?? -Infinity
  return middle >= highFromMidi ? high : own
}
