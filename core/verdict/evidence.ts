import { group, max, min } from 'd3-array'
import { THUMB, centsPerMmOnString, type Finger } from '../instrument'
import { placesOf, targetOf, type ExpectedNote, type Landing, type Take, type Target } from '../take'
import type { JudgedTake } from './types'
import { openStrings, type OpenString } from './open-strings'

/** One stopped note, ready to be weighed. */
export interface EvidenceNote {
  readonly landing: Landing
  readonly target: Target & { readonly finger: Finger }
  /** Off its place, what its string is out of tune taken out. */
  readonly cents: number
  /** What a millimetre is worth there. */
  readonly centsPerMm: number
  /** How far the take has gone by then, 0 … 1. */
  readonly through: number
  /** 1 of a note as good as the others, 0 of one that is wild. */
  readonly weight: number
}

/** All that a take says of a hand. */
export interface Evidence extends Pick<Take, 'stringing'> {
  readonly toleranceCents: number
  /** Stopped notes of the exercise, each place once. */
  readonly places: readonly (Target & { readonly finger: Finger })[]
  readonly notes: readonly EvidenceNote[]
  /** Targets of notes that are off every time, apart from the rest of the hand: none of them weighs anything. */
  readonly apart: ReadonlySet<Target>
  /** No reading is finer than its ruler or its eye, however well the readings agree; 0 of what measures pitch. */
  readonly leastScatterCents: number
  readonly opens: readonly OpenString[]
}

/** A reading differs from itself by so much at least, cents: half of what a meter shows as a whole one. */
const LEAST_SCALE_CENTS = 2
/** From MAD to standard deviation of a normal distribution. */
const MAD_TO_SIGMA = 1.4826
/** Standard deviations up to which a note counts in full, and beyond which not at all. */
const WILD = { from: 3, to: 5 } as const
const POLISH_ROUNDS = 4
/** Of one note, where nothing else is known of a player: the measure of what a reading's own error weighs. */
const USUAL_SCATTER_CENTS = 7

/**
 * The stopped notes of a take, each with what it weighs. Open strings that were read move what their notes are held against; what
 * an ear has heard was moved when it was heard. A note that lies far from where the finger and string otherwise land weighs
 * little or nothing: residuals of a median polish, weighed by Tukey's biweight between three and five standard deviations.
 * Sources: J. W. Tukey, Exploratory Data Analysis (1977), ch. 11; F. Mosteller and J. W. Tukey, Data Analysis and Regression (1977), § 10.
 */
export function evidenceOf({ stringing, exercise, landings, toleranceCents }: JudgedTake): Evidence {
  const known = landings.filter((l) => Number.isFinite(l.cents))
  const opens = openStrings(known)
  const stopped = onceEach(known.filter(isStopped))
  const last = Math.max(1, max(stopped, (l) => l.atMs ?? 0) ?? 0)
  const byPlace = new Map<string, Pick<EvidenceNote, 'target' | 'centsPerMm'>>()
  const placeOf = (landing: Landing) => {
    const id = placeId(landing)
    const place = byPlace.get(id)
    if (place) return place
    const target = targetOf(stringing, expectedOf(landing)) as EvidenceNote['target']
    const made = { target, centsPerMm: centsPerMmOnString(stringing, landing.stringIndex, target.placeMm) }
    byPlace.set(id, made)
    return made
  }
  const bare = stopped.map((landing, i): EvidenceNote => {
    const open = opens.find((one) => one.stringIndex === landing.stringIndex)
    return {
      landing,
      ...placeOf(landing),
      cents: landing.cents - (open && !isHeard(landing) && !isCoarse(landing) ? open.cents : 0),
      through: landing.atMs === null ? i / Math.max(1, stopped.length - 1) : landing.atMs / last,
      weight: 1 / (1 + (landing.sigmaCents / USUAL_SCATTER_CENTS) ** 2),
    }
  })
  // Only weights against one another matter: the best note counts as one.
  const heaviest = max(bare, ({ weight }) => weight) ?? 1
  // Of words alone none is wild: most of them say the same.
  const counts = isSeen({ notes: bare }) ? bare.map(() => 1) : wildness(bare)
  const apart = offEveryTime(bare, counts, toleranceCents)
  const rest = bare.filter(({ target }) => !apart.has(target))
  const again = apart.size > 0 ? wildness(rest) : counts
  const wild = new Map(rest.map((note, i) => [note, again[i]!]))
  const places = placesOf(exercise.notes)
    .filter(isStopped)
    .map((expected) => targetOf(stringing, expected) as EvidenceNote['target'])
  return {
    stringing,
    toleranceCents,
    places,
    notes: bare.map((note) => ({ ...note, weight: (note.weight / heaviest) * (wild.get(note) ?? 0) })),
    apart,
    leastScatterCents: min(stopped, (l) => (isCoarse(l) ? l.sigmaCents : 0)) ?? 0,
    opens,
  }
}

/** What was heard is told against its string as it was tuned. */
function isHeard({ heard }: Landing): boolean {
  return heard !== null
}

/** A take of nothing but an eye’s words. */
export function isSeen({ notes }: Pick<Evidence, 'notes'>): boolean {
  return notes.length > 0 && notes.every(({ landing }) => landing.source === 'eye')
}

/** A place that was looked at, and not a pitch that was measured: whatever its string is tuned to. */
function isCoarse({ source }: Landing): boolean {
  return source === 'ruler' || source === 'eye'
}

/** By a finger of the hand: the thumb on the string is no part of its frame, and nothing is said of it. */
function isStopped({ finger }: Pick<Landing, 'finger'>): boolean {
  return finger !== 0 && finger !== THUMB
}

