// Findings and files for tests and benches; no part of what core offers.
import { randomUniform } from 'd3-random'
import { dayNumber, dayOf } from '../calendar'
import { FAMILY_IDS, familyOf } from '../instrument'
import { seededSource } from '../simulate'
import { GATE_IDS, roundItems, USUAL_SCHOOLS } from '../setup'
import type { Finding } from '../verdict'
import { PRACTICE_IDS } from './exercises'
import type { OwnExercise } from './own'
import type { PlanFacts } from './wishes'

/** A frame that is so much too wide, or too narrow. */
export function frameFinding(errorMm: number): Extract<Finding, { code: 'frame' }> {
  const fingers = { fromFinger: 1, toFinger: 4, shownBy: 4 } as const
  return {
    code: 'frame',
    errorMm,
    plusMinusMm: 1,
    where: 'last',
    expectedMm: 60,
    cents: 5 * errorMm,
    ...fingers,
  }
}

export function fingerFinding(finger: 1 | 2 | 3 | 4, cents: number): Extract<Finding, { code: 'finger' }> {
  return { code: 'finger', finger, cents, offsetMm: cents / 6, plusMinusMm: 1 }
}

const HAND: readonly Finding[] = [
  fingerFinding(2, 18),
  fingerFinding(4, -27),
  frameFinding(-4),
  frameFinding(3),
  { code: 'whole_hand', offsetMm: 4, plusMinusMm: 1, openStringHeard: true },
  { code: 'elbow', shortMm: 5, plusMinusMm: 1, finger: 4, cents: -30 },
  { code: 'creep', offsetMm: 5, plusMinusMm: 1, cents: 20 },
  { code: 'scatter', cents: 20, leastCents: 15 },
  { code: 'vibrato', aboveCents: 12, widthCents: 40 },
]

/** What a file may say on a day: other things for every seed, the same for the same. */
export function someFacts(seed: number, today: string): PlanFacts {
  const uniform = randomUniform.source(seededSource(seed))(0, 1)
  const some = <T>(from: readonly T[], part: number) => from.filter(() => uniform() < part)
  const before = (most: number) => dayOf(dayNumber(today) - Math.ceil(uniform() * most))
  const familyId = FAMILY_IDS[Math.floor(uniform() * FAMILY_IDS.length)]!
  return {
    familyId,
    strings: familyOf(familyId).tuning.length,
    age: uniform() < 0.2 ? undefined : 5 + Math.floor(uniform() * 15),
    schools: { ...USUAL_SCHOOLS, waiting_fingers: uniform() < 0.3 ? 'rest' : 'hover' },
    isBeginner: uniform() < 0.6,
    pains: 0,
    closedGates: some(GATE_IDS, 0.5),
    found: some(HAND, 0.25).map((finding) => ({
      finding,
      takenOn: before(10),
      certainty: uniform() < 0.6 ? 1 : 0.5,
      says: uniform() < 0.5 ? 'accepted' : undefined,
    })),
    held: some(HAND, 0.15).map((finding) => ({ finding, heldOn: [before(30), before(6)].sort() })),
    setup: some(roundItems(familyId), 0.12).map(({ id }) => ({
      itemId: id,
      answer: uniform() < 0.5 ? 'no' : 'nearly',
      seenOn: before(10),
    })),
    learning: some(['fourth/1234/212'], 0.5),
    pieces: some(['Ferry Steps'], 0.7),
    log: some(PRACTICE_IDS, 0.5)
      .map((exerciseId) => ({ exerciseId, on: before(60) }))
      .sort((a, b) => (a.on < b.on ? -1 : 1)),
    asked: [],
  }
}

/** An exercise of a studio’s own, of whatever else is not said. */
export function ownExercise(said: Partial<OwnExercise> & Pick<OwnExercise, 'id'>): OwnExercise {
  return {
    name: 'Rocking boat',
    how: 'Rock the hand.',
    stop: '',
    part: 'aim',
    families: FAMILY_IDS,
    minutes: 3,
    times: null,
    fromAge: null,
    findings: [],
    items: [],
    notes: '',
    writtenFor: 'violin',
    isOffered: true,
    ...said,
  }
}
