import { plainFractions } from '#core'

/** What a list asks for: words, an order and a page. */
export interface Listing<Sort extends string = string> {
  readonly q: string
  readonly sort: Sort
  readonly direction: 'up' | 'down'
  readonly offset: number
  readonly limit: number
}

/** Conditions of a query, and what they name. */
export interface Search {
  readonly condition: string
  readonly replacements: Record<string, string>
}

/**
 * Each word of `q` somewhere in one of the columns, by the columns' own collation: capitals and accents are all one, and ½
 * is 1/2.
 */
export function searchFor(q: string, columns: readonly string[]): Search {
  const words = plainFractions(q).split(/\s+/).filter(Boolean)
  const text = `CONCAT_WS(' ', ${columns.join(', ')})`
  return {
    condition: words.map((_, i) => `AND ${text} LIKE :word${i}`).join(' '),
    replacements: Object.fromEntries(
      words.map((word, i) => [`word${i}`, `%${word.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`]),
    ),
  }
}

/** A column that a list can be ordered by. */
export interface Sorted {
  readonly column: string
  /** Rows may lack it; they come last either way. */
  readonly mayLack?: boolean
}

/** What is equal stands by `then`. */
export function orderBy({ column, mayLack }: Sorted, direction: Listing['direction'], then: string): string {
  const way = direction === 'up' ? 'ASC' : 'DESC'
  return `${mayLack ? `${column} IS NULL, ` : ''}${column} ${way}, ${then} ${way}`
}

/** Rows in the order of their ids. */
export function inOrderOf<Row>(
  ids: readonly string[],
  rows: readonly Row[],
  idOf: (row: Row) => string,
): Row[] {
  const byId = new Map(rows.map((row) => [idOf(row), row]))
  return ids.flatMap((id) => byId.get(id) ?? [])
}
