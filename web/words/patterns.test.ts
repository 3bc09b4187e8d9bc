import { describe, expect, it } from 'vitest'
import {
  familyOf,
  frameWidthMm,
  keyOf,
  note,
  patternsOf,
  touching,
  placementAt,
  placementContext,
  handMeasureFault,
  parseKey,
  scoreOf,
  type WhenFits,
} from '#core'
import { drillName } from './drills'
import { handFaultSentence, whenSentence } from './hand-fit'
import { keyFaultSentence, keyName } from './keys'
import { lowerPlaceSentence, noPlacementLegend, patternName, stepsName, touchSentence } from './patterns'
import { positionName, shortPositionName } from './positions'
import { stringMark } from './score'
import { showAs } from './shown'

const patternOf = (family: 'violin' | 'cello' | 'bass', id: string) =>
  patternsOf(familyOf(family)).find((p) => p.id === id)!
const named = (family: 'violin' | 'cello' | 'bass', id: string) =>
  patternName(familyOf(family), patternOf(family, id))

describe('the words of patterns', () => {
  it('name a violin’s pattern by the fingers that touch', () => {
    expect(named('violin', 'fourth/1234/212')).toBe('2 and 3 touch')
    expect(named('violin', 'fourth/1234/121')).toBe('1–2 and 3–4 touch')
    expect(named('violin', 'fourth/1234/112')).toBe('1, 2 and 3 touch')
    expect(named('violin', 'fourth/1234/222')).toBe('no fingers touch')
    expect(named('violin', 'fourth/1234/111')).toBe('all fingers touch')
    expect(stepsName(patternOf('violin', 'fourth/1234/131'))).toBe('H A H')
  })

  it('name a cello’s and a bass’s by its half steps, since there fingers do not touch', () => {
    expect(named('cello', 'closed/134/21')).toBe('1 3 4, half step 3–4')
    expect(named('cello', 'extended/124/22')).toBe('1 2 4, no half step')
    expect(named('bass', 'one_two_four/124/11')).toBe('1 2 4, half step 1–2 and 2–4')
  })

  it('name keys and positions as each family does', () => {
    expect(keyName(keyOf(note('F♯4'), 'harmonic_minor'))).toBe('F♯ harmonic minor')
    const [half, , third, fourth] = familyOf('bass').positions
    expect([half!, third!, fourth!].map(shortPositionName)).toEqual(['half', 'II', 'II½'])
    expect(positionName(familyOf('cello').positions[4]!)).toBe('fourth position')
    expect(positionName(third!)).toBe('position II')
    // Semitones under 1 and their names: common practice, no source.
    const names = familyOf('bass').positions.map(shortPositionName)
    expect(names.join(' ')).toBe('half I II II½ III III½ IV V V½ VI VI½ VII')
    showAs({ lengthUnit: 'mm', noteNames: 'letters', bassPositions: 'semitones' })
    expect([third!, fourth!].map(shortPositionName)).toEqual(['3 st', '4 st'])
    expect(positionName(third!)).toBe('1 at 3 semitones')
    showAs({ lengthUnit: 'mm', noteNames: 'letters' })
  })

  it('say that a cello’s hand lies in half position, or in a lower place', () => {
    const cello = familyOf('cello')
    const context = placementContext(cello, cello.tuning)
    const lies = (keyText: string, string: number, position: number) => {
      const parsed = parseKey(keyText)
      const cell = parsed.ok && placementAt(context, parsed.key, string, cello.positions[position]!)
      return cell && cell.kind === 'placement' && cell.extension === 'none'
        ? lowerPlaceSentence(cello, cell)
        : '–'
    }
    expect(lies('A♭', 3, 1)).toBe('The hand lies in half position.')
    expect(lies('C', 0, 1)).toBeUndefined()
    expect(lies('E♭', 2, 2)).toBe('The hand lies in the lower second position.')
  })

  it('call a drill by the fingers that roll', () => {
    const [three, four] = familyOf('bass').frames
    expect([three, four].map((frame) => drillName('bass_roll', frame))).toEqual([
      'Rolling 1-2-4',
      'Rolling 1-2-3-4',
    ])
    expect(drillName('up_from_open', four)).toBe('0-1-2-3-4 and back')
    // Kept without its school.
    expect(drillName('bass_roll')).toBe('Rolling the hand')
  })

  it('mark a bass’s strings by name, for its positions have the numerals', () => {
    const scoreOn = (id: 'cello' | 'bass') => scoreOf(id, keyOf(note('C4'), 'major'), [], 'quarter')
    expect([1, 4].map((string) => stringMark(scoreOn('cello'), string))).toEqual(['I', 'IV'])
    expect([1, 4].map((string) => stringMark(scoreOn('bass'), string))).toEqual(['sul G', 'sul E'])
  })

  it('say by how much fingertips overlap, and what players do', () => {
    expect(touchSentence([2, 3], touching(frameWidthMm(197, 4, 1), 11))).toMatch(
      /^2–3: 8\.8 mm, 2\.2 mm too narrow: lift/,
    )
    expect(touchSentence([2, 3], touching(frameWidthMm(690, 3, 1), 14))).toContain('room between them')
  })

  it('say what is wrong with a key or a hand, and what to do', () => {
    const fault = (text: string) => {
      const parsed = parseKey(text)
      return parsed.ok ? '' : keyFaultSentence(parsed.fault)
    }
    expect(fault('H major')).toContain('begin with a letter from A to G')
    expect(fault('D jazz')).toContain('“jazz” is no scale here')
    expect(fault('')).toContain('Type a key')
    expect(handFaultSentence(handMeasureFault('span', 400)!)).toBe(
      'A span from 1 to 4 of 400.0 mm is no hand’s: 30 to 190 mm.',
    )
    expect(handFaultSentence(handMeasureFault('span', 6.4)!)).toContain(
      'Were these centimetres? Then it is 64.0 mm.',
    )
  })

  it('tell when a size will fit, as far as it can be told', () => {
    const dayOf = (day: number) => `2027-01-${String(day).padStart(2, '0')}`
    const said = (when: WhenFits) => whenSentence(when, '¾', dayOf, 10)
    expect(said({ outcome: 'now' })).toBe('The ¾ fits now.')
    expect(said({ outcome: 'on', day: 15, earliestDay: 3, latestDay: 28 })).toBe(
      'The ¾ will probably fit about 15 Jan 2027 (four times in five between now and 28 Jan 2027).',
    )
    expect(said({ outcome: 'on', day: 15, earliestDay: 12, latestDay: 28 })).toContain(
      'between 12 Jan 2027 and',
    )
    expect(said({ outcome: 'far_off' })).toContain('more than three years')
    expect(said({ outcome: 'too_early' })).toContain('Too early to name a day for the ¾')
  })
})

it('explains each word that stands in a cell without a hand, and no other', () => {
  const context = placementContext(familyOf('violin'), familyOf('violin').tuning)
  const half = familyOf('violin').positions[0]!
  const cells = [0, 1, 2, 3].map((string) => placementAt(context, keyOf(note('D4'), 'major'), string, half))
  expect(noPlacementLegend(cells)).toBe(
    '“open”: the note of 1 is the open string itself, so no hand lies there.',
  )
  expect(noPlacementLegend([])).toBe('')
})
