import type { Digit } from '../instrument'
import { midiNumber, noteName, type Note } from '../pitch'
import {
  isShifted,
  techniqueOf,
  type Efforts,
  type FingeringOptions,
  type FingerOption,
  type HandPlace,
  type HarmonicPart,
  type PlacementContext,
} from '../technique'
import { DEFAULT_FINGERING, harmonicsFor, optionsFor } from './option'

/** A note with the finger that plays it. */
export interface FingeredNote extends FingerOption {
  readonly note: Note
}

/** What a teacher has settled of one note; the rest is fingered around it. */
export interface Lock {
  /** Of the note in its line. */
  readonly index: number
  readonly stringIndex?: number | undefined
  readonly finger?: Digit | undefined
  /** Whether the hand shifts to this note. */
  readonly isShift?: boolean | undefined
  /** The note sounds as a natural harmonic. */
  readonly harmonic?: HarmonicPart | undefined
}

export type Fingering =
  | { readonly ok: true; readonly notes: readonly FingeredNote[]; readonly effort: number }
  | { readonly ok: false; readonly code: 'note_out_of_reach'; readonly note: string; readonly index: number }
  | {
      readonly ok: false
      /** No hand of this family does what is settled there. */
      readonly code: 'lock_unholdable'
      readonly note: string
      readonly lock: Lock
    }

export interface Line {
  readonly notes: readonly Note[]
  readonly locks?: readonly Lock[]
  /** What a way costs beside what its hand costs: scales keep their turn in one hand, and come down as they went up. */
  readonly extra?:
    | ((index: number, way: FingerOption, isShift: boolean, from: FingerOption | undefined) => number)
    | undefined
  /** Fingers that its first notes are played with, note by note, wherever they have a way with it. */
  readonly learned?: readonly Digit[] | undefined
  /** What some fingering of it is known to cost: a dearer one is not looked for. */
  readonly within?: number | undefined
}

interface State {
  readonly option: FingerOption
  readonly hand: HandPlace | undefined
  readonly effort: number
  readonly before: State | undefined
}

/** States that are kept of each note while a first fingering is looked for. */
const NARROW = 5
const ROUNDING = 1e-9

/**
 * The least troublesome fingering of a line of notes: of all ways through every note's strings, fingers and hands the one
 * with the least sum of what its technique calls an effort. A narrow search gives a fingering, and with it a bound: in the
 * full one (a shortest path through layers, as in dynamic programming) whatever is dearer already is left out, for no effort
 * is negative. Time grows with the number of notes and the square of the ways to play one.
 */
export function fingerNotes(
  context: PlacementContext,
  line: readonly Note[] | Line,
  options: FingeringOptions = DEFAULT_FINGERING,
): Fingering {
  const asked: Line = 'notes' in line ? line : { notes: line }
  const { notes, locks = [], learned = [], within } = asked
  const layers: (readonly FingerOption[])[] = []
  for (const [index, n] of notes.entries()) {
    const settled = locks.filter((lock) => lock.index === index)
    const all = optionsFor(context, n, options)
    if (settled.some((lock) => (lock.harmonic ?? 2) > 2)) all.push(...harmonicsFor(context, n, options))
    if (all.length === 0) return { ok: false, code: 'note_out_of_reach', note: noteName(n), index }
    const ways = all.filter((way) => settled.every((lock) => obeys(way, lock)))
    // To the first note no hand shifts: there is none before it.
    const isShiftToFirst = index === 0 && settled.some(({ isShift }) => isShift)
    if (ways.length === 0 || isShiftToFirst)
      return { ok: false, code: 'lock_unholdable', note: noteName(n), lock: settled.at(-1)! }
    const asLearned = ways.filter(({ finger }) => finger === learned[index])
    layers.push(asLearned.length > 0 ? asLearned : ways)
  }
  const problem = problemOf(context, asked, layers, options)
  const bound = within ?? boundOf(shortest(problem, NARROW, Infinity))
  const best = shortest(problem, Infinity, bound + ROUNDING)
  if ('failsAt' in best) {
    if (learned.length > 0) return fingerNotes(context, { ...asked, learned: [] }, options)
    const lock = locks.find((l) => l.index === best.failsAt)!
    return { ok: false, code: 'lock_unholdable', note: noteName(notes[lock.index]!), lock }
  }
  const path: FingeredNote[] = []
  let state: State | undefined = best
  for (let i = notes.length - 1; state && i >= 0; i--, state = state.before)
    path.unshift({ ...state.option, hand: state.hand, note: notes[i]! })
  return { ok: true, notes: path, effort: best.effort }
}

