import { DEFAULT_TAPE_WIDTH_MM } from '#core'
import type { Answer, HandlerInput } from '#contracts'
import type { Call } from '../../http/call'
import { ProblemError } from '../../http/problem-error'
import { studentRepository } from '../students/repository'
import { studentService } from '../students/service'
import { tapeService } from '../tapes/service'
import { instrumentService } from './service'

type Draft = HandlerInput<'instruments.import'>['body']
type NotLent = Answer<'instruments.import'>['notLent'][number]

/** A table of instruments with what it says of each: length, tapes, and who has it. */
export async function importTable(
  call: Pick<Call, 'store' | 'signedIn' | 'now'>,
  draft: Draft,
): Promise<Answer<'instruments.import'>> {
  const ids = await instrumentService(call).addRows(draft)
  const { system } = call.signedIn.session.studio
  const notLent: NotLent[] = []
  for (const [index, row] of draft.rows.entries()) {
    const id = ids[index]!
    const measuredOn = row.measuredOn ?? draft.measuredOn
    if (row.tapes)
      await tapeService(call)
        .lay(id, {
          schoolId: 'by_hand',
          system,
          tapeWidthMm: row.tapeWidthMm ?? DEFAULT_TAPE_WIDTH_MM,
          laidOn: row.laidOn ?? measuredOn,
          marks: row.tapes,
          reason: '',
        })
        .catch((error: unknown) => {
          throw ofRow(index, error)
        })
    for (const ring of row.besides?.rings ?? [])
      await tapeService(call)
        .find(id, ring)
        .catch((error: unknown) => {
          throw ofRow(index, error)
        })
    if (row.holder) {
      const why = await lendTo(call, row.holder, row.family, id, draft.measuredOn)
      if (why) notLent.push({ label: row.label, name: row.holder, why })
    }
  }
  return { count: ids.length, ids, notLent }
}

/** Lends to the one student of that name who has no instrument, or says why not: a table takes nothing from anybody. */
async function lendTo(
  call: Pick<Call, 'store' | 'signedIn' | 'now'>,
  name: string,
  family: string,
  instrumentId: string,
  on: string,
): Promise<NotLent['why'] | undefined> {
  const found = await studentRepository(call.store).named(name)
  const [student] = found
  if (!student) return 'unknown'
  if (found.length > 1) return 'several'
  if (student.family !== family) return 'other_family'
  if ((await studentRepository(call.store).factsOf(student.id))?.instrumentId) return 'has_one'
  await studentService(call).lend(student.id, instrumentId, on)
  return undefined
}

/** What is wrong with the tapes of a row, as a fault of that row. */
function ofRow(index: number, error: unknown): unknown {
  if (!(error instanceof ProblemError)) return error
  const { fields, ...rest } = error.particulars
  const named = (fields ?? []).map(({ path, message }) => ({ path: `rows.${index}.${path}`, message }))
  return new ProblemError(error.code, { ...rest, fields: named })
}
