import { crossing, isPassed } from '../efforts'
import { ownPlace } from '../names'
import type { Efforts, FingerOption, FingeringOptions, PlacementContext } from '../types'

const FIRST = 1

/**
 * What moving costs on the violin and viola. Weighed so that the usual fingerings of first scales come out, and above them
 * pairs of fingers on the top string: a shift grows with the square of its letters, so two short ones are less than a long
 * one. Common practice, no source.
 */
const WEIGHTS = {
  early: { shift: 2.4, perLetterSquared: 0.6, stretched: 2 },
  stay: { shift: 4.5, perLetterSquared: 0.25, stretched: 0.8 },
  acrossStrings: 0.7,
  onOpen: -0.5,
  toFirst: -0.6,
  /** Landing on a later finger, each further from 1. */
  toLater: 1.2,
  onHalfStep: -0.5,
  /** By one finger to where the next one lay. */
  slideWhereFree: 2,
  slide: 1.5,
  /** Where half steps follow one another a finger slides as a matter of course. */
  chromaticSlide: 0.5,
  hopFinger: 0.4,
  fourth: 0.15,
  /** A fourth finger where an open string sounds the note, and strings sound open by choice. */
  fourthForOpen: 12,
  halfPosition: 0.3,
  /** Climbs go by the odd positions. */
  evenPosition: 0.9,
  /** Up to third position, and beyond it. */
  perLetterUp: [0.5, 0.1],
  passed: 0.6,
  openAvoided: 12,
  /** Half steps in a row: each semitone that a finger lies from its usual place. */
  unusual: 0.1,
  shiftAtTop: [1.8, 1],
} as const

export function letterEfforts(
  { family, openMidis }: PlacementContext,
  { openStrings, climb, chromatic }: FingeringOptions,
): Efforts {
  const W = WEIGHTS
  const climbing = W[climb]
  const { offsets } = family.frames[0]!

  return {
    shiftAtTop: W.shiftAtTop,
    shiftToTop: {},
    // On the top string pairs follow, whatever the shorter line ends on.
    otherAtTurn: 0,

    own(way) {
      const { finger, hand } = way
      if (!hand || finger === 0) return openStrings === 'avoid' ? W.openAvoided : 0
      const { anchor } = hand
      const rest = offsets[finger as 1] ?? 0
      const isStretched =
        finger === 4 && way.semitones > Math.max(...hand.position!.firstFingerSemitones) + rest
      return (
        height(anchor) +
        (anchor < FIRST ? W.halfPosition : 0) +
        (anchor > FIRST && anchor % 2 === 0 ? W.evenPosition : 0) +
        (finger === 4 ? W.fourth : 0) +
        (isStretched ? climbing.stretched : 0) +
        (isPassed(openMidis, way) && !(finger === 4 && anchor === FIRST) ? W.passed : 0) +
        (finger === 4 && openStrings === 'prefer' && isOpenString(way) ? W.fourthForOpen : 0) +
        (chromatic ? W.unusual * Math.abs(way.semitones - ownPlace(hand.position!) - rest) : 0)
      )
    },

    move(from, hand, to, rise) {
      const across = crossing(from, to, rise)
      if (!to.hand || !hand) return across
      const letters = Math.abs(to.hand.anchor - hand.anchor)
      return across + (letters === 0 ? staying(from, to) : shifting(from, to, rise, letters))
    },
  }

  function height(anchor: number): number {
    const letters = Math.max(0, anchor - FIRST)
    return W.perLetterUp[0] * Math.min(2, letters) + W.perLetterUp[1] * Math.max(0, letters - 2)
  }

  function isOpenString({ stringIndex, semitones }: FingerOption): boolean {
    return openMidis.includes(openMidis[stringIndex]! + semitones)
  }

  function staying(from: FingerOption, to: FingerOption): number {
    if (from.finger !== to.finger) return 0
    if (from.stringIndex !== to.stringIndex) return W.hopFinger
    return from.semitones === to.semitones ? 0 : chromatic ? W.chromaticSlide : W.slide
  }

  function shifting(from: FingerOption, to: FingerOption, rise: number, letters: number): number {
    const onString = from.stringIndex === to.stringIndex
    const isOpen = from.finger === 0
    // 1 leads the hand up to a place, and down from it.
    const leader = rise >= 0 || isOpen ? to : from
    return (
      climbing.shift +
      climbing.perLetterSquared * letters * letters +
      (isOpen ? W.onOpen : 0) +
      (onString ? 0 : W.acrossStrings) +
      (leader.finger === 1 ? W.toFirst : W.toLater * (leader.finger - 1)) +
      (!isOpen && onString && Math.abs(rise) === 1 ? W.onHalfStep : 0) +
      (!isOpen && onString && from.finger === to.finger && letters === 1 ? W.slideWhereFree : 0)
    )
  }
}
