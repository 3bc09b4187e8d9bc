// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick, ref } from 'vue'
import { placedStops, touchingPairs } from '#core'
import { useBench } from '../../stores/bench'
import { fakeServer, freshStores } from '../../testing'
import { FIRST_LINE, useLine, type LineChoice } from './useLine'
import { usePatterns } from './usePatterns'

const choice = ref<LineChoice>({ ...FIRST_LINE })
let patterns: ReturnType<typeof usePatterns>
let line: ReturnType<typeof useLine>

beforeEach(() => {
  sessionStorage.clear()
  fakeServer({ status: 200, body: [] })
  freshStores()
  choice.value = { ...FIRST_LINE }
  patterns = usePatterns()
  line = useLine(choice, patterns)
})

describe('fingertips on the bench', () => {
  it('are judged by the places of the tuning system, not by equal steps', () => {
    const { atlas } = patterns
    patterns.choice.keyId = 'A:harmonic_minor'
    const cell = atlas.cells.value[1]!
    if (cell.kind === 'none') throw new Error(cell.reason)
    const places = placedStops(useBench().stringing, cell)
    const found = touchingPairs(cell, places, 12)
    expect(found.map((t) => t.pair)).toEqual([
      [1, 2],
      [3, 4],
    ])
    // In a chain of fifths G♯ lies high, so that A is 90 cents on: 256:243, published as the Pythagorean limma.
    const limma = 328 * (512 / 729 - 2 / 3)
    expect(found[1]!.touching.stepMm).toBeCloseTo(limma, 6)
  })
})

describe('a line to practise', () => {
  it('is a scale with fingers, in step on paper, board and in sound', () => {
    expect(line.notes.value.map((n) => n.finger).slice(0, 8)).toEqual([0, 1, 2, 3, 0, 1, 2, 3])
    expect(line.score.value).toMatchObject({ clef: 'treble', signature: 'D' })
    expect(line.score.value.bars.flat()).toHaveLength(line.notes.value.length)
    expect(line.pitches.value).toHaveLength(line.notes.value.length)
    const now = line.fingersAt(2).filter((f) => !f.isPale)
    expect(now).toMatchObject([{ stringIndex: 1, finger: 2, note: 'F♯' }])
    // An open string has no finger on the board.
    expect(line.fingersAt(0).some((f) => !f.isPale)).toBe(false)
  })

  it('sounds in the tuning system of the bench: a ring is not equal', async () => {
    const rung = line.pitches.value[2]!
    useBench().setup.systemId = 'equal'
    await nextTick()
    const equal = line.pitches.value[2]!
    // F♯ as a major third of pure fifths is 407.8 cents above D, less the two cents that D hangs lower: published, 81:64.
    expect(rung - line.pitches.value[0]!).not.toBeCloseTo(400, 1)
    expect(equal).toBe(-300)
  })

  it('takes as long as tempo and note values ask', () => {
    expect(line.noteMs.value).toBe(1000)
    choice.value.tempo = 120
    choice.value.value = 'sixteenth'
    expect(line.noteMs.value).toBe(125)
  })

  it('says why there is nothing to play, and offers each family its own drills', async () => {
    choice.value.figure = 'fourth_against_open'
    patterns.choice.stringIndex = 3
    expect(line.run.value.fault).toContain('has not the fingers')
    patterns.choice.positionId = 'half'
    expect(line.run.value.fault).toContain('no hand')
    expect(line.offered.value.map((d) => d.id)).not.toContain('bass_roll')
    useBench().setup.familyId = 'bass'
    await nextTick()
    expect(line.offered.value.map((d) => d.id)).toContain('bass_roll')
    choice.value.figure = 'scale'
    choice.value.octaves = 3
    patterns.choice.keyId = 'C:major'
    expect(line.run.value.fault).toContain('do not hold 3 octaves')
  })
})
