import { fingerSign } from '../words/fingers'
import { scaleLinear, type ScaleLinear } from 'd3-scale'
import {
  boardWidthMm,
  centsOnString,
  placeOnString,
  spelledInterval,
  stringAcrossMm,
  transpose,
  type Digit,
  type Note,
  type Stringing,
} from '#core'
import { sharpOrFlat } from '../words/numbers'
import { noteLabel } from '../words/notes'

/** A tape across all strings; places in mm from the nut. */
export interface BoardTape {
  readonly id: string
  readonly label: string
  readonly nearEdgeMm: number
  readonly middleMm: number
  readonly farEdgeMm: number
}

/** Where a finger belongs on a string. */
export interface BoardTarget {
  readonly stringIndex: number
  readonly finger: Exclude<Digit, 0>
  readonly placeMm: number
  readonly note: string
}

/** A fingertip lying on a string, drawn as broad as it is. */
export interface BoardFinger {
  readonly stringIndex: number
  readonly finger: Exclude<Digit, 0>
  readonly placeMm: number
  readonly note: string
  readonly widthMm: number
  /** The scale leaves its note out. */
  readonly isResting: boolean
  /** Away from its usual place: extended, or other than in a key it is compared with. */
  readonly isMarked: boolean
  /** On a string that is not the one looked at. */
  readonly isPale: boolean
}

/** Where a finger landed: each note of it, and their mean. */
export interface BoardLanding {
  readonly stringIndex: number
  readonly finger: Exclude<Digit, 0>
  readonly targetMm: number
  readonly meanMm: number
  readonly meanCents: number
  /** Of each note that counts; of those that were left out as strays. */
  readonly notesMm: readonly number[]
  readonly straysMm?: readonly number[]
  readonly toleranceMm: readonly [number, number]
  readonly isOff: boolean
  /** It is pointed at elsewhere on the page. */
  readonly isShown?: boolean
  /** Where it lies while the note sounds. */
  readonly soundingMm?: number | undefined
}

export const ZOOMS = ['playing', 'octave', 'board'] as const
export type Zoom = (typeof ZOOMS)[number]

/** How far from the nut the drawing reaches, mm. */
export function reachMm(stringing: Stringing, zoom: Zoom, lastPlaceMm: number): number {
  const { lengthMm } = stringing.board
  const octave = placeOnString(stringing, 0, 1200)
  if (zoom === 'board') return lengthMm
  if (zoom === 'octave') return octave * 1.03
  return Math.min(lengthMm, Math.max(lastPlaceMm, octave / 2) * 1.2)
}

/**
 * Millimetres to drawing units, the same along and across: the board keeps its proportion. Where it is so small that strings could not
 * be told apart it is as high as they need, and what does not fit along it is left out before the hand.
 */
export interface BoardScale {
  readonly along: ScaleLinear<number, number>
  /** Along the strings. */
  readonly pxPerMm: number
  /** Where the drawing begins, 0 at the nut, and how far it reaches. */
  readonly fromMm: number
  readonly reachMm: number
  readonly width: number
  readonly top: number
  readonly bottom: number
  /** Half the board's width at a place, in drawing units. */
  halfWidthAt(placeMm: number): number
  /** Height of a string at a place. */
  stringY(index: number, placeMm: number): number
  readonly middleY: number
}

/** Each round brings width and reach of the tapering board closer to one another; three are within a pixel. */
const FILLING_ROUNDS = 3
/** Beyond this the part that matters would become small. */
const MOST_FILLING = 2.2

export interface BoardLayout {
  readonly width: number
  /** Room above the board for places, below it for landings and ruler. */
  readonly above: number
  readonly left: number
  readonly right: number
  readonly maxBoardHeight: number
  readonly isFlipped: boolean
  /** Where the hand that is played begins; missing where the board is shown from its nut however small it is. */
  readonly handFromMm?: number | undefined
}

/** On a drawing narrower than this, fingers and strings would merge. */
const NARROW_PX = 860
/** A fingertip with its number needs so much between two strings. */
const LEAST_STRING_GAP_PX = 26
/** So much of the board is left before a hand that does not begin at the nut, of its own length. */
const BEFORE_HAND = 0.3
/** The nut stays in sight unless so much of the drawing would be empty before the hand. */
const EMPTY_BEFORE = 0.4

/**
 * The scale on which a board reaches at least `reachMm` and is at most as high as the layout allows. Where the height
 * decides, somewhat more of the board is shown, so as to fill the width.
 */
