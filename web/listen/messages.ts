import type { Exercise, HandFaults, HeardWholeTake, PlayerLevel, StringingSnapshot, TakeNews } from '#core'

/** What the page asks of the listening worker. */
export type ListenOrder =
  /** Sound comes through `port`, if given, as Float32Array; else in `sound` orders. */
  | {
      readonly kind: 'begin'
      readonly sampleRateHz: number
      readonly silenceS: number
      readonly port?: MessagePort
      /** That the player hears in headphones. */
      readonly droneHz?: number | undefined
    }
  | { readonly kind: 'end' }
  /** A whole WAV file. */
  | { readonly kind: 'file'; readonly file: Blob }
  /** A whole sound that the browser has decoded. */
  | { readonly kind: 'samples'; readonly samples: Float32Array; readonly sampleRateHz: number }
  | { readonly kind: 'student'; readonly order: StudentOrder }

/** A student to be simulated. */
export interface StudentOrder {
  readonly stringing: StringingSnapshot
  readonly exercise: Exercise
  readonly level: PlayerLevel
  readonly faults: Partial<HandFaults>
  readonly stroke: 'bow' | 'pluck'
  readonly seed: number
  readonly a4Hz: number
  readonly sampleRateHz: number
}

export type ListenReport =
  | { readonly kind: 'news'; readonly news: TakeNews }
  /** With its sound, where it is not too long to be kept in memory. */
  | {
      readonly kind: 'over'
      readonly take: HeardWholeTake
      /** At the end of a file whose header tells of less than it holds: not heard. */
      readonly unheardS?: number
      readonly sound?: { readonly samples: Float32Array; readonly sampleRateHz: number } | undefined
    }
  /** Part of a file that has been heard. */
  | { readonly kind: 'progress'; readonly part: number }
  /** The sound of the simulated student. */
  | { readonly kind: 'sound'; readonly samples: Float32Array<ArrayBuffer> }
  | { readonly kind: 'failed'; readonly fault: ListenFault }

export type ListenFault =
  | { readonly code: 'no_sound_file' }
  | { readonly code: 'too_large' }
  | { readonly code: 'too_long'; readonly minutes: number }
  | { readonly code: 'rate'; readonly sampleRateHz: number }
  | { readonly code: 'broken'; readonly message: string }
