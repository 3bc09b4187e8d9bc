import { daysBetween } from '../calendar'

/** What can happen to a tape, or to the instrument under it. `crept` is a check that found the tape elsewhere. */
export const TAPE_EVENT_KINDS = [
  'laid',
  'checked',
  'crept',
  'moved',
  'replaced',
  'removed',
  'faded',
  'trial',
  'bridge_changed',
] as const
export type TapeEventKind = (typeof TAPE_EVENT_KINDS)[number]

/** Kinds that concern the whole instrument and name no tape. */
export const WHOLE_INSTRUMENT_KINDS: readonly TapeEventKind[] = ['trial', 'bridge_changed']

export interface TapeEvent {
  readonly kind: TapeEventKind
  /** Missing on what concerns the whole instrument. */
  readonly markId: string | null
  /** Where the tape's middle lies now, mm; missing on a removal. */
  readonly placeMm: number | null
  /** ISO date. */
  readonly on: string
}

/** One tape from the day it was laid to the day it came off; a replacement is a new tape. */
export interface TapeLife {
  readonly markId: string
  readonly laidOn: string
  /** Where it was laid, or moved to last. */
  readonly laidMm: number
  /** Where it was seen last. */
  readonly placeMm: number
  readonly seenOn: string
  readonly endedOn: string | null
  readonly endedBy: 'removed' | 'faded' | 'replaced' | null
  readonly seen: readonly { readonly on: string; readonly placeMm: number; readonly kind: TapeEventKind }[]
}

/** A tape is read to about half a millimetre; less is no creep. Common practice, no source. */
export const CREEP_MM = 0.5

/** How far a tape has wandered since it was laid or moved; positive is towards the bridge. */
export function creepMm({ laidMm, placeMm }: Pick<TapeLife, 'laidMm' | 'placeMm'>): number {
  return placeMm - laidMm
}

export function hasCrept(life: Pick<TapeLife, 'laidMm' | 'placeMm'>): boolean {
  return Math.abs(creepMm(life)) > CREEP_MM
}

/** Every tape an instrument ever had, in the order in which they were laid. Events in order of time. */
export function tapeLives(events: readonly TapeEvent[]): TapeLife[] {
  const lives: TapeLife[] = []
  const open = new Map<string, number>()
  for (const { kind, markId, placeMm, on } of events) {
    if (markId === null) continue
    const at = open.get(markId)
    const life = at === undefined ? undefined : lives[at]
    if (kind === 'removed' || kind === 'faded') {
      if (at !== undefined && life) lives[at] = { ...life, endedOn: on, endedBy: kind }
      open.delete(markId)
      continue
    }
    if (placeMm === null) continue
    const seen = { on, placeMm, kind }
    if (life && at !== undefined && kind !== 'laid' && kind !== 'replaced') {
      const laidMm = kind === 'moved' ? placeMm : life.laidMm
      lives[at] = { ...life, laidMm, placeMm, seenOn: on, seen: [...life.seen, seen] }
      continue
    }
    // A tape that is laid where one lies takes its place; one that is first heard of in a check was there before.
    if (life && at !== undefined) lives[at] = { ...life, endedOn: on, endedBy: 'replaced' }
    open.set(markId, lives.length)
    lives.push({
      markId,
      laidOn: on,
      laidMm: placeMm,
      placeMm,
      seenOn: on,
      endedOn: null,
      endedBy: null,
      seen: [seen],
    })
  }
  return lives
}

/** The tapes that lie on the instrument, nearest to the nut first. */
export function tapesNow(events: readonly TapeEvent[]): TapeLife[] {
  return tapeLives(events)
    .filter((life) => life.endedOn === null)
    .sort((a, b) => a.placeMm - b.placeMm)
}

/** The last day on which something of this kind happened. */
export function lastDayOf(kind: TapeEventKind, events: readonly TapeEvent[]): string | undefined {
  return events.findLast((event) => event.kind === kind)?.on
}

