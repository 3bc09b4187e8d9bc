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

const FINGERS: readonly Finger[] = [1, 2, 3, 4]

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
  const own = made.get(family) ?? new Map<number, Pattern>()
  made.set(family, own)
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

/**
 * All patterns of a family's frames with at least two fingers, those of the frame at rest first. Where a finger has a
 * letter, every row of half and whole steps, and with one augmented step as harmonic minors ask, that the frame can be
 * stretched or narrowed to: at most a semitone wider than at rest. Where a finger has a semitone, every choice of fingers.
 */
export function patternsOf(family: Family): Pattern[] {
  return family.frames.flatMap((frame, frameIndex) => {
    if (family.grip === 'letters') {
      return letterRows(frame.semitones)
        .map((steps) => patternOf(family, frameIndex, FINGERS, stopsOf(steps)))
        .sort((a, b) => rank(a) - rank(b))
    }
    const fingers = FINGERS.filter((finger) => frame.offsets[finger] !== undefined)
    return choices(fingers)
      .filter((chosen) => isAsked(family, chosen))
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

/** The pattern with this id, if it is one of the family's. */
export function patternWithId(family: Family, id: string): Pattern | undefined {
  return patternsOf(family).find((pattern) => pattern.id === id)
}

/** Pairs of neighbouring fingers that are a half step apart: they touch. */
export function touchingFingers(pattern: Pattern): (readonly [Finger, Finger])[] {
  return pattern.steps.flatMap((step, i) =>
    step === 1 ? [[pattern.fingers[i]!, pattern.fingers[i + 1]!] as const] : [],
  )
}

/** Three letters of a cello lie under 1 and 4 with 2 or 3 between; all four fingers only in a chromatic scale. */
function isAsked(family: Family, fingers: readonly Finger[]): boolean {
  if (family.grip !== 'three_letters') return true
  return fingers.includes(1) && fingers.includes(4) && fingers.length > 2
}

/** The first to learn first: half and whole steps of the frame at rest, then stretched and narrowed, then augmented. */
function rank({ steps, spread }: Pattern): number {
  const firstTaught = FIRST_TAUGHT.indexOf(steps.join(''))
  if (firstTaught >= 0) return firstTaught
  return (
    100 + (steps.includes(WIDEST_STEP) ? 10 : 0) + (spread === 'usual' ? 0 : spread === 'stretched' ? 1 : 2)
  )
}

/** The order in which they are mostly taught: 2 and 3 touch, 1 and 2, 3 and 4, none. Common practice, no source. */
const FIRST_TAUGHT = ['212', '122', '221', '222', '121', '112', '211', '111']

function letterRows(rest: number): number[][] {
  const rows: number[][] = []
  for (let a = 1; a <= WIDEST_STEP; a++)
    for (let b = 1; b <= WIDEST_STEP; b++)
      for (let c = 1; c <= WIDEST_STEP; c++) {
        const row = [a, b, c]
        const augmented = row.filter((step) => step === WIDEST_STEP).length
        if (a + b + c <= rest + 1 && augmented < 2) rows.push(row)
      }
  return rows
}

function stopsOf(steps: readonly number[]): number[] {
  const stops = [0]
  for (const step of steps) stops.push(stops.at(-1)! + step)
  return stops
}

/** Every choice of two or more of these, in their order. */
function choices(fingers: readonly Finger[]): Finger[][] {
  const all = fingers.reduce<Finger[][]>((sets, f) => [...sets, ...sets.map((set) => [...set, f])], [[]])
  return all.filter((set) => set.length > 1).sort((a, b) => b.length - a.length)
}
