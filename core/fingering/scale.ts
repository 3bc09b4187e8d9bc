import type { Digit } from '../instrument'
import { keyOf, type Key } from '../key'
import { midiNumber, transpose, type Interval, type Note } from '../pitch'
import type { FingeringOptions, FingerOption, PlacementContext } from '../technique'
import {
  effortsOf,
  fingerNotes,
  roughEffort,
  type FingeredNote,
  type Fingering,
  type Line,
  type Lock,
} from './finger'
import { DEFAULT_FINGERING } from './option'

export type FigureId = 'scale' | 'arpeggio'

export interface ScaleRequest {
  readonly key: Key
  readonly figure: FigureId
  readonly octaves: 1 | 2 | 3
  /** What a teacher has settled, by the number of the note up and down. */
  readonly locks?: readonly Lock[]
  /** What a teacher has kept of the same figure over fewer octaves. */
  readonly kept?: KeptShorter
  /** What speaks against a way beside its effort, on the way up. */
  readonly extra?: Line['extra']
}

/** Note by note, up and down, by octaves. */
export type KeptShorter = Readonly<Partial<Record<1 | 2, readonly Lock[]>>>

const OCTAVE: Interval = { steps: 7, semitones: 12 }

export type FingeredScale =
  | { readonly ok: true; readonly notes: readonly FingeredNote[]; readonly effort: number }
  | { readonly ok: false; readonly code: 'scale_out_of_range'; readonly octaves: number }
  | Extract<Fingering, { readonly code: 'lock_unholdable' }>

/** A scale begins on an open string where it can. */
const STOPPED_START = 2.5
/** It begins low: each octave up. */
const START_UP = 1
/** Going down by other places than going up. */
const OTHER_WAY_DOWN = 0.6
/** Notes below a top, and the top, that are fingered for the turn there. */
const TURN = 2
/** Notes of a line whose top is far from its start. */
const LONG = 5

/**
 * A scale or an arpeggio up and down, in the usual fingering: it starts where it lies best, an open string or low in first
 * position, wherever the fourth finger is taken instead, and comes down as it went up. A melodic minor comes down as the
 * natural one, a chromatic scale in flats.
 */
export function fingerScale(
  context: PlacementContext,
  request: ScaleRequest,
  chosen: Partial<FingeringOptions> = {},
): FingeredScale {
  const { key, octaves } = request
  const options = {
    ...DEFAULT_FINGERING,
    ...chosen,
    chromatic: key.mode.id === 'chromatic' ? (chosen.chromatic ?? ('slide' as const)) : undefined,
  }
  const start = bestStart(context, request, options)
  if (!start) return { ok: false, code: 'scale_out_of_range', octaves }
  const learned = learnedBefore(context, request, start, chosen)
  return upAndDownFrom(context, { ...request, learned }, start, options)
}

/**
 * What was learned over fewer octaves serves for more: the fingers of the same figure an octave less, as a teacher keeps it,
 * else the usual one, where it begins on the same note.
 */
function learnedBefore(
  context: PlacementContext,
  request: ScaleRequest,
  start: Start,
  chosen: Partial<FingeringOptions>,
): readonly Digit[] | undefined {
  const { key, figure, locks = [], kept, extra } = request
  if (request.octaves === 1 || extra) return undefined
  // An arpeggio leaps: where its top lies decides the whole of it, and only what a teacher keeps is carried on.
  if (figure === 'arpeggio' && !kept?.[1] && !kept?.[2]) return undefined
  const octaves = (request.octaves - 1) as 1 | 2
  const top = figureNotes(key, figure, start.note, octaves).length - 1
  const asked = { ...request, octaves, locks: kept?.[octaves] ?? locks.filter(({ index }) => index < top) }
  const made =
    asked.locks.length > 0 || kept?.[1]
      ? fingerScale(context, asked, chosen)
      : usualOf(context, asked, chosen)
  if (!made.ok || midiNumber(made.notes[0]!.note) !== midiNumber(start.note)) return undefined
  return made.notes.slice(0, top + 1).map(({ finger }) => finger)
}

/** Usual fingerings over fewer octaves are asked for by every longer one, and by all their alternatives. */
const usuals = new WeakMap<PlacementContext, Map<string, FingeredScale>>()

function usualOf(
  context: PlacementContext,
  request: ScaleRequest,
  chosen: Partial<FingeringOptions>,
): FingeredScale {
  const own = usuals.get(context) ?? new Map<string, FingeredScale>()
  usuals.set(context, own)
  const { openStrings, climb, chromatic } = { ...DEFAULT_FINGERING, ...chosen }
  const id = [request.key.id, request.figure, request.octaves, openStrings, climb, chromatic].join(' ')
  const made = own.get(id) ?? fingerScale(context, request, chosen)
  own.set(id, made)
  return made
}

