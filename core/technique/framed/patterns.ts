import type { Family, Finger } from '../../instrument'
import { patternOf, type Pattern } from '../pattern'
import { FINGERS } from '../stops'

/** Where each finger has a semitone of its frame: every choice of two or more fingers that is asked for. */
export function framePatterns(
  family: Family,
  isAsked: (fingers: readonly Finger[]) => boolean = () => true,
): Pattern[] {
  return family.frames.flatMap((frame, frameIndex) => {
    const fingers = FINGERS.filter((finger) => frame.offsets[finger] !== undefined)
    return choices(fingers)
      .filter(isAsked)
      .map((chosen) =>
        patternOf(
          family,
          frameIndex,
          chosen,
          chosen.map((finger) => frame.offsets[finger]!),
        ),
      )
  })
}

/** Every choice of two or more of these, in their order. */
function choices(fingers: readonly Finger[]): Finger[][] {
  const all = fingers.reduce<Finger[][]>((sets, f) => [...sets, ...sets.map((set) => [...set, f])], [[]])
  return all.filter((set) => set.length > 1).sort((a, b) => b.length - a.length)
}
