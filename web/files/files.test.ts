import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { parseInstruments } from './parse-instruments'
import { fileName, toCsv, toJson } from './tables'

const bytes = (text: string) => new TextEncoder().encode(text).buffer

describe('tables out', () => {
  it('never begin a formula in a cell, headings included, and leave numbers numbers', () => {
    const cell = fc.oneof(
      fc.string(),
      fc.constantFrom('=1+1', '+x', '-x', '@x', '\tx', '\rx', '\nx', '＝1', '＋1', '－1', '＠x', "'=x"),
      fc.integer(),
    )
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1 }), (rows) => {
        const csv = toCsv({ name: 't', columns: ['=a', 'b'], rows })
        const { data } = Papa.parse<string[]>(csv.replace(/^\uFEFF/, ''), { skipEmptyLines: false })
        expect(data[0]).toEqual(["'=a", 'b'])
        for (const [i, row] of rows.entries())
          for (const [j, value] of row.entries()) {
            const out = data[i + 1]![j]!
            if (typeof value === 'number') expect(out).toBe(String(value))
            else expect(out).not.toMatch(/^[=+\-@\t\r\n＝＋－＠]/)
          }
      }),
      { seed: 42 },
    )
  })

  it('are UTF-8 with its mark and RFC 4180 line ends; JSON is an object a row', () => {
    const table = {
      name: 't',
      columns: ['note', 'mm'],
      rows: [['F♯, “high”', 31.6] as const, [null, 1] as const],
    }
    expect(toCsv(table)).toBe('\uFEFF"note","mm"\r\n"F♯, “high”",31.6\r\n,1\r\n')
    expect(JSON.parse(toJson(table))).toEqual([
      { note: 'F♯, “high”', mm: 31.6 },
      { note: null, mm: 1 },
    ])
  })

  it('have names that every file system takes', () => {
    expect(fileName('Tape strip: Orla Venn / no. 7', 'pdf')).toBe('tape-strip-orla-venn-no-7.pdf')
    expect(fileName('A♭ major scale', 'pdf')).toBe('a-flat-major-scale.pdf')
    expect(fileName('F♯ minor: Zoë', 'pdf')).toBe('f-sharp-minor-zoe.pdf')
    expect(fileName('…', 'csv')).toBe('jadefell.csv')
  })
})

