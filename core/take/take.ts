import type { Stringing } from '../instrument'
import type { Exercise } from './exercise'
import type { Landing } from './landing'

/** An exercise, the instrument it was played on, and where the fingers landed, in the order they were heard or read. */
export interface Take {
  readonly stringing: Stringing
  readonly exercise: Exercise
  readonly landings: readonly Landing[]
  /** Where tapes lay, mm from the nut; none where they were covered. */
  readonly tapesMm?: readonly number[] | undefined
}
