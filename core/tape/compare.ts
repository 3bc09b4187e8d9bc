import { frameWidthMm } from '../frame'
import type { Family } from '../instrument'
import type { Note, TuningSystem } from '../pitch'
import { centsPerMm, stringLengthMm, type StringBed } from '../stop'
import { straightPlace } from './across'
import type { TapeMark } from './chart'
import { planTapes } from './plan'
import type { MarkSpec } from './marks'

/** One tape before and after. Places are middles, mm from the nut. */
export interface MarkMove {
  readonly id: string
  readonly from: TapeMark
  readonly to: TapeMark
  readonly moveMm: number
}

/** What moves by how much when a player changes from one instrument to another; marks that only one has are left out. */
export function markMoves(from: readonly TapeMark[], to: readonly TapeMark[]): MarkMove[] {
  return from.flatMap((mark) => {
    const other = to.find((t) => t.id === mark.id)
    return other ? [{ id: mark.id, from: mark, to: other, moveMm: other.middleMm - mark.middleMm }] : []
  })
}

/** The frame of first position before and after, mm. */
export interface FrameMove {
  readonly frameId: string
  readonly fromMm: number
  readonly toMm: number
}

export function frameMoves(
  family: Family,
  to: Family,
  fromLengthMm: number,
  toLengthMm: number,
): FrameMove[] {
  const first = (f: Family) => f.positions.find((p) => p.id === 'first')?.firstFingerSemitones.at(-1) ?? 2
  return family.frames.flatMap((frame) => {
    const other = to.frames.find((f) => f.id === frame.id)
    if (!other) return []
    return [
      {
        frameId: frame.id,
        fromMm: frameWidthMm(fromLengthMm, first(family), frame.semitones),
        toMm: frameWidthMm(toLengthMm, first(to), other.semitones),
      },
    ]
  })
}

/** How far a choice of tuning system moves one tape. */
export interface SystemMove {
  readonly systemId: string
  readonly placeMm: number
  readonly moveMm: number
  readonly moveCents: number
  /** Largest remainder that one straight tape leaves over the strings, cents. */
  readonly worstCents: number
}

/** Every mark's place in every system, against the place in `current`. Rows as `marks`, columns as `systems`. */
export function systemMoves(
  bed: StringBed,
  tuning: readonly Note[],
  marks: readonly MarkSpec[],
  current: TuningSystem,
  systems: readonly TuningSystem[],
): SystemMove[][] {
  const now = planTapes({ tuning, system: current, marks }).map((plan) => straightPlace(bed, plan))
  const lengthMm = stringLengthMm(bed, 0)
  const plans = systems.map((system) => planTapes({ tuning, system, marks }))
  return marks.map((_, m) =>
    systems.map((system, s) => {
      const plan = plans[s]![m]!
      const placeMm = straightPlace(bed, plan)
      const moveMm = placeMm - now[m]!
      return {
        systemId: system.id,
        placeMm,
        moveMm,
        moveCents: moveMm * centsPerMm(lengthMm, (placeMm + now[m]!) / 2),
        worstCents: Math.max(...plan.strings.map(({ cents }) => Math.abs(plan.middleCents - cents))),
      }
    }),
  )
}