describe('a table of instruments in', () => {
  it('is read with commas, semicolons or tabs, any case of its headings, columns in any order, and a byte order mark', () => {
    for (const [delimiter, mark] of [
      [',', ''],
      [';', '\uFEFF'],
      ['\t', ''],
    ] as const) {
      const rows = [
        ['Size', 'FAMILY', 'colour', 'Label'],
        ['1/2', 'violin', 'brown', 'no. 21'],
      ]
      const parsed = parseInstruments(bytes(mark + rows.map((row) => row.join(delimiter)).join('\r\n')))
      expect(parsed).toMatchObject({
        ok: true,
        rows: [{ row: 2, instrument: { label: 'no. 21', sizeId: '1/2' } }],
      })
    }
  })

  it('comes back from what was written out, apostrophes and all', () => {
    const csv = toCsv({
      name: 'x',
      columns: ['label', 'family', 'size', 'length', 'tuning'],
      rows: ['=sum', "'=sum", "''+", 'no. 7; blue', '＝x'].map((label) => [
        label,
        'cello',
        '3/4',
        618,
        'C2 G2 D3 A3',
      ]),
    })
    expect(csv).toContain('"no. 7; blue"')
    const parsed = parseInstruments(bytes(csv))
    expect(parsed.ok && parsed.rows.map((row) => row.ok && row.instrument)).toMatchObject(
      ['=sum', "'=sum", "''+", 'no. 7; blue', '＝x'].map((label) => ({ label, length: '618' })),
    )
  })

  it('is told by the lines of the file itself, over empty ones and cells of several', () => {
    const text =
      'label,family,size\r\n\r\n"no.\r\n21",violin,1/2\r\n , ,\r\nno. 22,lute,1/2\r\nno. 23,violin,9/9\r\n'
    const parsed = parseInstruments(bytes(text))
    expect(parsed.ok && parsed.rows.map((row) => [row.row, row.ok])).toEqual([
      [3, true],
      [6, false],
      [7, false],
    ])
    const broken = parseInstruments(bytes('label,family,size\n\na,violin,1/2\n"x,violin,1/2\n'))
    expect(broken).toEqual({ ok: false, fault: { code: 'quotes', row: 4 } })
  })

  it('names what is wrong with the file itself', () => {
    const faultOf = (input: ArrayBuffer) => {
      const parsed = parseInstruments(input)
      return parsed.ok ? undefined : parsed.fault.code
    }
    expect(faultOf(new Uint8Array([0x6c, 0xe4, 0x0a]).buffer)).toBe('not_utf8')
    expect(faultOf(new Uint8Array([0xff, 0xfe, 0x6c, 0x00]).buffer)).toBe('not_utf8')
    expect(faultOf(bytes(''))).toBe('empty')
    expect(faultOf(bytes('label,family,size\n'))).toBe('empty')
    expect(faultOf(bytes('label,colour\nx,brown\n'))).toBe('columns_missing')
    expect(faultOf(bytes('label,family,size\n"x,violin,1/2\n'))).toBe('quotes')
    expect(faultOf(new ArrayBuffer(21_000_000))).toBe('too_large')
  })

  it('reads 20,000 rows, each with the number it has in the file', () => {
    const rows = Array.from(
      { length: 20_000 },
      (_, i) => `no. ${i},violin,1/2,${i === 777 ? 'long' : '284.5'}`,
    )
    const parsed = parseInstruments(bytes(`label,family,size,length\n${rows.join('\n')}\n`))
    if (!parsed.ok) throw new Error(parsed.fault.code)
    expect(parsed.rows).toHaveLength(20_000)
    expect(parsed.rows.filter((row) => !row.ok)).toMatchObject([{ row: 779, label: 'no. 777' }])
  })
})

it('comes back from a spreadsheet: what LibreOffice Calc 7.4 saved of what the cupboard had written', () => {
  // Opened with all cells as it takes them and saved again, once with commas, once with semicolons.
  const saved = [
    'label,family,size,length,tuning,measured on,tapes,tape width,laid on,with',
    'no. 7,violin,1/2 size,284.5,G3 D4 A4 E5,2026-10-03,1 (1.2) at 31.04 · 3 (3.5) at 71.10,2.5,2026-10-10,Orla Venn',
    "'=no. 8,viola,15.5 in,,C3 G3 D4 A4,,,,,",
  ].join('\n')
  for (const text of [saved, saved.replaceAll(',', ';')])
    expect(parseInstruments(bytes(text))).toMatchObject({
      unread: [],
      rows: [
        {
          instrument: {
            label: 'no. 7',
            sizeId: '1/2',
            length: '284.5',
            tapes: [{ placeMm: 31.04 }, { placeMm: 71.1 }],
          },
        },
        { instrument: { label: '=no. 8', sizeId: '15.5 in' } },
      ],
    })
  // What it makes of sizes written bare: days.
  const bare = 'label,family,size,length\nno. 7,violin,01/02/26,284.5\n12,cello,04/04/2026,690\n'
  expect(parseInstruments(bytes(bare))).toMatchObject({
    rows: [
      { sizeFromDay: '01/02/26', instrument: { sizeId: '1/2' } },
      { sizeFromDay: '04/04/2026', instrument: { sizeId: '4/4' } },
    ],
  })
})

it('takes no table longer than it can show, and says how long one may be', () => {
  const rows = (n: number) =>
    bytes(`label,family,size\n${Array.from({ length: n }, (_, i) => `no. ${i},violin,1/2\n`).join('')}`)
  expect(parseInstruments(rows(100_000))).toEqual({
    ok: false,
    fault: { code: 'too_many_rows', limit: 50_000 },
  })
})
