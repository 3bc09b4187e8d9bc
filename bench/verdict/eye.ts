// The verdict's bench by eye: a looker with a limit and a bias of their own.
import { randomNormal } from 'd3-random'
import { judgeTake, landingOfReading, seededSource, type Verdict } from '../../core'
import { placesOn, stringing, worth, type Played } from './players'

/** Of a look, mm: how much every finger is seen to one side, one standard deviation; and within what an eye says “on”. */
const BIAS_MM = 1
const LIMIT_MM = { from: 1, to: 3 } as const

/** What is said of a played line whose fingers were seen with so much error, mm. */
export function judgedByEye(
  played: Played,
  seed: number,
  strings: number,
  eyeMm: number,
  toleranceCents: number,
): Verdict {
  const source = seededSource(seed)
  const normal = randomNormal.source(source)(0, 1)
  const bias = BIAS_MM * normal()
  const limit = LIMIT_MM.from + (LIMIT_MM.to - LIMIT_MM.from) * source()
  const landings = played.line.map((target, i) => {
    const seenMm = played.cents[i]! / worth(target) + bias + eyeMm * normal()
    const side = seenMm > limit ? 'past' : seenMm < -limit ? 'behind' : 'on'
    return landingOfReading(stringing, target, { side })
  })
  const exercise = { name: { kind: 'free' as const }, notes: placesOn(strings) }
  return judgeTake({ stringing, exercise, landings, toleranceCents })
}
