// Simulated players of the verdict's bench: a formula player for each fault, and the noise of both players.
import { randomNormal } from 'd3-random'
import {
  exerciseOf,
  familyOf,
  fifths,
  judgeTake,
  landingAtCents,
  placementContext,
  seededSource,
  stringingOf,
  targetsOf,
  type Finding,
  type Landing,
  type RandomSource,
  type Target,
  type Verdict,
} from '../../core'

const family = familyOf('violin')
export const stringing = stringingOf({ family, sizeId: '4/4', system: fifths, lengthsMm: [328] })
const context = placementContext(family, stringing.tuning)

/** The hand in first position on so many strings. */
export function placesOn(strings: number): Target[] {
  const all = Array.from({ length: strings }, (_, i) => i + (strings === 2 ? 1 : 0))
  return all.flatMap((stringIndex) => {
    const made = exerciseOf(context, { kind: 'shape', shapeId: 'first', stringIndex })
    if (!made.ok) throw new Error(made.code)
    return targetsOf(stringing, made.exercise).filter((t) => t.finger !== 0)
  })
}
/** Round after round of it until there are so many notes. */
export function lineOf(strings: number, notes: number): Target[] {
  const places = placesOn(strings)
  return Array.from({ length: notes }, (_, i) => places[i % places.length]!)
}

/** What a fault of a millimetre (a string's: of a cent) does to a note, cents. */
type Fault = (target: Target, through: number) => number
const alongOf = new Map(
  placesOn(4).map((t, _, all) => {
    const own = all.filter((p) => p.stringIndex === t.stringIndex)
    const [first, last] = [own[0]!, own.at(-1)!]
    return [`${t.stringIndex} ${t.finger}`, (t.placeMm - first.placeMm) / (last.placeMm - first.placeMm)]
  }),
)
/** What a millimetre is worth at a place, cents. */
export const worth = (t: Target) => 1200 / Math.LN2 / (328 - t.placeMm)
const finger =
  (of: number): Fault =>
  (t) =>
    t.finger === of ? worth(t) : 0
const FAULTS: Record<string, Fault> = {
  whole_hand: (t) => worth(t),
  frame: (t) => alongOf.get(`${t.stringIndex} ${t.finger}`)! * worth(t),
  'finger 1': finger(1),
  'finger 2': finger(2),
  'finger 3': finger(3),
  'finger 4': finger(4),
  string: (t) => (t.stringIndex === 2 ? 1 : 0),
  creep: (t, through) => through * worth(t),
}
export const KINDS = Object.keys(FAULTS)

/** How errors are spread, and whether each follows the one before. */
export const NOISES = ['normal', 't3', 'following'] as const
export type NoiseKind = (typeof NOISES)[number]

/** Correlation from note to note of players whose errors hang together. */
const FOLLOWS = 0.5

/** Errors of a player, one a note, of this standard deviation. */
export function errorsOf(source: RandomSource, kind: NoiseKind, scatter: number): () => number {
  const normal = randomNormal.source(source)(0, 1)
  if (kind === 'normal') return () => scatter * normal()
  // Student's t with three degrees of freedom has a variance of three.
  if (kind === 't3')
    return () => {
      const squares = normal() ** 2 + normal() ** 2 + normal() ** 2
      return (scatter * normal()) / Math.sqrt(squares)
    }
  let last = normal()
  return () => {
    last = FOLLOWS * last + Math.sqrt(1 - FOLLOWS ** 2) * normal()
    return scatter * last
  }
}

export interface Played {
  /** Its faults with their directions, sorted; empty of a sound hand. */
  readonly truth: string
  readonly line: readonly Target[]
  readonly cents: Float64Array
  /** By its fault and direction: mm, of a string cents. */
  readonly sizes: ReadonlyMap<string, number>
}

const designs = new Map<string, Float64Array>()
/** What each fault does to every note of a line, for a size of one cent at the note that shows it most. */
export function designOf(kind: string, line: readonly Target[]): Float64Array {
  const key = `${kind} ${line.length} ${line[0]!.stringIndex}`
  let design = designs.get(key)
  if (!design) {
    const raw = line.map((t, i) => FAULTS[kind]!(t, i / (line.length - 1)))
    const most = Math.max(...raw.map(Math.abs))
    design = Float64Array.from(raw, (v) => v / most)
    designs.set(key, design)
  }
  return design
}

