import { noteName, type Note } from '../pitch'
import type { PlacementContext } from '../pattern'
import { optionsFor, type FingerOption, type HandPlace } from './option'

/** A note with the finger that plays it. */
export interface FingeredNote extends FingerOption {
  readonly note: Note
}

export interface FingeringOptions {
  /** Fourth finger or open string, where both sound the note. */
  readonly openStrings: 'prefer' | 'avoid'
}

export const DEFAULT_FINGERING: FingeringOptions = { openStrings: 'prefer' }

export type Fingering =
  | { readonly ok: true; readonly notes: readonly FingeredNote[]; readonly effort: number }
  | { readonly ok: false; readonly code: 'note_out_of_reach'; readonly note: string; readonly index: number }

/**
 * What moving costs a hand, in steps of a whole tone's trouble. Weighed so that the usual fingerings of first scales come
 * out; common practice, no source.
 */
const EFFORT = {
  shift: 2.5,
  shiftPerLetter: 0.5,
  shiftPerSemitone: 0.3,
  shiftAcrossStrings: 0.5,
  shiftOnOpen: -1,
  shiftOnFirst: -0.5,
  shiftOnFourth: 1,
  extend: 0.4,
  extendOnFinger: 1.5,
  extended: 0.8,
  crossing: 0.3,
  skippedString: 1.5,
  slide: 1.5,
  hopFinger: 0.4,
  fourth: 0.15,
  halfPosition: 0.3,
  perLetterUp: 0.25,
  perSemitoneUp: 0.12,
  openAvoided: 3,
} as const

interface State {
  readonly option: FingerOption
  readonly hand: HandPlace | undefined
  readonly effort: number
  readonly before: State | undefined
}

/**
 * The least troublesome fingering of a line of notes: of all ways through every note's strings, fingers and positions the
 * one with the least sum of shifts, crossings, extensions and slides (a shortest path, as in dynamic programming). Time
 * grows with the number of notes and the square of the ways to play one.
 */
export function fingerNotes(
  context: PlacementContext,
  notes: readonly Note[],
  options: FingeringOptions = DEFAULT_FINGERING,
): Fingering {
  let layer: State[] = []
  for (const [index, n] of notes.entries()) {
    const ways = optionsFor(context, n)
    if (ways.length === 0) return { ok: false, code: 'note_out_of_reach', note: noteName(n), index }
    layer =
      index === 0 ? ways.map((way) => first(context, way, options)) : next(context, layer, ways, options)
  }
  const best = least(layer)
  if (!best) return { ok: true, notes: [], effort: 0 }
  const path: FingerOption[] = []
  for (let state: State | undefined = best; state; state = state.before)
    path.unshift({ ...state.option, hand: state.hand })
  return { ok: true, notes: path.map((option, i) => ({ ...option, note: notes[i]! })), effort: best.effort }
}

function first(context: PlacementContext, option: FingerOption, options: FingeringOptions): State {
  return { option, hand: option.hand, effort: own(context, option, options), before: undefined }
}

/** For each way and each place the hand can be in afterwards, the easiest way to get there. */
function next(
  context: PlacementContext,
  layer: readonly State[],
  ways: readonly FingerOption[],
  options: FingeringOptions,
): State[] {
  const states = new Map<string, State>()
  for (const option of ways) {
    const cost = own(context, option, options)
    for (const before of layer) {
      const hand = option.hand ?? before.hand
      const effort = before.effort + cost + moving(context, before, option)
      const id = `${option.stringIndex} ${option.finger} ${hand?.anchor ?? ''} ${hand?.extension ?? ''}`
      const known = states.get(id)
      if (!known || effort < known.effort) states.set(id, { option, hand, effort, before })
    }
  }
  return [...states.values()]
}

function own(
  { family }: PlacementContext,
  { finger, hand }: FingerOption,
  { openStrings }: FingeringOptions,
): number {
  if (finger === 0 || !hand) return openStrings === 'avoid' ? EFFORT.openAvoided : 0
  const isByLetter = family.grip === 'letters'
  const [home, perStep] = isByLetter ? [1, EFFORT.perLetterUp] : [2, EFFORT.perSemitoneUp]
  return (
    perStep * Math.max(0, hand.anchor - home) +
    (hand.anchor < home ? EFFORT.halfPosition : 0) +
    (hand.extension === 'none' ? 0 : EFFORT.extended) +
    (finger === 4 && isByLetter ? EFFORT.fourth : 0)
  )
}

function moving({ family }: PlacementContext, { option: from, hand }: State, to: FingerOption): number {
  const strings = Math.abs(to.stringIndex - from.stringIndex)
  const crossing = strings * EFFORT.crossing + Math.max(0, strings - 1) * EFFORT.skippedString
  if (to.finger === 0 || !to.hand || !hand) return crossing
  const shiftBy = Math.abs(to.hand.anchor - hand.anchor)
  if (shiftBy === 0) {
    const extend = to.hand.extension === hand.extension ? 0 : extending(from, to)
    if (from.finger !== to.finger) return crossing + extend
    const isSlide = strings === 0 && from.semitones !== to.semitones
    return crossing + extend + (isSlide ? EFFORT.slide : strings > 0 ? EFFORT.hopFinger : 0)
  }
  const perStep = family.grip === 'letters' ? EFFORT.shiftPerLetter : EFFORT.shiftPerSemitone
  return (
    crossing +
    EFFORT.shift +
    perStep * shiftBy +
    (strings > 0 ? EFFORT.shiftAcrossStrings : 0) +
    (from.finger === 0 ? EFFORT.shiftOnOpen : 0) +
    (from.finger === to.finger && strings === 0 ? onSameFinger(to.finger) : 0)
  )
}

/** The hand opens behind 1: while another finger holds the string it would drag it along. */
function extending(from: FingerOption, to: FingerOption): number {
  return from.finger <= 1 || to.finger === 1 ? EFFORT.extend : EFFORT.extendOnFinger
}

/** 1 leads the hand up and down the neck; 4 leads it badly. */
function onSameFinger(finger: number): number {
  return finger === 1 ? EFFORT.shiftOnFirst : finger === 4 ? EFFORT.shiftOnFourth : 0
}

function least(states: readonly State[]): State | undefined {
  return states.reduce<State | undefined>(
    (best, s) => (best && best.effort <= s.effort ? best : s),
    undefined,
  )
}
