import { firstPositionWidthMm } from '../frame'
import { stringLengthMm, type Stringing } from '../instrument'
import type { TuningSystem } from '../pitch'
import { centsPerMm } from '../stop'
import { chartTapes, type TapeMark } from './chart'
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

/** Every frame that both hands have, in first position. */
export function frameMoves(from: Stringing, to: Stringing): FrameMove[] {
  return from.family.frames.flatMap((frame) => {
    const other = to.family.frames.find((f) => f.id === frame.id)
    if (!other) return []
    const [fromMm, toMm] = [firstPositionWidthMm(from, frame), firstPositionWidthMm(to, other)]
    return [{ frameId: frame.id, fromMm, toMm }]
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

/** Every mark's place in every system, against the place in the stringing's own. Rows as `marks`, columns as `systems`. */
export function systemMoves(
  stringing: Stringing,
  marks: readonly MarkSpec[],
  systems: readonly TuningSystem[],
): SystemMove[][] {
  const chartIn = (system: TuningSystem) => {
    const inSystem = { ...stringing, system }
    return chartTapes(inSystem, planTapes(inSystem, marks))
  }
  const now = chartIn(stringing.system)
  const charts = systems.map(chartIn)
  const lengthMm = stringLengthMm(stringing, 0)
  return marks.map((_, m) =>
    systems.map((system, s) => {
      const { stopMm, worst } = charts[s]![m]!
      const moveMm = stopMm - now[m]!.stopMm
      return {
        systemId: system.id,
        placeMm: stopMm,
        moveMm,
        moveCents: moveMm * centsPerMm(lengthMm, (stopMm + now[m]!.stopMm) / 2),
        worstCents: Math.abs(worst.remainderCents),
      }
    }),
  )
}
