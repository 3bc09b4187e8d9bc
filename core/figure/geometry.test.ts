import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  arc,
  at,
  away,
  between,
  capsule,
  circle,
  distance,
  heading,
  polyline,
  smooth,
  turned,
  type Point,
} from './geometry'

const number = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true })
const point = fc.record({ x: number(-300, 300), y: number(-300, 300) })
const SEED = { seed: 12 }

/** Every pair of numbers that ends a command of path data. */
function endsOf(path: string): Point[] {
  return [...path.matchAll(/[MLAC]([^MLACZ]*)/g)].map(([, numbers = '']) => {
    const [x = NaN, y = NaN] = numbers
      .trim()
      .split(/[\s,]+/)
      .map(Number)
      .slice(-2)
    return at(x, y)
  })
}

describe('points', () => {
  it('lie as far and in the direction in which they were put: 0° to the right, 90° up', () => {
    expect(away(at(0, 0), 90, 10).y).toBeCloseTo(-10, 9)
    fc.assert(
      fc.property(point, number(-179, 179), number(1, 500), (from, degrees, length) => {
        const to = away(from, degrees, length)
        expect(distance(from, to)).toBeCloseTo(length, 6)
        expect(heading(from, to)).toBeCloseTo(degrees, 5)
      }),
      SEED,
    )
  })

  it('turned about a centre keep their distances, and turned back are where they were', () => {
    fc.assert(
      fc.property(
        fc.array(point, { minLength: 2, maxLength: 6 }),
        point,
        number(-170, 170),
        (points, centre, degrees) => {
          const moved = turned(points, centre, degrees)
          moved.forEach((one, i) =>
            expect(distance(one, moved[0]!)).toBeCloseTo(distance(points[i]!, points[0]!), 4),
          )
          turned(moved, centre, -degrees).forEach((one, i) =>
            expect(distance(one, points[i]!)).toBeLessThan(1e-4),
          )
        },
      ),
      SEED,
    )
  })

  it('between two others divide the way', () => {
    expect(between(at(0, 0), at(10, 20), 0.25)).toEqual({ x: 2.5, y: 5 })
    expect(between(at(0, 0), at(10, 20))).toEqual({ x: 5, y: 10 })
  })
})

describe('outlines', () => {
  it('a limb touches both its circles: its corners lie on them, and its sides square to their radii', () => {
    fc.assert(
      fc.property(point, point, number(4, 60), number(4, 60), (from, to, wide, narrow) => {
        fc.pre(distance(from, to) > Math.abs(wide - narrow) / 2 + 1)
        const [a, b, c, d] = endsOf(capsule(from, wide, to, narrow)) as [Point, Point, Point, Point]
        expect(distance(from, a)).toBeCloseTo(wide / 2, 1)
        expect(distance(from, d)).toBeCloseTo(wide / 2, 1)
        expect(distance(to, b)).toBeCloseTo(narrow / 2, 1)
        expect(distance(to, c)).toBeCloseTo(narrow / 2, 1)
        // A tangent meets its radius at a right angle.
        const along = { x: b.x - a.x, y: b.y - a.y }
        const radius = { x: a.x - from.x, y: a.y - from.y }
        const cosine = (along.x * radius.x + along.y * radius.y) / (distance(a, b) * distance(from, a))
        expect(Math.abs(cosine)).toBeLessThan(0.03)
      }),
      SEED,
    )
  })

  it('a limb of which one end lies in the other is that other’s circle', () => {
    expect(capsule(at(0, 0), 40, at(3, 0), 10)).toBe(circle(at(0, 0), 20))
    expect(capsule(at(3, 0), 10, at(0, 0), 40)).toBe(circle(at(0, 0), 20))
  })

  it('a smooth line passes through every point it was given, closed or open', () => {
    const points = [at(0, 0), at(10, -5), at(20, 8), at(4, 30)]
    expect(endsOf(smooth(points))).toEqual(points)
    expect(endsOf(smooth(points, true))).toEqual([...points, points[0]])
    expect(smooth(points, true).endsWith('Z')).toBe(true)
    expect(polyline(points)).toBe('M0 0L10 -5L20 8L4 30')
  })

  it('an arc begins and ends at its angles on its circle, and takes the long way where it is longer than half', () => {
    const [from, to] = endsOf(arc(at(5, 5), 10, 20, 80)) as [Point, Point]
    expect([distance(at(5, 5), from), distance(at(5, 5), to)].map((r) => Math.round(r * 10) / 10)).toEqual([
      10, 10,
    ])
    expect(heading(at(5, 5), to)).toBeCloseTo(80, 0)
    expect(arc(at(0, 0), 10, 0, 90)).toContain('A10 10 0 0 0')
    expect(arc(at(0, 0), 10, 0, 270)).toContain('A10 10 0 1 0')
  })
})
