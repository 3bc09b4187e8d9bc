import { groups, mean, rollups } from 'd3-array'
import { daysBetween, isoDay } from '../calendar'
import { nextSize, type HandSpan } from '../frame'
import {
  familyOf,
  THUMB,
  type FamilyId,
  type Digit,
  type Finger,
  type HoldId,
  type Position,
} from '../instrument'
import type { MasteryState } from '../pattern/mastery'
import type { TuningSystem } from '../pitch'
import type { GateCheck } from './gate-check'
import { whenWithin, type Reach } from './reach'
import type { SetupAnswer } from './answers'
import type { SetupItemId } from './items'

/** What a player is let through one by one: docs/trade.md § 1. */
export const GATE_IDS = ['fourth_finger', 'shifting', 'vibrato', 'tapes_off', 'next_size'] as const
export type GateId = (typeof GATE_IDS)[number]

/** What nobody can measure here and the teacher says. */
export const SAID_ITEMS = ['thumb_follows', 'steady_bow', 'easy_shift', 'swings_down', 'arm_reaches'] as const
export type SaidItem = (typeof SAID_ITEMS)[number]

/** A check as it is kept. */
export interface KeptCheckLike {
  readonly takenAt: string
  /** Null where only the verdict is left. */
  readonly exercise: object | null
  readonly stringing: { readonly family: FamilyId; readonly tuning: readonly string[] } | null
  readonly landings: readonly {
    readonly stringIndex: number
    readonly finger: Digit
    readonly positionId: string | null
    readonly cents: number
  }[]
  readonly toleranceCents: number
  readonly tapesCovered: boolean
}

/** The hands of a kept check as gates look at them, one a string and position; none where it is of another family, or only its verdict is left. */
export function gateChecksOf(
  familyId: FamilyId,
  check: KeptCheckLike,
  timeZone?: string | null,
): GateCheck[] {
  const { exercise, stringing, landings, toleranceCents, tapesCovered } = check
  if (!exercise || stringing?.family !== familyId) return []
  const stopped = landings.flatMap(({ finger, positionId, ...rest }) =>
    finger === 0 || finger === THUMB || positionId === null ? [] : [{ ...rest, finger, positionId }],
  )
  const hands = groups(
    stopped,
    ({ stringIndex }) => stringIndex,
    ({ positionId }) => positionId,
  )
  return hands.flatMap(([stringIndex, positions]) =>
    positions.map(([positionId, own]) => ({
      takenOn: isoDay(new Date(check.takenAt), timeZone),
      string: stringing.tuning[stringIndex] ?? '',
      positionId,
      tapesCovered,
      toleranceCents,
      fingers: rollups(
        own,
        (of) => mean(of, ({ cents }) => cents) ?? 0,
        ({ finger }) => finger,
      ).map(([finger, meanCents]) => ({ finger, meanCents })),
    })),
  )
}

export interface GateFacts {
  readonly family: FamilyId
  /** Undefined where the student has no instrument. */
  readonly sizeId?: string | undefined
  readonly system: TuningSystem
  readonly hand: HandSpan | null
  readonly hasTapes: boolean
  readonly setup: readonly { readonly itemId: string; readonly answer: SetupAnswer }[]
  /** Newest first. */
  readonly checks: readonly GateCheck[]
  /** How well the student has a position, by its id. */
  readonly positions: Readonly<Record<string, MasteryState>>
  readonly said: readonly SaidItem[]
  /** ISO date, from which it is looked ahead; without it nothing is foretold. */
  readonly today?: string | undefined
}

