import { expect, it } from 'vitest'
import type { FamilyId } from '../instrument'
import { faultyHand, seededSource, STEADY_HAND, type HandFaults } from '../simulate'
import { landingAtCents, landingOfReading, sideSeen, targetsOf, type Exercise, type Landing } from '../take'
import { shaped, strung } from '../testing'
import { judge, summaryOf, type EarlierTake, type JudgedTake } from './index'

/**
 * What is said of takes at and about every boundary, word for word: whoever changes a number that decides sees in `baseline.txt` which
 * verdicts it moves, and says why. Whether they are true is asked elsewhere (`verdict.test.ts`, `bench/verdict`).
 */
const LENGTHS: Record<FamilyId, number> = { violin: 328, viola: 371, cello: 690, bass: 1050 }
const FAMILIES = Object.keys(LENGTHS) as FamilyId[]

/** Sizes about what is told, in parts of the open string's length. */
const FAULTS: readonly (readonly [string, (mm: number) => Partial<HandFaults>])[] = [
  ['well', () => ({})],
  ['hand', (mm) => ({ handOffsetMm: mm })],
  ['frame', (mm) => ({ frameErrorMm: -1.5 * mm })],
  ['last', (mm) => ({ fingerOffsetMm: { 4: -mm } })],
  ['2', (mm) => ({ fingerOffsetMm: { 2: mm } })],
  ['1 and 3', (mm) => ({ fingerOffsetMm: { 1: mm, 3: -mm } })],
  ['steps', (mm) => ({ halfStepMm: 0.8 * mm })],
  ['thumb', (mm) => ({ lockedThumbMm: 1.4 * mm })],
  ['elbow', (mm) => ({ elbowMm: 2 * mm })],
  ['creep', (mm) => ({ creepMm: 1.8 * mm })],
  ['scatter', (mm) => ({ scatterCents: 6 * mm })],
  ['string', (mm) => ({ openCents: [0, -5 * mm, 0, 0] })],
  ['unseen', (mm) => ({ withoutTapesCents: 8 * mm })],
]

interface Asked {
  readonly family: FamilyId
  readonly hand: Partial<HandFaults>
  readonly seed: number
  readonly rounds: number
  readonly strings: readonly number[]
  readonly covered?: boolean
}

function playedTake({ family, hand, seed, rounds, strings, covered = false }: Asked): JudgedTake {
  const stringing = strung(family, LENGTHS[family])
  const once = strings.flatMap((stringIndex) => shaped(family, stringIndex).notes)
  const exercise: Exercise = {
    name: { kind: 'free' },
    notes: Array.from({ length: rounds }, () => once).flat(),
  }
  const source = seededSource(seed)
  const faults = { ...STEADY_HAND, scatterCents: 4, ...hand }
  const at = faultyHand(source, stringing, exercise, faults, { tapesCovered: covered })
  const landings = targetsOf(stringing, exercise).map((target, i, all) => {
    const cents = at(target, i / all.length)
    return landingAtCents(stringing, target, cents, {
      sigmaCents: 1 + 2 * source(),
      atMs: 400 * i,
      source: 'microphone',
      heard: {
        settledCents: cents * (seed % 3 === 0 ? 0.25 : 0.9),
        settledSigmaCents: 1,
        lastsMs: 300 + 600 * source(),
        confidence: 0.8 + 0.2 * source(),
        wobbleCents: 1 + 9 * source() * (seed % 4),
        brightnessDb: target.finger === 3 ? -3 * (seed % 4) : source(),
        ...(seed % 5 === 0 && { vibratoWidthCents: 20 + 20 * source(), vibratoTopCents: 20 * source() }),
      },
    })
  })
  return { stringing, exercise, landings, toleranceCents: 6 + (seed % 4) * 4, tapesCovered: covered }
}

/** The same notes as a ruler and an eye would have told them, a tape under 1 and under 3. */
function seenTake(take: JudgedTake, by: 'ruler' | 'eye', tapeOffMm: number): JudgedTake {
  const targets = targetsOf(take.stringing, take.exercise)
  const tapesMm = [1, 3].flatMap((finger) => {
    const target = targets.find((one) => one.finger === finger)
    return target ? [target.placeMm + (finger === 1 ? tapeOffMm : 0)] : []
  })
  const landings = take.landings.flatMap((landing, i): Landing[] => {
    if (landing.finger === 0) return []
    const offMm = Math.round(landing.placeMm - targets[i]!.placeMm)
    const reading = by === 'ruler' ? { offMm } : { side: sideSeen(landing.cents) }
    return [landingOfReading(take.stringing, landing, reading, { tapesMm })]
  })
  return { ...take, landings, tapesMm }
}

/** Four figures of each number; what only repeats the notes is left out. */
function told(value: unknown): string {
  const keep = (key: string, one: unknown) => {
    if (['target', 'probability', 'spreadCents', 'count'].includes(key)) return undefined
    return typeof one !== 'number' ? one : Math.abs(one) < 1e-6 ? 0 : Number(one.toPrecision(4))
  }
  return JSON.stringify(value, keep).replace(/"/g, '')
}

it('says of the same takes what it said before', async () => {
  const lines: string[] = []
  const say = (title: string, take: JudgedTake) => {
    const { verdict, likely } = judge(take)
    const most = Object.entries(likely ?? {}).sort(([, a], [, b]) => b - a)
    lines.push(
      `${title}: ${told(verdict)} likely ${told(most.slice(0, 4))} in numbers ${told(summaryOf(take) ?? null)}`,
    )
    return likely
  }
  let seed = 0
  for (const [title, hand] of FAULTS)
    for (const size of [0.6, 1.2, 2.4]) {
      const family = FAMILIES[seed % 4]!
      const mm = (size * LENGTHS[family]) / 100
      const strings = seed % 3 === 0 ? [0, 1, 2] : [1 + (seed % 2)]
      const asked = { family, hand: hand(mm), seed: ++seed, strings }
      for (const rounds of [1, 2, 5]) {
        const take = playedTake({ ...asked, rounds, covered: title === 'unseen' })
        const name = `${family} ${title} ${size} on ${strings.join('')} ×${rounds} ±${take.toleranceCents}`
        const likely = say(name, take)
        if (rounds === 1) continue
        const by = rounds === 2 ? 'eye' : 'ruler'
        say(`${name} by ${by}`, seenTake(take, by, size === 2.4 ? 0 : 2 * mm))
        const earlier: EarlierTake = {
          ...playedTake({ ...asked, seed: seed + 100, rounds }),
          daysAgo: 3 * rounds,
          tapesCovered: false,
          likely,
        }
        if (size === 1.2) say(`${name} after another`, { ...take, earlier: [earlier] })
      }
    }
  await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot('baseline.txt')
})
