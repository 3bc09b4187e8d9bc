import { median } from 'd3-array'
import type { PitchFrame } from '../pitch'
import type { Plateau } from './plateaus'

/** What parts the notes of a phrase from one another. */
export interface PhraseOptions {
  /** Neighbouring plateaus less than this apart are one note that moved: an ear that mends. */
  readonly stepCents: number
  /** A pitch out of silence that is left within this was the attack of what follows. */
  readonly scratchS: number
  /** The same where the level goes on rising meanwhile. */
  readonly risingS: number
}

/** Frames `from` … `to` − 1 of the phrase are one note, as far as can be told. */
export interface NotePart {
  readonly from: number
  readonly to: number
  readonly cents: number
}

/** A pitch that changes by more than this from frame to frame is on its way. */
const MOVING_CENTS = 4
/** A plateau no longer than this, all of it on its way between its neighbours, is a slide. */
const SLIDE_S = 0.2
/** An attack in which the pitch was lost may scoop from so far, on any side. */
const FURTHEST_SCOOP_CENTS = 130
/** Part of a plateau's frames that must rest for it to be one. */
const RESTING = 0.4
/** A low string that speaks slowly may scoop by so much, for so long. */
const SCOOP_CENTS = 58
const SCOOP_S = 0.3
/** What follows an attack is so much louder than its first part. */
const RISES_DB = 3
/** A plateau no longer than this that is a neighbour's octave is that neighbour, misheard. */
const OCTAVE_SLIP_S = 0.22
/** Where one note dies away under the next one’s attack, both together repeat themselves for a moment far below either. */
const ATTACK_SLIP_S = 0.13
const FAR_BELOW_CENTS = 600
/** So low a string, with a first partial so weak, is misheard as its octave most; nobody leaps octaves so fast there. */
const LOW_CENTS = -2000

/**
 * The plateaus of a phrase as notes: slides belong to neither neighbour, moments misheard in another octave and an attack's first pitch to
 * the note they are of, and what is hardly a step apart is one note.
 */
export class Phrase {
  /**
   * @param hopS from one frame to the next.
   * @param told the note before, where the frames begin in the middle of a phrase; undefined of one that begins out of silence.
   */
  constructor(
    private readonly frames: readonly PitchFrame[],
    private readonly hopS: number,
    private readonly options: PhraseOptions,
    private readonly told?: Pick<NotePart, 'cents'>,
  ) {}