/** The faults at this size, in directions of the seed's own. */
export function play(
  seed: number,
  kinds: readonly string[],
  size: number,
  noise: NoiseKind,
  scatter: number,
  line: readonly Target[],
): Played {
  const source = seededSource(seed)
  const error = errorsOf(source, noise, scatter)
  const signs = kinds.map(() => (source() < 0.5 ? -1 : 1))
  const made = kinds.map((kind) => designOf(kind, line))
  const cents = Float64Array.from(line, (_, i) =>
    made.reduce((sum, design, k) => sum + signs[k]! * size * design[i]!, error()),
  )
  const names = kinds.map((kind, k) => `${kind} ${signs[k]}`)
  const most = (kind: string) =>
    Math.max(...line.map((t, i) => Math.abs(FAULTS[kind]!(t, i / (line.length - 1)))))
  return {
    truth: [...names].sort().join(' + '),
    line,
    cents,
    sizes: new Map(names.map((name, k) => [name, (signs[k]! * size) / most(kinds[k]!)])),
  }
}

/** Maximum likelihood over kinds, told the scatter and the size. */
export function oracle({ line, cents }: Played, size: number): string {
  let best = ''
  let least = Infinity
  for (const kind of ['', ...KINDS])
    for (const sign of kind === '' ? [0] : [1, -1]) {
      const design = kind === '' ? undefined : designOf(kind, line)
      let squares = 0
      for (let i = 0; i < cents.length; i++) squares += (cents[i]! - sign * size * (design?.[i] ?? 0)) ** 2
      if (squares >= least) continue
      least = squares
      best = kind === '' ? '' : `${kind} ${sign}`
    }
  return best
}

export function landingsOf({ line, cents }: Pick<Played, 'line' | 'cents'>): Landing[] {
  return line.map((t, i) =>
    landingAtCents(stringing, t, cents[i]!, {
      sigmaCents: 1,
      atMs: 500 * i,
      source: 'simulated',
      heard: { settledCents: cents[i]!, settledSigmaCents: 1, lastsMs: 400, confidence: 1 },
    }),
  )
}

export function judged(
  played: Pick<Played, 'line' | 'cents'>,
  strings: number,
  toleranceCents: number,
): Verdict {
  return judgeTake({
    stringing,
    exercise: { name: { kind: 'free' }, notes: placesOn(strings) },
    landings: landingsOf(played),
    toleranceCents,
  })
}

/** A finding as the players call it, with its size (mm, of a string cents) and ±. */
export interface Said {
  readonly name: string
  readonly size: number
  readonly plusMinus: number
}

export function saidOf(finding: Finding): Said {
  const named = (kind: string, size: number, plusMinus: number): Said => ({
    name: `${kind} ${size > 0 ? 1 : -1}`,
    size,
    plusMinus,
  })
  switch (finding.code) {
    case 'frame': {
      if (finding.where === 'across') return named('frame', finding.errorMm, finding.plusMinusMm)
      const offMm = finding.where === 'first' ? -finding.errorMm : finding.errorMm
      return named(`finger ${finding.shownBy}`, offMm, finding.plusMinusMm)
    }
    case 'finger':
      return named(`finger ${finding.finger}`, finding.offsetMm, finding.plusMinusMm)
    case 'string':
      return named('string', finding.cents, finding.plusMinusCents)
    case 'whole_hand':
    case 'creep':
      return named(finding.code, finding.offsetMm, finding.plusMinusMm)
    case 'steps':
      return named(finding.code, finding.errorMm, finding.plusMinusMm)
    default:
      return named(finding.code, 1, 0)
  }
}

/** The named fault or faults; empty for a hand that is well; undefined where nothing of the kind is said. */
export function truthSaid(verdict: Verdict): string | undefined {
  if (verdict.outcome === 'in_tune') return ''
  if (verdict.outcome !== 'explained' || verdict.findings[0]?.code === 'scatter') return undefined
  return verdict.findings
    .map((one) => saidOf(one).name)
    .sort()
    .join(' + ')
}
