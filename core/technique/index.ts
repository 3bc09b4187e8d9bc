import type { FamilyId } from '../instrument'
import { bass } from './bass'
import { cello } from './cello'
import type { Technique } from './types'
import { viola, violin } from './upper'

const TECHNIQUES: Readonly<Record<FamilyId, Technique>> = { violin, viola, cello, bass }

/** What the left hand of a family does. */
export function techniqueOf(id: FamilyId): Technique {
  return TECHNIQUES[id]
}

export { patternOf, touchingFingers, WIDEST_STEP } from './pattern'
export type { Pattern } from './pattern'
export { ownPlace } from './names'
export { isShifted } from './shifted'
export { clefsFor, ledgerLines, writtenNote } from './clef'
export type { Clef, Clefs, ClefReading } from './clef'
export { spelledIn } from './drill'
export type { Drill, DrillFault, DrillId, DrillNeighbours, DrillNote } from './types'
export type {
  AtlasCell,
  Efforts,
  Extension,
  FingeringOptions,
  FingerOption,
  FingerStop,
  HandPlace,
  HarmonicPart,
  NoPlacement,
  OctaveGrip,
  Placement,
  PlacementContext,
  Technique,
} from './types'
