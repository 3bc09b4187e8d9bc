import { deviation, mean } from 'd3-array'
import { describe, expect, it } from 'vitest'
import { exerciseOf } from '../exercise'
import { placementContext } from '../pattern'
import { targetsOf, type Exercise } from '../take'
import { strung } from '../testing'
import { BODY_FAULTS, bonesErrors, handOfBones, seededSource, type BodyFault } from './index'

const stringing = strung('violin', 328)
const notes = stringing.tuning.flatMap((_, stringIndex) => {
  const context = placementContext(stringing.family, stringing.tuning)
  const made = exerciseOf(context, { kind: 'shape', shapeId: 'first', stringIndex })
  if (!made.ok) throw new Error(made.code)
  return made.exercise.notes.slice(1)
})
const exercise: Exercise = { name: { kind: 'free' }, notes }
const targets = targetsOf(stringing, exercise)
/** Cents off, by string from the lowest, 1 to 4. */
const landed = (fault: BodyFault | null, amount: number) => {
  const hand = handOfBones(stringing, exercise, fault, amount)
  const cents = targets.map((target, i) => hand(target, i / (targets.length - 1)))
  return [0, 1, 2, 3].map((string) => cents.slice(4 * string, 4 * string + 4))
}

describe('a hand of bones (docs/body.md)', () => {
  it('that stands right lands right, on every string', () => {
    for (const cents of landed(null, 0).flat()) expect(cents).toBeCloseTo(0, 6)
    for (const fault of BODY_FAULTS)
      for (const cents of landed(fault, 0).flat()) expect(cents).toBeCloseTo(0, 6)
  })

  it('that stands 3 mm too far forward lands 3 mm sharp: 19 cents on 1, worked by hand', () => {
    // 1 on its place at 36.4 of 328 mm: 1200 log₂ (291.6 / 288.6) = 18.0
    expect(landed('hand_forward', 3)[1]![0]).toBeCloseTo(1200 * Math.log2(291.556 / 288.556), 1)
    expect(landed('hand_back', 3)[1]![0]).toBeLessThan(-17)
  })

  it('shows what a teacher expects of each fault', () => {
    const [turned] = landed('palm_out', 10)
    expect(turned![0]).toBeCloseTo(0, 6)
    expect(turned![3]).toBeLessThan(2 * turned![2]!)
    const [crowded] = landed('knuckles_squashed', 3)
    expect(crowded![0]).toBeGreaterThan(10)
    expect(crowded![3]).toBeLessThan(-10)
    const elbow = landed('elbow_out', 15)
    expect(elbow[3]!.every((cents) => Math.abs(cents) < 1e-6)).toBe(true)
    expect(elbow.map((own) => own[3]!)).toEqual([...elbow.map((own) => own[3]!)].sort((a, b) => a - b))
    expect(landed('finger_2_leans', 2)[0]!.map((cents) => Math.abs(cents) > 1)).toEqual([
      false,
      true,
      false,
      false,
    ])
    const creeping = landed('thumb_creeps', 5).flat()
    expect(creeping[0]).toBeCloseTo(0, 6)
    expect(creeping.at(-1)).toBeGreaterThan(30)
  })

  it('errs by as much as it is told to, each note like the one before', () => {
    const error = bonesErrors(seededSource(3), 8)
    const errors = Array.from({ length: 20_000 }, error)
    expect(deviation(errors)).toBeGreaterThan(7.6)
    expect(deviation(errors)).toBeLessThan(8.4)
    // 0.45 of the variance is the hand's, and 0.8 of that is left at the next note: 0.36
    const next = mean(errors.slice(1), (one, i) => one * errors[i]!)! / mean(errors, (one) => one ** 2)!
    expect(Math.abs(next - 0.36)).toBeLessThan(0.03)
  })
})