/** Something that still keeps a gate shut. */
export type Missing =
  | { readonly code: 'setup'; readonly itemId: SetupItemId; readonly answer: SetupAnswer | undefined }
  /** Fingers within tolerance on too few strings. */
  | {
      readonly code: 'strings'
      readonly have: number
      readonly need: number
      readonly fingers: readonly Finger[]
      /** When they may be, where the looks so far carry it. */
      readonly within?: Reach | undefined
    }
  | { readonly code: 'position'; readonly position: Position }
  /** Takes with covered tapes, as near as with them seen, `apartDays` apart. */
  | { readonly code: 'covered'; readonly have: number; readonly need: number; readonly apartDays: number }
  | {
      readonly code: 'span'
      readonly haveMm: number | undefined
      readonly needMm: number
      readonly sizeId: string
    }
  | { readonly code: 'said'; readonly item: SaidItem }

export interface Gate {
  readonly id: GateId
  /** All that was computed is there; a teacher may still say otherwise. */
  readonly isOpen: boolean
  readonly missing: readonly Missing[]
}

const STRINGS_NEEDED = 2
const COVERED_NEEDED = 2
/** “Twice, a week apart.” Common practice, no source. */
export const COVERED_APART_DAYS = 7

interface FamilyGates {
  readonly fourthFinger?: readonly SetupItemId[]
  readonly shifting: readonly SetupItemId[]
  /** Whether the thumb moves with the hand: an item of the bass’s setup, elsewhere the teacher’s word. */
  readonly thumbFollows: 'said' | 'item'
  readonly vibrato: readonly SetupItemId[]
  /** Fingers that must stand before the next one is asked for. */
  readonly fingers: readonly Finger[]
  /** Where a hand that shifts easily has been. */
  readonly shiftsTo: string
}

/** Setup items, “Gates”; common practice, no source. A bass counts its positions by semitone: III lies five above the nut. */
const GATES_OF: Record<HoldId, FamilyGates> = {
  shoulder: {
    fourthFinger: ['gap', 'knuckles', 'elbow'],
    shifting: ['squeeze'],
    thumbFollows: 'said',
    vibrato: ['thumb_joints'],
    fingers: [1, 2, 3],
    shiftsTo: 'third',
  },
  knees: {
    shifting: ['cello_thumb_push'],
    thumbFollows: 'said',
    vibrato: ['cello_thumb_joints'],
    fingers: [1, 2, 3, 4],
    shiftsTo: 'third',
  },
  standing: {
    shifting: ['bass_stance', 'bass_shift'],
    thumbFollows: 'item',
    vibrato: ['bass_thumb_joints'],
    fingers: [1, 2, 4],
    shiftsTo: 'semitone_5',
  },
}

/** The gates of a family, each with what is still missing, from setup, checks, hand and what the teacher said. */
export function gatesOf(facts: GateFacts): Gate[] {
  const { fourthFinger, shifting, thumbFollows, vibrato, fingers, shiftsTo } =
    GATES_OF[familyOf(facts.family).hold]
  const gates: { id: GateId; missing: (Missing | undefined)[] | undefined }[] = [
    {
      id: 'fourth_finger',
      missing: fourthFinger && [
        ...fourthFinger.map((id) => setupMissing(facts, id)),
        stringsMissing(facts, fingers),
      ],
    },
    {
      id: 'shifting',
      missing: [
        ...shifting.map((id) => setupMissing(facts, id)),
        thumbFollows === 'said' ? saidMissing(facts, 'thumb_follows') : undefined,
        stringsMissing(facts, fingers),
      ],
    },
    {
      id: 'vibrato',
      missing: [
        ...vibrato.map((id) => setupMissing(facts, id)),
        positionMissing(facts, shiftsTo),
        ...(['easy_shift', 'steady_bow', 'swings_down'] as const).map((item) => saidMissing(facts, item)),
      ],
    },
    { id: 'tapes_off', missing: facts.hasTapes ? [coveredMissing(facts)] : undefined },
    { id: 'next_size', missing: nextSizeMissing(facts) },
  ]
  return gates.flatMap(({ id, missing }) => {
    if (!missing) return []
    const left = missing.filter((one) => one !== undefined)
    return [{ id, isOpen: left.length === 0, missing: left }]
  })
}

