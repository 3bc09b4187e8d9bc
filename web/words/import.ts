import {
  familyOf,
  judgeLength,
  parseLength,
  sizeOf,
  type ImportedInstrument,
  type ImportFault,
  type TableFault,
} from '#core'
import type { Answer } from '#contracts'
import { lengthSentence } from './length'
import { inStudioUnit, length, listed } from './numbers'
import { sizeName } from './trade'

export function tableFaultWords(fault: TableFault): string {
  switch (fault.code) {
    case 'too_large':
      return `This file has more than ${fault.limit / 1e6} MB. Bring the table in in parts.`
    case 'not_utf8':
      return 'The letters of this file cannot be read. Save it from the spreadsheet as “CSV UTF-8” and choose it again.'
    case 'empty':
      return 'There are no rows in this file. The first row names the columns: label, family, size, length, tuning.'
    case 'columns_missing':
      return `The first row does not name ${listed(fault.columns)}. It has: ${fault.found.slice(0, 8).join(', ')}.`
    case 'too_many_rows':
      return `More than ${fault.limit.toLocaleString('en-GB')} rows: bring the table in in parts.`
    case 'quotes':
      return `Row ${fault.row}: a quotation mark is opened and not closed. Mend it in the spreadsheet and save again.`
  }
}

export function rowFaultWords(fault: ImportFault): string {
  switch (fault.code) {
    case 'label_missing':
      return 'no number or name'
    case 'label_too_long':
      return `the name has more than ${fault.limit} characters`
    case 'label_twice':
      return `the same name as row ${fault.firstRow}`
    case 'label_taken':
      return 'an instrument of this name is in the cupboard already'
    case 'family_unknown':
      return `“${cut(fault.text)}” is not violin, viola, cello or bass`
    case 'size_unknown':
      return `“${cut(fault.text)}” is not one of the sizes ${fault.sizes.join(', ')}`
    case 'size_is_date':
      return `“${cut(fault.text)}” is a day: the spreadsheet took a size as 1/2 for one. Set its column to text, type the sizes again`
    case 'length_unreadable':
      return `“${cut(fault.text)}” is no length, as 328, 32.8 cm or 12 7/8 in are`
    case 'length_impossible':
      return `${cut(fault.text)} cannot be its string: about ${inStudioUnit(`${fault.lowMm.toFixed(0)} to ${fault.highMm.toFixed(0)} mm`)}${meantWords(fault.meant)}`
    case 'day_unreadable':
      return `“${cut(fault.text)}” is no day: write it as 2026-11-28`
    case 'tapes_unreadable':
      return `“${cut(fault.text)}” are not tapes as this cupboard writes them, as 1 (1.2) at 31.04`
    case 'besides_unreadable':
      return 'what is kept besides was changed: empty this cell, or take the row from the cupboard’s own table again'
    case 'tapes_without_length':
      return 'tapes are told, and no length from which they were laid'
    case 'cells_over':
      return `“${cut(fault.text)}” stands beyond the last heading: name its column, or take it out`
    case 'tuning_unreadable':
      return `“${cut(fault.text)}” are not four to six open strings, as G3 D4 A4 E5 are`
  }
}

/** What there is to look at in a row that comes in: a length that does not suit its size, a size out of a day. */
export function doubtWords(
  { family: familyId, sizeId, length: typed = '', isDoubtful }: ImportedInstrument,
  sizeFromDay?: string,
): string {
  const family = familyOf(familyId)
  const size = sizeOf(family, sizeId)
  const parsed = parseLength(typed)
  return [
    ...(sizeFromDay
      ? [`The spreadsheet made the day ${sizeFromDay} of a size: read as ${sizeName(sizeId)}.`]
      : []),
    ...(isDoubtful && size && parsed.ok
      ? [`${cut(typed)}: ${lengthSentence(familyId, sizeId, judgeLength(family, size, parsed))}`]
      : []),
  ].join(' ')
}

function cut(text: string): string {
  return text.length > 30 ? `${text.slice(0, 30)}…` : text
}

function meantWords(meant: Extract<ImportFault, { code: 'length_impossible' }>['meant']): string {
  if (!meant) return ''
  const unit = { mm: 'millimetres', cm: 'centimetres', in: 'inches' }[meant.unit]
  return `. Were these ${unit}? Then it is ${length(meant.lengthMm)}: write the unit beside it, or over the column`
}

/** Why an instrument of the table is not with the student that the table names. */
export function notLentSentence({
  label,
  name,
  why,
}: Answer<'instruments.import'>['notLent'][number]): string {
  const reason = {
    unknown: `nobody on the roster is called ${name}`,
    several: `several are called ${name}`,
    has_one: `${name} has an instrument already`,
    other_family: `${name} plays another instrument`,
  }[why]
  return `${label} is with nobody: ${reason}.`
}
