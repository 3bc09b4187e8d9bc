import { NoteFinder, type HeardDoubleStop, type HeardNote, type NoteOptions } from './notes'
import { PitchTracker, type PitchFrame, type TrackerOptions } from './pitch'

/** What a block of sound added. */
export interface Heard {
  readonly frames: readonly PitchFrame[]
  /** Notes that are over. */
  readonly notes: readonly HeardNote[]
}

export interface EarOptions {
  readonly pitch?: Partial<TrackerOptions>
  readonly notes?: Partial<NoteOptions>
}

/**
 * Hears notes in sound that comes in blocks of any length, in bounded memory: the same notes whatever the blocks.
 *
 * @example
 * const ear = new Ear(48_000)
 * for (const block of blocks) show(ear.push(block).notes, ear.sounding)
 * show(ear.end().notes)
 */
export class Ear {
  readonly #tracker: PitchTracker
  readonly #finder: NoteFinder

  /** Throws a RangeError for a sampling rate below 8 or above 192 kHz. */
  constructor(sampleRateHz: number, options: EarOptions = {}) {
    this.#tracker = new PitchTracker(sampleRateHz, options.pitch)
    this.#finder = new NoteFinder(this.#tracker.hopSamples / sampleRateHz, options.notes)
  }

  /** From one frame to the next. */
  get hopS(): number {
    return this.#tracker.hopSamples / this.#tracker.sampleRateHz
  }

  /** The note that sounds now, as far as it can be told. */
  get sounding(): HeardNote | undefined {
    return this.#finder.sounding
  }

  /** Notes that are over before it and not told yet: what follows may still change them. */
  get pending(): readonly HeardNote[] {
    return this.#finder.pending
  }

  /** The pitch of the last moment, Hz, before anything is sure; see {@link PitchTracker.glimpse}. */
  glimpse(): number | null {
    return this.#tracker.glimpse()
  }

  get doubleStops(): readonly HeardDoubleStop[] {
    return this.#finder.doubleStops
  }

  /** Mono samples, −1 … 1. Throws a RangeError for one that is no number. */
  push(block: ArrayLike<number>): Heard {
    return this.#take(this.#tracker.push(block))
  }

  end(): Heard {
    const { frames, notes } = this.#take(this.#tracker.end())
    return { frames, notes: [...notes, ...this.#finder.end()] }
  }

  #take(frames: readonly PitchFrame[]): Heard {
    return { frames, notes: frames.flatMap((frame) => this.#finder.push(frame)) }
  }
}

/** All notes of a whole sound. */
export function hearNotes(
  samples: ArrayLike<number>,
  sampleRateHz: number,
  options: EarOptions = {},
): { readonly notes: readonly HeardNote[]; readonly doubleStops: readonly HeardDoubleStop[] } {
  const ear = new Ear(sampleRateHz, options)
  const notes = [...ear.push(samples).notes, ...ear.end().notes]
  return { notes, doubleStops: ear.doubleStops }
}
