import { describe, expect, it } from 'vitest'
import { landedPlaces, targetsOf, type Exercise } from '../take'
import { landed, shaped, strung } from '../testing'
import { judgeTake, strayLandings } from './index'

const stringing = strung('violin', 328)
const hand = shaped('violin')
const [onA, onD] = [shaped('violin', 2), shaped('violin', 1)]
const both: Exercise = { ...onA, notes: [...onA.notes, ...onD.notes] }
const D = 1

/** Rounds over both strings, every second one a cent sharper; `off` tells each note by string, finger and round. */
function judged(off: (string: number, finger: number, round: number) => number, rounds = 3) {
  const notes = targetsOf(stringing, both).filter(({ finger }) => finger > 0)
  const landings = Array.from({ length: rounds }, (_, round) => round).flatMap((round) =>
    landed(
      { stringing, exercise: both },
      notes.map(({ finger, stringIndex }, i) => [
        finger as 1,
        off(stringIndex, finger, round) + ((i + round) % 3) - 1,
        stringIndex,
      ]),
    ),
  )
  return judgeTake({ stringing, exercise: both, landings, toleranceCents: 10 })
}

describe('a note that is off every time', () => {
  it.each([-50, -80, 60])('is a finding of its own, %i cents off on one string of two', (cents) => {
    const verdict = judged((string, finger) => (string === D && finger === 2 ? cents : 0))
    expect(verdict).toMatchObject({
      outcome: 'explained',
      findings: [{ code: 'place', finger: 2, string: 'D4', note: 'F♯4', count: 3 }],
    })
    const [place] = 'findings' in verdict ? verdict.findings : []
    expect(place?.code === 'place' && Math.abs(place.cents - cents)).toBeLessThan(1.5)
    expect(place?.code === 'place' && place.plusMinusCents).toBeLessThan(9)
    expect(place?.code === 'place' && place.plusMinusCents).toBeGreaterThan(6)
    expect(verdict.strays).toBeUndefined()
  })

  it('is told from three times on, or from two if it is far off', () => {
    const placed = (cents: number, rounds: number) => {
      const verdict = judged((string, finger) => (string === D && finger === 2 ? cents : 0), rounds)
      return 'findings' in verdict && verdict.findings.some(({ code }) => code === 'place')
    }
    expect([placed(-21, 2), placed(-30, 2), placed(-21, 3)]).toEqual([false, true, true])
  })

  it('stands beside what is wrong with the whole hand', () => {
    const verdict = judged((string, finger) => 25 + (string === D && finger === 2 ? -75 : 0))
    expect(verdict).toMatchObject({ outcome: 'explained', beside: [{ code: 'place', finger: 2 }] })
    expect('findings' in verdict && verdict.findings[0]?.code).toBe('whole_hand')
  })
})

describe('a stray', () => {
  it('is left out and said: once, or where the same note was right another time', () => {
    const once = judged((string, finger, round) => (string === D && finger === 3 && round === 1 ? 70 : 0))
    expect(once).toMatchObject({ outcome: 'in_tune', strays: [{ finger: 3, string: 'D4' }] })
    const twice = judged((string, finger, round) => (string === D && finger === 3 && round > 0 ? 70 : 0))
    expect(twice.strays).toHaveLength(2)
    // One note of a kind, however far, may be a slip.
    const single = judged((string, finger) => (string === D && finger === 2 ? -60 : 0), 1)
    expect('findings' in single && single.findings.some(({ code }) => code === 'place')).toBe(false)
  })

  it('is counted in no mean of its place, unless it is all that was read there', () => {
    const heard = [0, 1, -1, 70, 0].flatMap((third) =>
      ([1, 2, 4] as const).map((finger) => [finger, 0] as const).concat([[3, third]] as never),
    )
    const landings = landed({ stringing, exercise: hand }, heard)
    const strays = strayLandings({ stringing, exercise: hand, landings, toleranceCents: 10 })
    expect([...strays].map(({ cents }) => cents)).toEqual([70])
    const [place] = landedPlaces(stringing, landings, strays).filter(({ target }) => target.finger === 3)
    expect(place).toMatchObject({ meanCents: 0, strays: [{ cents: 70 }] })
    expect(place!.landings).toHaveLength(5)
    const [alone] = landedPlaces(stringing, [...strays], strays)
    expect(alone).toMatchObject({ meanCents: 70, strays: [] })
  })

  it('is none of a note that agrees with the others, though it is off with them', () => {
    expect(judged(() => 0).strays).toBeUndefined()
    expect(judged(() => 30).strays).toBeUndefined()
  })
})

it('a hand on one string is judged by its fingers', () => {
  const notes = targetsOf(stringing, hand).filter(({ finger }) => finger > 0)
  const landings = [0, 1, 2].flatMap((round) =>
    landed(
      { stringing, exercise: hand },
      notes.map(({ finger }, i) => [finger as 1, (finger === 2 ? -50 : 0) + ((i + round) % 3) - 1]),
    ),
  )
  expect(judgeTake({ stringing, exercise: hand, landings, toleranceCents: 10 })).toMatchObject({
    outcome: 'explained',
    findings: [{ code: 'finger', finger: 2 }],
  })
})