function setupMissing({ setup }: GateFacts, itemId: SetupItemId): Missing | undefined {
  const answer = setup.find((one) => one.itemId === itemId)?.answer
  return answer === 'yes' ? undefined : { code: 'setup', itemId, answer }
}

function stringsMissing({ checks, today }: GateFacts, fingers: readonly Finger[]): Missing | undefined {
  const newest = new Map<string, GateCheck>()
  const whole = checks.filter((check) => check.positionId === 'first' && isWhole(check, fingers))
  for (const check of whole) if (!newest.has(check.string)) newest.set(check.string, check)
  const have = [...newest.values()].filter((check) => isWithin(check, fingers)).length
  if (have >= STRINGS_NEEDED) return undefined
  const within = today === undefined ? undefined : whenWithin(whole, fingers, today)
  return { code: 'strings', have, need: STRINGS_NEEDED, fingers, ...(within && { within }) }
}

const isWhole = (check: GateCheck, fingers: readonly Finger[]) =>
  fingers.every((finger) => check.fingers.some((one) => one.finger === finger))

const isWithin = ({ fingers: heard, toleranceCents }: GateCheck, fingers: readonly Finger[]) =>
  heard.every(({ finger, meanCents }) => !fingers.includes(finger) || Math.abs(meanCents) <= toleranceCents)

function positionMissing({ family, positions }: GateFacts, positionId: string): Missing | undefined {
  if (positions[positionId] === 'secure') return undefined
  const position = familyOf(family).positions.find(({ id }) => id === positionId)
  if (!position) throw new Error(`${family} has no position ${positionId}`)
  return { code: 'position', position }
}

function saidMissing({ said }: GateFacts, item: SaidItem): Missing | undefined {
  return said.includes(item) ? undefined : { code: 'said', item }
}

/** Ears notice from about here: a take no further off than this is as near. From memory. */
const AS_NEAR_CENTS = 5

/**
 * Covered takes count while each finger is as near as it was with the tapes seen, on the same string; the newest two such must
 * lie a week apart. Without a take with the tapes seen there is nothing to be as near as.
 */
function coveredMissing({ checks }: GateFacts): Missing | undefined {
  const covered = checks.filter((check) => check.tapesCovered)
  const firstWorse = covered.findIndex((check) => !isAsNear(check, seenLike(check, checks)))
  const good = firstWorse < 0 ? covered : covered.slice(0, firstWorse)
  const newest = good[0]?.takenOn
  const isTwice = good.some((check) => newest && daysBetween(check.takenOn, newest) >= COVERED_APART_DAYS)
  const missing: Missing = {
    code: 'covered',
    have: Math.min(1, good.length),
    need: COVERED_NEEDED,
    apartDays: COVERED_APART_DAYS,
  }
  return isTwice ? undefined : missing
}

/** The newest take of the same string with the tapes seen. */
function seenLike({ string }: GateCheck, checks: readonly GateCheck[]): GateCheck | undefined {
  return checks.find((check) => check.string === string && !check.tapesCovered)
}

function isAsNear(covered: GateCheck, seen: GateCheck | undefined): boolean {
  const pairs = covered.fingers.flatMap(({ finger, meanCents }) => {
    const before = seen?.fingers.find((one) => one.finger === finger)
    return before ? [{ now: Math.abs(meanCents), before: Math.abs(before.meanCents) }] : []
  })
  return pairs.length > 0 && pairs.every(({ now, before }) => now <= before + AS_NEAR_CENTS)
}

function nextSizeMissing(facts: GateFacts): (Missing | undefined)[] | undefined {
  const { family, sizeId, system, hand } = facts
  const next = sizeId === undefined ? undefined : nextSize(familyOf(family), sizeId, system)
  if (!next) return undefined
  const haveMm = hand?.comfortableSpanMm
  const isSpanned = haveMm !== undefined && haveMm >= next.spanMm
  return [
    isSpanned ? undefined : { code: 'span', haveMm, needMm: next.spanMm, sizeId: next.sizeId },
    saidMissing(facts, 'arm_reaches'),
  ]
}
