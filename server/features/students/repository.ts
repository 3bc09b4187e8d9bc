import { Op } from 'sequelize'
import type { CheckRow, LoanRow, StudentRow } from '../../db/rows'
import { inOrderOf, orderBy, searchFor, type Listing, type Sorted } from '../../db/listing'
import { NEWEST_LENGTH } from '../instruments/repository'
import { readAll } from '../../db/reads'
import { columnsOf, partOf, type StudioStore } from '../../db/studio-store'

type LastCheck = Pick<CheckRow, 'id' | 'takenAt' | 'exercise' | 'verdict' | 'decision'>

/** A student with what is with them now and the check taken last. */
export interface StudentFacts {
  readonly student: StudentRow
  readonly instrumentId: string | null
  readonly lastCheck: LastCheck | undefined
  /** The newest check whose decision names a thing to work on. */
  readonly work: WorkCheck | undefined
}

type WorkCheck = Pick<CheckRow, 'id' | 'takenAt' | 'decision'>

export type RosterListing = Listing<keyof typeof SORTED_BY>

// The last row of its key: left to itself the database may sort all of a student’s checks by a wider one.
const LAST_CHECKED = `(
  SELECT n.taken_at FROM hand_check n FORCE INDEX (newest_check)
  WHERE n.studio_id = s.studio_id AND n.student_id = s.id AND n.removed_at IS NULL
  ORDER BY n.taken_at DESC, n.id DESC LIMIT 1)`

const WITH_INSTRUMENT = `
  LEFT JOIN loan l ON l.studio_id = s.studio_id AND l.student_id = s.id AND l.is_open = 1
  LEFT JOIN instrument i ON i.studio_id = l.studio_id AND i.id = l.instrument_id`

/** What a column of the roster is ordered by: labels as a person counts, no. 2 before no. 10; days from Monday. */
const SORTED_BY = {
  name: { column: 's.name' },
  instrument: { column: 'NATURAL_SORT_KEY(i.label)', mayLack: true },
  length: { column: NEWEST_LENGTH, mayLack: true },
  lesson: { column: "CONCAT(MOD(s.lesson_weekday + 6, 7), ' ', s.lesson_time)", mayLack: true },
  checked: { column: LAST_CHECKED, mayLack: true },
} as const satisfies Record<string, Sorted>

interface JoinedStudent {
  readonly student: StudentRow
  readonly loan: { readonly instrumentId: string | null }
  readonly lastCheck: LastCheck | { id: null }
  readonly work: WorkCheck | { id: null }
}

