import { expect, it } from 'vitest'
import type { FamilyId } from '../instrument'
import { noteName } from '../pitch'
import {
  perform,
  PLAIN_MANNER,
  record,
  seededSource,
  STEADY_HAND,
  type Manner,
  type Recording,
} from '../simulate'
import { shaped, strung } from '../testing'
import { hearNotes, landingsOf, readFreeTake, readTake } from './index'

/**
 * What the ear hears of the same sounds, to a tenth: whoever changes one of its numbers sees in `baseline.txt` what it moves. Whether it
 * hears truly is asked of recorded strings and published bounds (`scripts/testing/recorded.test.ts`, `pitch/pitch.test.ts`).
 */
const LENGTHS: Record<FamilyId, number> = { violin: 328, viola: 371, cello: 690, bass: 1050 }
const RATE = 22_050
const SOUNDS: readonly (readonly [string, FamilyId, Partial<Manner>, Partial<Recording>])[] = [
  ['bowed', 'violin', { tempo: 100 }, {}],
  [
    'slurred, with an ear that mends',
    'viola',
    { tempo: 90, slurred: 3, faults: { ...STEADY_HAND, scatterCents: 14, repairs: 0.7 } },
    {},
  ],
  [
    'vibrato',
    'cello',
    { tempo: 60, vibrato: { rateHz: 5.5, widthCents: 40, aboveCents: 8 } },
    { noiseDb: 30 },
  ],
  ['plucked', 'bass', { tempo: 70, stroke: 'pluck' }, { room: 0.3 }],
  [
    'quick and quiet, wobbling',
    'violin',
    { tempo: 150, rest: 0.1, faults: { ...STEADY_HAND, wobbleCents: 8, handOffsetMm: 3 } },
    { levelDb: -45, noiseDb: 20 },
  ],
]

const figures = (value: unknown) =>
  JSON.stringify(value, (_, one: unknown) =>
    typeof one !== 'number' ? one : Math.abs(one) < 0.005 ? 0 : Number(one.toFixed(2)),
  ).replace(/"/g, '')

it('hears of the same sounds what it heard before', async () => {
  const lines: string[] = []
  for (const [title, family, manner, recording] of SOUNDS) {
    const stringing = strung(family, LENGTHS[family])
    const [low, high] = [shaped(family, 1), shaped(family, 2)]
    const exercise = { ...low, notes: [...low.notes, ...high.notes, low.notes[1]!, low.notes[1]!] }
    const source = seededSource(5)
    const performance = perform(source, stringing, exercise, { ...PLAIN_MANNER, ...manner })
    const sound = record(source, performance, { sampleRateHz: RATE, ...recording })
    const { notes, doubleStops } = hearNotes(sound, RATE)
    lines.push(
      `${family} ${title}: double stops ${figures(doubleStops)}`,
      ...notes.map((note) => figures(note)),
    )
    const reading = readTake(notes, stringing, exercise.notes, 440)
    lines.push(
      ...landingsOf(stringing, reading, 'recording').map((one) =>
        figures({ ...one, note: noteName(one.note) }),
      ),
    )
    const { readings, ...rest } = readFreeTake(notes, stringing, 440)
    lines.push(`free: ${readings.map((one) => noteName(one.note)).join(' ')} ${figures(rest)}`)
  }
  await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot('baseline.txt')
})