/** Where a scale begins, and what the usual fingering from there is known to cost at most. */
interface Start {
  readonly note: Note
  readonly within: number | undefined
}

function bestStart(
  context: PlacementContext,
  { key, figure, octaves, locks = [], extra }: ScaleRequest,
  options: FingeringOptions,
): Start | undefined {
  let best: (Start & { readonly effort: number }) | undefined
  // Where it starts is no matter of open strings: the same notes are only fingered otherwise.
  const usual = { ...options, openStrings: 'prefer', climb: 'early' } as const
  const isUsual =
    !extra && locks.length === 0 && options.openStrings === 'prefer' && options.climb === 'early'
  const starts = startsOf(context, key.tonic, octaves)
  const [lowest] = starts
  if (starts.length < 2) return lowest && { note: lowest, within: undefined }
  for (const start of starts) {
    const higher = START_UP * (start.octave - lowest!.octave)
    const notes = figureNotes(key, figure, start, octaves)
    const asked = withScale(context, notes.length - 1, usual, undefined)
    const rough = roughEffort(context, { notes, extra: asked }, usual)
    const effort = rough + higher
    // What is asked for may cost more than the usual fingering, or be settled otherwise.
    const within = isUsual && rough < Infinity ? rough : undefined
    if (!best || effort < best.effort) best = { note: start, effort, within }
  }
  return best
}

function upAndDownFrom(
  context: PlacementContext,
  { key, figure, octaves, locks = [], extra, learned = [] }: ScaleRequest & Pick<Line, 'learned'>,
  { note: start, within }: Start,
  options: FingeringOptions,
): FingeredScale {
  const upNotes = figureNotes(key, figure, start, octaves)
  const top = upNotes.length - 1
  const downNotes = fallingNotes(key, figure, start, octaves)
  const lockedUp = locks.filter(({ index }) => index <= top)
  // Up to the turn at the shorter one's top the fingers are the same; there the two may part.
  const partsAt = Math.max(0, learned.length - TURN)
  const { otherAtTurn } = effortsOf(context, options)
  const up = fingerUp(
    context,
    {
      notes: upNotes,
      locks: lockedUp,
      learned: learned.slice(0, partsAt),
      within: learned.length > 0 ? undefined : within,
      extra: (index, way, isShift, from) =>
        (index >= partsAt && index < learned.length && way.finger !== learned[index] ? otherAtTurn : 0) +
        (extra?.(index, way, isShift, from) ?? 0),
    },
    options,
  )
  if (!up.ok) return asScale(up, octaves)
  // The way down is fingered from its end: what leads up to a place leads down from it. A shift down to a note is one
  // from it upwards.
  const length = top + downNotes.length
  const turned = (index: number) => length - 1 - index
  const lockedDown = locks.flatMap((lock): Lock[] => {
    if (lock.index <= top) return []
    const { isShift, ...rest } = lock
    const own: Lock = { ...rest, index: turned(lock.index) }
    return isShift === undefined ? [own] : [own, { index: turned(lock.index) + 1, isShift }]
  })
  const sameNotes = downNotes.every((n, i) => midiNumber(n) === midiNumber(upNotes[top - i]!))
  if (sameNotes && lockedDown.length === 0) {
    const down = downNotes.slice(1).map((note, i) => ({ ...up.notes[top - 1 - i]!, note }))
    return { ok: true, notes: [...up.notes, ...down], effort: up.effort }
  }
  const wayUp = new Map(up.notes.map((n) => [midiNumber(n.note), n]))
  const turn = up.notes[top]!
  const asScaled = withScale(context, top, options, extra)
  const turnLock = { index: top, stringIndex: turn.stringIndex, finger: turn.finger }
  const down = fingerNotes(
    context,
    {
      notes: [...downNotes].reverse(),
      locks: [turnLock, ...lockedDown],
      extra: (index, way, isShift, from) => {
        const asUp = wayUp.get(midiNumber(downNotes[downNotes.length - 1 - index]!))
        return (asUp && !isSameWay(asUp, way) ? OTHER_WAY_DOWN : 0) + asScaled(index, way, isShift, from)
      },
    },
    options,
  )
  if (!down.ok) return asScale(turnedBack(down, turned), octaves)
  return {
    ok: true,
    notes: [...up.notes, ...down.notes.slice(0, -1).reverse()],
    effort: up.effort + down.effort,
  }
}

function asScale(fault: Extract<Fingering, { readonly ok: false }>, octaves: number): FingeredScale {
  return fault.code === 'lock_unholdable' ? fault : { ok: false, code: 'scale_out_of_range', octaves }
}

