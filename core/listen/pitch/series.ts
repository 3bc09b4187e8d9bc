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
    const set = (phasor: Float64Array, k: number) =>
      setPhasor(phasor, length, sumRe[k]! * scale, sumIm[k]! * scale, ratio[k]! * omega, ratio[k]!, bend)
    const [one, other] = PHASORS
    for (let k = 0; k < partials; k++) {
      set(one, k)
      if (bend.cubic !== 0 || k + 1 === partials) subtractPartial(rest, length, one)
      else {
        set(other, ++k)
        subtractPair(rest, length, one, other)
      }
    }
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

/** A partial's phasor at the first sample, and what turns it: x, by d, by e, by f. */
const PHASORS = [new Float64Array(8), new Float64Array(8)] as const

/** Sets a partial with amplitude re + i im, whose phase is a cubic of time, on the first of `length` samples. */
function setPhasor(
  phasor: Float64Array,
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
  phasor[0] = re * Math.cos(p0) - im * Math.sin(p0)
  phasor[1] = re * Math.sin(p0) + im * Math.cos(p0)
  const turns = [p1 - p0, p2 - 2 * p1 + p0, p3 - 3 * p2 + 3 * p1 - p0]
  for (let i = 0; i < 3; i++) {
    phasor[2 + 2 * i] = Math.cos(turns[i]!)
    phasor[3 + 2 * i] = Math.sin(turns[i]!)
  }
}

/** Takes a partial off samples: a phasor, turned by a phasor that is itself turned, and so once more. */
function subtractPartial(samples: Float64Array, length: number, phasor: Float64Array): void {
  let xr = phasor[0]!
  let xi = phasor[1]!
  let dr = phasor[2]!
  let di = phasor[3]!
  let er = phasor[4]!
  let ei = phasor[5]!
  const fr = phasor[6]!
  const fi = phasor[7]!
  for (let n = 0; n < length; n++) {
    samples[n]! -= xr
    const x = xr * dr - xi * di
    xi = xr * di + xi * dr
    xr = x
    const d = dr * er - di * ei
    di = dr * ei + di * er
    dr = d
    const e = er * fr - ei * fi
    ei = er * fi + ei * fr
    er = e
  }
}

/** The same of two partials whose phase is a parabola, at once: one's turns need not wait for the other's. */
function subtractPair(samples: Float64Array, length: number, a: Float64Array, b: Float64Array): void {
  let ar = a[0]!
  let ai = a[1]!
  let adr = a[2]!
  let adi = a[3]!
  const aer = a[4]!
  const aei = a[5]!
  let br = b[0]!
  let bi = b[1]!
  let bdr = b[2]!
  let bdi = b[3]!
  const ber = b[4]!
  const bei = b[5]!
  for (let n = 0; n < length; n++) {
    samples[n]! -= ar + br
    const ax = ar * adr - ai * adi
    ai = ar * adi + ai * adr
    ar = ax
    const bx = br * bdr - bi * bdi
    bi = br * bdi + bi * bdr
    br = bx
    const ad = adr * aer - adi * aei
    adi = adr * aei + adi * aer
    adr = ad
    const bd = bdr * ber - bdi * bei
    bdi = bdr * bei + bdi * ber
    bdr = bd
  }
}
