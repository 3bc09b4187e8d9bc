import { centsPerMmOnString, type Finger } from '../instrument'
import type { Finding, FingerSummary, HeardString } from './types'

/** A thing that can be wrong in a hand: how far it moves each finger that was heard, in mm for a size of 1 mm. */
export interface Cause {
  readonly shift: readonly number[]
  describe(sizeMm: number, plusMinusMm: number): Finding
}

/** Every single cause the heard fingers can show. `fingers` are in finger order and at least three. */
export function singleCauses(heard: HeardString, openStringHeard: boolean): Cause[] {
  return [
    wholeHand(heard, openStringHeard),
    ...frameAcross(heard),
    ...heard.fingers.map((own) => oneFinger(heard, own)),
  ]
}

function wholeHand({ fingers }: HeardString, openStringHeard: boolean): Cause {
  return {
    shift: fingers.map(() => 1),
    describe: (offsetMm, plusMinusMm) => ({ code: 'whole_hand', offsetMm, plusMinusMm, openStringHeard }),
  }
}

/**
 * The spread is wrong by an amount that grows evenly along the hand. Whichever end of the hand stands still, or the
 * middle, the distance between the outer fingers is off by the same `errorMm`.
 */
function frameAcross({ stringing, stringIndex, fingers }: HeardString): Cause[] {
  const first = fingers[0]
  const last = fingers.at(-1)
  if (!first || !last) return []
  const from = first.target.placeMm
  const width = last.target.placeMm - from
  return [0, 0.5, 1].map((still) => {
    const shift = fingers.map((f) => (f.target.placeMm - from) / width - still)
    return {
      shift,
      describe: (errorMm, plusMinusMm) => {
        const shown = still === 1 ? first : last
        const moved = shift[still === 1 ? 0 : fingers.length - 1] ?? 0
        return {
          ...frameFinding(first.finger, last.finger, width, errorMm, plusMinusMm),
          where: 'across',
          cents: errorMm * moved * centsPerMmOnString(stringing, stringIndex, shown.target.placeMm),
          shownBy: shown.finger,
        }
      },
    }
  })
}

/** One finger alone. An outer finger alone changes the distance from first to last, which is what a frame is. */
function oneFinger(heard: HeardString, own: FingerSummary): Cause {
  const { stringing, stringIndex, fingers } = heard
  const [first, last] = [fingers[0]!, fingers.at(-1)!]
  const { finger, target } = own
  const width = last.target.placeMm - first.target.placeMm
  const outer = isWholeFrame(heard) && (own === first || own === last)
  return {
    shift: fingers.map((one) => (one === own ? 1 : 0)),
    describe(offsetMm, plusMinusMm) {
      const cents = offsetMm * centsPerMmOnString(stringing, stringIndex, target.placeMm)
      if (!outer) return { code: 'finger', finger, offsetMm, plusMinusMm, cents }
      const errorMm = own === first ? -offsetMm : offsetMm
      return {
        ...frameFinding(first.finger, last.finger, width, errorMm, plusMinusMm),
        where: own === first ? 'first' : 'last',
        cents,
        shownBy: finger,
      }
    },
  }
}

/** Whether both outer fingers of the exercise were heard: only then can one of them alone speak for the frame. */
function isWholeFrame({ targets, fingers }: HeardString): boolean {
  return fingers[0]?.finger === targets[0]?.finger && fingers.at(-1)?.finger === targets.at(-1)?.finger
}

function frameFinding(
  fromFinger: Finger,
  toFinger: Finger,
  expectedMm: number,
  errorMm: number,
  plusMinusMm: number,
) {
  return { code: 'frame', errorMm, plusMinusMm, fromFinger, toFinger, expectedMm } as const
}
