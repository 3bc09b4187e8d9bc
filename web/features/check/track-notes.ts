import { pitchOfExpected, type ExpectedNote, type Landing, type PitchTrack, type Stringing } from '#core'

/** One note of a take as the chart draws it: how far off what was meant it sounded, moment by moment. */
export interface TrackNote extends ExpectedNote {
  readonly startS: number
  readonly endS: number
  readonly landingCents: number
  readonly settledCents: number
  /** Seconds of the take, and cents off the note that was meant. */
  readonly moments: readonly (readonly [atS: number, cents: number])[]
}

/**
 * The track of a take, cut into its notes and told against what each was meant to be. Strings that are heard to be out of
 * tune move what their notes are held against, as they do for the landings.
 */
export function trackNotes(
  stringing: Stringing,
  { stepS, cents }: PitchTrack,
  landings: readonly Landing[],
  a4Hz: number,
): TrackNote[] {
  const reference = 1200 * Math.log2(a4Hz / 440)
  const tuned = tuningOf(landings)
  return landings.flatMap((landing): TrackNote[] => {
    const { stringIndex, finger, note, heard, atMs } = landing
    if (!heard || atMs === null) return []
    const [startS, endS] = [atMs / 1000, (atMs + heard.lastsMs) / 1000]
    const meant =
      pitchOfExpected(stringing, landing) + reference + (finger === 0 ? 0 : (tuned.get(stringIndex) ?? 0))
    const moments: [number, number][] = []
    // The last moment of a note is half the next one's.
    for (let i = Math.ceil(startS / stepS); (i + 1.5) * stepS <= endS && i < cents.length; i++) {
      const off = cents[i]! - meant
      const within = off - 1200 * Math.round(off / 1200)
      if (!Number.isNaN(off)) moments.push([i * stepS, within])
    }
    return [
      {
        stringIndex,
        finger,
        note,
        startS,
        endS,
        landingCents: landing.cents,
        settledCents: heard.settledCents,
        moments,
      },
    ]
  })
}

/** How far off each open string was left, by its index. */
function tuningOf(landings: readonly Landing[]): Map<number, number> {
  const sums = new Map<number, { sum: number; count: number }>()
  for (const { finger, stringIndex, heard } of landings) {
    if (finger !== 0 || !heard) continue
    const { sum, count } = sums.get(stringIndex) ?? { sum: 0, count: 0 }
    sums.set(stringIndex, { sum: sum + heard.settledCents, count: count + 1 })
  }
  return new Map([...sums].map(([stringIndex, { sum, count }]) => [stringIndex, sum / count]))
}
