import type { PitchFrame } from '../pitch'

/** Frames on each side of a stroke in which the level falls and rises. */
export const STROKE_FRAMES = 13
/** Frames in which other falls tell what is ordinary: a vibrato swings the level once or twice in each of its turns. */
const ORDINARY_FRAMES = 21
/** Nearer than this before it, or after it, a fall belongs to the same stroke. */
const OWN = { before: 9, after: 14 } as const
/** A stroke that grows slowly may still rise by so much later. */
const GROWS_DB = 6
/** Frames after a moment that must be there before it can be told. */
export const STROKE_AHEAD = ORDINARY_FRAMES + STROKE_FRAMES

/**
 * What makes a fall and rise of the level a new stroke on the same pitch, dB. Learned from recorded strings (the half that is not held
 * back, bench/recorded): bows that turn, and single notes in vibrato whose level swings by up to ten decibels.
 */
export const STROKE = {
  /** Shallower than this is nothing. */
  leastDb: 3.3,
  /** So deep, and so much deeper than what is ordinary in this note: a bow that turned, or left the string. */
  deep: { db: 8, beyondDb: 4.5 },
  /** Where the tone is not clear of what belongs to no pitch (a hall, a wide vibrato), falls say less. */
  murky: { clearDb: 3.5, db: 9.7, beyondDb: 4.8 },
  /** The scratch of an attack: what belongs to no pitch rises above what it was before and after, the tone clear of it. */
  scratched: { db: 5.5, clearDb: 5, beyondDb: 1 },
  /** A string that is struck: high partials leap up within some frames, above what they were. */
  struck: { leapsDb: 6.5, aboveDb: 4, within: 4 },
  /** The same where the pitch is lost for a moment. */
  brokenStruck: { leapsDb: 4.5, aboveDb: 2.5 },
} as const

/**
 * Whether a new stroke begins at `frames[at]`, its level's lowest moment. The frames are those of one pitch, with STROKE_AHEAD after
 * the one asked about, or to their end.
 */
export function isStroke(frames: readonly PitchFrame[], at: number): boolean {
  const dip = dipAt(frames, at)
  if (!dip) return false
  if (isStruck(frames, at)) return true
  const { depthDb, riseDb } = dip
  if (depthDb < STROKE.leastDb || riseDb < STROKE.leastDb) return false
  const beyondDb = depthDb - ordinaryDb(frames, at)
  const { deep, scratched, murky } = STROKE
  const { aboveDb, clearDb } = scratchAt(frames, at)
  if (clearDb < murky.clearDb) return depthDb >= murky.db && beyondDb >= murky.beyondDb
  if (depthDb >= deep.db && beyondDb >= deep.beyondDb) return true
  return aboveDb >= scratched.db && clearDb >= scratched.clearDb && beyondDb >= scratched.beyondDb
}

interface Dip {
  /** Its fall, as far as it rises again. */
  readonly depthDb: number
  readonly riseDb: number
}

/** The fall and rise about a moment, if that is the lowest near it. */
function dipAt(frames: readonly PitchFrame[], at: number): Dip | undefined {
  const lowest = frames[at]!.levelDb
  for (let i = Math.max(0, at - 4); i <= Math.min(frames.length - 1, at + 4); i++) {
    const { levelDb } = frames[i]!
    if (levelDb < lowest || (levelDb === lowest && i < at)) return undefined
  }
  const fallDb = loudest(frames, at - STROKE_FRAMES, at) - lowest
  const riseDb = loudest(frames, at, at + STROKE_FRAMES) - lowest
  // A new bow may grow slowly: its rise counts for more than it shows so soon.
  return { depthDb: Math.min(fallDb, riseDb + GROWS_DB, 2 * riseDb), riseDb }
}

/** The deepest other fall near it. */
function ordinaryDb(frames: readonly PitchFrame[], at: number): number {
  let deepest = 0
  for (let i = at - ORDINARY_FRAMES; i <= at + ORDINARY_FRAMES; i++) {
    if (i < 4 || i >= frames.length - 4 || (i > at - OWN.before && i < at + OWN.after)) continue
    const dip = dipAt(frames, i)
    if (dip && dip.depthDb > deepest) deepest = dip.depthDb
  }
  return deepest
}

/** By how much what belongs to no pitch rises above the sides, and how far the tone before stood above it. */
function scratchAt(frames: readonly PitchFrame[], at: number): { aboveDb: number; clearDb: number } {
  const scratch = most(frames, at - 3, at + 7, looseDb)
  const beside = Math.max(
    most(frames, at - STROKE_FRAMES, at - 3, looseDb),
    most(frames, at + 7, at + STROKE_FRAMES, looseDb),
  )
  return { aboveDb: scratch - beside, clearDb: loudest(frames, at - STROKE_FRAMES, at) - scratch }
}

/** The level of what belongs to no pitch. */
function looseDb({ levelDb, confidence }: PitchFrame): number {
  return levelDb + 10 * Math.log10(1 - confidence + 1e-4)
}

/** High partials leap up, beyond what they were: a pluck, or a bow that bites. */
function isStruck(frames: readonly PitchFrame[], at: number): boolean {
  const { within } = STROKE.struck
  const bright = (f: PitchFrame) => f.brightDb
  const low = Math.min(...frames.slice(Math.max(0, at - within), at + 1).map(bright))
  const leapsDb = most(frames, at, at + within + 1, bright) - low
  const aboveDb = most(frames, at, at + within + 1, bright) - most(frames, at - STROKE_FRAMES, at - 1, bright)
  const { struck, brokenStruck } = STROKE
  if (leapsDb >= struck.leapsDb && aboveDb >= struck.aboveDb) return true
  const isBroken = frames.slice(Math.max(0, at - 2), at + within).some((f) => f.frequencyHz === null)
  return isBroken && leapsDb >= brokenStruck.leapsDb && aboveDb >= brokenStruck.aboveDb
}

function loudest(frames: readonly PitchFrame[], from: number, to: number): number {
  return most(frames, from, to, (f) => f.levelDb)
}

/** The most of frames `from` … `to` − 1, as far as they are there. */
function most(
  frames: readonly PitchFrame[],
  from: number,
  to: number,
  of: (f: PitchFrame) => number,
): number {
  let best = -Infinity
  for (let i = Math.max(0, from); i < Math.min(frames.length, to); i++) best = Math.max(best, of(frames[i]!))
  return best
}
