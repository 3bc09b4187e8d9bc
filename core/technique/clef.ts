import { diatonicNumber, note, type Note } from '../pitch'

export type Clef = 'treble' | 'alto' | 'tenor' | 'bass'

/** The clefs that a family reads, its own first. */
export type Clefs = readonly Clef[]

export const TREBLE: Clefs = ['treble']
export const ALTO_AND_TREBLE: Clefs = ['alto', 'treble']
export const BASS_TENOR_TREBLE: Clefs = ['bass', 'tenor', 'treble']

/** How a note is written: on which clef, and whether an octave lower under an 8va line. */
export interface ClefReading {
  readonly clef: Clef
  readonly isOttava: boolean
}

const LINES: Record<Clef, readonly [Note, Note]> = {
  treble: [note('E4'), note('F5')],
  alto: [note('F3'), note('G4')],
  tenor: [note('D3'), note('E4')],
  bass: [note('G2'), note('A3')],
}

/** A double bass is written an octave above where it sounds. */
export function writtenNote(sounding: Note, octavesUp: number): Note {
  return octavesUp === 0 ? sounding : { ...sounding, octave: sounding.octave + octavesUp }
}

/** Ledger lines that a written note needs. */
export function ledgerLines(written: Note, { clef, isOttava }: ClefReading): number {
  const at = diatonicNumber(written) - (isOttava ? 7 : 0)
  const [lowest, highest] = LINES[clef].map(diatonicNumber) as [number, number]
  return Math.max(0, Math.floor((at - highest) / 2), Math.floor((lowest - at) / 2))
}

/** What so many ledger lines cost the eye; from five on they are counted, not read. Common practice, no source. */
const LEDGERS = [0, 0, 0.3, 0.9, 2.2]
const PER_FURTHER_LEDGER = 4
const CHANGE = 3.5
/** Never inside a beam. */
const CHANGE_IN_BEAM = 1000
/** Before the first note. */
const START_CHANGE = 2.5
/** A note on the second clef that the family reads, and on the third. */
const NOT_OWN = [0, 0.15, 0.5]
const OTTAVA = 0.5

/**
 * The clefs of a line of written notes, as few changes as its ledger lines allow: of all ways the one with the least sum.
 * Of notes under one beam, `beamed` to a beam, all have one clef. Time grows with the number of notes.
 */
export function clefsFor(clefs: Clefs, written: readonly Note[], beamed = 1): ClefReading[] {
  const readings: ClefReading[] = clefs.map((clef) => ({ clef, isOttava: false }))
  if (clefs.includes('treble')) readings.push({ clef: 'treble', isOttava: true })
  const cost = (n: Note, reading: ClefReading) => {
    const ledgers = ledgerLines(n, reading)
    return (
      (LEDGERS[ledgers] ?? LEDGERS.at(-1)! + PER_FURTHER_LEDGER * (ledgers - LEDGERS.length + 1)) +
      (NOT_OWN[clefs.indexOf(reading.clef)] ?? 0) +
      (reading.isOttava ? OTTAVA : 0)
    )
  }
  // Of each reading the least sum so far, and where it came from.
  let sums = readings.map(() => 0)
  const before: number[][] = []
  for (const [i, n] of written.entries()) {
    const from = readings.map((_, to) =>
      sums.reduce(
        (best, sum, r) => (sum + change(r, to, i) < sums[best]! + change(best, to, i) ? r : best),
        to,
      ),
    )
    const earlier = sums
    sums = readings.map(
      // A line begins on the family's own clef, or changes to another one at once.
      (reading, to) =>
        (i === 0 ? begin(to) : earlier[from[to]!]! + change(from[to]!, to, i)) + cost(n, reading),
    )
    before.push(from)
  }
  let at = sums.indexOf(Math.min(...sums))
  const chosen: ClefReading[] = []
  for (let i = written.length - 1; i >= 0; i--) {
    chosen.unshift(readings[at]!)
    at = before[i]![at]!
  }
  return chosen

  function begin(at: number): number {
    return at === 0 ? 0 : START_CHANGE
  }

  function change(a: number, b: number, at: number): number {
    if (a === b) return 0
    const isInBeam = at % beamed !== 0 && readings[a]!.clef !== readings[b]!.clef
    return isInBeam ? CHANGE_IN_BEAM : CHANGE
  }
}
