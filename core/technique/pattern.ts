import type { Family, Finger } from '../instrument'

/** A row of steps between the fingers of one hand on one string. */
export interface Pattern {
  /** `fourth/1234/212`: frame, fingers, steps in semitones. */
  readonly id: string
  readonly frameId: string
  readonly fingers: readonly Finger[]
  /** Semitones from each finger to the next: 1 a half step, 2 a whole step, 3 an augmented one. */
  readonly steps: readonly number[]
  /** Semitones from the first of these fingers to the last. */
  readonly span: number
  /** Against the frame at rest. */
  readonly spread: 'usual' | 'stretched' | 'narrowed'
}

/** Half, whole and augmented steps. */
export const WIDEST_STEP = 3

/** Patterns are few and asked for often: each is made once. */
const made = new Map<Family, Map<number, Pattern>>()

/** The pattern of these fingers, `semitones` being where each stops, in the same order. */
export function patternOf(
  family: Family,
  frameIndex: number,
  fingers: readonly Finger[],
  semitones: readonly number[],
): Pattern {
  let code = frameIndex
  for (let i = 0; i < fingers.length; i++)
    code = code * 50 + fingers[i]! * 8 + (i === 0 ? 0 : semitones[i]! - semitones[i - 1]!)
  let own = made.get(family)
  if (!own) made.set(family, (own = new Map<number, Pattern>()))
  const known = own.get(code)
  if (known) return known
  const frame = family.frames[frameIndex]
  if (!frame) throw new Error(`${family.id} has no frame ${frameIndex}`)
  const steps = fingers.slice(1).map((_, i) => semitones[i + 1]! - semitones[i]!)
  const span = steps.reduce((a, b) => a + b, 0)
  const rest = (frame.offsets[fingers.at(-1)!] ?? 0) - (frame.offsets[fingers[0]!] ?? 0)
  const pattern: Pattern = {
    id: [frame.id, fingers.join(''), steps.join('')].join('/'),
    frameId: frame.id,
    fingers: [...fingers],
    steps,
    span,
    spread: span > rest ? 'stretched' : span < rest ? 'narrowed' : 'usual',
  }
  own.set(code, pattern)
  return pattern
}

/** Pairs of neighbouring fingers that are a half step apart: they touch. */
export function touchingFingers(pattern: Pattern): (readonly [Finger, Finger])[] {
  return pattern.steps.flatMap((step, i) =>
    step === 1 ? [[pattern.fingers[i]!, pattern.fingers[i + 1]!] as const] : [],
  )
}
