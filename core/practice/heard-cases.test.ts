import { describe, expect, it } from 'vitest'
import { readTake, landingsOf, TakeListener } from '../listen'
import { mannerOf, perform, record, seededSource, type Manner, type PlayerLevel } from '../simulate'
import { shaped, strung } from '../testing'
import { judgeTake } from '../verdict'

const RATE_HZ = 22_050
const violin = strung('violin', 328)
const hand = shaped('violin')
const line = Array.from({ length: 4 }, () => hand.notes.slice(1)).flat()

/** What is told of four rounds of a hand that were played, made to sound, and listened to. */
function heard(level: PlayerLevel, faults: Parameters<typeof mannerOf>[1], more: Partial<Manner> = {}) {
  const manner = { ...mannerOf(level, faults), tempo: 90, ...more }
  const performance = perform(seededSource(5), violin, { ...hand, notes: line }, manner)
  const listener = new TakeListener(RATE_HZ)
  listener.push(record(seededSource(6), performance, { sampleRateHz: RATE_HZ }))
  const landings = landingsOf(violin, readTake(listener.end().notes, violin, line), 'microphone')
  return judgeTake({ stringing: violin, exercise: hand, landings, toleranceCents: 10 })
}

describe('what is heard beside where fingers land, of sound', () => {
  it.each([
    ['a trained hand', 'trained', {}, {}, []],
    ['a beginner’s unsteady finger', 'beginner', {}, { tempo: 60 }, []],
    ['a finger that collapses', 'trained', { wobbleCents: 12 }, { tempo: 60 }, ['wobble']],
    ['a finger that touches its neighbour', 'trained', { dullness: 0.7, dullFinger: 3 }, {}, ['dull']],
    ['an ear that mends', 'trained', { handOffsetMm: 3, repairs: 0.8 }, {}, ['ear_repairs']],
    [
      'a vibrato down and back',
      'trained',
      {},
      { vibrato: { rateHz: 5.5, widthCents: 30, aboveCents: 0 } },
      [],
    ],
    [
      'a vibrato about the note',
      'trained',
      {},
      { vibrato: { rateHz: 5.5, widthCents: 32, aboveCents: 16 } },
      ['vibrato'],
    ],
  ] as const)('%s', (_, level, faults, manner, codes) => {
    expect(heard(level, faults, manner).beside?.map(({ code }) => code) ?? []).toEqual(codes)
  })
})
