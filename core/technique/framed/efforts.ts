import { THUMB } from '../../instrument'
import { crossing, isPassed } from '../efforts'
import type { Efforts, FingeringOptions, FingerOption, HandPlace, PlacementContext } from '../types'
import type { Hold } from './ways'

/** What moving costs a hand whose fingers have a semitone each. */
export interface FramedWeights {
  readonly shift: number
  readonly perSemitone: number
  /** A hold per semitone above where the hand is at home. */
  readonly perSemitoneUp: number
  readonly home: number
  readonly belowHome: number
  /** A place that the hand finds by touch: the heel, the octave. */
  readonly landmark: number
  readonly atLandmark: number
  /** On a string whose neighbour has the note lower down. */
  readonly passed: number
  readonly toFirst: number
  readonly sameFinger: number
  /** Added where the hand had another finger over the note that it slides to. */
  readonly slideWhereFree: number
  /** Where the string rings by itself. */
  readonly harmonic: number
  /** By 4, which leads the hand badly. */
  readonly byFourth: number
  /** To another finger than 1 and the one that played. */
  readonly toOther: number
  /** To a higher finger while the line rises, to a lower one while it falls. */
  readonly overreach: number
  readonly onHalfStep: number
  /** Half steps in a row: the finger a hand is left after, and what it costs to leave it before. */
  readonly full?: { readonly finger: number; readonly early: number }
  /** Into a hand that is open. */
  readonly intoOpen: number
  readonly onOpen: number
  readonly acrossStrings: number
  readonly hop: number
  /** Each note of the fourth finger. */
  readonly fourth: number
  /** One finger for two notes of a string in one hand. */
  readonly slide: number
  /** Another hold at the same thumb: while a finger holds the string, across strings, and from an open one. */
  readonly opening: { readonly onString: number; readonly across: number; readonly onOpen: number }
  readonly setThumb: number
  readonly shiftToTop: Efforts['shiftToTop']
  readonly otherAtTurn: number
}

const SHIFT_AT_TOP = [1.6, 0.35]
const OPEN_AVOIDED = 12
const NECK_END = 8
/** Over more semitones 1 leads the hand as a matter of course. */
const STEP = 2
const BEYOND = 0.04

export function framedEfforts(
  { openMidis }: PlacementContext,
  holds: readonly Hold[],
  weights: FramedWeights,
  { openStrings }: Pick<FingeringOptions, 'openStrings'>,
): Efforts {
  const byId = new Map(holds.map((hold) => [hold.id, hold]))
  const W = weights
  /** Ways are few, and asked for in every line. */
  const owns = new Map<FingerOption, number>()

  return {
    shiftAtTop: SHIFT_AT_TOP,
    shiftToTop: W.shiftToTop,
    otherAtTurn: W.otherAtTurn,

    own(way) {
      const known = owns.get(way)
      if (known !== undefined) return known
      const own = ownOf(way)
      owns.set(way, own)
      return own
    },

    move(from, hand, to, rise) {
      const across = crossing(from, to, rise)
      if (!to.hand || !hand) return across
      if (hand === to.hand) return across + staying(from, to)
      const apart = thumbsApart(hand, to.hand)
      if (apart === 0) return across + opening(from, to) + staying(from, to)
      return across + shifting(from, hand, to, rise, apart) + thumbSet(hand, to.hand)
    },
  }

  function height({ anchor, thumb }: HandPlace): number {
    if (thumb!.at(-1)! < W.home) return W.belowHome
    return anchor === W.landmark ? W.atLandmark : climb(anchor)
  }

  function ownOf(way: FingerOption): number {
    const { hand } = way
    if (!hand) return openStrings === 'avoid' ? OPEN_AVOIDED : 0
    return (
      byId.get(hand.holdId)!.effort(hand.anchor) +
      height(hand) +
      (isPassed(openMidis, way) ? W.passed : 0) +
      (way.finger === 4 ? W.fourth : 0) +
      (way.harmonic ? W.harmonic : 0)
    )
  }

  /** Beyond the neck it matters less how far. */
  function climb(anchor: number): number {
    const onNeck = Math.min(anchor, NECK_END) - W.home
    return W.perSemitoneUp * Math.max(0, onNeck) + BEYOND * Math.max(0, anchor - NECK_END)
  }

  function staying(from: FingerOption, to: FingerOption): number {
    if (from.finger !== to.finger || from.semitones === to.semitones) return 0
    return from.stringIndex === to.stringIndex ? W.slide : W.hop
  }

  function thumbsApart(a: HandPlace, b: HandPlace): number {
    const from = a.thumb!
    const to = b.thumb!
    // From one open hand to another the thumb goes along.
    if (from.length > 1 && to.length > 1) return Math.abs(a.anchor - b.anchor)
    return Math.max(0, from[0]! - to[to.length - 1]!, to[0]! - from[from.length - 1]!)
  }

  function opening(from: FingerOption, to: FingerOption): number {
    if (from.finger === 0) return W.opening.onOpen
    return from.stringIndex === to.stringIndex ? W.opening.onString : W.opening.across
  }

  function shifting(
    from: FingerOption,
    hand: HandPlace,
    to: FingerOption,
    rise: number,
    semitones: number,
  ): number {
    const onString = from.stringIndex === to.stringIndex
    const isOpen = from.finger === 0
    // 1 leads the hand up to a place, and down from it.
    const leader = rise >= 0 ? to : from
    const follower = rise >= 0 ? from : to
    return (
      W.shift +
      W.perSemitone * semitones +
      (isOpen ? W.onOpen : 0) +
      (onString ? 0 : W.acrossStrings) +
      (leadsHand(leader) ? W.toFirst : 0) +
      (to.hand!.thumb!.length > 1 ? W.intoOpen : 0) +
      (!isOpen && onString ? alongString(leader, follower, rise) : 0) +
      (onString && from.finger === to.finger && Math.abs(rise) <= STEP && reaches(hand, to)
        ? W.slideWhereFree
        : 0)
    )
  }

  function reaches({ anchor, holdId }: HandPlace, { semitones }: FingerOption): boolean {
    return byId.get(holdId)!.offsets.some(([, offset]) => anchor + offset === semitones)
  }

  function alongString(leader: FingerOption, follower: FingerOption, rise: number): number {
    const { full } = W
    return (
      (leader.finger === follower.finger
        ? leader.finger === 4
          ? W.byFourth
          : W.sameFinger
        : leadsHand(leader)
          ? 0
          : W.toOther) +
      (rank(leader) > rank(follower) ? W.overreach : 0) +
      (Math.abs(rise) === 1 ? W.onHalfStep : 0) +
      (full && follower.finger < full.finger ? full.early : 0)
    )
  }

  function thumbSet(from: HandPlace, to: HandPlace): number {
    return to.isThumbSet && !from.isThumbSet ? W.setThumb : 0
  }
}

function leadsHand({ finger }: FingerOption): boolean {
  return finger === 1 || finger === THUMB
}

/** The thumb lies before 1. */
function rank({ finger }: FingerOption): number {
  return finger === THUMB ? 0.5 : finger
}
