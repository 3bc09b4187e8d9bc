/** A place on a drawing, mm; x to the right, y downwards. */
export interface Point {
  readonly x: number
  readonly y: number
}

const RADIANS = Math.PI / 180

export const at = (x: number, y: number): Point => ({ x, y })

/** `length` mm from a point in a direction: 0° to the right, 90° up. */
export function away({ x, y }: Point, degrees: number, length: number): Point {
  return { x: x + length * Math.cos(degrees * RADIANS), y: y - length * Math.sin(degrees * RADIANS) }
}

export function distance(a: Point, b: Point): number {
  return Math.hypot(b.x - a.x, b.y - a.y)
}

/** Direction from one point to another, degrees as in {@link away}, above −180 up to 180. */
export function heading(from: Point, to: Point): number {
  return Math.atan2(from.y - to.y, to.x - from.x) / RADIANS
}

/** Part of the way from one point to another. */
export function between(a: Point, b: Point, share = 0.5): Point {
  return { x: a.x + (b.x - a.x) * share, y: a.y + (b.y - a.y) * share }
}

/** The angle at a joint between the two bones that meet there, degrees from 0 (folded) to 180 (straight). */
export function angleAt(joint: Point, from: Point, to: Point): number {
  const turn = Math.abs(heading(joint, from) - heading(joint, to))
  return turn > 180 ? 360 - turn : turn
}

/** Bones in a row: each with its length, mm, and how it turns from the one before, degrees, anticlockwise positive. */
export interface Bone {
  readonly length: number
  readonly bend: number
}

/** The joints of a chain that starts at a point in a direction, the end included. */
export function chain(start: Point, degrees: number, bones: readonly Bone[]): Point[] {
  const joints = [start]
  let direction = degrees
  for (const { length, bend } of bones) {
    direction += bend
    joints.push(away(joints.at(-1)!, direction, length))
  }
  return joints
}

/**
 * The joint between two bones that reach from one point to another, on the left of the way there or on its right. Where they
 * are too short they lie straight towards it, and the end falls short; where one is too long for the other, they fold.
 */
export function twoBones(
  from: Point,
  to: Point,
  [first, second]: readonly [number, number],
  side: 'left' | 'right',
): { readonly joint: Point; readonly end: Point } {
  const way = distance(from, to)
  const reach = Math.min(Math.max(way, Math.abs(first - second) + 1e-9), first + second - 1e-9)
  const straight = heading(from, to)
  const cosine = (first ** 2 + reach ** 2 - second ** 2) / (2 * first * reach)
  const open = Math.acos(Math.min(1, Math.max(-1, cosine))) / RADIANS
  const joint = away(from, straight + (side === 'left' ? open : -open), first)
  return { joint, end: away(from, straight, reach) }
}

const n = (value: number) => String(Number(value.toFixed(2)))
const pair = ({ x, y }: Point) => `${n(x)} ${n(y)}`

/** The outline of a limb: a circle at each end and the tangents between them. SVG path data, mm. */
export function capsule(from: Point, fromWidth: number, to: Point, toWidth: number): string {
  const [r, s] = [fromWidth / 2, toWidth / 2]
  const way = distance(from, to)
  if (way <= Math.abs(r - s)) return circle(r > s ? from : to, Math.max(r, s))
  const direction = heading(from, to)
  const lean = Math.acos((r - s) / way) / RADIANS
  const [a, b] = [away(from, direction + lean, r), away(to, direction + lean, s)]
  const [c, d] = [away(to, direction - lean, s), away(from, direction - lean, r)]
  const isLarge = (angle: number) => (angle > 180 ? 1 : 0)
  return `M${pair(a)}L${pair(b)}A${n(s)} ${n(s)} 0 ${isLarge(2 * lean)} 1 ${pair(c)}L${pair(d)}A${n(r)} ${n(r)} 0 ${isLarge(360 - 2 * lean)} 1 ${pair(a)}Z`
}

export function circle(centre: Point, radius: number): string {
  const [left, right] = [at(centre.x - radius, centre.y), at(centre.x + radius, centre.y)]
  const arc = `A${n(radius)} ${n(radius)} 0 1 1`
  return `M${pair(left)}${arc} ${pair(right)}${arc} ${pair(left)}Z`
}

/** Straight lines from point to point. */
export function polyline(points: readonly Point[], isClosed = false): string {
  return `M${points.map(pair).join('L')}${isClosed ? 'Z' : ''}`
}

/** A smooth line through points (Catmull–Rom, as cubic Béziers); closed where `isClosed`. */
export function smooth(points: readonly Point[], isClosed = false): string {
  const of = (i: number) =>
    isClosed
      ? points[(i + points.length) % points.length]!
      : points[Math.min(points.length - 1, Math.max(0, i))]!
  const pieces = Array.from({ length: isClosed ? points.length : points.length - 1 }, (_, i) => {
    const [before, a, b, after] = [of(i - 1), of(i), of(i + 1), of(i + 2)]
    const c = at(a.x + (b.x - before.x) / 6, a.y + (b.y - before.y) / 6)
    const d = at(b.x - (after.x - a.x) / 6, b.y - (after.y - a.y) / 6)
    return `C${pair(c)} ${pair(d)} ${pair(b)}`
  })
  return `M${pair(of(0))}${pieces.join('')}${isClosed ? 'Z' : ''}`
}

/** Part of a circle from one direction to another, anticlockwise. */
export function arc(centre: Point, radius: number, fromDegrees: number, toDegrees: number): string {
  const isLarge = toDegrees - fromDegrees > 180 ? 1 : 0
  return `M${pair(away(centre, fromDegrees, radius))}A${n(radius)} ${n(radius)} 0 ${isLarge} 0 ${pair(away(centre, toDegrees, radius))}`
}

/** Points turned about a centre, degrees anticlockwise. */
export function turned(points: readonly Point[], centre: Point, degrees: number): Point[] {
  return points.map((point) => away(centre, heading(centre, point) + degrees, distance(centre, point)))
}
