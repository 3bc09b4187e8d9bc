import { midiNumber, transpose, type Interval, type Note } from '../pitch'
import { keyOf, type PlacementContext, type Key } from '../pattern'
import {
  DEFAULT_FINGERING,
  fingerNotes,
  type FingeredNote,
  type Fingering,
  type FingeringOptions,
} from './finger'

export type FigureId = 'scale' | 'arpeggio'

export interface ScaleRequest {
  readonly key: Key
  readonly figure: FigureId
  readonly octaves: 1 | 2 | 3
}

const OCTAVE: Interval = { steps: 7, semitones: 12 }

export type FingeredScale =
  | { readonly ok: true; readonly notes: readonly FingeredNote[] }
  | { readonly ok: false; readonly code: 'scale_out_of_range'; readonly octaves: number }

/**
 * A scale or an arpeggio up and down, in the usual fingering: it starts where it lies best, an open string or low in first
 * position. A melodic minor comes down as the natural one.
 */
export function fingerScale(
  context: PlacementContext,
  { key, figure, octaves }: ScaleRequest,
  options: FingeringOptions = DEFAULT_FINGERING,
): FingeredScale {
  let best: Extract<Fingering, { ok: true }> | undefined
  for (const start of startsOf(context, key.tonic)) {
    const notes = upAndDown(key, figure, start, octaves)
    const fingering = fingerNotes(context, notes, options)
    if (fingering.ok && (!best || fingering.effort < best.effort)) best = fingering
  }
  return best ? { ok: true, notes: best.notes } : { ok: false, code: 'scale_out_of_range', octaves }
}

/** The notes of a scale or arpeggio from `start`, up and down again, the top note once. */
export function upAndDown(key: Key, figure: FigureId, start: Note, octaves: number): Note[] {
  const falling = key.mode.fallsAs ? keyOf(key.tonic, key.mode.fallsAs) : key
  const up = figureNotes(key, figure, start, octaves)
  const down = figureNotes(falling, figure, start, octaves).reverse()
  return [...up, ...down.slice(1)]
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
  return [...notes, from]
}

/** Letters of root, third and fifth above the root. */
const ARPEGGIO_STEPS = [0, 2, 4]

/** Every octave of the tonic on these strings. */
function startsOf({ openMidis, lastSemitone }: PlacementContext, tonic: Note): Note[] {
  const [lowest, highest] = [openMidis[0]!, openMidis.at(-1)! + lastSemitone]
  const octaves = Array.from({ length: 12 }, (_, octave) => ({ ...tonic, octave }))
  return octaves.filter((n) => midiNumber(n) >= lowest && midiNumber(n) <= highest)
}
