import { centsPerMmOnString, familiesHeld, shapeOf, type FamilyId, type Stringing } from '../instrument'
import {
  mannerOf,
  perform,
  seededSource,
  type HandFaults,
  type Manner,
  type PlayedNote,
  type PlayerLevel,
} from '../simulate'
import { landingAtCents, placesOf, shapeExercise, targetOf, type Exercise, type Landing } from '../take'
import { judgeTake, type EarlierTake, type Finding, type JudgedTake, type Verdict } from '../verdict'

/** How a simulated student plays one row of docs/trade.md § 7, and how a verdict names it. */
interface Played {
  /** Only on these; else on all. */
  readonly families?: readonly FamilyId[]
  /** Sizes as on a whole violin; `of` makes them those of this instrument. */
  readonly hand: (of: number) => Partial<HandFaults>
  readonly manner?: Partial<Manner>
  readonly shapeId?: string
  /** Times over the hand; few where that is the point. */
  readonly rounds?: number
  /** All the strings, where the fault shows only there; else the middle two. */
  readonly onAll?: boolean
  readonly withOpen?: boolean
  /** The tape of 4 lies this far up, mm on a whole violin, and the finger follows it. */
  readonly tapeOffMm?: number
  /** Vibrato, told of each note as an ear would. */
  readonly swings?: { readonly widthCents: number; readonly topCents: number }
  readonly covered?: boolean
  readonly isNamed: (verdict: Verdict) => boolean
}

const CELLO = familiesHeld('knees')
const UPPER = familiesHeld('shoulder')

const finds = (isIt: (finding: Finding) => boolean) => (verdict: Verdict) =>
  'findings' in verdict && verdict.findings.some(isIt)
const code =
  (wanted: Finding['code'], isIt: (finding: never) => boolean = () => true) =>
  (finding: Finding) =>
    finding.code === wanted && isIt(finding as never)
const besideIs = (wanted: Finding['code']) => (verdict: Verdict) =>
  verdict.beside?.some((finding) => finding.code === wanted) ?? false
const ends = (outcome: Verdict['outcome']) => (verdict: Verdict) => verdict.outcome === outcome

type Frame = Extract<Finding, { code: 'frame' }>
type Offset = { readonly offsetMm: number }
type Steps = Extract<Finding, { code: 'steps' }>