  /** The notes by their pitch, in order; none where there are no frames. */
  notes(plateaus: readonly Plateau[]): NotePart[] {
    const edges = plateaus.map(({ from }) => (from === 0 ? 0 : this.#attackBefore(from)))
    const parts = edges.map((from, i) => this.whole(from, edges[i + 1] ?? this.frames.length))
    const rows = this.#withoutSlips(this.#joined(this.#withoutSlides(parts)))
    return this.#withoutScratch(this.#joined(rows))
  }

  /** Where a plateau's note began: moments without a pitch before it are its attack, from the softest of them on. */
  #attackBefore(from: number): number {
    let softest = from
    for (let i = from - 1; i > 0 && this.frames[i]!.frequencyHz === null; i--)
      if (this.frames[i]!.levelDb < this.frames[softest]!.levelDb) softest = i
    return softest
  }

  /** Frames `from` … `to` − 1 as one note. */
  whole(from: number, to: number): NotePart {
    return { from, to, cents: median(this.#pitches(from, to)) ?? NaN }
  }

  #pitches(from: number, to: number): number[] {
    const pitches: number[] = []
    for (let i = from; i < to; i++)
      if (this.frames[i]!.frequencyHz !== null) pitches.push(centsOf(this.frames[i]!))
    return pitches
  }

  /**
   * A plateau on which nothing rests lies on a slide between two notes, and belongs to neither; or, if the pitch was lost as it began, is
   * the scoop of an attack, and of the note that follows.
   */
  #withoutSlides(parts: readonly NotePart[]): NotePart[] {
    const left: NotePart[] = []
    let scoopFrom: number | undefined
    for (let i = 0; i < parts.length; i++) {
      const part = { ...parts[i]!, from: scoopFrom ?? parts[i]!.from }
      scoopFrom = undefined
      const [before, after] = [left.at(-1) ?? this.told, parts[i + 1]]
      const isBetween = before && after && (part.cents - before.cents) * (after.cents - part.cents) > 0
      const isAttack = this.frames[part.from]!.frequencyHz === null
      const isScoop = isAttack && after && Math.abs(after.cents - part.cents) < FURTHEST_SCOOP_CENTS
      const isShort = (part.to - part.from) * this.hopS <= SLIDE_S
      if (!((isBetween || isScoop) && isShort && !this.#rests(part))) left.push(part)
      else if (isAttack) scoopFrom = part.from
    }
    return left
  }

  #rests({ from, to }: NotePart): boolean {
    const pitches = this.#pitches(from, to)
    let resting = 0
    for (let i = 1; i < pitches.length; i++)
      if (Math.abs(pitches[i]! - pitches[i - 1]!) < MOVING_CENTS) resting++
    return resting >= RESTING * (pitches.length - 1)
  }

  /** A short plateau in another octave than the notes beside it: that note, misheard; first of all, in its attack or as it dies. */
  #withoutSlips(parts: readonly NotePart[]): NotePart[] {
    const left: NotePart[] = []
    let fromFrame: number | undefined
    parts.forEach((slipped, i) => {
      const part = { ...slipped, from: fromFrame ?? slipped.from }
      fromFrame = undefined
      const before = left.at(-1) ?? this.told
      const after = parts[i + 1]
      const lastsS = (part.to - part.from) * this.hopS
      const isShort = lastsS <= OCTAVE_SLIP_S
      if (before && after && lastsS <= ATTACK_SLIP_S && isSlip(part.cents, before.cents, after.cents)) {
        fromFrame = part.from
        return
      }
      const last = left.at(-1)
      const isOfLast = isShort && last && isMultiple(part.cents - last.cents)
      const isAlone = !after || Math.abs(after.cents - (last?.cents ?? NaN)) < 60
      if (isOfLast && (isAlone || last.cents < LOW_CENTS)) left[left.length - 1] = { ...last, to: part.to }
      else left.push(part)
    })
    const [first, second] = left
    const isFirstSlip = first && second && (first.to - first.from) * this.hopS <= OCTAVE_SLIP_S
    if (isFirstSlip && this.told === undefined && isMultiple(second.cents - first.cents))
      left.splice(0, 2, { ...second, from: first.from })
    return left
  }

  /** Neighbours that are hardly a step apart are one note. */
  #joined(parts: readonly NotePart[]): NotePart[] {
    const joined: NotePart[] = []
    for (const part of parts) {
      const before = joined.at(-1)
      const isOne = before && !(Math.abs(part.cents - before.cents) >= this.options.stepCents)
      if (isOne) joined[joined.length - 1] = this.whole(before.from, part.to)
      else joined.push(part)
    }
    return joined
  }

  /** A first moment out of silence that is left at once was no pitch, but the scratch or tick of the attack. */
  #withoutScratch(parts: NotePart[]): NotePart[] {
    while (this.told === undefined && parts.length > 1) {
      const [first, second] = parts as [NotePart, NotePart]
      const lastsS = (first.to - first.from) * this.hopS
      const { scratchS, risingS } = this.options
      const isNear = Math.abs(second.cents - first.cents) < SCOOP_CENTS
      if (lastsS >= (this.#rises(first) ? (isNear ? SCOOP_S : risingS) : scratchS)) break
      parts.splice(0, 2, { ...second, from: first.from })
    }
    return parts
  }

  /** Whether what follows is louder than the first part of it: an attack grows, a note is there. */
  #rises({ from, to }: NotePart): boolean {
    const level = (first: number, last: number) =>
      Math.max(...this.frames.slice(first, last).map((f) => f.levelDb))
    return level(to, to + 9) - level(from, from + Math.ceil(0.6 * (to - from))) > RISES_DB
  }
}

/** The pitch of a frame, cents above 440 Hz; NaN of none. */
export function centsOf({ frequencyHz }: PitchFrame): number {
  return 1200 * Math.log2((frequencyHz ?? NaN) / 440)
}

/** Octaves and twelfths, cents: what a series and one that leaves out its partials are apart. */
const MULTIPLES = [1200, 1902, 2400]

function isMultiple(cents: number): boolean {
  return MULTIPLES.some((m) => Math.abs(Math.abs(cents) - m) < 60)
}

/** Whether a moment between two notes is neither: far below both, or an octave or twelfth of the one that begins. */
function isSlip(cents: number, before: number, after: number): boolean {
  return cents < Math.min(before, after) - FAR_BELOW_CENTS || isMultiple(cents - after)
}
