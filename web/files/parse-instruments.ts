import Papa from 'papaparse'
import {
  INSTRUMENT_COLUMNS,
  readInstrumentRows,
  REQUIRED_COLUMNS,
  type ReadRow,
  type TableFault,
} from '#core'

export type ParsedTable =
  | { readonly ok: true; readonly rows: readonly ReadRow[] }
  | { readonly ok: false; readonly fault: TableFault }

const BYTES_LIMIT = 20_000_000
export const ROWS_LIMIT = 50_000

/**
 * A file of instruments: UTF-8, comma, semicolon or tab between cells, a first row with the names of the columns in any
 * order. Columns it does not know are passed over. Rows keep the number they have in the file, the heading being 1.
 */
export function parseInstruments(bytes: ArrayBuffer): ParsedTable {
  if (bytes.byteLength > BYTES_LIMIT) return { ok: false, fault: { code: 'too_large', limit: BYTES_LIMIT } }
  const text = decoded(bytes)
  if (text === undefined) return { ok: false, fault: { code: 'not_utf8' } }
  const { data, errors, meta } = Papa.parse<Record<string, string>>(text, {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name) => name.trim().toLowerCase(),
  })
  const quotes = errors.find((error) => error.type === 'Quotes')
  if (quotes) return { ok: false, fault: { code: 'quotes', row: (quotes.row ?? 0) + 2 } }
  const found = (meta.fields ?? []).filter((name) => name !== '')
  if (found.length === 0) return { ok: false, fault: { code: 'empty' } }
  const columns = REQUIRED_COLUMNS.filter((column) => !found.includes(column))
  if (columns.length > 0) return { ok: false, fault: { code: 'columns_missing', columns, found } }
  if (data.length === 0) return { ok: false, fault: { code: 'empty' } }
  if (data.length > ROWS_LIMIT) return { ok: false, fault: { code: 'too_many_rows', limit: ROWS_LIMIT } }
  const records = data.map((row) =>
    Object.fromEntries(INSTRUMENT_COLUMNS.map((column) => [column, row[column] ?? ''])),
  )
  return { ok: true, rows: readInstrumentRows(records, 2) }
}

function decoded(bytes: ArrayBuffer): string | undefined {
  const start = new Uint8Array(bytes.slice(0, 2))
  // A mark of UTF-16: some spreadsheets save "Unicode text" so.
  const isUtf16 = (start[0] === 0xff && start[1] === 0xfe) || (start[0] === 0xfe && start[1] === 0xff)
  if (isUtf16) return undefined
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return undefined
  }
}
