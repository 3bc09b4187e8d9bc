import type { Finger, Frame, Position } from '../instrument'
import { diatonicNumber, midiNumber, type Note } from '../pitch'
import type { Extension, PlacementContext } from '../pattern'

/** Where the hand stands. What its place is counted in depends on the family: letters, or semitones. */
export interface HandPlace {
  readonly position: Position | undefined
  /** Of the thumb: it stays where only 1 drops back. */
  readonly anchor: number
  readonly extension: Extension
}

/** One way of stopping a note; finger 0 is the open string, and the hand stays where it is. */
export interface FingerOption {
  readonly stringIndex: number
  readonly finger: Finger | 0
  readonly semitones: number
  readonly hand: HandPlace | undefined
}

const FINGERS: readonly Finger[] = [1, 2, 3, 4]

/** Every way in which a note can be played on these strings. */
export function optionsFor(context: PlacementContext, n: Note): FingerOption[] {
  const midi = midiNumber(n)
  return context.openMidis.flatMap((open, stringIndex): FingerOption[] => {
    const semitones = midi - open
    if (semitones === 0) return [{ stringIndex, finger: 0, semitones, hand: undefined }]
    if (semitones < 0 || semitones > context.lastSemitone) return []
    return handsFor(context, n, stringIndex, semitones).map(([finger, hand]) => ({
      stringIndex,
      finger,
      semitones,
      hand,
    }))
  })
}

function handsFor(
  { family, openLetters, frameIndex }: PlacementContext,
  n: Note,
  stringIndex: number,
  semitones: number,
): (readonly [Finger, HandPlace])[] {
  if (family.grip === 'letters') {
    const letters = diatonicNumber(n) - openLetters[stringIndex]!
    return FINGERS.flatMap((finger) => {
      const letter = letters - finger + 1
      const position = family.positions.find((p) => p.letter === letter)
      if (!position || !isReachable(family.frames[0]!, position, finger, semitones)) return []
      return [[finger, { position, anchor: letter, extension: 'none' }] as const]
    })
  }
  const frames = family.grip === 'semitones' ? [frameIndex] : family.frames.map((_, i) => i)
  return frames.flatMap((index) =>
    FINGERS.flatMap((finger) => {
      const offset = family.frames[index]!.offsets[finger]
      const base = offset === undefined ? 0 : semitones - offset
      if (base < 1) return []
      return extensionsOf(index).map((extension) => {
        const anchor = extension === 'back' ? base + 1 : base
        const position = family.positions.find((p) => p.firstFingerSemitones.includes(anchor))
        return [finger, { position, anchor, extension }] as const
      })
    }),
  )

  function extensionsOf(index: number): Extension[] {
    return family.grip === 'three_letters' && index > 0 ? ['back', 'forward'] : ['none']
  }
}

/** Whether a finger of this position gets there with low and high places, and no wider stretch. */
function isReachable({ offsets }: Frame, position: Position, finger: Finger, semitones: number): boolean {
  const places = position.firstFingerSemitones
  const rest = offsets[finger] ?? 0
  return semitones >= places[0]! + rest - 2 && semitones <= places.at(-1)! + rest + 1 && semitones >= 1
}
