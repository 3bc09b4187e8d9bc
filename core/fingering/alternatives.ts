import {
  isShifted,
  techniqueOf,
  type FingeringOptions,
  type FingerOption,
  type PlacementContext,
} from '../technique'
import { type FingeredNote, type Line, type Lock } from './finger'
import { fingerScale, isSameWay, type ScaleRequest } from './scale'

/** What one fingering does otherwise than the usual one. */
export type AlternativeId =
  | 'usual'
  /** No open strings: every note in the hand, for vibrato and evenness. */
  | 'no_open'
  /** Stays as long as the hand can, and stretches. */
  | 'stay'
  /** Begins with 1, or with 2: one shape that serves every key. */
  | 'start_first'
  | 'start_second'
  /** One finger a semitone. */
  | 'semitones'
  /** Shifts, and keeps the hand closed. */
  | 'closed'
  /** Crosses fewer strings. */
  | 'few_crossings'
  /** Shifts at other notes. */
  | 'shift_elsewhere'
  /** Away from the lowest positions, where the usual one leaves little choice. */
  | 'higher'
  /** On one string, likewise. */
  | 'one_string'
  /** Another finger or string for every note that has one, likewise. */
  | 'other_fingers'

export interface Alternative {
  readonly id: AlternativeId
  readonly notes: readonly FingeredNote[]
  /** Shifts and crossings on the way up: what speaks for it in numbers. */
  readonly shifts: number
  readonly crossings: number
}

interface Variant {
  readonly id: AlternativeId
  /** Played less. */
  readonly isLess?: boolean
  readonly options?: Partial<FingeringOptions>
  readonly locks?: readonly Lock[]
  readonly extra?: Line['extra']
}

/** With the usual one; a line with fewer is tried in ways that are played less. */
const ENOUGH = 3
const AVOIDED = 4
const CROSSING = 5
const NEVER = 20
/** Half and first. */
const LOWEST_POSITIONS = 2

/**
 * Fingerings of one scale or arpeggio that players choose between, the usual first; each differs from all before it. What a
 * teacher has settled holds in all of them.
 */
export function alternativesFor(
  context: PlacementContext,
  request: ScaleRequest,
  chosen: Partial<FingeringOptions> = {},
): Alternative[] {
  const usual = fingerScale(context, request, chosen)
  if (!usual.ok) return []
  const found: Alternative[] = [summed('usual', usual.notes)]
  const known = new Set([signature(usual.notes)])
  for (const { id, isLess = false, options, locks = [], extra } of variantsOf(context, usual.notes)) {
    if (isLess && found.length >= ENOUGH) break
    const all = [...(request.locks ?? []), ...locks]
    const made = fingerScale(
      context,
      { ...request, locks: all, ...(extra && { extra }) },
      { ...chosen, ...options },
    )
    if (!made.ok || known.has(signature(made.notes))) continue
    // One shape is none where the hand leaves it below the top string.
    if (locks.length > 0 && shiftsBelow(up(made.notes), context.tuning.length - 1)) continue
    known.add(signature(made.notes))
    found.push(summed(id, made.notes))
  }
  return found
}

function variantsOf(context: PlacementContext, usual: readonly FingeredNote[]): Variant[] {
  const technique = techniqueOf(context.family.id)
  const top = context.tuning.length - 1
  const shiftsAt = new Set(
    usual.flatMap((n, i) => (i > 0 && isShifted(usual[i - 1]!.hand, n.hand) ? [i] : [])),
  )
  const low = new Set(context.family.positions.slice(0, LOWEST_POSITIONS))
  const ofHand: Variant[] = technique.choosesOpenString
    ? [
        { id: 'stay', options: { climb: 'stay' } },
        { id: 'start_first', ...startingWith(1, top) },
        { id: 'start_second', ...startingWith(2, top) },
        { id: 'semitones', options: { chromatic: 'semitones' } },
      ]
    : [{ id: 'closed', extra: (_, way) => (isOpened(way) ? AVOIDED : 0) }]
  return [
    { id: 'no_open', options: { openStrings: 'avoid' } },
    ...ofHand,
    {
      id: 'few_crossings',
      extra: (_, way, __, from) => (from && from.stringIndex !== way.stringIndex ? CROSSING : 0),
    },
    { id: 'shift_elsewhere', extra: (index, _, isShift) => (isShift && shiftsAt.has(index) ? AVOIDED : 0) },
    {
      id: 'higher',
      isLess: true,
      extra: (_, { hand }) => (hand?.position && !low.has(hand.position) ? 0 : AVOIDED),
    },
    {
      id: 'one_string',
      isLess: true,
      extra: (_, way, __, from) => (from && from.stringIndex !== way.stringIndex ? NEVER : 0),
    },
    {
      id: 'other_fingers',
      isLess: true,
      extra: (index, way) => (isSameWay(usual[index]!, way) ? AVOIDED : 0),
    },
  ]
}

/** In one shape: no shift below the top string. */
function startingWith(finger: 1 | 2, top: number): Omit<Variant, 'id'> {
  return {
    options: { openStrings: 'avoid' },
    locks: [{ index: 0, finger }],
    extra: (_, way, isShift) => (isShift && way.stringIndex < top ? NEVER : 0),
  }
}

function shiftsBelow(notes: readonly FingeredNote[], top: number): boolean {
  return notes.slice(1).some((n, i) => n.stringIndex < top && isShifted(notes[i]!.hand, n.hand))
}

function isOpened({ hand }: FingerOption): boolean {
  return hand !== undefined && hand.extension !== 'none'
}

function signature(notes: readonly FingeredNote[]): string {
  return notes.map((n) => `${n.stringIndex}${n.finger}`).join(' ')
}

function summed(id: AlternativeId, notes: readonly FingeredNote[]): Alternative {
  const rising = up(notes)
  const pairs = rising.slice(1).map((to, i) => ({ from: rising[i]!, to }))
  return {
    id,
    notes,
    shifts: pairs.filter(({ from, to }) => isShifted(from.hand, to.hand)).length,
    crossings: pairs.filter(({ from, to }) => from.stringIndex !== to.stringIndex).length,
  }
}

function up(notes: readonly FingeredNote[]): readonly FingeredNote[] {
  return notes.slice(0, (notes.length + 1) / 2)
}