/** The lock at fault by its number on the way down; a shift stands one note further there. */
function turnedBack(
  fault: Extract<Fingering, { readonly ok: false }>,
  turned: (index: number) => number,
): Extract<Fingering, { readonly ok: false }> {
  if (fault.code !== 'lock_unholdable') return fault
  const { lock } = fault
  const index = turned(lock.index) + (lock.isShift === undefined ? 0 : 1)
  return { ...fault, lock: { ...lock, index } }
}

function fingerUp(context: PlacementContext, line: Line, options: FingeringOptions): Fingering {
  const extra = withScale(context, line.notes.length - 1, options, line.extra)
  return fingerNotes(context, { ...line, extra }, options)
}

/** What a scale asks of its fingering beside what the hand does. */
function withScale(
  context: PlacementContext,
  top: number,
  options: FingeringOptions,
  extra: Line['extra'],
): NonNullable<Line['extra']> {
  const { shiftAtTop, shiftToTop } = effortsOf(context, options)
  return (index, way, isShift, from) =>
    (isShift && top >= LONG ? (shiftAtTop[top - index] ?? 0) : 0) +
    (isShift && index === top ? (shiftToTop[way.finger] ?? 0) : 0) +
    (index === 0 && way.finger !== 0 ? STOPPED_START : 0) +
    (extra?.(index, way, isShift, from) ?? 0)
}

export function isSameWay(a: FingerOption, b: FingerOption): boolean {
  return a.stringIndex === b.stringIndex && a.finger === b.finger
}

/** The notes of a scale or arpeggio from `start`, up and down again, the top note once. */
export function upAndDown(key: Key, figure: FigureId, start: Note, octaves: number): Note[] {
  return [...figureNotes(key, figure, start, octaves), ...fallingNotes(key, figure, start, octaves).slice(1)]
}

/** From the top down to `start`. */
function fallingNotes(key: Key, figure: FigureId, start: Note, octaves: number): Note[] {
  const falling = key.mode.fallsAs ? keyOf(key.tonic, key.mode.fallsAs) : key
  const notes = figureNotes(falling, figure, start, octaves).reverse()
  return key.mode.id === 'chromatic' && figure === 'scale' ? inFlats(notes) : notes
}

function figureNotes(key: Key, figure: FigureId, start: Note, octaves: number): Note[] {
  const degrees =
    figure === 'arpeggio'
      ? key.mode.degrees.filter(({ steps }) => ARPEGGIO_STEPS.includes(steps))
      : key.mode.degrees
  // A chromatic scale has two notes on some of these letters: the arpeggio takes the major ones.
  const single = degrees.filter((d, i) => figure === 'scale' || degrees[i + 1]?.steps !== d.steps)
  const notes: Note[] = []
  let from = start
  for (let octave = 0; octave < octaves; octave++) {
    notes.push(...single.map((degree) => transpose(from, degree)))
    from = transpose(from, OCTAVE)
  }
  const all = [...notes, from]
  return key.mode.id === 'chromatic' && figure === 'scale' ? inSharps(all) : all
}

/** Letters of root, third and fifth above the root. */
const ARPEGGIO_STEPS = [0, 2, 4]

const SHARPS = ['C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'A♯', 'B'] as const
const FLATS = ['C', 'D♭', 'D', 'E♭', 'E', 'F', 'G♭', 'G', 'A♭', 'A', 'B♭', 'B'] as const

/** Half steps rise in sharps and fall in flats. Common practice, no source. */
function inSharps(notes: readonly Note[]): Note[] {
  return notes.map((n) => spelledBy(SHARPS, midiNumber(n)))
}

function inFlats(notes: readonly Note[]): Note[] {
  return notes.map((n) => spelledBy(FLATS, midiNumber(n)))
}

function spelledBy(names: readonly string[], midi: number): Note {
  const [letter, sign] = names[midi % 12]! as unknown as [Note['letter'], string | undefined]
  return { letter, accidental: sign === '♯' ? 1 : sign === '♭' ? -1 : 0, octave: Math.floor(midi / 12) - 1 }
}

/** Every octave of the tonic from which these strings hold so many octaves. */
function startsOf({ openMidis, lastSemitone }: PlacementContext, tonic: Note, octaves: number): Note[] {
  const [lowest, highest] = [openMidis[0]!, openMidis.at(-1)! + lastSemitone]
  const starts = Array.from({ length: 12 }, (_, octave) => ({ ...tonic, octave }))
  return starts.filter((n) => midiNumber(n) >= lowest && midiNumber(n) + 12 * octaves <= highest)
}
