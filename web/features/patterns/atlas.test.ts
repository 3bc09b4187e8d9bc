import { beforeEach, describe, expect, it } from 'vitest'
import { computed, nextTick, ref } from 'vue'
import { familyOf, note, parseKey, type FamilyId } from '#core'
import { glyphOf } from './glyph'
import { FIRST_CHOICE, useAtlas, type Atlas, type AtlasChoice } from './useAtlas'

const choice = ref<AtlasChoice>({ ...FIRST_CHOICE })
const familyId = ref<FamilyId>('violin')
const known = ref<ReadonlySet<string> | undefined>()
const tuning = ref(familyOf('violin').tuning)
let atlas: Atlas

beforeEach(() => {
  choice.value = { ...FIRST_CHOICE }
  familyId.value = 'violin'
  known.value = undefined
  tuning.value = familyOf('violin').tuning
  atlas = useAtlas(
    choice,
    computed(() => familyOf(familyId.value)),
    tuning,
    known,
  )
})

const glyphs = () => atlas.cells.value.map(glyphOf)
const chooseFamily = (id: FamilyId) => {
  familyId.value = id
  tuning.value = familyOf(id).tuning
}

describe('the atlas', () => {
  it('shows a hand in figures, half steps side by side, each in its own place', () => {
    expect(glyphs()).toEqual(['  1 2 34', '  1 23 4', '  1 23 4', '  12 3 4'])
    choice.value.keyId = 'B♭:major'
    expect(glyphs()[2]).toBe(' 1 2 34')
  })

  it('marks a cello’s extensions as players do', () => {
    chooseFamily('cello')
    choice.value.keyId = 'E♭:major'
    expect(glyphs()[2]).toBe('x1 2 4')
    choice.value.keyId = 'D:major'
    expect(glyphs()[0]).toBe('  1x2 4')
  })

  it('goes from key to key, string to string and position to position, and stops at the ends', () => {
    expect(atlas.keys.value.slice(0, 4).map((k) => k.id)).toEqual([
      'C:major',
      'G:major',
      'D:major',
      'A:major',
    ])
    atlas.moveKey(1)
    expect(atlas.key.value.id).toBe('A:major')
    atlas.moveKey(-99)
    expect(atlas.key.value.id).toBe('C:major')
    atlas.moveString(9)
    expect(atlas.stringIndex.value).toBe(3)
    atlas.movePosition(2)
    expect(atlas.position.value.id).toBe('third')
    atlas.movePosition(-9)
    expect(atlas.position.value.id).toBe('half')
  })

  it('keeps the rows of the other keys as they are while one goes from key to key', async () => {
    const before = atlas.keyRows.value
    atlas.moveKey(1)
    await nextTick()
    expect(atlas.keyRows.value).toBe(before)
  })

  it('adds a key of more signs than a signature has, spelled right', () => {
    const parsed = parseKey('G# major')
    if (parsed.ok) atlas.chooseKey(parsed.key)
    expect(atlas.keys.value.at(-1)?.id).toBe('G♯:major')
    expect(atlas.keyRows.value).toHaveLength(16)
    atlas.chooseMode('harmonic_minor')
    expect(atlas.key.value.id).toBe('G♯:harmonic_minor')
    expect(atlas.keys.value).toHaveLength(15)
  })

  it('tells which keys need no pattern that is not known, and shows only those', () => {
    expect(atlas.keyRows.value[0]!.isKnown).toBeUndefined()
    known.value = new Set(['fourth/1234/212', 'fourth/1234/122', 'fourth/1234/221'])
    expect(atlas.keyRows.value.filter((r) => r.isKnown).map((r) => r.id)).toEqual(
      expect.arrayContaining(['G:major', 'D:major']),
    )
    choice.value.knownOnly = true
    expect(atlas.keyRows.value.every((r) => r.isKnown === true)).toBe(true)
  })

  it('leads from a key that is not known to the nearest that is, and says so where there is none', async () => {
    known.value = new Set(['fourth/1234/212', 'fourth/1234/122', 'fourth/1234/221'])
    choice.value.keyId = 'A♭:major'
    choice.value.knownOnly = true
    await nextTick()
    expect(atlas.keyRows.value.map((r) => r.id)).toContain(atlas.key.value.id)
    expect(atlas.isAllowed(atlas.key.value)).toBe(true)
    const rows = atlas.keyRows.value.map((r) => r.id)
    expect(rows.length).toBeLessThan(15)
    for (const key of atlas.keys.value) expect(atlas.isAllowed(key)).toBe(rows.includes(key.id))
    known.value = new Set(['fourth/1234/999'])
    await nextTick()
    expect([atlas.hasNoKnown.value, atlas.keyRows.value]).toEqual([true, []])
    choice.value.knownOnly = false
    expect([atlas.hasNoKnown.value, atlas.keyRows.value.length]).toEqual([false, 15])
  })

  it('marks what differs from the key compared with', () => {
    choice.value.compareId = 'D:major'
    choice.value.keyId = 'G:major'
    const g = atlas.keyRows.value.find((r) => r.id === 'G:major')!
    expect(g.changed).toEqual([true, false, true, false])
    expect(atlas.diff.value?.moves).toHaveLength(2)
    expect(atlas.positionRows.value.find((r) => r.id === 'first')!.changed).toEqual(g.changed)
  })

  it('makes the best of another family: its own positions, strings and frames', () => {
    choice.value.positionId = 'third'
    chooseFamily('bass')
    expect(atlas.position.value.id).toBe('first')
    choice.value.frameId = 'four_finger'
    expect(atlas.cells.value.some((h) => h.kind === 'placement' && h.stops.some((s) => s.finger === 3))).toBe(
      true,
    )
    tuning.value = ['B0', 'E1', 'A1', 'D2', 'G2', 'C3'].map(note)
    expect(atlas.cells.value).toHaveLength(6)
    tuning.value = familyOf('violin').tuning
    familyId.value = 'violin'
    expect(() => atlas.cells.value).not.toThrow()
  })
})
