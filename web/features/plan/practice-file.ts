import Papa from 'papaparse'
import { isIsoDay, isPracticeId, unguardFormula, type ExerciseBook, type ExerciseId } from '#core'
import type { Plan, PlanDraft } from '#contracts'
import { entryOf } from './exact'

/** What was practised on a day, by the name of who did it. */
export interface ReadEntry {
  readonly student: string
  readonly on: string
  readonly exerciseId: ExerciseId
  readonly minutes: number | null
  readonly times: number | null
}
/** A week’s plan, by the name of whose it is. */
export interface ReadPlan {
  readonly student: string
  readonly plan: Omit<PlanDraft, 'after'>
}
/** What is wrong in which line of the file, or item of it. */
export interface FileFault {
  readonly row: number
  readonly code: 'student' | 'day' | 'future' | 'exercise' | 'number' | 'plan'
  readonly text: string
}
export type PracticeFile =
  | {
      readonly ok: true
      readonly entries: readonly ReadEntry[]
      readonly plans: readonly ReadPlan[]
      readonly faults: readonly FileFault[]
    }
  | {
      readonly ok: false
      readonly code: 'unreadable' | 'columns' | 'empty' | 'too_large'
      readonly missing?: string
    }

const COLUMNS = ['student', 'day', 'exercise'] as const
const LARGEST = 5_000_000

/**
 * Plans and logs as this program writes them, read back: a log as a table (CSV after RFC 4180, or JSON, an object a row) with the columns
 * student, day, exercise, minutes and times; plans as JSON. An exercise is named by its id. Whatever row is wrong is named, and the others
 * are read.
 *
 * @param today nobody has practised later; ISO date
 */
export function readPracticeFile(text: string, book: ExerciseBook, today: string): PracticeFile {
  if (text.length > LARGEST) return { ok: false, code: 'too_large' }
  const trimmed = text.replace(/^\uFEFF/, '').trim()
  if (trimmed === '') return { ok: false, code: 'empty' }
  const rows = /^[[{]/.test(trimmed) ? jsonRows(trimmed) : csvRows(trimmed)
  if (!rows) return { ok: false, code: 'unreadable' }
  if (rows.length === 0) return { ok: false, code: 'empty' }
  const first = rows[0]!.cells
  const missing = 'cards' in first ? undefined : COLUMNS.find((column) => !(column in first))
  if (missing !== undefined) return { ok: false, code: 'columns', missing }
  const entries: ReadEntry[] = []
  const plans: ReadPlan[] = []
  const faults: FileFault[] = []
  for (const { row, cells } of rows) {
    const fail = (code: FileFault['code'], of: unknown) => faults.push({ row, code, text: textOf(of) })
    const student = textOf(cells['student']).trim()
    if (student === '') fail('student', '')
    else if ('cards' in cells) planOf(student, cells, fail)
    else entryOfRow(student, cells, fail)
  }
  return { ok: true, entries, plans, faults }

  function entryOfRow(student: string, cells: Cells, fail: Fail): void {
    const on = textOf(cells['day']).trim()
    const exerciseId = textOf(cells['exercise']).trim() as ExerciseId
    const typed = entryOf({ minutes: textOf(cells['minutes']), times: textOf(cells['times']) })
    if (!isIsoDay(on)) fail('day', on)
    else if (on > today) fail('future', on)
    else if (!isPracticeId(exerciseId) && !book.own(exerciseId)) fail('exercise', exerciseId)
    else if (!typed.ok) fail('number', `${textOf(cells['minutes'])} ${textOf(cells['times'])}`.trim())
    else entries.push({ student, on, exerciseId, minutes: typed.minutes, times: typed.times })
  }

  function planOf(student: string, cells: Cells, fail: Fail): void {
    const {
      startsOn,
      cards,
      family,
      minutesADay,
      weekdays,
      pieces = [],
      instrumentId = null,
    } = cells as unknown as Plan
    const isWhole = isIsoDay(textOf(startsOn)) && Array.isArray(cards) && Array.isArray(weekdays)
    if (!isWhole) return void fail('plan', startsOn)
    const unknown = cards.find(({ exerciseId: id }) => !isPracticeId(id) && !book.own(id))
    if (unknown) return void fail('exercise', unknown.exerciseId)
    plans.push({ student, plan: { startsOn, cards, family, minutesADay, weekdays, pieces, instrumentId } })
  }
}

type Cells = Readonly<Record<string, unknown>>
type Fail = (code: FileFault['code'], text: unknown) => void

function jsonRows(text: string): { row: number; cells: Cells }[] | undefined {
  try {
    const read = JSON.parse(text) as unknown
    const all = Array.isArray(read) ? (read as unknown[]) : [read]
    if (!all.every((one) => typeof one === 'object' && one !== null)) return undefined
    return all.map((cells, i) => ({ row: i + 1, cells: cells as Cells }))
  } catch {
    return undefined
  }
}

/** Rows by their numbers, the heading is the first. */
function csvRows(text: string): { row: number; cells: Cells }[] | undefined {
  const { data, errors } = Papa.parse<Record<string, string>>(text, {
    header: true,
    skipEmptyLines: true,
    transformHeader: (name) => name.trim().toLowerCase(),
  })
  if (errors.some(({ type }) => type === 'Quotes')) return undefined
  return data.map((cells, i) => ({ row: i + 2, cells }))
}

function textOf(value: unknown): string {
  return typeof value === 'string' ? unguardFormula(value) : typeof value === 'number' ? String(value) : ''
}
