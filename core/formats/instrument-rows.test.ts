import { expect, it } from 'vitest'
import { familyOf, readFamily } from '../instrument'
import { readHeading, readInstrumentRows, tapeCell, type TableRecord } from './index'

const good = { label: 'no. 21', family: 'Violin', size: '1/2', length: '284.5', tuning: '' }

const recordsOf = (cells: readonly TableRecord['cells'][]) =>
  cells.map((row, i) => ({ line: 2 + i, cells: row }))

it('reads a row as a teacher writes it', () => {
  const [row, viola, five] = readInstrumentRows(
    recordsOf([
      good,
      { label: 'no. 22', family: 'viola', size: '15', length: '13 3/4 in' },
      { label: "'=boat", family: 'bass', size: '3/4', tuning: 'B0 E1; A1 D2 G2' },
    ]),
  )
  expect(row).toMatchObject({
    ok: true,
    row: 2,
    instrument: { family: 'violin', sizeId: '1/2', length: '284.5' },
  })
  expect(viola).toMatchObject({ ok: true, instrument: { sizeId: '15 in', isDoubtful: false } })
  expect(five).toMatchObject({
    ok: true,
    instrument: { label: '=boat', tuning: ['B0', 'E1', 'A1', 'D2', 'G2'] },
  })
})

it('takes families and sizes as they are written, and tells a size that a spreadsheet took for a day', () => {
  const written: readonly (readonly [family: string, size: string, sizeId: string])[] = [
    ['Violins', '½', '1/2'],
    ['violin', '1⁄2 size', '1/2'],
    ['violin', 'full size', '4/4'],
    ['’Cello', 'half-size', '1/2'],
    ['violoncello', '¾', '3/4'],
    ['Double bass', '1/10', '1/10'],
    ['viola', '15½″', '15.5 in'],
    ['viola', '15 1/2 inches', '15.5 in'],
    ['viola', '15,5', '15.5 in'],
    ['viola', '16 inch', '16 in'],
  ]
  for (const [family, size, sizeId] of written) {
    const [row] = readInstrumentRows(recordsOf([{ label: 'no. 1', family, size }]))
    const has = familyOf(readFamily(family)!).sizes.some((s) => s.id === sizeId)
    expect([family, size, row?.ok && row.instrument.sizeId]).toEqual([family, size, has ? sizeId : false])
  }
  // Of day and month only one order is a size; what is in no order one, or in a tongue that is not known, is asked for again.
  for (const [size, sizeId] of [
    ['02-Jan', '1/2'],
    ['01/02/26', '1/2'],
    ['04/04/2026', '4/4'],
    ['1.10.2026', '1/10'],
    ['2026-04-03', '3/4'],
  ] as const)
    expect(readInstrumentRows(recordsOf([{ ...good, size }]))[0]).toMatchObject({
      sizeFromDay: size,
      instrument: { sizeId },
    })
  for (const size of ['5/6/26', '2. Jän'])
    expect(readInstrumentRows(recordsOf([{ ...good, size }]))[0]).toMatchObject({
      faults: [{ code: 'size_is_date', text: size }],
    })
})

it('gives every faulty cell its reason, and keeps the others', () => {
  const rows = readInstrumentRows(
    recordsOf([
      good,
      { ...good, label: 'NO. 21' },
      { ...good, label: '' },
      { ...good, label: 'a', family: 'harp' },
      { ...good, label: 'b', size: '5/7', length: 'long' },
      { ...good, label: 'c', length: '284.5 cm' },
      { ...good, label: 'd', tuning: 'G3 D4 A4 H4' },
      { ...good, label: 'e', length: '300' },
    ]),
  )
  expect(rows.map((row) => (row.ok ? 'ok' : row.faults.map((f) => f.code).join(' ')))).toEqual([
    'ok',
    'label_twice',
    'label_missing',
    'family_unknown',
    'size_unknown length_unreadable',
    'length_impossible',
    'tuning_unreadable',
    'ok',
  ])
  expect(rows[1]).toMatchObject({ row: 3, faults: [{ firstRow: 2 }] })
  expect(rows[7]).toMatchObject({ instrument: { isDoubtful: true } })
})

