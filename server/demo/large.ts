import { QueryTypes } from 'sequelize'
import { v7 as uuid } from 'uuid'
import { dayNumber, dayOf } from '#core'
import type { Database } from '../db/database'
import type { Table } from '../db/models'
import { addStudio } from '../features/session/accounts'

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
export async function addLargeStudio(
  database: Database,
  students: number,
  password: string,
  checks = 0,
): Promise<void> {
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
  if (checks > 0) await addPast(database, from, session.studio.id, newIds, checks)
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

/** Their notes under the checks that are there, then the same again and again into the past, until there are so many. */
async function addPast(
  { sequelize, models }: Database,
  from: string,
  studioId: string,
  newIds: readonly ReadonlyMap<unknown, string>[],
  wanted: number,
): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    const run = (sql: string, replacements: Record<string, unknown> = {}) =>
      sequelize.query(sql, { replacements: { studioId, ...replacements }, type: QueryTypes.RAW, transaction })
    await run(
      'CREATE TEMPORARY TABLE copied (was CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, KEY (was))',
    )
    const demo = (await models.check.findAll({
      where: { studioId: from },
      attributes: ['id'],
      raw: true,
      transaction,
    })) as unknown as { id: string }[]
    const pairs = newIds.flatMap((ids) => demo.map(({ id }) => [id, ids.get(id)!]))
    for (let at = 0; at < pairs.length; at += WRITTEN_AT_ONCE)
      await run(
        'INSERT INTO copied VALUES :pairs'.replace(':pairs', () =>
          valuesOf(pairs.slice(at, at + WRITTEN_AT_ONCE)),
        ),
      )
    const landing = columnsOf(models.landing, ['check_id', 'studio_id'])
    const copyLandings = () =>
      run(
        `INSERT INTO landing (check_id, studio_id, ${landing}) SELECT m.id, :studioId, ${landing} FROM landing l JOIN copied m ON m.was = l.check_id`,
      )
    await copyLandings()
    const check = columnsOf(models.check, ['id', 'taken_at', 'has_track'])
    for (let count = pairs.length, age = 1; count < wanted; age++) {
      const more = Math.min(pairs.length, wanted - count)
      const first = pairs.slice(0, more).map(([, id]) => id)
      await run('DELETE FROM copied')
      await run(
        `INSERT INTO copied SELECT id, UUID() FROM hand_check WHERE studio_id = :studioId AND id IN (:first)`,
        { first },
      )
      await run(
        `INSERT INTO hand_check (id, taken_at, has_track, ${check})
         SELECT m.id, c.taken_at - INTERVAL :days DAY, 0, ${check} FROM hand_check c JOIN copied m ON m.was = c.id`,
        { days: age * TERM_DAYS },
      )
      await copyLandings()
      count += more
    }
    await run('DROP TEMPORARY TABLE copied')
  })
}

/** Ids of our own: nothing in them needs to be guarded. */
const valuesOf = (pairs: readonly (readonly string[])[]) =>
  pairs.map((pair) => `(${pair.map((id) => `'${id}'`).join(',')})`).join(',')

function columnsOf(table: { getAttributes(): object }, but: readonly string[]): string {
  return Object.values(table.getAttributes() as Record<string, { field: string }>)
    .map(({ field }) => field)
    .filter((field) => !but.includes(field))
    .map((field) => `\`${field}\``)
    .join(', ')
}

export interface District {
  readonly studios: number
  /** In each of them but the large one. */
  readonly students: number
  readonly large: { readonly students: number; readonly checks: number }
}

/** A school district: small studios with their rosters, and one with years of everything. */
export async function addDistrict(
  database: Database,
  { studios, students, large }: District,
  password: string,
  say: (line: string) => void = () => {},
): Promise<void> {
  const now = new Date()
  for (let nth = 1; nth < studios; nth++) {
    const { studio } = await database.inTransaction((transaction) =>
      addStudio(database, transaction, {
        studioName: `Harbour School ${nth}`,
        teacherName: `Teacher of School ${nth}`,
        email: districtEmail(nth),
        password,
        now,
      }),
    )
    await database.sequelize.query(
      `INSERT INTO student (id, studio_id, version, name, family, tolerance_cents, lesson_weekday, lesson_time, note, created_at)
       SELECT UUID(), :studioId, 1, CONCAT('Pupil ', seq), ELT(1 + seq MOD 4, 'violin', 'viola', 'cello', 'bass'), 15,
              1 + seq MOD 6, CONCAT(LPAD(8 + seq MOD 10, 2, '0'), ':00'), '', :now FROM seq_1_to_${students}`,
      { type: QueryTypes.RAW, replacements: { studioId: studio.id, now } },
    )
    if (nth % 50 === 0) say(`${nth} studios`)
  }
  say(`a studio of ${large.students} students and ${large.checks} checks`)
  await addLargeStudio(database, large.students, password, large.checks)
}

export const districtEmail = (nth: number) => `school-${nth}@port-ellery.example`

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
