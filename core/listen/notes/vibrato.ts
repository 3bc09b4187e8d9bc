import type { HeardVibrato } from './heard-note'
import type { VoicedFrame } from './voiced-frame'

/** Rates at which a hand swings, Hz, and how finely they are tried. */
const RATES_HZ = { from: 3, to: 9, step: 0.1 } as const
/** Fewer swings than this are a wobble. */
const LEAST_SWINGS = 2.5
/** A swing narrower than this is friction. */
const LEAST_WIDTH_CENTS = 6
/** Part of the pitch's variance that an even swing explains. */
const LEAST_EVEN = 0.55

/**
 * An even swing of the pitch: the sine that fits best by least squares (Lomb's periodogram), over the last frames that hold it.
 * Null where the pitch swings too little, too unevenly or not often enough.
 * Source: N. R. Lomb, Least-squares frequency analysis of unequally spaced data, Astrophys. Space Sci. 39 (1976) 447.
 */
export function findVibrato(frames: readonly VoicedFrame[]): HeardVibrato | null {
  // A vibrato often begins when the note has settled: the whole note is tried, then its later part.
  for (const part of [1, 0.7, 0.5]) {
    const found = swingOf(frames.slice(Math.floor(frames.length * (1 - part))))
    if (found) return found
  }
  return null
}

function swingOf(frames: readonly VoicedFrame[]): HeardVibrato | null {
  const first = frames[0]
  const last = frames.at(-1)
  if (!first || !last || (last.atS - first.atS) * RATES_HZ.from < 1) return null
  const lastsS = last.atS - first.atS
  const mean = frames.reduce((sum, f) => sum + f.cents, 0) / frames.length
  const all = frames.reduce((sum, f) => sum + (f.cents - mean) ** 2, 0)
  let best = { explained: 0, rateHz: 0, amplitude: 0 }
  for (let rateHz = RATES_HZ.from; rateHz <= RATES_HZ.to; rateHz += RATES_HZ.step) {
    if (rateHz * lastsS < LEAST_SWINGS) continue
    let [c, s, cc, ss, cs] = [0, 0, 0, 0, 0]
    for (const { atS, cents } of frames) {
      const turn = 2 * Math.PI * rateHz * (atS - first.atS)
      const [x, y] = [Math.cos(turn), Math.sin(turn)]
      c += (cents - mean) * x
      s += (cents - mean) * y
      cc += x * x
      ss += y * y
      cs += x * y
    }
    const det = cc * ss - cs * cs
    if (!(det > 1e-9)) continue
    const a = (c * ss - s * cs) / det
    const b = (s * cc - c * cs) / det
    const explained = a * c + b * s
    if (explained > best.explained) best = { explained, rateHz, amplitude: Math.hypot(a, b) }
  }
  if (2 * best.amplitude < LEAST_WIDTH_CENTS || best.explained < LEAST_EVEN * all) return null
  // The middle over whole swings only: half a swing more would pull it.
  const whole = Math.floor(lastsS * best.rateHz) / best.rateHz
  const swings = frames.filter((f) => f.atS >= last.atS - whole)
  const centreCents = swings.reduce((sum, f) => sum + f.cents, 0) / swings.length
  return {
    rateHz: best.rateHz,
    widthCents: 2 * best.amplitude,
    centreCents,
    topCents: centreCents + best.amplitude,
  }
}