/** What a line costs at most: the best that a narrow search finds, never less than the least. Infinite where a note is out of reach. */
export function roughEffort(context: PlacementContext, line: Line, options: FingeringOptions): number {
  const layers = line.notes.map((n) => optionsFor(context, n, options))
  if (layers.some((ways) => ways.length === 0)) return Infinity
  return boundOf(shortest(problemOf(context, line, layers, options), NARROW, Infinity))
}

function problemOf(
  context: PlacementContext,
  { notes, locks = [], extra }: Line,
  layers: Problem['layers'],
  options: FingeringOptions,
): Problem {
  return {
    layers,
    notes,
    locks,
    efforts: effortsOf(context, options),
    stopped: effortsOf(context, { ...options, openStrings: 'avoid' }),
    extra,
  }
}

/** What a hand's moves cost is worked out once for an instrument and a way of playing. */
const known = new WeakMap<PlacementContext, Map<string, Efforts>>()

export function effortsOf(context: PlacementContext, options: FingeringOptions): Efforts {
  const own = known.get(context) ?? new Map<string, Efforts>()
  known.set(context, own)
  const id = `${options.openStrings} ${options.climb} ${options.chromatic}`
  const made = own.get(id) ?? techniqueOf(context.family.id).efforts(context, options)
  own.set(id, made)
  return made
}

function obeys(way: FingerOption, { stringIndex, finger, harmonic }: Lock): boolean {
  return (
    (stringIndex === undefined || way.stringIndex === stringIndex) &&
    (finger === undefined || way.finger === finger) &&
    (harmonic === undefined || way.harmonic === harmonic)
  )
}

interface Problem extends Required<Pick<Line, 'notes' | 'locks'>> {
  readonly layers: readonly (readonly FingerOption[])[]
  readonly efforts: Efforts
  /** The same for notes that are not played open. */
  readonly stopped: Efforts
  readonly extra: Line['extra']
}

const NOTHING: State = {
  option: { stringIndex: 0, finger: 0, semitones: 0, hand: undefined },
  hand: undefined,
  effort: 0,
  before: undefined,
}

/** The cheapest last state, or the note at which every way is forbidden. */
function shortest(problem: Problem, width: number, bound: number): State | { readonly failsAt: number } {
  const { layers, notes, locks, efforts, stopped, extra } = problem
  // What the notes still to come cost at least, however the hand gets there.
  const owns = layers.map((ways) => {
    // Where the open string is settled away, a fourth finger in its place is no detour.
    const of = ways.some(({ finger }) => finger === 0) ? efforts : stopped
    return ways.map((way) => of.own(way))
  })
  const ahead = owns.map((own) => Math.min(...own))
  for (let i = ahead.length - 1, sum = 0; i >= 0; i--) [ahead[i], sum] = [sum, sum + ahead[i]!]
  let layer: readonly State[] = []
  let rise = 0
  for (const [index, ways] of layers.entries()) {
    if (index > 0) rise = midiNumber(notes[index]!) - midiNumber(notes[index - 1]!)
    const shift = locks.find((lock) => lock.index === index && lock.isShift !== undefined)?.isShift
    const next: State[] = []
    const left = bound - ahead[index]!
    for (const [w, option] of ways.entries()) {
      const own = owns[index]![w]!
      if (index === 0) {
        const effort = own + (extra?.(index, option, false, undefined) ?? 0)
        if (effort <= left) next.push({ option, hand: option.hand, effort, before: undefined })
        continue
      }
      let best: State | undefined
      // An open string is played in whatever hand there was: one state for each.
      const byHand = option.hand ? undefined : new Map<string, State>()
      for (const before of layer) {
        const least = before.effort + own
        if (least > left || (best && least >= best.effort)) break
        const isShift = isShifted(before.hand, option.hand)
        if (shift !== undefined && shift !== isShift) continue
        const effort =
          least +
          efforts.move(before.option, before.hand, option, rise) +
          (extra?.(index, option, isShift, before.option) ?? 0)
        if (effort > left) continue
        const { hand } = before
        if (!byHand) {
          if (!best || effort < best.effort) best = { option, hand: option.hand, effort, before }
          continue
        }
        const id = hand ? `${hand.anchor} ${hand.holdId}` : 'free'
        const known = byHand.get(id)
        if (!known || effort < known.effort) byHand.set(id, { option, hand, effort, before })
      }
      if (best) next.push(best)
      if (byHand) next.push(...byHand.values())
    }
    if (next.length === 0) return { failsAt: index }
    // The cheapest first: once they alone cost as much as a way is known for, none of the others helps.
    next.sort((a, b) => a.effort - b.effort)
    layer = width < next.length ? next.slice(0, width) : next
  }
  return layer[0] ?? NOTHING
}

function boundOf(found: State | { readonly failsAt: number }): number {
  return 'effort' in found ? found.effort : Infinity
}
