/** A pitch with how sure it is. */
export interface HeardPitch {
  /** Above 440 Hz. */
  readonly cents: number
  /** One standard deviation. */
  readonly sigmaCents: number
  /** The stretch it was read from, seconds of the take. */
  readonly fromS: number
  readonly toS: number
}

/** A pitch that swings evenly. */
export interface HeardVibrato {
  readonly rateHz: number
  /** From its lowest to its highest pitch. */
  readonly widthCents: number
  /** Its middle and its highest pitch, above 440 Hz. */
  readonly centreCents: number
  readonly topCents: number
}

/** One note as it was heard, whatever was meant. */
export interface HeardNote {
  readonly startS: number
  readonly endS: number
  /** The first stable stretch after the attack: what the hand did. */
  readonly landing: HeardPitch
  /** Where it was left, after the ear had moved it. */
  readonly settled: HeardPitch
  /** From landing to settled. */
  readonly glideCents: number
  readonly vibrato: HeardVibrato | null
  /** Standard deviation of the pitch about its line while it is held, a vibrato taken out. */
  readonly wobbleCents: number
  /** Slope of the pitch while it is held. */
  readonly driftCentsPerS: number
  /** Of its loudest moment, dB of full scale. */
  readonly levelDb: number
  /** How it came to sound: out of silence or from another pitch, or anew on the pitch that sounded. */
  readonly begins: 'freely' | 'again'
  /** Median part of the sound that belonged to the pitch. */
  readonly confidence: number
  /** How much of it lies in high partials, dB, against other notes of the same recording. */
  readonly brightnessDb: number
}

/** A stretch in which two strings sounded together, of which no pitch is told. */
export interface HeardDoubleStop {
  readonly startS: number
  readonly endS: number
}
