import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  angleAt,
  ARM,
  armJoints,
  BASSIST,
  BODY_MM,
  CELLIST,
  chain,
  distance,
  fingertipAngle,
  frameWidths,
  heading,
  PLAN,
  planJoints,
  playerJoints,
  SECTION,
  sectionJoints,
  SHOULDER,
  shoulderJoints,
  twoBones,
} from './index'
import { at } from './geometry'

const degrees = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true })

describe('bones', () => {
  it('keep their lengths and turn at each joint by as much as they were told', () => {
    const bones = fc.array(fc.record({ length: degrees(1, 200), bend: degrees(-170, 170) }), {
      minLength: 2,
      maxLength: 6,
    })
    fc.assert(
      fc.property(degrees(-180, 180), bones, (start, row) => {
        const joints = chain(at(3, -7), start, row)
        row.forEach(({ length }, i) => expect(distance(joints[i]!, joints[i + 1]!)).toBeCloseTo(length, 6))
        for (let i = 1; i < row.length; i++)
          expect(angleAt(joints[i]!, joints[i - 1]!, joints[i + 1]!)).toBeCloseTo(
            180 - Math.abs(row[i]!.bend),
            6,
          )
      }),
      { seed: 12 },
    )
  })

  it('of two reach what they can reach, and by the law of cosines bend as they must', () => {
    fc.assert(
      fc.property(degrees(20, 60), degrees(20, 60), degrees(1, 140), fc.boolean(), (a, b, way, isLeft) => {
        const { joint, end } = twoBones(at(0, 0), at(way, 0), [a, b], isLeft ? 'left' : 'right')
        expect(distance(at(0, 0), joint)).toBeCloseTo(a, 6)
        expect(distance(joint, end)).toBeCloseTo(b, 4)
        if (way > Math.abs(a - b) && way < a + b) {
          expect(end.x).toBeCloseTo(way, 4)
          const cosine = (a ** 2 + b ** 2 - way ** 2) / (2 * a * b)
          expect(Math.cos((angleAt(joint, at(0, 0), end) * Math.PI) / 180)).toBeCloseTo(cosine, 5)
        }
        // y runs downwards: what bends to the left of a way to the right is above it.
        expect(joint.y * (isLeft ? -1 : 1)).toBeGreaterThanOrEqual(-1e-6)
      }),
      { seed: 12 },
    )
  })
})

describe('a drawing says by its own joints what it is told', () => {
  it('the neck’s section: finger’s angle, knuckle over the board, and bones of a hand', () => {
    fc.assert(
      fc.property(
        degrees(25, 90),
        degrees(-15, 25),
        fc.constantFrom('upper', 'cello', 'bass'),
        degrees(0.6, 1.1),
        (angle, knuckleMm, family, hand) => {
          const joints = sectionJoints({ ...SECTION, fingerAngle: angle, knuckleMm }, family, hand)
          expect(fingertipAngle(joints)).toBeCloseTo(angle, 6)
          expect(-joints.knuckle.y).toBeCloseTo(knuckleMm, 9)
          expect(distance(joints.knuckle, joints.middle)).toBeCloseTo(BODY_MM.finger[0] * hand, 6)
          expect(distance(joints.last, joints.tip)).toBeCloseTo(BODY_MM.finger[2] * hand, 6)
          const [, knuckle, joint, tip] = joints.thumb
          expect(distance(joint, tip)).toBeCloseTo(BODY_MM.thumb[2] * hand, 6)
          expect(distance(joint, knuckle)).toBeLessThanOrEqual(BODY_MM.thumb[1] * hand + 60)
        },
      ),
      { seed: 12 },
    )
  })

  it('the board’s plan: thumb against the first finger, row of knuckles against the strings', () => {
    fc.assert(
      fc.property(degrees(-40, 60), degrees(-20, 30), (thumbMm, turn) => {
        const { tips, thumbTip, row } = planJoints({ ...PLAN, thumbMm, turn })
        expect(thumbTip.x - tips[0].x).toBeCloseTo(thumbMm, 9)
        expect(-row).toBeCloseTo(turn, 6)
      }),
      { seed: 12 },
    )
  })

  it('the board’s plan: frames of handbook §4, 73 mm on the violin, 98 closed on the cello, 102 on the bass', () => {
    const width = (family: 'upper' | 'cello' | 'bass') => frameWidths(family)[4] - frameWidths(family)[1]
    expect(width('upper')).toBeCloseTo(73, 0)
    expect(width('cello')).toBeCloseTo(98, -0.5)
    expect(width('bass')).toBeCloseTo(102, -0.5)
  })

  it('the arm: straight where nothing is folded, and folded by as many degrees as were measured', () => {
    for (const hold of ['under_chin', 'upright'] as const)
      for (const wrist of [0, 12, 46, -20]) {
        const { elbow, wrist: joint, knuckle } = armJoints({ ...ARM, hold, wrist })
        expect(180 - angleAt(joint, elbow, knuckle)).toBeCloseTo(Math.abs(wrist), 6)
      }
  })

  it('the player: the scroll hangs, the endpin is long and the instrument leans as told', () => {
    const { button, scroll } = shoulderJoints({ ...SHOULDER, droop: 18 })
    expect(heading(button, scroll)).toBeCloseTo(-18, 6)
    for (const pose of [CELLIST, BASSIST]) {
      const low = playerJoints(pose)
      const high = playerJoints({ ...pose, endpinMm: pose.endpinMm + 50 })
      expect(heading(low.floorPin, low.peg)).toBeCloseTo(90 + pose.lean, 6)
      expect(distance(low.peg, high.peg)).toBeCloseTo(50, 6)
      // Beside the head of who is set up rightly: cello pegs, and the lowest machine level with the ear.
      expect(Math.abs(low.ear.y - low.peg.y)).toBeLessThan(pose === CELLIST ? 120 : 60)
    }
  })
})
