import { beforeEach, describe, expect, it } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { shaped } from '../../../core/testing'
import { freshStores } from '../../testing'
import { parseReadings } from './readings-text'
import { sheetPlaces, useReadings } from './useReadings'

describe('readings as typed', () => {
  const cents = (...all: number[]) => all.map((shownCents) => ({ shownCents }))
  it.each([
    ['', []],
    ['7', cents(7)],
    ['+7', cents(7)],
    ['-22', cents(-22)],
    ['−22', cents(-22)],
    ['-22 -20  −19', cents(-22, -20, -19)],
    ['3,5', cents(3.5)],
    ['99', cents(99)],
    ['4 2mm', [{ shownCents: 4 }, { offMm: 2 }]],
  ])('“%s” by a meter is %o', (text, told) => {
    expect(parseReadings(text, { by: 'meter' })).toEqual({ told, fault: undefined })
  })

  it.each([
    ['ruler', '-2.5 1mm', [{ offMm: -2.5 }, { offMm: 1 }]],
    ['ruler', '-12c', cents(-12)],
    ['eye', 'bop', [{ side: 'behind' }, { side: 'on' }, { side: 'past' }]],
    ['eye', 'behind P', [{ side: 'behind' }, { side: 'past' }]],
  ] as const)('by %s “%s” is %o', (by, text, told) => {
    expect(parseReadings(text, { by })).toEqual({ told, fault: undefined })
  })

  it.each([
    ['meter', '900', '900 cents is another note'],
    ['meter', '-100', '100 cents is another note'],
    ['meter', '7 flat', '“flat” is no number: type cents'],
    ['meter', '1e3', '“1e3” is no number'],
    ['meter', '--3', '“--3” is no number'],
    ['meter', 'x'.repeat(500), `“${'x'.repeat(20)}” is no number`],
    ['ruler', '3in', '“3in” is no number: type mm'],
    ['ruler', '16', '16.0 mm is another note: a half step is 15.9 mm there'],
    ['eye', '4', '“4” says nothing: type b for behind'],
  ] as const)('by %s “%s” is refused: %s', (by, text, said) => {
    const { told, fault } = parseReadings(text, { by, halfStepMm: 15.94 })
    expect(told).toEqual([])
    expect(fault).toContain(said)
  })

  it('of an open string are cents, however the fingers are read', () => {
    expect(parseReadings('-4', { by: 'ruler', isOpen: true }).told).toEqual(cents(-4))
    // Every object has one.
    expect(parseReadings('constructor', { by: 'eye' })).toMatchObject({
      told: [],
      fault: expect.any(String) as string,
    })
    expect(parseReadings('b', { by: 'eye', isOpen: true }).fault).toContain('no place')
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

  it('stay what they were when another way of reading is chosen, over a reload too', async () => {
    const { sheet } = open()
    sheet.type('0', '-3')
    sheet.type('1', '5 7')
    sheet.readOtherwise()
    sheet.type('2', '-1.5')
    expect(sheet.readings.value).toEqual([
      { finger: 0, shownCents: -3 },
      { finger: 1, shownCents: 5 },
      { finger: 1, shownCents: 7 },
      { finger: 2, offMm: -1.5 },
    ])
    const before = sheet.readings.value
    sheet.readOtherwise()
    sheet.type('3', 'p')
    await nextTick()
    const again = open().sheet
    expect(again.by.value).toBe('eye')
    expect(again.readings.value).toEqual([...before, { finger: 3, side: 'past' }])
    // What was begun by meter stays so, however the next sheet is read.
    expect(open(ref('student D4 first')).sheet.by.value).toBe('eye')
  })

  it('leaves nothing behind in the browser once it is empty', async () => {
    const { sheet } = open()
    sheet.type('1', '5')
    sheet.type('1', '  ')
    await nextTick()
    expect(localStorage.getItem('jadefell.drafts')).toBe('{}')
  })
})
