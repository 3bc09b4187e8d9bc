import {
  familyOf,
  judgeLength,
  parseLength,
  readFamily,
  readSize,
  sizeOf,
  tuningFault,
  type Family,
  type FamilyId,
  type PressingChoice,
  type Size,
} from '../instrument'
import { isIsoDay } from '../calendar'
import { noteName, parseNote } from '../pitch'
import { handMarks, TAPE_WIDTHS_MM } from '../tape'
import { unguardFormula } from './formula'

/** Columns of a table of instruments; the first three must be there. */
export const INSTRUMENT_COLUMNS = [
  'label',
  'family',
  'size',
  'length',
  'tuning',
  'measuredOn',
  'tapes',
  'tapeWidth',
  'laidOn',
  'holder',
  'besides',
] as const
export type InstrumentColumn = (typeof INSTRUMENT_COLUMNS)[number]
export const REQUIRED_COLUMNS: readonly InstrumentColumn[] = ['label', 'family', 'size']

/** What a heading names, and the unit that numbers under it are in. */
export interface ReadHeading {
  readonly column: InstrumentColumn
  readonly unit?: 'mm' | 'cm' | 'in'
}

/** Words that offices write over these columns. From memory. */
const HEADINGS: Readonly<Record<InstrumentColumn, RegExp>> = {
  label: /^(label|name|number|no\.?|nr\.?|id|inventory( no\.?| number)?|instrument (no\.?|number|name))$/,
  family: /^(family|type|kind|instrument (family|type))$/,
  size: /^(size|instrument size)$/,
  length: /^((string|scale|mensur|vibrating string) ?)?length$|^mensur$/,
  tuning: /^(tuning|strings|open strings)$/,
  measuredOn: /^(measured( on)?|day of measuring)$/,
  tapes: /^tapes$/,
  tapeWidth: /^(tape width|width of tapes?)$/,
  laidOn: /^(tapes )?laid( on)?$/,
  holder: /^(with|holder|lent to|student)$/,
  besides: /^kept besides$/,
}
const UNITS = {
  mm: /^(mm|millimet(er|re)s?)$/,
  cm: /^(cm|centimet(er|re)s?)$/,
  in: /^(in|inch|inches|")$/,
} as const

/** Which column a heading names, as `Length (mm)`, `String length` or `length in inches`; undefined where it is none of ours. */
export function readHeading(text: string): ReadHeading | undefined {
  const plain = text.trim().toLowerCase().replaceAll(/\s+/g, ' ')
  const [, bare = '', bracketed, after] =
    /^(.*?)(?:\s*[([]\s*([^)\]]+?)\s*[)\]]|,? in ([a-z"]+))?$/.exec(plain) ?? []
  const said = bracketed ?? after
  const unit =
    said === undefined ? undefined : (['mm', 'cm', 'in'] as const).find((one) => UNITS[one].test(said))
  // A bracket that is no unit is part of the heading's own words.
  const name = said !== undefined && unit === undefined ? plain : bare
  const column = INSTRUMENT_COLUMNS.find((one) => HEADINGS[one].test(name))
  if (!column || (unit !== undefined && column !== 'length' && !(column === 'tapeWidth' && unit === 'mm')))
    return undefined
  return { column, ...(unit === undefined ? {} : { unit }) }
}

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
  /** ISO day; missing where the table does not say. */
  readonly measuredOn?: string
  readonly tapes?: readonly LaidAt[]
  readonly tapeWidthMm?: number
  readonly laidOn?: string
  /** Name of the student who has it. */
  readonly holder?: string
  readonly besides?: KeptBesides
}

/** What is kept of an instrument that no office has a column for: one cell of JSON, written by a cupboard and read by one. */
export interface KeptBesides {
  /** How it was measured, and each string where each was, lowest first. */
  readonly method?: 'bridge' | 'harmonic' | 'strings'
  readonly stringLengthsMm?: readonly number[]
  readonly pressing?: PressingChoice
  readonly warmHands?: boolean
  readonly rings?: readonly RingKept[]
}

/** A place found by ring; notes are names with their octave. */
export interface RingKept {
  readonly string: string
  readonly note: string
  readonly system: string
  readonly placeMm: number
  readonly foundOn: string
}

/** A tape as it lies: the id of its mark, and mm from the nut. */
export interface LaidAt {
  readonly markId: string
  readonly placeMm: number
}

/** One tape of a cell: `1 (1.2) at 31.04`, the mark’s name to read and its interval to be read back. */
export function tapeCell(name: string, { markId, placeMm }: LaidAt): string {
  return `${name} (${markId}) at ${placeMm.toFixed(2)}`
}
const TAPE = /\((\d{1,2}\.\d{1,2})\) at (\d+(?:\.\d+)?)/

/** A size as a spreadsheet leaves it alone: most take a bare `1/2` for a day of the year. */
export function sizeCell(sizeId: string): string {
  return /^\d+\/\d+$/.test(sizeId) ? `${sizeId} size` : sizeId
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
      /** The unit in which it would be one. */
      readonly meant?: { readonly unit: 'mm' | 'cm' | 'in'; readonly lengthMm: number }
    }
  | { readonly code: 'tuning_unreadable'; readonly text: string }
  | { readonly code: 'day_unreadable'; readonly text: string }
  | { readonly code: 'tapes_unreadable'; readonly text: string }
  | { readonly code: 'besides_unreadable'; readonly text: string }
  /** Where tapes lie is told from the nut; without a length nobody knows what they are. */
  | { readonly code: 'tapes_without_length' }
  /** Cells beyond the last heading: nobody knows what they are. */
  | { readonly code: 'cells_over'; readonly text: string }

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
  | {
      readonly ok: true
      readonly row: number
      readonly instrument: ImportedInstrument
      /** The day that a spreadsheet had made of the size, as it stands in the table. */
      readonly sizeFromDay?: string
    }
  | { readonly ok: false; readonly row: number; readonly label: string; readonly faults: readonly RowFault[] }

/**
 * What spreadsheets make of `1/2`: `02-Jan`, `01/02/26`, `1.2.2026`, `2026-02-01`. LibreOffice 7.4 writes the second with
 * its English settings, tried; the others are from memory.
 */
const DATE_LIKE =
  /^\d{1,2}[-. ]{1,2}(?:\p{L}{3,}|\d{1,2})(?:[-. ]{1,2}\d{2,4})?\.?$|^\d{1,2}\/\d{1,2}\/\d{2,4}$|^\d{4}-\d{2}-\d{2}$/u
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
export const LABEL_LENGTH = 60
/** Rows sent to be saved in one go; a long table goes in several. */
export const IMPORT_BATCH = 250

/** A row of a table: its cells as text, and the line of the file that it begins on, the first being 1. */
export interface TableRecord {
  readonly line: number
  readonly cells: Partial<Record<InstrumentColumn, string>>
  /** What stands beyond the last heading. */
  readonly over?: readonly string[]
  /** Of lengths that are written as a number alone. */
  readonly unit?: ReadHeading['unit']
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
  const written = readSize(family, sizeText)
  const size = written ?? sizeOfDay(family, sizeText)
  if (!size && DATE_LIKE.test(sizeText)) faults.push({ code: 'size_is_date', text: sizeText })
  else if (!size) faults.push({ code: 'size_unknown', text: sizeText, sizes: family.sizes.map((s) => s.id) })

  const over = (record.over ?? []).filter((text) => text.trim() !== '')
  if (over.length > 0) faults.push({ code: 'cells_over', text: over.join(', ') })
  const lengthText = cell('length')
  const isBare = /^[\d.,\s/½¼¾⅛⅜⅝⅞-]+$/.test(lengthText)
  const length = lengthText !== '' && isBare && record.unit ? `${lengthText} ${record.unit}` : lengthText
  let isDoubtful = false
  if (length !== '') {
    const parsed = parseLength(length)
    if (!parsed.ok) faults.push({ code: 'length_unreadable', text: length })
    else if (size) {
      const { verdict, lowMm, highMm, explanations } = judgeLength(family, size, parsed)
      const [unit] = explanations.flatMap((one) =>
        one.code === 'wrong_unit' ? [{ unit: one.meant, lengthMm: one.lengthMm }] : [],
      )
      if (verdict === 'impossible')
        faults.push({
          code: 'length_impossible',
          text: length,
          lowMm,
          highMm,
          ...(unit ? { meant: unit } : {}),
        })
      isDoubtful = verdict === 'doubtful'
    }
  }
  const tuningText = cell('tuning')
  const tuning = tuningText === '' ? [] : tuningText.split(/[\s;]+/).map(parseNote)
  const notes = tuning.flatMap((n) => (n ? [n] : []))
  if (tuning.length > 0 && (notes.length < tuning.length || tuningFault(notes)))
    faults.push({ code: 'tuning_unreadable', text: tuningText })

  const [measuredOn, laidOn] = [readDay(cell('measuredOn')), readDay(cell('laidOn'))]
  for (const text of [measuredOn, laidOn])
    if (text !== '' && !isIsoDay(text)) faults.push({ code: 'day_unreadable', text })
  const tapesText = cell('tapes')
  const parts = tapesText === '' ? [] : tapesText.split(/[·;]/).map((part) => TAPE.exec(part))
  const marks = new Set(handMarks(family).map(({ id }) => id))
  const tapes = parts.flatMap((part) =>
    part && marks.has(part[1]!) ? [{ markId: part[1]!, placeMm: Number(part[2]) }] : [],
  )
  if (tapes.length < parts.length || new Set(tapes.map(({ markId }) => markId)).size < tapes.length)
    faults.push({ code: 'tapes_unreadable', text: tapesText })
  else if (tapes.length > 0 && length === '') faults.push({ code: 'tapes_without_length' })
  const widthText = cell('tapeWidth')
  const tapeWidthMm = Number(widthText.replace(/\s*mm$/, ''))
  if (widthText !== '' && !(tapeWidthMm >= TAPE_WIDTHS_MM[0] && tapeWidthMm <= TAPE_WIDTHS_MM[1]))
    faults.push({ code: 'tapes_unreadable', text: widthText })
  const holder = cell('holder')
  const besidesText = cell('besides')
  const besides = besidesText === '' ? {} : readBesides(besidesText)
  if (!besides) faults.push({ code: 'besides_unreadable', text: besidesText })

  if (faults.length > 0 || !size) return { ok: false, row, label, faults }
  return {
    ok: true,
    row,
    ...(written ? {} : { sizeFromDay: sizeText }),
    instrument: {
      label,
      family: familyId,
      sizeId: size.id,
      isDoubtful,
      ...(length === '' ? {} : { length }),
      ...(notes.length === 0 ? {} : { tuning: notes.map((n) => noteName(n)) }),
      ...(measuredOn === '' ? {} : { measuredOn }),
      ...(tapes.length === 0 ? {} : { tapes }),
      ...(tapeWidthMm > 0 ? { tapeWidthMm } : {}),
      ...(laidOn === '' ? {} : { laidOn }),
      ...(holder === '' ? {} : { holder }),
      ...(besides && Object.keys(besides).length > 0 ? { besides } : {}),
    },
  }
}

/** The size that a spreadsheet took for a day: of its day and month only one order makes a size. */
function sizeOfDay(family: Family, text: string): Size | undefined {
  if (!DATE_LIKE.test(text)) return undefined
  const parts = text
    .replace(/^\d{4}-/, '')
    .split(/[-./ ]+/)
    .slice(0, 2)
    .map((part) => (/^\d/.test(part) ? Number(part) : 1 + MONTHS.indexOf(part.slice(0, 3).toLowerCase())))
  const [a, b] = parts
  const found = [`${a}/${b}`, `${b}/${a}`].flatMap((id) => sizeOf(family, id) ?? [])
  return found[0]
}

/** Whether its values are such as an instrument has, the studio's server looks. */
function readBesides(text: string): KeptBesides | undefined {
  try {
    const read = JSON.parse(text) as unknown
    return typeof read === 'object' && read !== null && !Array.isArray(read) ? read : undefined
  } catch {
    return undefined
  }
}

/** A day with dots has its day first wherever it is written so; with strokes nobody knows, unless one number can be no month. */
function readDay(text: string): string {
  const [, a = '', mark, b = '', year] = /^(\d{1,2})([./])(\d{1,2})\2(\d{4})$/.exec(text) ?? []
  if (year === undefined) return text
  const isDayFirst = mark === '.' || Number(a) > 12
  if (!isDayFirst && Number(b) <= 12 && a !== b) return text
  const [day, month] = isDayFirst ? [a, b] : [b, a]
  return `${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`
}