export type TapeDue =
  | { readonly code: 'remeasure_after_bridge'; readonly changedOn: string }
  | { readonly code: 'tape_crept'; readonly markId: string; readonly byMm: number }
  /** Days since the tape that was looked at longest ago; `isEvery` where none was looked at since. */
  | { readonly code: 'check_tapes'; readonly days: number; readonly isEvery: boolean }
  | { readonly code: 'try_without'; readonly days: number }

/** What is kept of an instrument and its tapes; days as ISO dates, the last on which each happened. */
export interface TapedInstrument {
  readonly tapes: readonly Pick<TapeLife, 'markId' | 'laidOn' | 'seenOn' | 'laidMm' | 'placeMm'>[]
  readonly warmHands: boolean
  /** Days first; of one day, the instant at which each was written down tells which came first (ISO instants). */
  readonly measurement: { readonly measuredOn: string; readonly recordedAt: string } | null
  readonly bridgeChangedOn: string | null
  readonly bridgeChangedAt: string | null
  readonly triedWithoutOn: string | null
}

/** A tape is looked at every eight weeks; under warm hands every three. Common practice, no source. */
export const CHECK_TAPES_AFTER_DAYS = 56
export const CHECK_TAPES_WARM_HANDS_AFTER_DAYS = 21
/** Tapes are there to be outgrown: after five months play without and compare. Common practice, no source. */
export const TRY_WITHOUT_AFTER_DAYS = 150

/** After how many days tapes are looked at, and tried without; a studio may say otherwise. */
export interface TapeIntervals {
  readonly seenDays: number
  readonly warmHandsDays: number
  readonly tryWithoutDays: number
}

export const USUAL_TAPE_INTERVALS: TapeIntervals = {
  seenDays: CHECK_TAPES_AFTER_DAYS,
  warmHandsDays: CHECK_TAPES_WARM_HANDS_AFTER_DAYS,
  tryWithoutDays: TRY_WITHOUT_AFTER_DAYS,
}

/** Whether the length was measured with the bridge that stands there now; so it is where none was ever changed. */
export function isMeasuredSinceBridge({
  measurement,
  bridgeChangedOn,
  bridgeChangedAt,
}: Pick<TapedInstrument, 'measurement' | 'bridgeChangedOn' | 'bridgeChangedAt'>): boolean {
  if (bridgeChangedOn === null) return true
  if (measurement === null) return false
  if (measurement.measuredOn !== bridgeChangedOn) return measurement.measuredOn > bridgeChangedOn
  return measurement.recordedAt > (bridgeChangedAt ?? '')
}

/** What an instrument's tapes ask for on the day `today` (ISO date), most pressing first. */
export function tapesDue(
  today: string,
  instrument: TapedInstrument,
  { seenDays, warmHandsDays, tryWithoutDays }: TapeIntervals = USUAL_TAPE_INTERVALS,
): TapeDue[] {
  const due: TapeDue[] = []
  const { tapes, bridgeChangedOn } = instrument
  if (bridgeChangedOn !== null && !isMeasuredSinceBridge(instrument))
    due.push({ code: 'remeasure_after_bridge', changedOn: bridgeChangedOn })
  for (const tape of tapes)
    if (hasCrept(tape)) due.push({ code: 'tape_crept', markId: tape.markId, byMm: creepMm(tape) })
  const [first] = tapes
  if (!first) return due
  const oldestLook = tapes.reduce((a, b) => (b.seenOn < a.seenOn ? b : a)).seenOn
  const unseen = daysBetween(oldestLook, today)
  const patience = instrument.warmHands ? warmHandsDays : seenDays
  const isEvery = tapes.every((tape) => tape.seenOn === oldestLook)
  if (unseen > patience) due.push({ code: 'check_tapes', days: unseen, isEvery })
  const laidOn = tapes.reduce((a, b) => (b.laidOn < a.laidOn ? b : a)).laidOn
  const since = [laidOn, instrument.triedWithoutOn ?? laidOn].reduce((a, b) => (a > b ? a : b))
  const days = daysBetween(since, today)
  if (days > tryWithoutDays) due.push({ code: 'try_without', days })
  return due
}
