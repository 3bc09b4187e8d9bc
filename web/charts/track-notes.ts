import { median } from 'd3-array'
import { pitchOfExpected, type ExpectedNote, type Landing, type PitchTrack, type Stringing } from '#core'

/** One note of a take as the chart draws it: how far off what was meant it sounded, moment by moment. */
export interface TrackNote extends ExpectedNote {
  readonly startS: number
  readonly endS: number
  readonly landingCents: number
  /** Left out of the verdict, far from where its finger and its string otherwise land. */
  readonly isStray: boolean
  readonly settledCents: number
  /** Pitch of what was meant, cents above 440 Hz, as the strings were tuned. */
  readonly meantCents: number
  /** Seconds of the take, and cents off the note that was meant. */
  readonly moments: readonly (readonly [atS: number, cents: number])[]
}

/** Where in a note its landing is heard: after the attack, before the ear moves it. Seconds from its beginning. */
const LANDS = { fromS: 0.05, toS: 0.2 } as const

/**
 * The track of a take, cut into its notes and told against what each was meant to be. What the strings were tuned to that day
 * is read off the take itself: by how much the track of a string’s notes lies above where they are said to have landed. So a
 * take is drawn as it was judged, whatever the studio tunes to by now.
 */
export function trackNotes(
  stringing: Stringing,
  { stepS, cents }: PitchTrack,
  landings: readonly Landing[],
  strays: ReadonlySet<Landing> = new Set(),
): TrackNote[] {
  const pieces = landings.flatMap((landing) => {
    const { heard, atMs } = landing
    if (!heard || atMs === null) return []
    const [startS, endS] = [atMs / 1000, (atMs + heard.lastsMs) / 1000]
    const written = pitchOfExpected(stringing, landing)
    const moments: [number, number][] = []
    // The last moment of a note is half the next one’s.
    for (let i = Math.ceil(startS / stepS); (i + 1.5) * stepS <= endS && i < cents.length; i++)
      if (!Number.isNaN(cents[i]!)) moments.push([i * stepS, withinOctave(cents[i]! - written)])
    return [{ landing, heard, startS, endS, written, moments }]
  })
  /** An open string is told as it was heard, the fingers against the string as it was tuned. */
  const tunedBy = (of: Landing) => `${of.stringIndex}${of.finger === 0 ? ' open' : ''}`
  const shifts = new Map<string, number[]>()
  for (const { landing, startS, moments } of pieces) {
    const landed = moments.filter(([atS]) => atS >= startS + LANDS.fromS && atS <= startS + LANDS.toS)
    const heardAt = median(landed, ([, off]) => off)
    if (heardAt === undefined) continue
    const of = tunedBy(landing)
    shifts.set(of, [...(shifts.get(of) ?? []), heardAt - landing.cents])
  }
  return pieces.map(({ landing, heard, startS, endS, written, moments }): TrackNote => {
    const shift = median(shifts.get(tunedBy(landing)) ?? []) ?? 0
    const { stringIndex, finger, note, positionId, cents: landingCents } = landing
    return {
      stringIndex,
      finger,
      note,
      positionId,
      startS,
      endS,
      landingCents,
      isStray: strays.has(landing),
      settledCents: heard.settledCents,
      meantCents: written + shift,
      moments: moments.map(([atS, off]) => [atS, off - shift] as const),
    }
  })
}

function withinOctave(cents: number): number {
  return cents - 1200 * Math.round(cents / 1200)
}
