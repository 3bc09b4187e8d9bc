import { QueryTypes } from 'sequelize'
import { v7 as uuid } from 'uuid'
import { dayNumber, dayOf } from '../core'
import type { Database } from '../server/db/database'
import type { Table } from '../server/db/models'
import { addStudio } from '../server/features/session/accounts'

/** Tables in the order in which their rows may be written, and the columns that name rows of the others. */
const TABLES = [
  ['student', []],
  ['instrument', []],
  ['loan', ['studentId', 'instrumentId']],
  ['measurement', ['instrumentId', 'userId']],
  ['tapeSet', ['instrumentId', 'userId']],
  ['tapeEvent', ['instrumentId', 'userId']],
  ['ringFind', ['instrumentId', 'userId']],
  ['handMeasurement', ['studentId', 'userId']],
  ['check', ['studentId', 'instrumentId', 'userId']],
  ['practicePlan', ['studentId', 'instrumentId', 'userId']],
  ['practiceEntry', ['studentId', 'userId']],
] as const
const WRITTEN_AT_ONCE = 500
/** Plans and logs are given to these of the copies: a class, and not a third of a gigabyte. */
const PRACTISING_COPIES = 12
/** Terms of ten weeks in two years, over which the first copy of every student has practised. */
const TERMS = 10
const TERM_DAYS = 70

type Row = Record<string, unknown> & { id: string }

export const LARGE_EMAIL = 'registrar@port-ellery.example'

/** A studio of at least so many students and instruments: the demo's, over and over, each with its own record. */
export async function addLargeStudio(database: Database, students: number, password: string): Promise<void> {
  const [demo] = await database.models.studio.findAll({ raw: true, order: [['createdAt', 'ASC']] })
  const from = (demo as unknown as { id: string }).id
  const session = await database.inTransaction((transaction) =>
    addStudio(database, transaction, {
      studioName: 'Port Ellery District',
      teacherName: 'Ferris Combe',
      email: LARGE_EMAIL,
      password,
      now: new Date(),
    }),
  )
  const read = async (table: (typeof TABLES)[number][0]) =>
    (await tableOf(database, table).findAll({
      where: { studioId: from },
      raw: true,
    })) as unknown as Row[]
  const rows = new Map(await Promise.all(TABLES.map(async ([table]) => [table, await read(table)] as const)))
  const copies = Math.ceil(students / rows.get('student')!.length)
  const newIds = Array.from({ length: copies }, () => new Map<unknown, string>())
  for (const [table, names] of TABLES) {
    const isPractice = table === 'practicePlan' || table === 'practiceEntry'
    const made = (isPractice ? newIds.slice(0, PRACTISING_COPIES) : newIds).flatMap((ids, copy) =>
      rows.get(table)!.map((row) => {
        const id = uuid()
        ids.set(row.id, id)
        const pointing = names.map((name): [string, string | undefined] => [
          name,
          name === 'userId' ? session.user.id : ids.get(row[name]),
        ])
        return {
          ...row,
          ...named(row, copy),
          ...(Object.fromEntries(pointing) as Record<string, unknown>),
          id,
          studioId: session.studio.id,
        }
      }),
    )
    for (let at = 0; at < made.length; at += WRITTEN_AT_ONCE)
      await tableOf(database, table).bulkCreate(made.slice(at, at + WRITTEN_AT_ONCE), {
        hooks: false,
      })
  }
  await addYears(database, session.studio.id, [...newIds[0]!.values()])
  // So many rows at once: what the database knows of its tables is no longer so.
  await database.sequelize.query(
    `ANALYZE TABLE ${TABLES.map(([table]) => database.models[table].tableName).join(', ')}`,
    { type: QueryTypes.SELECT },
  )
}

/** Two years of what these students did: the term that is there, over and over into the past. */
async function addYears(database: Database, studioId: string, studentIds: readonly string[]): Promise<void> {
  const table = tableOf(database, 'practiceEntry')
  const rows = (await table.findAll({
    where: { studioId, studentId: studentIds },
    raw: true,
  })) as unknown as Row[]
  for (let term = 1; term < TERMS; term++)
    await table.bulkCreate(
      rows.map((row) => ({
        ...row,
        id: uuid(),
        practisedOn: dayOf(dayNumber(row['practisedOn'] as string) - term * TERM_DAYS),
      })),
      { hooks: false },
    )
}

function tableOf({ models }: Database, name: (typeof TABLES)[number][0]): Table<Row> {
  return models[name] as unknown as Table<Row>
}

/** Monday to Saturday. */
const TEACHING_DAYS = 6

/** What tells the copies apart: names, labels, and the day of the lesson. */
function named(row: Row, copy: number): Partial<Row> {
  if (typeof row['name'] === 'string')
    return { name: `${row['name']} ${copy + 1}`, lessonWeekday: 1 + (copy % TEACHING_DAYS) }
  return typeof row['label'] === 'string' ? { label: `${row['label']}-${copy + 1}` } : {}
}
