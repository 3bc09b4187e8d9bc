import type { Thumb } from '#core'

/** An invented hand: as it is now, how it grew, and what it has learned. */
export interface DemoHand {
  readonly comfortableMm: number
  readonly reachedMm: number
  readonly fingertipMm: number
  readonly thumb: Thumb
  readonly mmPerYear: number
  /** Weeks ago of each measurement, oldest first. */
  readonly weeksAgo: readonly number[]
  /** Ids of patterns and positions. */
  readonly secure: readonly string[]
  readonly learning: readonly string[]
}

const [FIRST, CROWDED, WIDE_LOW, STRETCHED] = [
  'fourth/1234/212',
  'fourth/1234/122',
  'fourth/1234/221',
  'fourth/1234/222',
]
const [TETRACHORD, SECOND_LOW, EXTENDED] = ['closed/134/21', 'closed/124/12', 'extended/124/22']
const [OUTER, LOWER, UPPER] = ['one_two_four/14/2', 'one_two_four/12/1', 'one_two_four/24/1']

const GROWN = { mmPerYear: 0, weeksAgo: [60, 8] } as const

export const DEMO_HANDS: Readonly<Record<string, DemoHand>> = {
  'Pip Hallow': {
    comfortableMm: 47,
    reachedMm: 51,
    fingertipMm: 9,
    thumb: 'straight',
    mmPerYear: 3.4,
    weeksAgo: [30, 4],
    secure: [],
    learning: [FIRST, 'first'],
  },
  'Wren Ottery': {
    comfortableMm: 57.5,
    reachedMm: 62,
    fingertipMm: 10,
    thumb: 'straight',
    mmPerYear: 3.6,
    weeksAgo: [80, 54, 28, 3],
    secure: [FIRST],
    learning: ['first'],
  },
  'Orla Venn': {
    comfortableMm: 62,
    reachedMm: 68,
    fingertipMm: 11,
    thumb: 'straight',
    mmPerYear: 3.8,
    weeksAgo: [104, 82, 60, 41, 22, 2],
    secure: [FIRST, 'first'],
    learning: [CROWDED],
  },
  'Jory Pellam': {
    comfortableMm: 55,
    reachedMm: 60,
    fingertipMm: 11,
    thumb: 'double_jointed',
    mmPerYear: 3.1,
    weeksAgo: [70, 44, 18],
    secure: [FIRST],
    learning: [CROWDED, 'first'],
  },
  'Tamsin Reed': {
    comfortableMm: 69.5,
    reachedMm: 76,
    fingertipMm: 12,
    thumb: 'straight',
    mmPerYear: 4,
    weeksAgo: [101, 75, 49, 26, 5],
    secure: [FIRST, CROWDED, 'first'],
    learning: [WIDE_LOW, 'third'],
  },
  'Edda Ash': {
    comfortableMm: 78,
    reachedMm: 90,
    fingertipMm: 14,
    thumb: 'straight',
    ...GROWN,
    secure: [FIRST],
    learning: [CROWDED, 'first'],
  },
  'Marlow Quill': {
    comfortableMm: 80,
    reachedMm: 93,
    fingertipMm: 15,
    thumb: 'straight',
    mmPerYear: 0.4,
    weeksAgo: [98, 70, 44, 12],
    secure: [FIRST, CROWDED, WIDE_LOW, 'first', 'third'],
    learning: [STRETCHED, 'second', 'fifth'],
  },
  'Isolde Marsh': {
    comfortableMm: 66,
    reachedMm: 73,
    fingertipMm: 11,
    thumb: 'straight',
    mmPerYear: 3.9,
    weeksAgo: [84, 58, 33, 6],
    secure: [FIRST, 'first'],
    learning: [CROWDED, WIDE_LOW],
  },
  'Nell Farrow': {
    comfortableMm: 68,
    reachedMm: 76,
    fingertipMm: 11,
    thumb: 'straight',
    mmPerYear: 3.7,
    weeksAgo: [90, 64, 38, 20, 4],
    secure: [TETRACHORD],
    learning: [SECOND_LOW, 'first'],
  },
  'Aubrey Sill': {
    comfortableMm: 90,
    reachedMm: 106,
    fingertipMm: 14,
    thumb: 'double_jointed',
    mmPerYear: 3.2,
    weeksAgo: [96, 70, 40, 9],
    secure: [TETRACHORD, SECOND_LOW, 'first'],
    learning: [EXTENDED, 'fourth'],
  },
  'Rook Bramble': {
    comfortableMm: 103,
    reachedMm: 117,
    fingertipMm: 16,
    thumb: 'straight',
    ...GROWN,
    secure: [TETRACHORD, 'first'],
    learning: [SECOND_LOW, EXTENDED],
  },
  'Lark Penhale': {
    comfortableMm: 88,
    reachedMm: 99,
    fingertipMm: 13,
    thumb: 'straight',
    mmPerYear: 3.9,
    weeksAgo: [78, 52, 26, 3],
    secure: [OUTER],
    learning: [LOWER, 'first', 'half'],
  },
  'Denzil Crake': {
    comfortableMm: 108,
    reachedMm: 122,
    fingertipMm: 17,
    thumb: 'straight',
    mmPerYear: 1,
    weeksAgo: [60, 10],
    secure: [OUTER, LOWER, UPPER, 'half', 'first'],
    learning: ['semitone_3', 'semitone_5'],
  },
  'Sunniva Holt': {
    comfortableMm: 57,
    reachedMm: 62,
    fingertipMm: 10,
    thumb: 'straight',
    mmPerYear: 0,
    weeksAgo: [2],
    secure: [],
    learning: [],
  },
}
