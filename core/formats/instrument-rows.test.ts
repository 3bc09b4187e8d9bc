import { expect, it } from 'vitest'
import { readInstrumentRows, type TableRecord } from './index'

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
