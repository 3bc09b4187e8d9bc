import type { Finding } from '#core'

const far = { plusMinusMm: 1, offsetMm: 5 }

/** One of everything that can be found. */
export const ALL_FINDINGS: readonly Finding[] = [
  ...(
    [
      ['last', -2.8],
      ['first', -2.8],
      ['across', 3],
    ] as const
  ).map(([where, errorMm]): Finding => ({
    code: 'frame',
    errorMm,
    plusMinusMm: 0.4,
    where,
    fromFinger: 1,
    toFinger: 4,
    expectedMm: 62,
    cents: errorMm * 8,
    shownBy: 4,
  })),
  { code: 'whole_hand', ...far, openStringHeard: false },
  { code: 'whole_hand', ...far, offsetMm: -5, openStringHeard: true },
  { code: 'finger', finger: 2, ...far, cents: 20 },
  { code: 'steps', errorMm: -2, plusMinusMm: 1, halves: [[2, 3]], wholes: [[1, 2]] },
  { code: 'locked_thumb', ...far },
  { code: 'elbow', shortMm: 5, plusMinusMm: 1, finger: 4, cents: -30 },
  { code: 'pinched', ...far },
  { code: 'dragged', ...far },
  { code: 'creep', ...far, cents: 20 },
  { code: 'creep', ...far, offsetMm: -5, cents: -20 },
  { code: 'string', string: 'D4', cents: -12, plusMinusCents: 3 },
  { code: 'scatter', cents: 20, leastCents: 15 },
  { code: 'ear_repairs', landedCents: 18, settledCents: 3 },
  { code: 'wobble', finger: 3, cents: 9 },
  { code: 'dull', finger: 4, lessDb: 5 },
  { code: 'vibrato', aboveCents: 12, widthCents: 40 },
  { code: 'without_tapes', finger: 3, cents: 24, seenCents: 1 },
  { code: 'place', finger: 2, string: 'D4', note: 'F#4', cents: -62, plusMinusCents: 4, count: 4 },
  { code: 'tape', finger: 1, tapeMm: 33, placeMm: 31, cents: 12 },
]