function expectedOf({ stringIndex, finger, note, positionId }: Landing): ExpectedNote {
  return { stringIndex, finger, note, positionId }
}

/** A sheet of fewer readings is short enough for some of them to agree. */
const SHEET = 4

/** What a meter showed, written down again, is no news: where every number of the sheet stands there so many times, one of each counts. */
function onceEach(landings: readonly Landing[]): Landing[] {
  if (landings.length < SHEET || landings.some((l) => l.source !== 'meter')) return [...landings]
  const alike = [...group(landings.keys(), (i) => `${placeId(landings[i]!)} ${landings[i]!.cents}`).values()]
  const times = alike.reduce((common, { length }) => greatestDivisor(common, length), 0)
  const counted = new Set(alike.flatMap((own) => own.slice(0, own.length / times)))
  return landings.filter((_, i) => counted.has(i))
}

function greatestDivisor(a: number, b: number): number {
  return b === 0 ? a : greatestDivisor(b, a % b)
}

function placeId({ stringIndex, finger, note, positionId }: Landing): string {
  return `${stringIndex} ${finger} ${note.letter}${note.accidental}${note.octave} ${positionId}`
}

/** A note that weighs less is a stray: left out, since it lies far from where its finger and its string otherwise land. */
const COUNTS = 0.2
export function isStray({ weight }: Pick<EvidenceNote, 'weight'>): boolean {
  return weight < COUNTS
}

/** The readings of a take that are left out as strays. */
export function strayLandings(take: JudgedTake): ReadonlySet<Landing> {
  const { notes, apart } = evidenceOf(take)
  const strays = notes.filter((note) => isStray(note) && !apart.has(note.target))
  return new Set(strays.map(({ landing }) => landing))
}

/** What comes again so often, and every time, is no stray; twice, if it is so many tolerances off: two may agree by chance. */
const REPEATED = 3
const TWICE_FAR = 2.5

/**
 * Targets whose notes were all off by more than the tolerance, and from the middle of the hand as well, to one side, most of them
 * strays, three times or more; or twice, far off. One good time makes strays of the others. Common practice, no source; the numbers are our own.
 */
function offEveryTime(
  notes: readonly EvidenceNote[],
  counts: readonly number[],
  toleranceCents: number,
): Set<Target> {
  if (counts.every((weight) => !isStray({ weight }))) return new Set()
  const middle = medianOf(Float64Array.from(notes, ({ cents }) => cents))
  const isOff = (own: readonly number[]) => {
    const side = Math.sign(notes[own[0]!]!.cents)
    const leastCents = (own.length < REPEATED ? TWICE_FAR : 1) * toleranceCents
    return (
      own.length > 1 &&
      2 * own.filter((i) => isStray({ weight: counts[i]! })).length > own.length &&
      own.every((i) => side * notes[i]!.cents > leastCents) &&
      own.every((i) => side * (notes[i]!.cents - middle) > leastCents)
    )
  }
  const byTarget = group(notes.keys(), (i) => notes[i]!.target)
  return new Set([...byTarget].filter(([, own]) => isOff(own)).map(([target]) => target))
}

/** 1 of notes that lie where their finger and their string lie, falling to 0. */
function wildness(notes: readonly EvidenceNote[]): number[] {
  const left = Float64Array.from(notes, ({ cents }) => cents)
  const byFinger = indicesBy(notes, ({ target }) => target.finger)
  const byString = indicesBy(notes, ({ target }) => target.stringIndex)
  const sweep = (groups: readonly (readonly number[])[]) => {
    for (const own of groups) {
      const middle = medianOf(Float64Array.from(own, (i) => left[i]!))
      for (const i of own) left[i]! -= middle
    }
  }
  for (let round = 0; round < POLISH_ROUNDS; round++) {
    sweep(byFinger)
    sweep(byString)
  }
  const freedom = notes.length - byFinger.length - byString.length + 1
  // Of as many notes as fingers nobody can tell which is wild.
  if (freedom < 2) return notes.map(() => 1)
  const mad = medianOf(left.map(Math.abs))
  const scale = Math.max(LEAST_SCALE_CENTS, MAD_TO_SIGMA * mad * Math.sqrt(notes.length / freedom))
  return Array.from(left, (residual) => {
    const far = Math.abs(residual) / scale
    if (far <= WILD.from) return 1
    if (far >= WILD.to) return 0
    return (1 - ((far - WILD.from) / (WILD.to - WILD.from)) ** 2) ** 2
  })
}

function indicesBy(notes: readonly EvidenceNote[], by: (note: EvidenceNote) => number): number[][] {
  return [...group(notes.keys(), (i) => by(notes[i]!)).values()]
}

/** Of as many numbers as it is asked for in every round, sorted in place. */
function medianOf(values: Float64Array): number {
  values.sort()
  const half = values.length >> 1
  return values.length % 2 === 1 ? values[half]! : (values[half - 1]! + values[half]!) / 2
}

/**
 * Whether it is known which note came when: by its time, or since they stand as they were played. What is typed finger by finger,
 * several readings to each, is in the order of the sheet.
 */
export function isInOrder(notes: readonly EvidenceNote[]): boolean {
  if (notes.every(({ landing }) => landing.atMs !== null)) return true
  const places = notes.map(
    ({ target: { stringIndex, finger, placeMm } }) => `${stringIndex} ${finger} ${placeMm}`,
  )
  const blocks = places.filter((place, i) => place !== places[i - 1]).length
  return places.length === blocks || new Set(places).size < blocks
}
