import { scaleLinear, scaleUtc, type ScaleLinear, type ScaleTime } from 'd3-scale'
import { tapeLives, type TapeLife } from '#core'
import type { TapeEvent } from '#contracts'
import { inUnit } from '../../words/numbers'

/** A stretch of a tape's life at one place, as drawn. */
export interface TimelineTape {
  readonly life: TapeLife
  readonly path: string
  readonly points: readonly {
    readonly x: number
    readonly y: number
    readonly kind: string
    readonly label: string
  }[]
  readonly endX: number
  readonly endY: number
}

/** What has happened on one line across all tapes: trials, a changed bridge. */
export interface TimelineMoment {
  readonly x: number
  readonly kind: string
  readonly on: string
}

/** Time to the right, from the first entry to today; places from the nut downwards, with room around them. */
export function timelineScales(events: readonly TapeEvent[], today: string) {
  const days = [...events.map((e) => e.on), today].map((on) => Number(new Date(on)))
  const places = tapeLives(events).flatMap((life) => life.seen.map((s) => s.placeMm))
  const [low, high] = [Math.min(...places), Math.max(...places)]
  const room = Math.max(10, (high - low) * 0.2)
  return {
    x: (range: [number, number]) =>
      scaleUtc([new Date(Math.min(...days)), new Date(Math.max(...days))], range),
    y: (range: [number, number]) => scaleLinear([high + room, low - room], range),
  }
}

/** The life of an instrument's tapes on paper: each a line of steps from the day it was laid to the day it came off. */
export function timelineOf(
  events: readonly TapeEvent[],
  today: string,
  x: ScaleTime<number, number>,
  y: ScaleLinear<number, number>,
) {
  const tapes = tapeLives(events).map<TimelineTape>((life) => {
    const points = life.seen.map((s) => ({
      x: x(new Date(s.on)),
      y: y(s.placeMm),
      kind: s.kind,
      label: inUnit(s.placeMm),
    }))
    const endX = x(new Date(life.endedOn ?? today))
    const path = points.map((p, i) => (i === 0 ? `M${p.x},${p.y}` : `H${p.x}V${p.y}`)).join('') + `H${endX}`
    return { life, path, points, endX, endY: points.at(-1)!.y }
  })
  const moments: TimelineMoment[] = events
    .filter((event) => event.markId === null)
    .map((event) => ({ x: x(new Date(event.on)), kind: event.kind, on: event.on }))
  return { tapes, moments }
}
