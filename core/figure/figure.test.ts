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
  fingerLengthMm,
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
        fc.constantFrom('shoulder', 'knees', 'standing'),
        degrees(0.6, 1.1),
        (angle, knuckleMm, hold, hand) => {
          const joints = sectionJoints({ ...SECTION, fingerAngle: angle, knuckleMm }, hold, hand)
          expect(fingertipAngle(joints)).toBeCloseTo(angle, 6)
          expect(-joints.knuckle.y).toBeCloseTo(knuckleMm, 9)
          expect(distance(joints.knuckle, joints.middle)).toBeCloseTo(BODY_MM.finger[0] * hand, 6)
          expect(distance(joints.last, joints.tip)).toBeCloseTo(BODY_MM.finger[2] * hand, 6)
          const [, knuckle, joint, tip] = joints.thumb
          expect(distance(joint, tip)).toBeCloseTo(BODY_MM.thumb[2] * hand, 6)
          expect(distance(joint, knuckle)).toBeCloseTo(BODY_MM.thumb[1] * hand, 6)
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
        expect(row).toBeCloseTo(turn, 6)
      }),
      { seed: 12 },
    )
  })

  it('the board’s plan: frames of full size, 73 mm on the violin, 98 closed on the cello, 102 on the bass', () => {
    const width = (hold: 'shoulder' | 'knees' | 'standing') => frameWidths(hold)[4] - frameWidths(hold)[1]
    expect(width('shoulder')).toBeCloseTo(73, 0)
    expect(width('knees')).toBeCloseTo(98, -0.5)
    expect(width('standing')).toBeCloseTo(102, -0.5)
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
      expect(heading(low.floorPin, low.peg)).toBeCloseTo(90 - pose.lean, 6)
      expect(distance(low.peg, high.peg)).toBeCloseTo(50, 6)
      // Beside the head of who is set up rightly: cello pegs, and the lowest machine level with the ear.
      expect(Math.abs(low.ear.y - low.peg.y)).toBeLessThan(pose === CELLIST ? 120 : 60)
    }
  })
})

it('a thumb that is soft is bent outwards, one that is locked is straight or bent back', () => {
  for (const hold of ['shoulder', 'knees', 'standing'] as const)
    for (const bend of [-30, -6, 0, 24]) {
      const [, knuckle, joint, tip] = sectionJoints({ ...SECTION, thumbBend: bend }, hold).thumb
      // From bone to bone anticlockwise away from the neck, whichever way the thumb stands.
      const turn = heading(knuckle, joint) - heading(joint, tip)
      expect(((turn + 540) % 360) - 180).toBeCloseTo(bend, 6)
    }
})

it('who plays from the side faces left with the near arm, and an elbow that carries is in front of the body', () => {
  for (const pose of [CELLIST, BASSIST]) {
    const carries = playerJoints(pose)
    const dropped = playerJoints({ ...pose, drop: 1 })
    for (const { floorPin, hip, hand } of [carries, dropped]) {
      expect(floorPin.x).toBeLessThan(hip.x - 200)
      expect(hand.x).toBeLessThan(hip.x)
    }
    expect(carries.elbow.x).toBeLessThan(carries.shoulder.x - 120)
    expect(dropped.elbow.x).toBeGreaterThan(dropped.shoulder.x - 60)
    expect(dropped.elbow.y).toBeGreaterThan(carries.elbow.y + 120)
    // Pegs beside the head, scroll behind or above them.
    expect(Math.abs(carries.peg.x - carries.ear.x)).toBeLessThan(120)
    expect(carries.scroll.y).toBeLessThan(carries.peg.y)
  }
})

it('bones of the fingers keep the proportions that are published: 3 the longest after 2, 4 the shortest', () => {
  const [one, two, three, four] = ([1, 2, 3, 4] as const).map(fingerLengthMm) as [
    number,
    number,
    number,
    number,
  ]
  // Buryanov and Kotiuk 2010, means without the pad: 78.0, 88.3, 84.4 and 66.8 mm.
  expect([one, two, three, four].map((mm) => Math.round(mm * 10) / 10)).toEqual([78, 88.3, 84.4, 66.8])
  const drawn = BODY_MM.finger[0] + BODY_MM.finger[1] + BODY_MM.finger[2]
  expect(Math.abs(drawn - one)).toBeLessThan(6)
})
