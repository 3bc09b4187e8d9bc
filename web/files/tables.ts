import Papa from 'papaparse'
import { guardFormula } from '#core'

/** A table as the page shows it, for those who want it elsewhere. */
export interface DataTable {
  /** For the file's name: letters, digits and dashes. */
  readonly name: string
  readonly columns: readonly string[]
  readonly rows: readonly (readonly (string | number | null)[])[]
}

/**
 * Comma-separated values after RFC 4180, with a byte order mark, which spreadsheets want before they believe in UTF-8. All
 * text stands in quotes: some spreadsheets part cells at semicolons. What one would run as a formula is guarded; numbers are
 * numbers.
 */
export function toCsv({ columns, rows }: DataTable): string {
  const safe = (cell: string | number | null) => (typeof cell === 'string' ? guardFormula(cell) : cell)
  const csv = Papa.unparse([columns.map(safe), ...rows.map((row) => row.map(safe))], {
    newline: '\r\n',
    quotes: (cell) => typeof cell === 'string',
  })
  return `\uFEFF${csv}\r\n`
}

/** An array of objects, one a row. */
export function toJson({ columns, rows }: DataTable): string {
  const objects = rows.map((row) => Object.fromEntries(columns.map((column, i) => [column, row[i] ?? null])))
  return `${JSON.stringify(objects, null, 2)}\n`
}

/** Hands the browser a file to keep. */
export function saveFile(name: string, content: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([content], { type }))
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  // The browser has taken it by the next turn.
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}

/** A name that every file system takes. */
export function fileName(text: string, extension: string): string {
  const plain = text
    // Two keys must not share a name.
    .replaceAll('♭', ' flat')
    .replaceAll('♯', ' sharp')
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
  return `${plain || 'jadefell'}.${extension}`
}
