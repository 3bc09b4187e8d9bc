import { expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, THUMB, type Digit, type FamilyId } from '../instrument'
import { keysOf, MODE_IDS, type Key } from '../key'
import { midiNumber, noteName } from '../pitch'
import { placementContext } from '../pattern'
import type { PlacementContext } from '../technique'
import { fingerScale, type FingeredNote, type FigureId } from './index'

/**
 * What hands span, told once more and apart from the techniques: docs/trade.md § 4 and § 9. Semitones from the lower to the
 * higher finger, least and most; fingers that lie between take what is left.
 */
type Spans = Readonly<Record<string, readonly [least: number, most: number]>>
const FOURTH: Spans = {
  '12': [1, 3],
  '13': [2, 5],
  '14': [4, 6],
  '23': [1, 3],
  '24': [2, 5],
  '34': [1, 3],
}
const CLOSED: Spans = { '12': [1, 1], '13': [2, 2], '14': [3, 3], '23': [1, 1], '24': [2, 2], '34': [1, 1] }
const EXTENDED: Spans = { '12': [2, 2], '13': [3, 3], '14': [4, 4], '23': [1, 1], '24': [2, 2], '34': [1, 1] }
const UPPER: Spans = { '12': [1, 2], '13': [2, 4], '23': [1, 2] }
const THUMBED: Spans = { ...UPPER, T1: [1, 2], T2: [2, 4], T3: [4, 6] }
const ONE_TWO_FOUR: Spans = { '12': [1, 1], '14': [2, 2], '24': [1, 1] }
const BASS_UPPER: Spans = { '12': [1, 1], '13': [2, 2], '23': [1, 1] }
// The thumb on the string, 3 a fourth above it at most, where half the string is left.
const BASS_THUMBED: Spans = { ...UPPER, T1: [1, 2], T2: [2, 4], T3: [3, 5] }
const FRAMES: Record<FamilyId, readonly Spans[]> = {
  violin: [FOURTH],
  viola: [FOURTH],
  cello: [CLOSED, EXTENDED, UPPER, THUMBED],
  bass: [ONE_TWO_FOUR, BASS_UPPER, BASS_THUMBED],
}
/** The minority school: a minor third from 1 to 4. */
const FOUR_FINGERS = [CLOSED, BASS_UPPER, BASS_THUMBED]

const rank = (finger: Digit) => (finger === THUMB ? 0 : finger)
const nameOf = (finger: Digit) => (finger === THUMB ? 'T' : String(finger))

function isOneFrame(frame: Spans, stops: readonly FingeredNote[]): boolean {
  return stops.every((a, i) =>
    stops.slice(i + 1).every((b) => {
      if (a.finger === b.finger) return a.semitones === b.semitones
      const [low, high] = rank(a.finger) < rank(b.finger) ? [a, b] : [b, a]
      const span = frame[nameOf(low.finger) + nameOf(high.finger)]
      const apart = high.semitones - low.semitones
      return span !== undefined && apart >= span[0] && apart <= span[1]
    }),
  )
}

/** Notes between two shifts: the same hand, string by string. */
function hands(notes: readonly FingeredNote[]): FingeredNote[][] {
  const all: FingeredNote[][] = []
  let before = ''
  for (const n of notes) {
    if (n.finger === 0) continue
    const { anchor, holdId } = n.hand!
    const now = `${n.stringIndex} ${anchor} ${holdId}`
    if (now !== before) all.push([])
    before = now
    all.at(-1)!.push(n)
  }
  return all
}

function faultsOf(
  id: FamilyId,
  frames: readonly Spans[],
  context: PlacementContext,
  notes: readonly FingeredNote[],
): string[] {
  const up = notes.slice(0, (notes.length + 1) / 2)
  const faults: string[] = []
  notes.forEach((n) => {
    if (midiNumber(n.note) - context.openMidis[n.stringIndex]! !== n.semitones) faults.push(noteName(n.note))
    if (id === 'cello' && n.finger === 4 && n.semitones > 11) faults.push('4 beyond the fourth position')
  })
  up.slice(1).forEach((n, i) => {
    if (n.stringIndex < up[i]!.stringIndex) faults.push(`${noteName(n.note)} on a lower string`)
  })
  // A finger may lie lower on the way down than it did on the way up.
  const down = notes.slice(up.length - 1)
  for (const hand of [...hands(up), ...hands(down)])
    if (!frames.some((frame) => isOneFrame(frame, hand)))
      faults.push(hand.map((n) => `${nameOf(n.finger)} at ${n.semitones}`).join(', '))
  return faults
}

function lineName(key: Key, figure: FigureId, isUpright: boolean): string {
  const { degrees, fallsAs = '' } = key.mode
  const own = figure === 'scale' ? degrees : degrees.filter(({ steps }) => [0, 2, 4].includes(steps))
  const tonic = isUpright ? midiNumber(key.tonic) % 12 : noteName(key.tonic, { octave: false })
  return [tonic, figure, ...own.map((d) => d.semitones), figure === 'scale' ? fallsAs : ''].join(' ')
}

it.each([...FAMILY_IDS.map((id) => [id, undefined] as const), ['bass', 'four_finger'] as const])(
  'a %s holds every hand of every scale and arpeggio in a frame, and no rising note goes to a lower string',
  (id, frameId) => {
    const family = familyOf(id)
    const context = placementContext(family, family.tuning, { frameId })
    const frames = frameId === undefined ? FRAMES[id] : FOUR_FINGERS
    const faults: string[] = []
    let played = 0
    const done = new Set<string>()
    for (const key of MODE_IDS.flatMap((mode) => keysOf(mode)))
      for (const figure of ['scale', 'arpeggio'] satisfies FigureId[]) {
        // The same notes are one line, whatever the key is called; to a finger a letter their spelling matters too.
        const line = lineName(key, figure, family.hold !== 'shoulder')
        if (done.has(line) || (key.mode.id === 'chromatic' && family.hold === 'shoulder')) continue
        done.add(line)
        for (const octaves of [1, 2, 3] as const) {
          const made = fingerScale(context, { key, figure, octaves })
          // Only what the strings do not hold is left out: two octaves always are.
          if (!made.ok) expect(octaves, `${key.id} ${figure}`).toBe(3)
          else {
            played += made.notes.length
            for (const fault of faultsOf(id, frames, context, made.notes))
              faults.push(`${key.id} ${figure} ${octaves}: ${fault}`)
          }
        }
      }
    expect(faults.slice(0, 20)).toEqual([])
    expect(played).toBeGreaterThan(6_000)
  },
)

it('the checker finds a hand that no frame holds: 1 and 4 of a cello 163 mm apart', () => {
  const at = (finger: Digit, semitones: number) =>
    ({ finger, semitones, stringIndex: 1, hand: { anchor: 1, holdId: 'closed' } }) as unknown as FingeredNote
  expect(FRAMES.cello.some((frame) => isOneFrame(frame, [at(1, 1), at(2, 3), at(3, 5), at(4, 6)]))).toBe(
    false,
  )
  expect(FRAMES.cello.some((frame) => isOneFrame(frame, [at(1, 1), at(2, 3), at(4, 5)]))).toBe(true)
})
