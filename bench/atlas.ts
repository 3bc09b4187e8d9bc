import { atlasOf, FAMILY_IDS, familyOf, keysOf, midiNumber, type Atlas, type Note } from '#core'
import { ratioOf, type Ratio } from './ratio'

/** Atlases a turn: one takes less than a clock can tell. */
const TIMES = 20
const SEMITONES_ABOVE_C = [0, 2, 4, 5, 7, 9, 11]

/**
 * The whole atlas of a family, every major key on every string in twelve positions, against a bare enumeration of the same
 * notes: the spelled note under each finger as a plain object, without frames, patterns, forms or open strings.
 */
export function atlasAgainstEnumeration(): Ratio[] {
  return FAMILY_IDS.map((id) => {
    const family = familyOf(id)
    const keys = keysOf('major')
    const ours = () => {
      let sum = 0
      for (let i = 0; i < TIMES; i++) sum += pitchesOf(atlasOf(family, family.tuning, keys, family.positions))
      return sum
    }
    const wanted = placesOf(atlasOf(family, family.tuning, keys, family.positions))
    const bare = () => {
      let sum = 0
      for (let i = 0; i < TIMES; i++) sum += enumerate(family.tuning, keys, wanted)
      return sum
    }
    const [a, b] = [ours(), bare()]
    if (a !== b) throw new Error(`the two sides have different notes: ${a} and ${b}`)
    return ratioOf(`atlas of the ${id}, ${keys.length} keys / bare enumeration of its notes`, ours, bare, 7)
  })
}

function pitchesOf(atlas: Atlas): number {
  let sum = 0
  for (const key of atlas)
    for (const position of key)
      for (const cell of position)
        if (cell.kind === 'placement') for (const stop of cell.stops) sum += midiNumber(stop.note)
  return sum
}

/** Which semitones are stopped in each cell: the enumeration is told, it does not decide. */
function placesOf(atlas: Atlas): number[][][][] {
  return atlas.map((key) =>
    key.map((position) =>
      position.map((cell) => (cell.kind === 'placement' ? cell.stops.map((s) => s.semitones) : [])),
    ),
  )
}

function enumerate(tuning: readonly Note[], keys: ReturnType<typeof keysOf>, places: number[][][][]): number {
  let sum = 0
  for (let k = 0; k < keys.length; k++) {
    const { accidentals } = keys[k]!
    for (const position of places[k]!)
      for (let s = 0; s < tuning.length; s++) {
        const open = midiNumber(tuning[s]!)
        for (const semitones of position[s]!) {
          const found = spelled(accidentals, open + semitones)
          sum += 12 * (found.octave + 1) + SEMITONES_ABOVE_C[found.letter]! + found.accidental
        }
      }
  }
  return sum
}

/** The note of a key at a pitch, as a plain search through its seven letters. */
function spelled(accidentals: readonly (readonly number[])[], midi: number) {
  for (let letter = 0; letter < 7; letter++) {
    const accidental = accidentals[letter]![0]!
    const natural = midi - accidental - SEMITONES_ABOVE_C[letter]!
    if (natural % 12 === 0) return { letter, accidental, octave: natural / 12 - 1 }
  }
  throw new Error(`no note of the key at ${midi}`)
}