it.each([
  ['Length (mm)', { column: 'length', unit: 'mm' }],
  ['String length', { column: 'length' }],
  ['length in inches', { column: 'length', unit: 'in' }],
  ['String  length [cm]', { column: 'length', unit: 'cm' }],
  ['Instrument no.', { column: 'label' }],
  ['Type', { column: 'family' }],
  ['Size', { column: 'size' }],
  ['size (mm)', undefined],
  // It may be the number or the family: asked about, not guessed.
  ['Instrument', undefined],
  ['Colour', undefined],
  ['length of the case', undefined],
])('reads the heading %s as an office writes it', (text, read) => {
  expect(readHeading(text)).toEqual(read)
})

it('takes lengths in the unit of their heading where they say none, and passes over no cell unsaid', () => {
  const records = [
    { line: 2, cells: { ...good, length: '11 1/5' }, unit: 'in' as const },
    { line: 3, cells: { ...good, label: 'no. 22', length: '284.5 mm' }, unit: 'in' as const },
    { line: 4, cells: { ...good, label: 'no. 23' }, over: ['', 'borrowed'] },
  ]
  const [inches, mm, over] = readInstrumentRows(records)
  expect([inches, mm]).toMatchObject([
    { ok: true, instrument: { length: '11 1/5 in' } },
    { ok: true, instrument: { length: '284.5 mm' } },
  ])
  expect(over).toMatchObject({ ok: false, faults: [{ code: 'cells_over', text: 'borrowed' }] })
})

it('reads the days, tapes and holder that a cupboard wrote, and says which of them it cannot read', () => {
  const [whole, ...faulty] = readInstrumentRows(
    recordsOf([
      {
        ...good,
        measuredOn: '2026-10-03',
        tapes: `${tapeCell('1', { markId: '1.2', placeMm: 31.04 })} · ${tapeCell('3', { markId: '3.5', placeMm: 71.1 })}`,
        tapeWidth: '2.5 mm',
        laidOn: '2026-10-10',
        holder: 'Orla Venn',
      },
      { ...good, label: 'b', measuredOn: '03/10/2026', laidOn: '2026-02-30' },
      { ...good, label: 'c', tapes: '1 at 31.0' },
      { ...good, label: 'd', tapes: '1 (1.2) at 31; 1 (1.2) at 32' },
      { ...good, label: 'e', tapes: '1 (1.2) at 31', length: '' },
      { ...good, label: 'f', tapeWidth: '12.1' },
      { ...good, label: 'g', besides: '[1, 2' },
    ]),
  )
  expect(whole).toMatchObject({
    ok: true,
    instrument: {
      measuredOn: '2026-10-03',
      tapes: [
        { markId: '1.2', placeMm: 31.04 },
        { markId: '3.5', placeMm: 71.1 },
      ],
      tapeWidthMm: 2.5,
      laidOn: '2026-10-10',
      holder: 'Orla Venn',
    },
  })
  expect(faulty.map((row) => (row.ok ? [] : row.faults.map(({ code }) => code)))).toEqual([
    ['day_unreadable', 'day_unreadable'],
    ['tapes_unreadable'],
    ['tapes_unreadable'],
    ['tapes_without_length'],
    ['tapes_unreadable'],
    ['besides_unreadable'],
  ])
})

it('asks whether a length that cannot be was meant in inches', () => {
  const [row] = readInstrumentRows(recordsOf([{ ...good, size: '4/4', length: '12.9' }]))
  expect(row).toMatchObject({ faults: [{ code: 'length_impossible', meant: { unit: 'in' } }] })
  expect(
    row && !row.ok && row.faults[0]?.code === 'length_impossible' && row.faults[0].meant?.lengthMm,
  ).toBeCloseTo(327.66, 2)
})

it('reads a day with dots, and one with strokes only where it can be but one day', () => {
  const read = (measuredOn: string) => {
    const [row] = readInstrumentRows(recordsOf([{ ...good, measuredOn }]))
    return row?.ok ? row.instrument.measuredOn : row?.faults.map(({ code }) => code)
  }
  expect(['2.11.2026', '28/11/2026', '11/28/2026', '7/7/2026'].map(read)).toEqual([
    '2026-11-02',
    '2026-11-28',
    '2026-11-28',
    '2026-07-07',
  ])
  expect(['2/11/2026', '31.2.2026', '2.11.26'].map(read)).toEqual(Array(3).fill(['day_unreadable']))
})
