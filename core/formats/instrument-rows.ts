import {
  familyOf,
  judgeLength,
  parseLength,
  readFamily,
  readSize,
  tuningFault,
  type FamilyId,
} from '../instrument'
import { noteName, parseNote } from '../pitch'
import { unguardFormula } from './formula'

/** Columns of a table of instruments; the first three must be there. */
export const INSTRUMENT_COLUMNS = ['label', 'family', 'size', 'length', 'tuning'] as const
export type InstrumentColumn = (typeof INSTRUMENT_COLUMNS)[number]
export const REQUIRED_COLUMNS: readonly InstrumentColumn[] = ['label', 'family', 'size']

/** An instrument as a table has it, read. */
export interface ImportedInstrument {
  readonly label: string
  readonly family: FamilyId
  readonly sizeId: string
  /** As typed; missing where nobody has measured. */
  readonly length?: string
  /** The length does not suit the size; the table is believed, and the row says so. */
  readonly isDoubtful: boolean
  /** Note names, lowest first; missing for the family's own tuning. */
  readonly tuning?: readonly string[]
}

export type RowFault =
  | { readonly code: 'label_missing' }
  | { readonly code: 'label_too_long'; readonly limit: number }
  | { readonly code: 'label_twice'; readonly firstRow: number }
  | { readonly code: 'family_unknown'; readonly text: string }
  | { readonly code: 'size_unknown'; readonly text: string; readonly sizes: readonly string[] }
  /** A spreadsheet took a fraction for a day of the year. */
  | { readonly code: 'size_is_date'; readonly text: string }
  | { readonly code: 'length_unreadable'; readonly text: string }
  | {
      readonly code: 'length_impossible'
      readonly text: string
      readonly lowMm: number
      readonly highMm: number
    }
  | { readonly code: 'tuning_unreadable'; readonly text: string }

/** What can be wrong with a row; that an instrument of its name is there already, only the studio can see. */
export type ImportFault = RowFault | { readonly code: 'label_taken' }

/** What can be wrong with a table as a whole. */
export type TableFault =
  | { readonly code: 'too_large'; readonly limit: number }
  | { readonly code: 'not_utf8' }
  | { readonly code: 'empty' }
  | {
      readonly code: 'columns_missing'
      readonly columns: readonly InstrumentColumn[]
      readonly found: readonly string[]
    }
  | { readonly code: 'too_many_rows'; readonly limit: number }
  | { readonly code: 'quotes'; readonly row: number }

export type ReadRow =
  | { readonly ok: true; readonly row: number; readonly instrument: ImportedInstrument }
  | { readonly ok: false; readonly row: number; readonly label: string; readonly faults: readonly RowFault[] }

/** `02-Jan`, `1.2.2026`, `2026-02-01`. */
const DATE_LIKE = /^\d{1,2}[-. ]{1,2}(?:[a-zäé]{3,}|\d{1,2})(?:[-. ]\d{2,4})?\.?$|^\d{4}-\d{2}-\d{2}$/i

export const LABEL_LENGTH = 60
/** Rows sent to be saved in one go; a long table goes in several. */
export const IMPORT_BATCH = 250

/** A row of a table: its cells as text, and the line of the file that it begins on, the first being 1. */
export interface TableRecord {
  readonly line: number
  readonly cells: Partial<Record<InstrumentColumn, string>>
}

/** Reads the rows of a table of instruments. Nothing is saved here: faulty rows come back with what is wrong in each cell. */
export function readInstrumentRows(records: readonly TableRecord[]): ReadRow[] {
  const seen = new Map<string, number>()
  return records.map((record) => readRow(record, seen))
}

function readRow(record: TableRecord, seen: Map<string, number>): ReadRow {
  const row = record.line
  const cell = (column: InstrumentColumn) => unguardFormula(record.cells[column] ?? '').trim()
  const faults: RowFault[] = []
  const label = cell('label')
  const earlier = seen.get(label.toLowerCase())
  if (label === '') faults.push({ code: 'label_missing' })
  else if (label.length > LABEL_LENGTH) faults.push({ code: 'label_too_long', limit: LABEL_LENGTH })
  else if (earlier !== undefined) faults.push({ code: 'label_twice', firstRow: earlier })
  else seen.set(label.toLowerCase(), row)

  const familyId = readFamily(cell('family'))
  if (!familyId) {
    faults.push({ code: 'family_unknown', text: cell('family') })
    return { ok: false, row, label, faults }
  }
  const family = familyOf(familyId)
  const sizeText = cell('size').replace(/\s+/g, ' ')
  const size = readSize(family, sizeText)
  if (!size && DATE_LIKE.test(sizeText)) faults.push({ code: 'size_is_date', text: sizeText })
  else if (!size) faults.push({ code: 'size_unknown', text: sizeText, sizes: family.sizes.map((s) => s.id) })

  const length = cell('length')
  let isDoubtful = false
  if (length !== '') {
    const parsed = parseLength(length)
    if (!parsed.ok) faults.push({ code: 'length_unreadable', text: length })
    else if (size) {
      const { verdict, lowMm, highMm } = judgeLength(family, size, parsed)
      if (verdict === 'impossible') faults.push({ code: 'length_impossible', text: length, lowMm, highMm })
      isDoubtful = verdict === 'doubtful'
    }
  }
  const tuningText = cell('tuning')
  const tuning = tuningText === '' ? [] : tuningText.split(/[\s;]+/).map(parseNote)
  const notes = tuning.flatMap((n) => (n ? [n] : []))
  if (tuning.length > 0 && (notes.length < tuning.length || tuningFault(notes)))
    faults.push({ code: 'tuning_unreadable', text: tuningText })

  if (faults.length > 0 || !size) return { ok: false, row, label, faults }
  return {
    ok: true,
    row,
    instrument: {
      label,
      family: familyId,
      sizeId: size.id,
      isDoubtful,
      ...(length === '' ? {} : { length }),
      ...(notes.length === 0 ? {} : { tuning: notes.map((n) => noteName(n)) }),
    },
  }
}
