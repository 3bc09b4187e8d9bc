import type { Evidence } from '../evidence'
import type { Kind } from './kind'

/** Cello: 1–2 wide and 2–3 narrow, which is 2 alone too high: the thumb's base joint is locked. */
export function lockedThumb({ notes, stringing }: Evidence): Kind[] {
  const fingers = new Set(notes.map(({ target }) => target.finger))
  if (stringing.family.hold !== 'knees' || ![1, 2, 3].every((finger) => fingers.has(finger as 1 | 2 | 3)))
    return []
  return [
    {
      id: 'locked_thumb',
      sign: 1,
      moves: ({ target }) => (target.finger === 2 ? 1 : 0),
      describe: (offsetMm, plusMinusMm) => ({ code: 'locked_thumb', offsetMm, plusMinusMm }),
    },
  ]
}
