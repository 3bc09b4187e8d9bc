import Papa from 'papaparse'
import {
  INSTRUMENT_COLUMNS,
  readHeading,
  readInstrumentRows,
  REQUIRED_COLUMNS,
  type ReadRow,
  type TableFault,
} from '#core'

export type ParsedTable =
  | {
      readonly ok: true
      readonly rows: readonly ReadRow[]
      /** Headings of columns that are not read. */
      readonly unread: readonly string[]
    }
  | { readonly ok: false; readonly fault: TableFault }

const BYTES_LIMIT = 20_000_000
export const ROWS_LIMIT = 50_000

/**
 * A file of instruments: UTF-8, comma, semicolon or tab between cells, a first row with the names of the columns in any
 * order and in an office's own words. Columns it does not know are named. Rows are told by the line of the file they begin on.
 */
export function parseInstruments(bytes: ArrayBuffer): ParsedTable {
  if (bytes.byteLength > BYTES_LIMIT) return { ok: false, fault: { code: 'too_large', limit: BYTES_LIMIT } }
  const text = decoded(bytes)
  if (text === undefined) return { ok: false, fault: { code: 'not_utf8' } }
  const { lines, brokenLine } = linesOf(text)
  if (brokenLine !== undefined) return { ok: false, fault: { code: 'quotes', row: brokenLine } }
  const [heading, ...data] = lines
  const names = (heading?.cells ?? []).map((name) => name.trim())
  const headings = names.map(readHeading)
  const found = names.filter((name) => name !== '')
  if (found.length === 0) return { ok: false, fault: { code: 'empty' } }
  const columns = REQUIRED_COLUMNS.filter((column) => !headings.some((one) => one?.column === column))
  if (columns.length > 0) return { ok: false, fault: { code: 'columns_missing', columns, found } }
  if (data.length === 0) return { ok: false, fault: { code: 'empty' } }
  if (data.length > ROWS_LIMIT) return { ok: false, fault: { code: 'too_many_rows', limit: ROWS_LIMIT } }
  // Of two headings that name the same column the first is read, the other said not to be.
  const places = INSTRUMENT_COLUMNS.map(
    (column) => [column, headings.findIndex((one) => one?.column === column)] as const,
  )
  const isRead = new Set(places.map(([, at]) => at))
  const { unit } = headings.find((one) => one?.column === 'length') ?? {}
  const records = data.map(({ line, cells }) => ({
    line,
    cells: Object.fromEntries(places.map(([column, at]) => [column, cells[at] ?? ''])),
    over: cells.slice(names.length),
    unit,
  }))
  return {
    ok: true,
    rows: readInstrumentRows(records),
    unread: names.filter((name, at) => name !== '' && !isRead.has(at)),
  }
}

interface Line {
  readonly line: number
  readonly cells: readonly string[]
}

/** The rows that hold something, each with the line it begins on: a cell in quotes may take several, and some are empty. */
function linesOf(text: string): { lines: Line[]; brokenLine?: number } {
  const lines: Line[] = []
  let brokenLine: number | undefined
  let line = 1
  let read = 0
  Papa.parse<string[]>(text, {
    step({ data, errors, meta }) {
      if (errors.some((error) => error.type === 'Quotes')) brokenLine ??= line
      if (data.some((cell) => cell.trim() !== '')) lines.push({ line, cells: data })
      line += text.slice(read, meta.cursor).match(/\r\n|\r|\n/g)?.length ?? 0
      read = meta.cursor
    },
  })
  return brokenLine === undefined ? { lines } : { lines, brokenLine }
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
