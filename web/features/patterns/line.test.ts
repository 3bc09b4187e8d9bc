import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, type EffectScope } from 'vue'
import { placedStops, touchingPairs, THUMB } from '#core'
import type { KeptFingering } from '#contracts'
import { useBench } from '../../stores/bench'
import { useLesson } from '../../stores/lesson'
import { useStudio } from '../../stores/studio'
import { A_STUDENT, fakeServer, freshStores, until, type Sent } from '../../testing'
import { FIRST_LINE, type LineChoice } from './line-choice'
import { useLine } from './useLine'
import { usePatterns } from './usePatterns'

vi.mock('./alternatives.worker?worker', async () => ({
  default: (await import('./testing')).AlternativesAtOnce,
}))

const choice = ref<LineChoice>({ ...FIRST_LINE })
let patterns: ReturnType<typeof usePatterns>
let line: ReturnType<typeof useLine>
let room: EffectScope
let sent: Sent[]

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
  // Whatever is kept comes back as it was sent.
  const kept: KeptFingering[] = []
  sent = fakeServer((request) => {
    if (request.method === 'POST') {
      const {
        line: named,
        notes,
        settled,
      } = request.body as KeptFingering & { notes: KeptFingering['notes'] | null }
      kept.length = 0
      if (notes) kept.push({ line: named, notes, settled, by: 'Hester Lowe', at: '2026-11-27T08:00:00.000Z' })
    }
    return { status: 200, body: kept }
  })
  freshStores()
  choice.value = { ...FIRST_LINE }
  patterns = usePatterns()
  room = effectScope()
  line = room.run(() => useLine(choice, patterns))!
})
afterEach(() => room.stop())

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
    expect(line.score.value).toMatchObject({ clef: 'treble', signs: 2 })
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
    expect(line.run.value.fault).toContain('4 is no open string’s note here')
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

describe('double stops', () => {
  it('stand on the staff two and two, each with both its fingers on the board', () => {
    choice.value.figure = 'thirds'
    const notes = line.notes.value
    expect(notes.length).toBeGreaterThan(5)
    expect(notes.every((n) => n.second !== undefined)).toBe(true)
    const at = notes.findIndex((n) => n.finger !== 0 && n.second!.finger !== 0)
    const now = line.fingersAt(at).filter((f) => !f.isPale)
    expect(now.map((f) => f.finger)).toEqual([notes[at]!.finger, notes[at]!.second!.finger])
    expect(line.offeredDoubles.value).toContain('octaves')
    // Both sound: four or three semitones apart, in whole cents of their tuning.
    const apart = line.upperPitches.value.map((upper, i) => upper! - line.pitches.value[i]!)
    expect(Math.min(...apart)).toBeGreaterThan(280)
    expect(Math.max(...apart)).toBeLessThan(420)
  })
})

describe('the fingering of a scale', () => {
  const played = () =>
    line.notes.value
      .slice(0, 8)
      .map((n) => `${n.stringIndex}.${n.finger}`)
      .join(' ')

  it('can be another one, found beside the page, each with its reason', async () => {
    choice.value.octaves = 2
    await flushPromises()
    expect(line.alternatives.value.map(({ id }) => id)).toEqual(expect.arrayContaining(['usual', 'no_open']))
    line.variant.value = 'no_open'
    expect(line.notes.value.some((n) => n.finger === 0)).toBe(false)
    // It is this student’s: the next one in the lesson has the usual one, and finds their own when they are back.
    useStudio().takeStudent(A_STUDENT)
    useLesson().begin(A_STUDENT.id)
    expect([line.variant.value, line.notes.value[0]!.finger]).toEqual(['usual', 0])
    useLesson().end()
    expect(line.variant.value).toBe('no_open')
    // Another line has its own: what it does not have is the usual one.
    choice.value.octaves = 1
    patterns.choice.keyId = 'G:major'
    await flushPromises()
    expect(line.notes.value[0]!.finger).toBe(0)
  })

  it('is changed note by note, and kept for the studio until the usual one is wanted again', async () => {
    await flushPromises()
    line.own.settle(4, { finger: 4 })
    expect(played()).toBe('1.0 1.1 1.2 1.3 1.4 2.1 2.2 2.3')
    expect(line.own.isChanged.value).toBe(true)
    await line.own.keep('D major', line.fingered.value)
    expect(line.own.isChanged.value).toBe(false)
    expect(line.own.own.value?.settled).toEqual([4])
    expect(played()).toBe('1.0 1.1 1.2 1.3 1.4 2.1 2.2 2.3')
    const post = sent.find((s) => s.method === 'POST')!
    expect((post.body as KeptFingering).line).toMatchObject({
      family: 'violin',
      keyId: 'D:major',
      octaves: 1,
    })
    await line.own.keep('D major', null)
    expect(played()).toBe('1.0 1.1 1.2 1.3 2.0 2.1 2.2 2.3')
  })

  it('comes back note by note, is dropped whole, and stays over a reload', async () => {
    line.own.settle(4, { finger: 4 })
    line.own.settle(6, { finger: 3 })
    line.own.release(6)
    expect([...line.own.settled.value]).toEqual([4])
    await nextTick()
    room.stop()
    room = effectScope()
    line = room.run(() => useLine(choice, patterns))!
    expect(played()).toContain('1.4')
    line.own.drop()
    expect(played()).toBe('1.0 1.1 1.2 1.3 2.0 2.1 2.2 2.3')
    await until(() => expect(line.alternatives.value.length).toBeGreaterThan(0))
  })

  it('says which note no hand holds, keeps the others on the staff, and keeps nothing of it for the studio', () => {
    line.own.settle(4, { finger: 4 })
    line.own.settle(1, { finger: THUMB })
    expect(line.run.value.fault).toBe(
      'No hand plays note 2, E4, with thumb: settle it otherwise, or take it back.',
    )
    expect(played()).toContain('1.4')
    expect(line.canKeep.value).toBe(false)
    line.own.release(1)
    expect(line.run.value.fault).toBe('')
    expect(line.canKeep.value).toBe(true)
    // With the last one taken back nothing is changed any more.
    line.own.release(4)
    expect(line.own.isChanged.value).toBe(false)
    expect(line.canKeep.value).toBe(false)
  })
})
