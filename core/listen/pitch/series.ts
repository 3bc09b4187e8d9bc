/** The common phase beyond its slope, against the time from the middle: at0 + square t² + cubic t³. */
export interface Bend {
  readonly at0: number
  readonly square: number
  readonly cubic: number
}

export const STRAIGHT: Bend = { at0: 0, square: 0, cubic: 0 }

/** A series of partials with a common phase, as it sounds in a stretch of sound. */
export interface Series {
  /** Of partial 1, radians a sample. */
  readonly omega: number
  readonly bend: Bend
  readonly stiffness: number
  readonly partials: number
  /** Amplitude and phase of each partial, times `scale`. */
  readonly re: Float64Array
  readonly im: Float64Array
  readonly scale: number
  /** By what each partial lies above partial 1. */
  readonly ratio: Float64Array
}

/** By what partial k lies above partial 1. */
export function partialRatio(k: number, stiffness: number): number {
  return stiffness === 0 ? k : k * Math.sqrt((1 + stiffness * k * k) / (1 + stiffness))
}

/** The mean of a bend over a block of `length` about `time`. */
export function meanBend({ at0, square, cubic }: Bend, time: number, length: number): number {
  const spread = length ** 2
  return at0 + square * (time ** 2 + spread / 12) + cubic * (time ** 3 + (time * spread) / 4)
}

/** Leaves in `rest` what the series does not sound of `samples`; returns its mean square. */
export function takeOut(series: Series, samples: Float64Array, rest: Float64Array): number {
  const { omega, bend, stiffness, re: sumRe, im: sumIm, ratio, partials, scale } = series
  const { length } = samples
  const middle = (length - 1) / 2
  rest.set(samples)
  if (stiffness > 0) {
    for (let k = 0; k < partials; k++)
      subtractPartial(rest, length, sumRe[k]! * scale, sumIm[k]! * scale, ratio[k]! * omega, ratio[k]!, bend)
  } else {
    // Clenshaw's recurrence, two samples at a time, so that one's additions need not wait for the other's.
    for (let n = 0; n < length; n += 2) {
      const turnA = turnAt(n - middle, omega, bend)
      const turnB = turnAt(n + 1 - middle, omega, bend)
      const cosA = Math.cos(turnA)
      const cosB = Math.cos(turnB)
      let reA = 0
      let reA1 = 0
      let imA = 0
      let imA1 = 0
      let reB = 0
      let reB1 = 0
      let imB = 0
      let imB1 = 0
      for (let k = partials - 1; k >= 0; k--) {
        const re = sumRe[k]!
        const im = sumIm[k]!
        const rA = re + 2 * cosA * reA - reA1
        const iA = im + 2 * cosA * imA - imA1
        const rB = re + 2 * cosB * reB - reB1
        const iB = im + 2 * cosB * imB - imB1
        reA1 = reA
        reA = rA
        imA1 = imA
        imA = iA
        reB1 = reB
        reB = rB
        imB1 = imB
        imB = iB
      }
      rest[n]! -= scale * (cosA * reA - reA1 - Math.sin(turnA) * imA)
      if (n + 1 < length) rest[n + 1]! -= scale * (cosB * reB - reB1 - Math.sin(turnB) * imB)
    }
  }
  let left = 0
  for (let n = 0; n < length; n++) left += rest[n]! ** 2
  return left / length
}

function turnAt(t: number, omega: number, { at0, square, cubic }: Bend): number {
  return omega * t + at0 + t * t * (square + cubic * t)
}

/**
 * Takes one partial with amplitude re + i im off samples about their middle. Its phase is a cubic of time: a phasor, turned by
 * a phasor that is itself turned, and so once more.
 */
function subtractPartial(
  samples: Float64Array,
  length: number,
  re: number,
  im: number,
  omega: number,
  ratio: number,
  { at0, square, cubic }: Bend,
): void {
  const start = -(length - 1) / 2
  const phase = (t: number) => omega * t + ratio * (at0 + t * t * (square + cubic * t))
  const p0 = phase(start)
  const p1 = phase(start + 1)
  const p2 = phase(start + 2)
  const p3 = phase(start + 3)
  let xr = re * Math.cos(p0) - im * Math.sin(p0)
  let xi = re * Math.sin(p0) + im * Math.cos(p0)
  let dr = Math.cos(p1 - p0)
  let di = Math.sin(p1 - p0)
  const second = p2 - 2 * p1 + p0
  let er = Math.cos(second)
  let ei = Math.sin(second)
  const third = p3 - 3 * p2 + 3 * p1 - p0
  const fr = Math.cos(third)
  const fi = Math.sin(third)
  for (let n = 0; n < length; n++) {
    samples[n]! -= xr
    const x = xr * dr - xi * di
    xi = xr * di + xi * dr
    xr = x
    const d = dr * er - di * ei
    di = dr * ei + di * er
    dr = d
    if (cubic === 0) continue
    const e = er * fr - ei * fi
    ei = er * fi + ei * fr
    er = e
  }
}
