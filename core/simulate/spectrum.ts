import { familyOf, type FamilyId } from '../instrument'

/** Of the partials that are heard; above it a string says nothing that an ear would miss. */
const MOST_PARTIALS = 60

/**
 * What a family's body makes of one unit of force at `hz`: little below its lowest air resonance, and less and less above a corner,
 * twelve decibels an octave at both ends. A made-up body: corners of the size real ones have, from memory.
 */
export function bodyGain(family: FamilyId, hz: number): number {
  const { airHz, cornerHz } = familyOf(family).sound
  const low = (hz / airHz) ** 2
  return low / Math.sqrt(1 + low ** 2) / Math.sqrt(1 + (hz / cornerHz) ** 4)
}

/**
 * Amplitudes of the partials of a bowed string at the bridge, through the body: the force of a Helmholtz motion falls as 1/k,
 * less those partials that have a node under the bow. Source: H. von Helmholtz, On the Sensations of Tone, app. VI; L. Cremer,
 * The Physics of the Violin, ch. 3.
 *
 * @param bowedAt part of the string from the bridge to the bow.
 */
export function bowedPartials(family: FamilyId, hz: number, highestHz: number, bowedAt = 1 / 9.3): number[] {
  return partialsOf(hz, highestHz, (k, partialHz) => {
    const node = Math.abs(Math.sin(k * Math.PI * bowedAt))
    return ((0.25 + 0.75 * node) / k) * bodyGain(family, partialHz)
  })
}

/**
 * Amplitudes of the partials of a plucked string as it is let go: sin(kπp)/k at the bridge.
 * Source: N. H. Fletcher and T. D. Rossing, The Physics of Musical Instruments, § 2.8.
 *
 * @param pluckedAt part of the string from the bridge to the finger.
 */
export function pluckedPartials(
  family: FamilyId,
  hz: number,
  highestHz: number,
  pluckedAt = 1 / 4.7,
): number[] {
  return partialsOf(
    hz,
    highestHz,
    (k, partialHz) => (Math.abs(Math.sin(k * Math.PI * pluckedAt)) / k) * bodyGain(family, partialHz),
  )
}

function partialsOf(hz: number, highestHz: number, amplitude: (k: number, hz: number) => number): number[] {
  const count = Math.max(1, Math.min(MOST_PARTIALS, Math.floor(highestHz / hz)))
  const raw = Array.from({ length: count }, (_, i) => amplitude(i + 1, (i + 1) * hz))
  const power = raw.reduce((sum, a) => sum + (a * a) / 2, 0)
  return raw.map((a) => a / Math.sqrt(power))
}