export function studentRepository(store: StudioStore) {
  const { student, loan, check } = store.models

  /** Students with open loan and newest check, in one statement; `condition` is about `s`. */
  async function joined(condition: string, replacements: Record<string, unknown>): Promise<StudentFacts[]> {
    const rows = await store.select<JoinedStudent>(
      `SELECT ${columnsOf(student, 's', 'student')}, l.instrument_id AS \`loan.instrumentId\`,
              ${columnsOf(check, 'c', 'lastCheck', ['id', 'takenAt', 'exercise', 'verdict', 'decision'])},
              ${columnsOf(check, 'w', 'work', ['id', 'takenAt', 'decision'])}
       FROM student s
       LEFT JOIN loan l ON l.studio_id = s.studio_id AND l.student_id = s.id AND l.is_open = 1
       LEFT JOIN hand_check c ON c.id = (
         SELECT n.id FROM hand_check n FORCE INDEX (newest_check)
         WHERE n.studio_id = s.studio_id AND n.student_id = s.id AND n.removed_at IS NULL
         ORDER BY n.taken_at DESC, n.id DESC LIMIT 1)
       LEFT JOIN hand_check w ON w.id = (
         SELECT n.id FROM hand_check n FORCE INDEX (newest_work)
         WHERE n.studio_id = s.studio_id AND n.student_id = s.id AND n.removed_at IS NULL AND n.names_work = 1
         ORDER BY n.taken_at DESC, n.id DESC LIMIT 1)
       WHERE s.studio_id = :studioId AND ${condition} ORDER BY s.name`,
      replacements,
    )
    return rows.map((row) => ({
      student: row.student,
      instrumentId: row.loan.instrumentId,
      lastCheck: partOf(row.lastCheck),
      work: partOf(row.work),
    }))
  }

  async function ofIds(ids: readonly string[]): Promise<StudentFacts[]> {
    if (ids.length === 0) return []
    return inOrderOf(ids, await joined('s.id IN (:ids)', { ids }), ({ student: row }) => row.id)
  }

  return {
    ofIds,
    byId: (id: string) => store.one(student, { id }),

    /** Who is on the roster by exactly this name, letters large or small. */
    named: (name: string) => store.all(student, { name, removedAt: null }),

    async factsOf(id: string): Promise<StudentFacts | undefined> {
      return (await joined('s.id = :id', { id }))[0]
    },

    /** A page of the roster, and how many it has. */
    async roster(listing: RosterListing): Promise<{ total: number; rows: StudentFacts[] }> {
      const search = searchFor(listing.q, ['s.name', 's.family', 'i.label', 'i.size_id'])
      // Most pages are of the whole roster by name: an index has them in order, and no other table is looked at.
      const needsInstrument = listing.q.trim() !== '' || ['instrument', 'length'].includes(listing.sort)
      const from = `
        FROM student s
        ${needsInstrument ? WITH_INSTRUMENT : ''}
        WHERE s.studio_id = :studioId AND s.removed_at IS NULL ${search.condition}`
      const { limit, offset } = listing
      const [counted, page] = await readAll(true, [
        () => store.select<{ total: number }>(`SELECT COUNT(*) AS total ${from}`, search.replacements),
        () =>
          store.select<{ id: string }>(
            `SELECT s.id ${from} ORDER BY ${orderBy(SORTED_BY[listing.sort], listing.direction, listing.sort === 'name' ? 's.id' : 's.name')}
           LIMIT :limit OFFSET :offset`,
            { ...search.replacements, limit, offset },
          ),
      ])
      const ids = page.map((row) => row.id)
      return { total: Number(counted[0]?.total ?? 0), rows: await ofIds(ids) }
    },

    /** Days of the week (0 is Sunday) on which somebody has a lesson. */
    async lessonDays(): Promise<number[]> {
      const rows = await store.select<{ weekday: number }>(
        `SELECT DISTINCT lesson_weekday AS weekday FROM student
         WHERE studio_id = :studioId AND removed_at IS NULL AND lesson_weekday IS NOT NULL`,
      )
      return rows.map((row) => row.weekday)
    },

    /** Who has a lesson on that day of the week, by time: a page of them, and how many there are. */
    async withLessonOn(
      weekday: number,
      page: Pick<Listing, 'limit' | 'offset'>,
    ): Promise<{ total: number; rows: StudentFacts[] }> {
      const rows = await store.select<{ id: string; total: number }>(
        `SELECT id, COUNT(*) OVER () AS total FROM student
         WHERE studio_id = :studioId AND removed_at IS NULL AND lesson_weekday = :weekday
         ORDER BY lesson_time, name, id LIMIT :limit OFFSET :offset`,
        { weekday, ...page },
      )
      return { total: Number(rows[0]?.total ?? 0), rows: await ofIds(rows.map((row) => row.id)) }
    },

    add: (row: Omit<StudentRow, 'studioId'>) => store.insert(student, [row]),

    /** False when the row is no longer at `version`. */
    async change(id: string, version: number, values: Partial<StudentRow>): Promise<boolean> {
      return (await store.update(student, { id, version }, { ...values, version: version + 1 })) === 1
    },

    async setRemoved(id: string, removedAt: Date | null): Promise<boolean> {
      return (await store.update(student, { id }, { removedAt })) === 1
    },

    /**
     * Ends whatever loans of this student or this instrument are open, and holds both until the transaction ends. Everybody who
     * lends takes the student, then the instrument, then loans in the order of their keys: nobody waits in a ring.
     */
    async endLoans(studentId: string, instrumentId: string | null, on: string): Promise<void> {
      for (const [table, id] of [
        ['student', studentId],
        ['instrument', instrumentId],
      ])
        if (id !== null)
          await store.select(`SELECT id FROM ${table} WHERE studio_id = :studioId AND id = :id FOR UPDATE`, {
            id,
          })
      const either = [{ studentId }, ...(instrumentId === null ? [] : [{ instrumentId }])]
      const open = await store.all(loan, { [Op.or]: either, toDate: null })
      for (const id of open.map((row) => row.id).sort())
        await store.update(loan, { id, toDate: null }, { toDate: on })
    },

    /** What the student held and holds, oldest first, by the instruments’ labels. */
    loansOf: (studentId: string) =>
      store.select<Pick<LoanRow, 'instrumentId' | 'fromDate' | 'toDate'> & { readonly label: string }>(
        `SELECT l.instrument_id AS instrumentId, i.label, l.from_date AS fromDate, l.to_date AS toDate
         FROM loan l JOIN instrument i ON i.studio_id = l.studio_id AND i.id = l.instrument_id
         WHERE l.studio_id = :studioId AND l.student_id = :studentId ORDER BY l.from_date, l.id`,
        { studentId },
      ),

    addLoan: (row: Omit<LoanRow, 'studioId'>) => store.insert(loan, [row]),
  }
}
