// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { shaped } from '../../../core/testing'
import { freshStores } from '../../testing'
import { parseCents, sheetPlaces, useReadings } from './useReadings'

describe('cents as typed', () => {
  it.each([
    ['', []],
    ['7', [7]],
    ['+7', [7]],
    ['-22', [-22]],
    ['−22', [-22]],
    ['-22 -20  −19', [-22, -20, -19]],
    ['3,5', [3.5]],
    ['99', [99]],
  ])('“%s” is %o', (text, expected) => {
    expect(parseCents(text)).toEqual({ shownCents: expected, fault: undefined })
  })

  it.each([
    ['900', '900 cents is another note'],
    ['-100', '100 cents is another note'],
    ['7 flat', '“flat” is no number'],
    ['1e3', '“1e3” is no number'],
    ['--3', '“--3” is no number'],
    ['x'.repeat(500), `“${'x'.repeat(20)}” is no number`],
  ])('“%s” is refused: %s', (text, said) => {
    const { shownCents, fault } = parseCents(text)
    expect(shownCents).toEqual([])
    expect(fault).toContain(said)
  })
})

describe('the reading sheet', () => {
  const open = (storageKey = ref('student A4 first')) => {
    const places = ref(sheetPlaces(shaped('violin')))
    return { sheet: effectScope().run(() => useReadings(places, storageKey))!, storageKey }
  }
  beforeEach(() => {
    localStorage.clear()
    freshStores()
  })

  it('gives every note of every finger in finger order, and none of a row that has a fault', () => {
    const { sheet } = open()
    sheet.type('4', '-20 -22')
    sheet.type('1', '5')
    sheet.type('2', '900')
    expect(sheet.readings.value).toEqual([
      { finger: 1, shownCents: 5 },
      { finger: 4, shownCents: -20 },
      { finger: 4, shownCents: -22 },
    ])
    expect(sheet.hasFault.value).toBe(true)
  })

  it('of a line has a row for each place, and tells which note of the line it is', () => {
    const [onD, onA] = [shaped('violin', 1), shaped('violin', 2)]
    const notes = [...onD.notes, ...onA.notes, ...onD.notes]
    const line = {
      name: { kind: 'scale', keyId: 'D:major', octaves: 1, openStrings: 'prefer' },
      notes,
    } as const
    const places = sheetPlaces(line)
    expect(places.map(({ finger, index }) => [finger, index])).toEqual(
      notes.slice(0, 10).map((n, i) => [n.finger, i]),
    )
    expect(new Set(places.map(({ id }) => id)).size).toBe(10)
    const sheet = effectScope().run(() => useReadings(ref(places), ref('student scale')))!
    sheet.type(places[6]!.id, '-4 -6')
    expect(sheet.readings.value).toEqual([
      { finger: 1, index: 6, shownCents: -4 },
      { finger: 1, index: 6, shownCents: -6 },
    ])
  })

  it('keeps each hand’s draft apart, through a reload, until it is cleared', async () => {
    const { sheet, storageKey } = open()
    sheet.type('1', '5')
    storageKey.value = 'student D4 first'
    expect(sheet.readings.value).toEqual([])
    sheet.type('1', '-9')
    await nextTick()
    const again = open().sheet
    expect(again.rows.value[1]?.text).toBe('5')
    again.clear()
    await nextTick()
    expect(open().sheet.readings.value).toEqual([])
    expect(open(ref('student D4 first')).sheet.rows.value[1]?.text).toBe('-9')
  })

  it('leaves nothing behind in the browser once it is empty', async () => {
    const { sheet } = open()
    sheet.type('1', '5')
    sheet.type('1', '  ')
    await nextTick()
    expect(localStorage.getItem('jadefell.drafts')).toBe('{}')
  })
})
