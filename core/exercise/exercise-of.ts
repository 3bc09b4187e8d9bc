import {
  drillNotes,
  drillsFor,
  fingerScale,
  type FingeredNote,
  type KeptShorter,
  type Lock,
} from '../fingering'
import { shapeOf } from '../instrument'
import { midiNumber } from '../pitch'
import { parseKey, type Key } from '../key'
import { placementAt } from '../pattern'
import { techniqueOf, type FingeringOptions, type PlacementContext } from '../technique'
import { shapeExercise, type Exercise, type ExerciseName, type ExpectedNote } from '../take'

/** Why there is no such exercise on these strings. */
export type ExerciseFault =
  /** No shape, key, position, drill or string of that name. */
  | 'unknown'
  /** The key has no hand on this string in this position. */
  | 'no_hand'
  /** The hand has not the fingers that the drill is made of. */
  | 'fingers_missing'
  /** The strings do not hold so many octaves. */
  | 'out_of_range'

export type MadeExercise =
  | { readonly ok: true; readonly exercise: Exercise }
  | { readonly ok: false; readonly code: ExerciseFault }

/** Times that a drill’s figure is played in one take, on each string. */
const DRILL_TIMES = 4
/** Times that two notes are held against each other. */
const MATCH_TIMES = 3

/** How a studio fingers scales: its schools, and what its teachers have settled of this one. */
export interface ScaleSchool {
  readonly options?: Partial<FingeringOptions>
  readonly locks?: readonly Lock[]
  /** What they keep of the same figure over fewer octaves. */
  readonly kept?: KeptShorter
}

/** The notes of an exercise by its name, for a family, its strings and its frame. A free take has none before it is heard. */
export function exerciseOf(
  context: PlacementContext,
  name: ExerciseName,
  school: ScaleSchool = {},
): MadeExercise {
  switch (name.kind) {
    case 'free':
      return { ok: true, exercise: { name, notes: [] } }
    case 'shape': {
      const shape = shapeOf(context.family, name.shapeId)
      if (!shape || !context.tuning[name.stringIndex]) return { ok: false, code: 'unknown' }
      return { ok: true, exercise: shapeExercise(context.tuning, name.stringIndex, shape) }
    }
    case 'hand':
      return ofHand(context, name)
    case 'drill':
      return ofDrill(context, name)
    case 'fourth':
    case 'octave':
      return ofMatch(context, name)
    default:
      return ofScale(context, name, school)
  }
}

/** The strings, lowest first, on which these have such an exercise; none where no hand of the family plays it. */
export function stringsThatPlay(
  context: PlacementContext,
  name: Extract<ExerciseName, { readonly stringIndex: number }>,
): number[] {
  return context.tuning.flatMap((_, stringIndex) =>
    exerciseOf(context, { ...name, stringIndex }).ok ? [stringIndex] : [],
  )
}

type Named<Kind extends ExerciseName['kind']> = Extract<ExerciseName, { readonly kind: Kind }>

function ofHand(context: PlacementContext, name: Named<'hand'>): MadeExercise {
  const { stringIndex, positionId } = name
  const where = placeInKey(context, name)
  const open = context.tuning[stringIndex]
  if (!where || !open) return { ok: false, code: 'unknown' }
  const cell = placementAt(context, where.key, stringIndex, where.position)
  if (cell.kind === 'none') return { ok: false, code: 'no_hand' }
  return made(name, [
    { stringIndex, finger: 0, note: open, positionId: null },
    ...cell.stops.map(({ finger, note }) => ({ stringIndex, finger, note, positionId })),
  ])
}

function ofDrill(context: PlacementContext, name: Named<'drill'>): MadeExercise {
  const { stringIndex, positionId } = name
  const where = placeInKey(context, name)
  const drill = drillsFor(context.family.id).find(({ id }) => id === name.drillId)
  if (!where || !drill || !context.tuning[stringIndex]) return { ok: false, code: 'unknown' }
  const run = drillNotes(context, drill, where.key, stringIndex, where.position, DRILL_TIMES)
  if (!run.ok) return { ok: false, code: run.code === 'no_hand' ? run.code : 'fingers_missing' }
  return made(
    name,
    run.notes.map(({ stringIndex: on, finger, note }) => ({
      stringIndex: on,
      finger,
      note,
      positionId: finger === 0 ? null : positionId,
    })),
  )
}

/** 4 and its partner in turn, where the family’s usual hand has them one by ear. */
function ofMatch({ family, tuning }: PlacementContext, name: Named<'fourth' | 'octave'>): MadeExercise {
  const octave = techniqueOf(family.id).octave
  const strings = name.kind === 'octave' ? (octave?.strings ?? 1) : 1
  const [low, high] = [tuning[name.stringIndex], tuning[name.stringIndex + strings]]
  const shape = shapeOf(family, family.defaultShapeId)
  if (!low) return { ok: false, code: 'unknown' }
  if (!high || !shape) return { ok: false, code: 'no_hand' }
  const at = (stringIndex: number, finger: number) =>
    shapeExercise(tuning, stringIndex, shape).notes.find((n) => n.finger === finger)
  const [lower, upper] =
    name.kind === 'fourth'
      ? [at(name.stringIndex, 4), at(name.stringIndex + 1, 0)]
      : [at(name.stringIndex, octave?.lower ?? 1), at(name.stringIndex + strings, octave?.upper ?? 4)]
  if (!lower || !upper) return { ok: false, code: 'no_hand' }
  const apart = midiNumber(upper.note) - midiNumber(lower.note)
  if (apart !== (name.kind === 'fourth' ? 0 : 12)) return { ok: false, code: 'no_hand' }
  const pair = name.kind === 'fourth' ? [upper, lower] : [lower, upper]
  return made(name, Array.from({ length: MATCH_TIMES }, () => pair).flat())
}

function ofScale(
  context: PlacementContext,
  name: Named<'scale' | 'arpeggio'>,
  { options, locks = [], kept = {} }: ScaleSchool,
): MadeExercise {
  const key = keyNamed(name.keyId)
  if (!key) return { ok: false, code: 'unknown' }
  const { kind: figure, octaves, openStrings } = name
  const scale = fingerScale(context, { key, figure, octaves, locks, kept }, { ...options, openStrings })
  if (!scale.ok) return { ok: false, code: 'out_of_range' }
  return made(name, scale.notes.map(expectedOf))
}

function expectedOf({ stringIndex, finger, note, hand }: FingeredNote): ExpectedNote {
  return { stringIndex, finger, note, positionId: finger === 0 ? null : (hand?.position?.id ?? null) }
}

function placeInKey(
  { family }: PlacementContext,
  name: { readonly keyId: string; readonly positionId: string },
) {
  const key = keyNamed(name.keyId)
  const position = family.positions.find(({ id }) => id === name.positionId)
  return key && position && { key, position }
}

function keyNamed(id: string): Key | undefined {
  const parsed = parseKey(id)
  return parsed.ok ? parsed.key : undefined
}

function made(name: ExerciseName, notes: readonly ExpectedNote[]): MadeExercise {
  return { ok: true, exercise: { name, notes } }
}