export function boardScale(
  { board, tuning }: Pick<Stringing, 'board' | 'tuning'>,
  reachMm: number,
  layout: BoardLayout,
): BoardScale {
  const widthMmAt = (placeMm: number) => boardWidthMm(board, placeMm)
  const room = layout.width - layout.left - layout.right
  let reach = reachMm
  for (let round = 0; round < FILLING_ROUNDS; round++) {
    const filling = (room * widthMmAt(reach)) / layout.maxBoardHeight
    reach = Math.min(board.lengthMm, Math.max(reachMm, Math.min(filling, reachMm * MOST_FILLING)))
  }
  const isNarrow = layout.width < NARROW_PX
  const hand = isNarrow ? (layout.handFromMm ?? 0) : 0
  const fromMm = hand > reach * EMPTY_BEFORE ? Math.max(0, hand - (reach - hand) * BEFORE_HAND) : 0
  const pxPerMm =
    fromMm > 0 ? room / (reach - fromMm) : Math.min(room / reach, layout.maxBoardHeight / widthMmAt(reach))
  const start = layout.isFlipped ? layout.width - layout.left : layout.left
  const end = start + (layout.isFlipped ? -1 : 1) * (reach - fromMm) * pxPerMm
  const along = scaleLinear([fromMm, reach], [start, end])
  const gapMm = Math.abs(
    stringAcrossMm(board, tuning.length, 1, fromMm) - stringAcrossMm(board, tuning.length, 0, fromMm),
  )
  const acrossPxPerMm = isNarrow ? Math.max(fromMm > 0 ? 0 : pxPerMm, LEAST_STRING_GAP_PX / gapMm) : pxPerMm
  const halfWidthAt = (placeMm: number) => (widthMmAt(placeMm) / 2) * acrossPxPerMm
  const halfHeight = halfWidthAt(reach)
  const middleY = layout.above + halfHeight
  return {
    along,
    pxPerMm,
    fromMm,
    reachMm: reach,
    width: layout.width,
    top: middleY - halfHeight,
    bottom: middleY + halfHeight,
    middleY,
    halfWidthAt,
    stringY(index, placeMm) {
      // Nut at the left, the highest string lies at the top; turned round, at the bottom.
      const across = stringAcrossMm(board, tuning.length, index, placeMm)
      return middleY + across * acrossPxPerMm * (layout.isFlipped ? 1 : -1)
    },
  }
}

/** What is at a place of a string: how far from the nut, how many cents up, and the nearest note. */
export interface PlaceReading {
  readonly placeMm: number
  readonly cents: number
  readonly open: string
  readonly note: string
  /** Off that note in equal temperament. */
  readonly noteCents: number
}

export function readPlace(
  stringing: Stringing,
  stringIndex: number,
  placeMm: number,
): PlaceReading | undefined {
  const open = stringing.tuning[stringIndex]
  if (!open) return undefined
  // Behind a nut that rings have put further on, the string is open.
  const cents = placeMm <= 0 ? 0 : Math.max(0, centsOnString(stringing, stringIndex, placeMm))
  const semitones = Math.round(cents / 100)
  const nearest = transpose(open, spelledInterval(semitones))
  return {
    placeMm,
    cents,
    open: noteLabel(open, { octave: false }),
    note: noteLabel(nearest, { octave: false }),
    noteCents: cents - 100 * semitones,
  }
}

/** Height of the lane under the board in which single landings are shown. */
export const LANE_PX = 46

/** What is said of a landing that is off, and where under the lane. */
export interface LandingWord {
  /** Of the landing among the others. */
  readonly id: string
  readonly text: string
  readonly isSharp: boolean
  /** Middle of the text. */
  readonly x: number
  /** From the lane down. */
  readonly row: number
}

/** Height of a row of words under the lane. */
export const WORD_ROW_PX = 19
/** About as broad as a letter of them. */
const LETTER_PX = 8.2

/**
 * Words for the landings that are off, below the lane where no place and no note is drawn: each under its landing, one row
 * lower where it would lie on another.
 */
export function landingWords(
  { along, width }: BoardScale,
  landings: readonly BoardLanding[],
  isFlipped: boolean,
  tuning: readonly Note[] = [],
): LandingWord[] {
  const ends: number[] = []
  const areSeveral = new Set(landings.map((l) => l.stringIndex)).size > 1
  return landings
    .filter((landing) => landing.isOff)
    .map(({ stringIndex, finger, meanMm, meanCents }) => {
      const open = areSeveral ? tuning[stringIndex] : undefined
      const who = open ? `${noteLabel(open, { octave: false })} ${fingerSign(finger)}` : fingerSign(finger)
      const isSharp = meanCents > 0
      const said = sharpOrFlat(meanCents)
      // Sharp lies towards the bridge: to the right, or to the left on a board turned round.
      const text = isSharp !== isFlipped ? `${who}: ${said} ▶` : `◀ ${who}: ${said}`
      const half = (text.length * LETTER_PX) / 2
      return {
        id: `${stringIndex} ${finger} ${meanMm}`,
        text,
        isSharp,
        half,
        x: Math.min(width - half, Math.max(half, along(meanMm))),
      }
    })
    .sort((a, b) => a.x - b.x)
    .map(({ half, ...word }) => {
      const free = ends.findIndex((end) => end + LETTER_PX <= word.x - half)
      const row = free < 0 ? ends.length : free
      ends[row] = word.x + half
      return { ...word, row }
    })
}

/**
 * Places for labels that want to stand at `wanted` (px, any order) and need `apart` from middle to middle: each as near to where
 * it belongs as the others let it, in the same order. Those that meet share what they give way (pooled as in isotonic regression).
 */
export function spread(wanted: readonly number[], apart: number): number[] {
  const order = wanted.map((_, i) => i).sort((a, b) => wanted[a]! - wanted[b]!)
  const pools: { sum: number; count: number }[] = []
  for (const [rank, i] of order.entries()) {
    let pool = { sum: wanted[i]! - rank * apart, count: 1 }
    for (
      let last = pools.at(-1);
      last && last.sum / last.count > pool.sum / pool.count;
      last = pools.at(-1)
    ) {
      pool = { sum: last.sum + pool.sum, count: last.count + pool.count }
      pools.pop()
    }
    pools.push(pool)
  }
  const placed: number[] = []
  for (const { sum, count } of pools)
    for (let k = 0; k < count; k++) {
      const rank = placed.length
      placed.push(sum / count + rank * apart)
    }
  const spreadOut = new Array<number>(wanted.length)
  for (const [rank, i] of order.entries()) spreadOut[i] = placed[rank]!
  return spreadOut
}
