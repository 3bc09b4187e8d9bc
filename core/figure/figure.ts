import type { FigureWord } from './words'
import { away, capsule, circle, heading, polyline, type Point } from './geometry'

/** What a part of a drawing is of, and so how it is coloured. */
export type Substance =
  | 'skin'
  | 'far_skin'
  | 'sleeve'
  | 'far_sleeve'
  | 'wood'
  | 'board'
  | 'neck'
  | 'rest'
  | 'metal'
  | 'ground'
  | 'nail'

export type FigurePart =
  /** One silhouette of several outlines, as a hand is of fingers and palm, with the joints in it. */
  | {
      readonly kind: 'body'
      readonly of: Substance
      readonly outlines: readonly string[]
      readonly joints: readonly Point[]
    }
  | {
      readonly kind: 'line'
      readonly of: 'string' | 'compare' | 'motion' | 'detail' | 'mark'
      readonly path: string
    }
  | { readonly kind: 'patch'; readonly of: Substance; readonly outlines: readonly string[] }
  | { readonly kind: 'joint'; readonly at: Point }
  /** Something the eye is led to. */
  | { readonly kind: 'spot'; readonly path: string }
  /** What the drawing says, in words and a number; what the words are, and where they stand, is up to the page. */
  | {
      readonly kind: 'label'
      readonly says: FigureWord
      readonly value?: number | undefined
      readonly unit?: 'mm' | 'degrees' | undefined
    }
  /** A number at its place in the drawing, with the end of it that is held fast there. */
  | {
      readonly kind: 'tag'
      readonly at: Point
      readonly anchor: 'start' | 'middle' | 'end'
      readonly value: number
      readonly unit: 'mm' | 'degrees' | 'times'
    }

/** A drawing in true millimetres, and the part of the plane that it shows. */
export interface Figure {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly parts: readonly FigurePart[]
  /** Of a plan, the joints of its hand, to be measured again. */
  readonly hand?: HandInPlan
}

/** A hand on the board: base knuckles and tips of 1 to 4, the thumb’s tip, and half the board’s width there. */
export interface HandInPlan {
  readonly bases: readonly [Point, Point, Point, Point]
  readonly tips: readonly [Point, Point, Point, Point]
  readonly thumbTip: Point
  readonly half: number
}

/** The part of a drawing within a box about a place: as close as what is looked at asks for. */
export function closeUp(figure: Figure, { x, y }: Point, width: number, height = width * 0.72): Figure {
  return { ...figure, x: x - width / 2, y: y - height / 2, width, height }
}

/** A line with a head at its end. */
export function arrow(
  of: Extract<FigurePart, { kind: 'line' }>['of'],
  from: Point,
  to: Point,
  head = 4,
): FigurePart {
  const way = heading(from, to)
  const [left, right] = [away(to, way + 150, head), away(to, way - 150, head)]
  return line(of, `${polyline([from, to])}${polyline([left, to, right])}`)
}

/** A row of tapered limbs through joints; `widths` at each of them. */
export function limb(joints: readonly Point[], widths: readonly number[]): string[] {
  return joints.slice(1).map((to, i) => capsule(joints[i]!, widths[i]!, to, widths[i + 1]!))
}

export function body(of: Substance, outlines: readonly string[], joints: readonly Point[] = []): FigurePart {
  return { kind: 'body', of, outlines, joints }
}

/** Colour without an outline, where one part grows out of another. */
export function patch(of: Substance, outlines: readonly string[]): FigurePart {
  return { kind: 'patch', of, outlines }
}

export function joint(centre: Point): FigurePart {
  return { kind: 'joint', at: centre }
}

export function line(
  of: Extract<FigurePart, { kind: 'line' }>['of'],
  path: string | readonly Point[],
): FigurePart {
  return { kind: 'line', of, path: typeof path === 'string' ? path : polyline(path) }
}

export function spot(centre: Point, radius: number): FigurePart {
  return { kind: 'spot', path: circle(centre, radius) }
}

export function label(
  says: FigureWord,
  value?: { readonly value: number; readonly unit: 'mm' | 'degrees' },
): FigurePart {
  return { kind: 'label', says, ...value }
}

export function tag(
  place: Point,
  value: number,
  unit: 'mm' | 'degrees' | 'times' = 'mm',
  anchor: 'start' | 'middle' | 'end' = 'middle',
): FigurePart {
  return { kind: 'tag', at: place, anchor, value, unit }
}

/** Sizes of a full-grown player, mm; a smaller one is smaller in all of them. From memory. */
export const BODY_MM = {
  finger: [40, 24, 18],
  fingerWidths: [19, 16.5, 15, 12.5],
  thumb: [42, 30, 24],
  thumbWidths: [30, 22, 19, 14],
  palm: 85,
  wrist: 52,
  forearm: 245,
  upperArm: 290,
  head: 105,
} as const
