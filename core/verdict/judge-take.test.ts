import { describe, expect, it } from 'vitest'
import { exerciseOf } from '../exercise'
import { familyOf } from '../instrument'
import { placementContext } from '../pattern'
import { NO_FAULTS, playExercise, seededSource, type PlayerFaults } from '../simulate'
import { playedNotes, shapeExercise, type ExerciseName, type Landing } from '../take'
import { landed, shaped, strung } from '../testing'
import { judgeHand, judgeTake, leadingVerdict } from './index'

const violin = strung('violin', 328)
const context = placementContext(violin.family, violin.tuning)
function exercise(name: ExerciseName) {
  const made = exerciseOf(context, name)
  if (!made.ok) throw new Error(made.code)
  return made.exercise
}
const twoOctaves = exercise({ kind: 'scale', keyId: 'G:major', octaves: 2, openStrings: 'prefer' })
const play = (faults: Partial<PlayerFaults>) =>
  playExercise(seededSource(14), violin, twoOctaves, { ...NO_FAULTS, ...faults })
const judge = (landings: readonly Landing[], of = twoOctaves) =>
  judgeTake({ stringing: violin, exercise: of, landings, toleranceCents: 10 })

describe('a take over several strings', () => {
  it('of one hand is judged as a hand on one string always was', () => {
    const onA = { stringing: violin, exercise: shaped('violin'), toleranceCents: 10 }
    const landings = landed(onA, [
      [1, 3],
      [2, 5],
      [3, -4],
      [4, -22],
    ])
    expect(judgeTake({ ...onA, landings })).toEqual([
      { stringIndex: 2, positionId: 'first', verdict: judgeHand({ ...onA, landings }) },
    ])
  })

  it('has a verdict for each string, each from its own notes and its own open string', () => {
    const open = twoOctaves.notes.find((n) => n.finger === 0 && n.stringIndex === 1)!
    const untunedD = { ...play({})[0]!, ...open, cents: 14, placeMm: 0 }
    // The hand lies too far up on the A string alone.
    const landings = [
      untunedD,
      ...play({}).filter((l) => l.stringIndex !== 2),
      ...play({ handOffsetMm: 4 }).filter((l) => l.stringIndex === 2),
    ]
    const hands = judge(landings)
    expect(hands.map(({ stringIndex, verdict }) => [stringIndex, verdict.outcome])).toEqual([
      [0, 'in_tune'],
      [1, 'string_out_of_tune'],
      [2, 'explained'],
      [3, 'not_enough_notes'],
    ])
    expect(hands[2]!.verdict).toMatchObject({ findings: [{ code: 'whole_hand' }] })
    // The pegs before the hand, the hand before what is well.
    expect(leadingVerdict(hands)?.stringIndex).toBe(1)
    expect(leadingVerdict(judge(landings.slice(1)))?.stringIndex).toBe(2)
    expect(leadingVerdict(judge(play({})))?.verdict.outcome).toBe('in_tune')
  })

  it('keeps positions of one string apart: the same finger stands on two notes', () => {
    const notes = [
      ...shapeExercise(violin.tuning, 2, familyOf('violin').shapes[0]!).notes,
      ...exercise({ kind: 'hand', keyId: 'D:major', stringIndex: 2, positionId: 'third' }).notes.slice(1),
    ]
    const line = { name: twoOctaves.name, notes }
    const landings = playExercise(seededSource(3), violin, line, NO_FAULTS).map((landing) =>
      landing.positionId === 'third' ? { ...landing, cents: landing.cents + 20 } : landing,
    )
    expect(judge(landings, line).map(({ positionId, verdict }) => [positionId, verdict.outcome])).toEqual([
      ['first', 'in_tune'],
      ['third', 'explained'],
    ])
  })

  it('says nothing of nothing', () => {
    expect(judge([], { name: { kind: 'free' }, notes: [] })).toEqual([])
    expect(leadingVerdict([])).toBeUndefined()
    expect(playedNotes(twoOctaves)).toHaveLength(29)
  })
})
