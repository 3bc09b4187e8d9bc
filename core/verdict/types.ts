import type { Finger } from '../instrument'
import type { Take, Target } from '../take'

/** How probable each fault, or pair of faults, is by the notes of one take; by {@link faultKey}. */
export type Likely = Readonly<Record<string, number>>

/** What is believed of a hand beforehand, and its share beside what is usual of anybody. */
export interface Believed {
  readonly share: number
  readonly likely: Likely
}

/** A take of earlier days. */
export interface EarlierTake extends Take {
  readonly daysAgo: number
  readonly tapesCovered: boolean
  /** What it made likely when it was judged by itself; null where it said nothing of the hand. */
  readonly likely: Likely | null
}

/** A take, and how far off still counts as in tune for its player. */
export interface JudgedTake extends Take {
  readonly toleranceCents: number
  readonly tapesCovered?: boolean | undefined
  /** Of the same player; those of another hand than this one are left out. None where they are not to count. */
  readonly earlier?: readonly EarlierTake[] | undefined
  /** What was believed when it was judged first, in the place of earlier takes. */
  readonly belief?: Belief | null | undefined
}

/** What is known of a hand before it plays. */
export interface Belief extends Believed {
  /** How many takes stand behind it, and how old the newest is, days. */
  readonly count: number
  readonly daysAgo: number
}

/** A reading that was left out, since it lies far from where its finger and its string otherwise land. */
export interface Stray {
  readonly finger: Finger
  /** The open string’s name. */
  readonly string: string
  /** Off its place. */
  readonly cents: number
}

/** A tape that a finger follows to a wrong place. */
export interface MisplacedTape {
  readonly finger: Finger
  /** Where it lies, and where the finger’s note is, mm from the nut. */
  readonly tapeMm: number
  readonly placeMm: number
  /** What the tape makes of the note. */
  readonly cents: number
}

/** Fingers that stand a half step from their notes, while the others stand on theirs. */
export interface OtherPattern {
  /** The first of them; null of all. */
  readonly finger: Finger | null
  /** The others of them, where not all. */
  readonly with?: readonly Finger[]
  /** The open string’s name, where they do so on one string alone of several. */
  readonly string?: string
  /** 1: a half step high. */
  readonly halfSteps: 1 | -1
}

/** One thing in the hand, with its numbers. Positive is sharp, or wide. */
export type Finding =
  /** Every finger is off by the same distance. */
  | {
      readonly code: 'whole_hand'
      readonly offsetMm: number
      readonly plusMinusMm: number
      /** False when nobody played the open string: the tuning could still be the cause. */
      readonly openStringHeard: boolean
      /** Of one position alone, where several were played. */
      readonly positionId?: string | undefined
    }
  /** The distance between the outer fingers is wrong: growing from finger to finger, or by one outer finger alone. */
  | {
      readonly code: 'frame'
      readonly errorMm: number
      readonly plusMinusMm: number
      readonly where: 'across' | 'first' | 'last'
      readonly fromFinger: Finger
      readonly toFinger: Finger
      readonly expectedMm: number
      /** What was heard of the finger that shows it, on average, whatever earlier takes made likely. */
      readonly cents: number
      readonly shownBy: Finger
    }
  /** One finger is off and the rest of the hand explains nothing of it. */
  | {
      readonly code: 'finger'
      readonly finger: Finger
      readonly offsetMm: number
      readonly plusMinusMm: number
      /** What was heard of it, on average. */
      readonly cents: number
    }
  /** Half steps too wide and whole steps too narrow by so much each; negative the other way. */
  | {
      readonly code: 'steps'
      readonly errorMm: number
      readonly plusMinusMm: number
      /** Pairs of neighbours that are asked to stand a half step, and a whole one, apart; missing where that changes from string to string, and of earlier versions. */
      readonly halves?: readonly (readonly [Finger, Finger])[] | undefined
      readonly wholes?: readonly (readonly [Finger, Finger])[] | undefined
    }
  /** Cello: 2 alone too high, since the thumb's base joint is locked. */
  | { readonly code: 'locked_thumb'; readonly offsetMm: number; readonly plusMinusMm: number }
  /** On the lowest string the last finger lies so far short, on the next one half as far. */
  | {
      readonly code: 'elbow'
      readonly shortMm: number
      readonly plusMinusMm: number
      readonly finger: Finger
      readonly cents: number
    }
  /** Cello, extended: 1 pinched up, or the other fingers dragged back with it. */
  | {
      readonly code: 'pinched' | 'dragged'
      readonly offsetMm: number
      readonly plusMinusMm: number
    }
  /** So far up the board from the first note to the last. */
  | {
      readonly code: 'creep'
      readonly offsetMm: number
      readonly plusMinusMm: number
      readonly cents: number
    }
  /** Everything on one string is off alike, and nobody has read the open string. */
  | {
      readonly code: 'string'
      /** The open string's name. */
      readonly string: string
      readonly cents: number
      readonly plusMinusCents: number
    }
  /** Landing far, settled near: the ear repairs what the hand misses. Mean distances. */
  | { readonly code: 'ear_repairs'; readonly landedCents: number; readonly settledCents: number }
  /** The pitch of a held note moves by this, one standard deviation. */
  | { readonly code: 'wobble'; readonly finger: Finger; readonly cents: number }
  /** So many decibels less in high partials than the other fingers on the same strings. */
  | { readonly code: 'dull'; readonly finger: Finger; readonly lessDb: number }
  /** A vibrato that swings above the note. */
  | { readonly code: 'vibrato'; readonly aboveCents: number; readonly widthCents: number }
  /** Right in sight of its tape, off without it. */
  | {
      readonly code: 'without_tapes'
      readonly finger: Finger
      readonly cents: number
      readonly seenCents: number
    }
  /** One finger on one string, or one note of a line, off every time it was played, while the rest of the hand is elsewhere. */
  | {
      readonly code: 'place'
      readonly finger: Finger
      /** The open string’s name, and the note’s. */
      readonly string: string
      readonly note: string
      readonly cents: number
      readonly plusMinusCents: number
      readonly count: number
    }
  /** A tape lies where no note is, and its finger follows it: so much of the note is the tape’s. */
  | ({ readonly code: 'tape' } & MisplacedTape)
  /** Right on average, and different every time. */
  | { readonly code: 'scatter'; readonly cents: number; readonly leastCents: number }