/** Every finding of the trade, as it is played and as it is named. Sizes are such that a teacher would notice. */
const CASES = {
  well: { hand: () => ({}), isNamed: ends('in_tune') },
  hand_high: {
    hand: (of) => ({ handOffsetMm: 3 * of }),
    withOpen: true,
    isNamed: finds(code('whole_hand', ({ offsetMm }: Offset) => offsetMm > 0)),
  },
  hand_low: {
    hand: (of) => ({ handOffsetMm: -3 * of }),
    withOpen: true,
    isNamed: finds(code('whole_hand', ({ offsetMm }: Offset) => offsetMm < 0)),
  },
  frame_narrow: {
    hand: (of) => ({ frameErrorMm: -5 * of }),
    isNamed: finds(code('frame', ({ errorMm, where }: Frame) => errorMm < 0 && where === 'across')),
  },
  frame_wide: {
    hand: (of) => ({ frameErrorMm: 4.5 * of }),
    isNamed: finds(code('frame', ({ errorMm, where }: Frame) => errorMm > 0 && where === 'across')),
  },
  fourth_short: {
    hand: (of) => ({ fingerOffsetMm: { 4: -4 * of } }),
    isNamed: finds(code('frame', ({ errorMm, where }: Frame) => errorMm < 0 && where === 'last')),
  },
  second_low: { hand: (of) => ({ fingerOffsetMm: { 2: -4 * of } }), isNamed: finds(code('finger')) },
  half_steps: {
    families: UPPER,
    hand: (of) => ({ halfStepMm: 3.5 * of }),
    isNamed: finds(code('steps', ({ errorMm }: Steps) => errorMm > 0)),
  },
  locked_thumb: {
    families: CELLO,
    hand: (of) => ({ lockedThumbMm: 4 * of }),
    isNamed: finds(code('locked_thumb')),
  },
  elbow: { hand: (of) => ({ elbowMm: 6 * of }), onAll: true, isNamed: finds(code('elbow')) },
  pinched: {
    families: CELLO,
    shapeId: 'extended_back',
    hand: (of) => ({ pinchedMm: 4 * of }),
    isNamed: finds(code('pinched')),
  },
  dragged: {
    families: CELLO,
    shapeId: 'extended_back',
    hand: (of) => ({ draggedMm: 4 * of }),
    isNamed: finds(code('dragged')),
  },
  creep: { hand: (of) => ({ creepMm: 7 * of }), isNamed: finds(code('creep')) },
  scatter: { hand: () => ({ scatterCents: 18 }), rounds: 10, isNamed: finds(code('scatter')) },
  string_unread: {
    hand: () => ({ openCents: [0, 22, 0, 0] }),
    onAll: true,
    isNamed: finds(code('string')),
  },
  two_faults: {
    hand: (of) => ({ fingerOffsetMm: { 2: -4.5 * of }, handOffsetMm: 3 * of }),
    rounds: 7,
    isNamed: (verdict) => 'findings' in verdict && verdict.findings.length > 1,
  },
  ear_repairs: {
    hand: (of) => ({ handOffsetMm: 3 * of, repairs: 0.8 }),
    isNamed: besideIs('ear_repairs'),
  },
  wobble: { hand: () => ({ wobbleCents: 10 }), manner: { tempo: 60 }, isNamed: besideIs('wobble') },
  dull: {
    hand: () => ({ dullness: 0.7, dullFinger: 3 }),
    families: UPPER,
    isNamed: besideIs('dull'),
  },
  vibrato: { hand: () => ({}), swings: { widthCents: 32, topCents: 17 }, isNamed: besideIs('vibrato') },
  without_tapes: {
    hand: () => ({ withoutTapesCents: 24 }),
    covered: true,
    isNamed: besideIs('without_tapes'),
  },
  untuned: { hand: () => ({ stringCents: -14 }), withOpen: true, isNamed: ends('string_out_of_tune') },
  tape: { hand: () => ({}), tapeOffMm: 3, isNamed: ends('tape_misplaced') },
  other_pattern: {
    hand: () => ({}),
    isNamed: ends('other_exercise'),
  },
  few_notes: {
    hand: (of) => ({ fingerOffsetMm: { 2: -1.4 * of }, scatterCents: 6 }),
    rounds: 1,
    isNamed: ends('not_enough_notes'),
  },
} as const satisfies Readonly<Record<string, Played>>

export type CaseId = keyof typeof CASES
export const CASE_IDS = Object.keys(CASES) as CaseId[]

/** What a teacher can tell from a hand that plays: of these the trainer hides one. */
const HIDDEN: readonly CaseId[] = [
  'well',
  'hand_high',
  'hand_low',
  'frame_narrow',
  'frame_wide',
  'fourth_short',
  'second_low',
  'half_steps',
  'locked_thumb',
  'elbow',
  'creep',
  'scatter',
]

/** One case as it was played and judged. */
export interface CasePlayed {
  readonly id: CaseId
  readonly take: JudgedTake
  readonly verdict: Verdict
  /** The verdict names what the hand did. */
  readonly isNamed: boolean
  readonly notes: readonly PlayedNote[]
}

/** String length for which the sizes are told: a whole violin’s, mm. */
const FOR_MM = 328
/** Tolerances of the levels (docs/trade.md § 7): a beginner’s and a trained player’s; between them from memory. */
const TOLERANCES: Readonly<Record<PlayerLevel, number>> = { beginner: 20, intermediate: 15, trained: 10 }
const USUAL_ROUNDS = 5
/** The finger whose tape lies wrong. */
const TAPED = 4

export function casesFor(familyId: FamilyId): CaseId[] {
  return CASE_IDS.filter((id) => isFor(id, familyId))
}

/** What the trainer may hide on this instrument. */
export function hiddenCasesFor(familyId: FamilyId): CaseId[] {
  return HIDDEN.filter((id) => isFor(id, familyId))
}

function isFor(id: CaseId, familyId: FamilyId): boolean {
  const { families }: Played = CASES[id]
  return !families || families.includes(familyId)
}

