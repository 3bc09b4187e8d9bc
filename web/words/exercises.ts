import {
  drillsFor,
  FAMILY_IDS,
  parseKey,
  parseNote,
  type ExerciseFault,
  type ExerciseName as CoreName,
} from '#core'
import type { ExerciseName } from '#contracts'
import { drillName } from './drills'
import { keyName } from './keys'
import { positionNamed } from './positions'
import { noteLabel } from './notes'
import { shapeName } from './trade'

export const EXERCISE_KINDS: Readonly<Record<CoreName['kind'], string>> = {
  shape: 'Hand shape',
  hand: 'Hand of a key',
  scale: 'Scale',
  arpeggio: 'Arpeggio',
  drill: 'Drill',
  fourth: '4 and open',
  octave: 'Octave 1–4',
  free: 'Free take',
}

const OCTAVES = ['', 'one octave', 'two octaves', 'three octaves']

/** What was played, as in `A string, first position` or `D major scale, two octaves`. */
export function exerciseName(exercise: ExerciseName): string {
  switch (exercise.kind) {
    case 'shape':
      return `${stringName(exercise.string)}, ${shapeName(exercise.shapeId).toLowerCase()}`
    case 'hand':
      return `${stringName(exercise.string)}, hand of ${keyOfId(exercise.keyId)}, ${positionNamed(exercise.positionId)}`
    case 'drill': {
      const drill = FAMILY_IDS.flatMap((family) => drillsFor(family)).find(
        ({ id }) => id === exercise.drillId,
      )
      const where = drill?.across ? 'across the strings' : stringName(exercise.string)
      return `${drill ? drillName(drill.id) : 'A drill'}: ${keyOfId(exercise.keyId)}, ${where}, ${positionNamed(exercise.positionId)}`
    }
    case 'fourth':
      return `4 on the ${stringName(exercise.string)} against the next open string`
    case 'octave':
      return `octave 1–4 from the ${stringName(exercise.string)} up`
    case 'free':
      return 'free take'
    default:
      return `${keyOfId(exercise.keyId)} ${exercise.kind}, ${OCTAVES[exercise.octaves]}`
  }
}

/** Why there is nothing to play, and which of what was chosen can be chosen otherwise. */
export function exerciseFaultSentence(
  fault: ExerciseFault,
  { kind, octaves }: { readonly kind: CoreName['kind']; readonly octaves: number },
): string {
  switch (fault) {
    case 'out_of_range':
      return octaves > 1
        ? `The strings do not hold ${OCTAVES[octaves]} of this key: choose fewer octaves, or another key.`
        : 'The strings do not hold an octave of this key: choose another key.'
    case 'no_hand':
      return kind === 'fourth' || kind === 'octave'
        ? 'No hand on these strings plays that pair: choose another exercise.'
        : 'There is no such hand on this string: choose another string, position or key.'
    case 'fingers_missing':
      return 'This hand has not the fingers for the drill: choose another drill, string, position or key.'
    case 'unknown':
      return 'This instrument does not have that exercise: choose another one.'
  }
}

function stringName(name: string): string {
  const open = parseNote(name)
  return `${open ? noteLabel(open, { octave: false }) : name} string`
}

function keyOfId(id: string): string {
  const parsed = parseKey(id)
  return parsed.ok ? keyName(parsed.key) : id
}