/** What was heard of one finger, over all its strings. */
export interface FingerSummary {
  readonly finger: Finger
  /** One of its places. */
  readonly target: Target & { readonly finger: Finger }
  readonly count: number
  readonly meanCents: number
  /** From its place, towards the bridge. */
  readonly meanMm: number
  /** Standard deviation; only from two notes on. */
  readonly spreadCents?: number
}

/** Of one note, with the interval that holds it nineteen times in twenty. */
export interface ScatterEstimate {
  readonly cents: number
  readonly lowCents: number
  readonly highCents: number
}

/** What earlier takes had to say: how many, how old the newest, and their share of what was believed before this take. */
export interface EarlierSaid {
  readonly count: number
  readonly daysAgo: number
  readonly share: number
}

/** What is told beside the fault in the hand, or beside that there is none. */
export interface ToldBeside {
  /** What is heard beside where the fingers land. */
  readonly beside?: readonly Finding[] | undefined
  readonly scatter?: ScatterEstimate | undefined
  /** Readings that were left out. */
  readonly strays?: readonly Stray[] | undefined
  readonly earlier?: EarlierSaid | undefined
}

export type Verdict = (
  | {
      readonly outcome: 'not_enough_notes'
      readonly fingersHeard: readonly Finger[]
      readonly fingersNeeded: number
      /** About so many notes more, on the same fingers, would tell; null where fingers are missing, or where it would take another lesson. */
      readonly more?: number | null | undefined
      /** Or so many; missing of earlier versions. */
      readonly moreTo?: number | undefined
      /** The hand seems to stand in tune, but nothing was heard of these fingers that the exercise asks for. */
      readonly unheard?: readonly Finger[] | undefined
      /** What it may be, the likeliest first. */
      readonly maybe?: readonly Finding[] | undefined
      /** The first of these is likelier than a hand in tune and all else together. */
      readonly leans?: boolean | undefined
      readonly fingers: readonly FingerSummary[]
    }
  | {
      readonly outcome: 'string_out_of_tune'
      readonly cents: number
      /** The open string's name; missing of earlier versions. */
      readonly string?: string | undefined
      readonly fingers: readonly FingerSummary[]
    }
  /** A tape lies where no note is, and its finger follows it; the hand is well, or not known. */
  | ({
      readonly outcome: 'tape_misplaced'
      /** More of them, the furthest off first. */
      readonly others?: readonly MisplacedTape[] | undefined
      readonly fingers: readonly FingerSummary[]
    } & MisplacedTape)
  /** Fingers played a half step away from what was asked, the others as asked; or all of them, or all of one string. */
  | ({ readonly outcome: 'other_exercise'; readonly fingers: readonly FingerSummary[] } & OtherPattern)
  /** Two notes that are one by ear, how far apart they were: the upper finger’s. */
  | {
      readonly outcome: 'matched'
      readonly of: 'fourth' | 'octave'
      readonly cents: number
      readonly plusMinusCents: number
      /** Null where the notes do not carry it. */
      readonly isOff: boolean | null
      readonly fingers: readonly FingerSummary[]
    }
  | { readonly outcome: 'in_tune'; readonly worst: FingerSummary; readonly fingers: readonly FingerSummary[] }
  | {
      /** `several`, of earlier versions: every finger that is off stands by itself. */
      readonly outcome: 'explained' | 'several'
      /** The weightiest first. */
      readonly findings: readonly Finding[]
      /** Single causes that these notes do not rule out. */
      readonly alternatives: readonly Finding[]
      readonly fingers: readonly FingerSummary[]
    }
) &
  ToldBeside

/** A take judged: what is said of it, and what it makes likely of the hand by itself, for later takes. */
export interface Judged {
  readonly verdict: Verdict
  /** Null where it says nothing of the hand. */
  readonly likely: Likely | null
  /** What was believed before; null where nothing was, or nothing is said of the hand. */
  readonly belief: Belief | null
}