/** Plays a case on an instrument and judges it; the same seed, the same notes. */
export function playCase(
  id: CaseId,
  seed: number,
  stringing: Stringing,
  level: PlayerLevel = 'trained',
): CasePlayed {
  const played: Played = CASES[id]
  const of = stringing.lengthsMm[0]! / FOR_MM
  const exercise = exerciseOf(played, stringing)
  const toleranceCents = TOLERANCES[level]
  const faults = played.hand(of)
  const manner: Manner = {
    ...mannerOf(level, { wobbleCents: 1, ...faults, repairs: faults.repairs ?? 0 }),
    ...played.manner,
    tapesCovered: played.covered ?? false,
  }
  const { notes } = perform(seededSource(seed), stringing, exercise, manner)
  const tapesMm = tapesOf(played, of, stringing, exercise)
  const landings = notes.map((note) => landingOf(played, of, stringing, note, manner.faults))
  const take: JudgedTake = {
    stringing,
    exercise: { ...exercise, notes: placesOf(exercise.notes) },
    landings: id === 'other_pattern' ? landings.map((l) => lowered(stringing, l)) : landings,
    toleranceCents,
    tapesMm,
    tapesCovered: manner.tapesCovered,
    ...(played.covered && { earlier: inSight(seed, stringing, exercise, manner, tapesMm) }),
  }
  const verdict = judgeTake(take)
  return { id, take, verdict, isNamed: played.isNamed(verdict), notes }
}

function exerciseOf(
  { shapeId, rounds = USUAL_ROUNDS, onAll, withOpen }: Played,
  stringing: Stringing,
): Exercise {
  const { family, tuning } = stringing
  const shape = shapeOf(family, shapeId ?? family.defaultShapeId)!
  const strings = onAll ? tuning.map((_, i) => i) : [1, 2]
  const once = strings.flatMap((stringIndex) => {
    const { notes } = shapeExercise(tuning, stringIndex, shape)
    return withOpen ? notes : notes.filter(({ finger }) => finger !== 0)
  })
  // On all strings each place is heard often enough with fewer rounds.
  const times = onAll ? Math.ceil(rounds / 1.5) : rounds
  return { name: { kind: 'free' }, notes: Array.from({ length: times }, () => once).flat() }
}

function landingOf(
  { swings, tapeOffMm }: Played,
  of: number,
  stringing: Stringing,
  { startS, endS, landingCents, settledCents, ...note }: PlayedNote,
  { wobbleCents, dullness, dullFinger }: HandFaults,
): Landing {
  const dull = dullness > 0 ? dullFinger : null
  const { placeMm } = targetOf(stringing, note)
  const followedMm = tapeOffMm !== undefined && note.finger === TAPED ? tapeOffMm * of : 0
  const cents = landingCents + followedMm * centsPerMmOnString(stringing, note.stringIndex, placeMm)
  return landingAtCents(stringing, note, cents, {
    sigmaCents: 1,
    atMs: 1000 * startS,
    source: 'simulated',
    heard: {
      settledCents: settledCents - landingCents + cents,
      settledSigmaCents: 1,
      lastsMs: 1000 * (endS - startS),
      confidence: 1,
      wobbleCents,
      brightnessDb: dull === note.finger ? -9 : 0,
      ...(swings && { vibratoWidthCents: swings.widthCents, vibratoTopCents: swings.topCents }),
    },
  })
}

/** 2 a half step low: the pattern with its half step elsewhere. */
function lowered(stringing: Stringing, landing: Landing): Landing {
  if (landing.finger !== 2) return landing
  return landingAtCents(stringing, landing, landing.cents - 97, landing)
}

/** A tape at each place, one of them off. */
function tapesOf({ tapeOffMm }: Played, of: number, stringing: Stringing, { notes }: Exercise): number[] {
  if (tapeOffMm === undefined) return []
  const on = notes[0]!.stringIndex
  return placesOf(notes)
    .filter(({ stringIndex }) => stringIndex === on)
    .map((note) => targetOf(stringing, note).placeMm + (note.finger === TAPED ? tapeOffMm * of : 0))
}

/** The same hand a week and two before, its tapes in sight. */
function inSight(
  seed: number,
  stringing: Stringing,
  exercise: Exercise,
  manner: Manner,
  tapesMm: readonly number[],
): EarlierTake[] {
  return [1, 2].map((week) => {
    const { notes } = perform(seededSource(seed + week), stringing, exercise, {
      ...manner,
      tapesCovered: false,
    })
    return {
      stringing,
      exercise,
      tapesMm,
      tapesCovered: false,
      daysAgo: 7 * week,
      likely: null,
      landings: notes.map((note) =>
        landingOf({ hand: () => ({}), isNamed: () => true }, 1, stringing, note, manner.faults),
      ),
    }
  })
}
