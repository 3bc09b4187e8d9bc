// The second player of the verdict's bench: a hand of bones that knows no kind of finding.
import {
  BODY_FAULTS,
  bonesErrors,
  handOfBones,
  seededSource,
  type BodyFault,
  type Exercise,
  type Target,
} from '../../core'
import { placesOn, stringing, type Played } from './players'

/** What a careful teacher would say of each: any of these, and nothing else beside. */
export const RIGHTLY: Record<BodyFault, readonly string[]> = {
  hand_back: ['whole_hand -1'],
  hand_forward: ['whole_hand 1'],
  thumb_creeps: ['creep 1'],
  palm_out: ['frame -1', 'finger 4 -1'],
  web_closed: ['frame -1', 'finger 4 -1'],
  knuckles_squashed: ['frame -1'],
  elbow_out: ['elbow 1'],
  fourth_straight: ['finger 4 -1'],
  finger_1_leans: ['finger 1 1'],
  finger_2_leans: ['finger 2 1'],
  finger_3_leans: ['finger 3 1'],
}

const exercise: Exercise = { name: { kind: 'free' }, notes: placesOn(4) }
const amounts = new Map<string, number>()

/** What the fault does to each note of a line, cents, the note that shows it most by `size`. */
export function shownBy(fault: BodyFault, size: number, line: readonly Target[]): Float64Array {
  const at = (amount: number) => {
    const hand = handOfBones(stringing, exercise, fault, amount)
    return Float64Array.from(line, (t, i) => hand(t, i / (line.length - 1)))
  }
  const most = (cents: Float64Array) => Math.max(...cents.map(Math.abs))
  const key = `${fault} ${size} ${line.length} ${line[0]!.stringIndex}`
  let amount = amounts.get(key)
  if (amount === undefined) {
    let [low, high] = [0, 60]
    for (let round = 0; round < 40; round++) {
      const middle = (low + high) / 2
      if (most(at(middle)) < size) low = middle
      else high = middle
    }
    amount = high
    amounts.set(key, amount)
  }
  return at(amount)
}

export function playBones(
  seed: number,
  fault: BodyFault | null,
  size: number,
  scatter: number,
  line: readonly Target[],
): Played {
  const error = bonesErrors(seededSource(seed), scatter)
  const shown = fault ? shownBy(fault, size, line) : new Float64Array(line.length)
  return { truth: fault ?? '', line, cents: shown.map((cents) => cents + error()), sizes: new Map() }
}

/** The likeliest fault for somebody who knows the bones, the scatter and the size. */
export function bonesOracle({ line, cents }: Played, size: number): BodyFault | '' {
  let best: BodyFault | '' = ''
  let least = cents.reduce((sum, one) => sum + one ** 2, 0)
  for (const fault of BODY_FAULTS) {
    const shown = shownBy(fault, size, line)
    const squares = cents.reduce((sum, one, i) => sum + (one - shown[i]!) ** 2, 0)
    if (squares < least) [best, least] = [fault, squares]
  }
  return best
}
