import { scaleLinear, scaleUtc } from 'd3-scale'
import { tapeLives, type TapeEvent as LoggedEvent, type TapeLife } from '#core'
import type { TapeEvent } from '#contracts'

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

export interface TimelineLayout {
  readonly width: number
  readonly height: number
  readonly left: number
  readonly right: number
  readonly top: number
  readonly bottom: number
}

/** What has happened on one line across all tapes: trials, a changed bridge. */
export interface TimelineMoment {
  readonly x: number
  readonly kind: string
  readonly on: string
}

/**
 * The life of an instrument's tapes on paper: time runs to the right, places from the nut downwards, each tape a line of
 * steps from the day it was laid to the day it came off.
 */
export function timelineOf(events: readonly TapeEvent[], today: string, layout: TimelineLayout) {
  const lives = tapeLives(events satisfies readonly LoggedEvent[])
  const days = [...events.map((e) => e.on), today].map((on) => new Date(on))
  const x = scaleUtc(
    [new Date(Math.min(...days.map(Number))), new Date(Math.max(...days.map(Number)))],
    [layout.left, layout.width - layout.right],
  )
  const places = lives.flatMap((life) => life.seen.map((s) => s.placeMm))
  const [low, high] = [Math.min(...places), Math.max(...places)]
  const room = Math.max(10, (high - low) * 0.2)
  const y = scaleLinear([low - room, high + room], [layout.top, layout.height - layout.bottom])

  const tapes = lives.map<TimelineTape>((life) => {
    const points = life.seen.map((s) => ({
      x: x(new Date(s.on)),
      y: y(s.placeMm),
      kind: s.kind,
      label: s.placeMm.toFixed(1),
    }))
    const endX = x(new Date(life.endedOn ?? today))
    const path = points.map((p, i) => (i === 0 ? `M${p.x},${p.y}` : `H${p.x}V${p.y}`)).join('') + `H${endX}`
    return { life, path, points, endX, endY: points.at(-1)!.y }
  })
  const moments: TimelineMoment[] = events
    .filter((event) => event.markId === null)
    .map((event) => ({ x: x(new Date(event.on)), kind: event.kind, on: event.on }))
  return { x, y, tapes, moments }
}
