import type { CheckRow, LoanRow, StudentRow } from '../../db/rows'
import { columnsOf, partOf, type StudioStore } from '../../db/studio-store'

/** A student with what is with them now and the check taken last. */
export interface StudentFacts {
  readonly student: StudentRow
  readonly instrumentId: string | null
  readonly lastCheck: CheckRow | undefined
}

interface JoinedStudent {
  readonly student: StudentRow
  readonly loan: { readonly instrumentId: string | null }
  readonly lastCheck: CheckRow | { id: null }
}

export function studentRepository(store: StudioStore) {
  const { student, loan, check } = store.models

  /** Students with open loan and newest check, in one statement; `condition` is about `s`. */
  async function joined(condition: string, replacements: Record<string, unknown>): Promise<StudentFacts[]> {
    const rows = await store.select<JoinedStudent>(
      `SELECT ${columnsOf(student, 's', 'student')}, l.instrument_id AS \`loan.instrumentId\`,
              ${columnsOf(check, 'c', 'lastCheck')}
       FROM student s
       LEFT JOIN loan l ON l.studio_id = s.studio_id AND l.student_id = s.id AND l.is_open = 1
       LEFT JOIN hand_check c ON c.id = (
         SELECT n.id FROM hand_check n
         WHERE n.studio_id = s.studio_id AND n.student_id = s.id AND n.removed_at IS NULL
         ORDER BY n.taken_at DESC, n.id DESC LIMIT 1)
       WHERE s.studio_id = :studioId AND ${condition} ORDER BY s.name`,
      replacements,
    )
    return rows.map((row) => ({
      student: row.student,
      instrumentId: row.loan.instrumentId,
      lastCheck: partOf(row.lastCheck),
    }))
  }

  return {
    byId: (id: string) => store.one(student, { id }),

    async factsOf(id: string): Promise<StudentFacts | undefined> {
      return (await joined('s.id = :id', { id }))[0]
    },

    /** The roster by name; `q` is looked for anywhere in the name. */
    roster(q: string): Promise<StudentFacts[]> {
      const like = `%${q.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`
      return joined(`s.removed_at IS NULL ${q === '' ? '' : 'AND s.name LIKE :like'}`, { like })
    },

    add: (row: Omit<StudentRow, 'studioId'>) => store.insert(student, [row]),

    /** False when the row is no longer at `version`. */
    async change(id: string, version: number, values: Partial<StudentRow>): Promise<boolean> {
      return (await store.update(student, { id, version }, { ...values, version: version + 1 })) === 1
    },

    async setRemoved(id: string, removedAt: Date | null): Promise<boolean> {
      return (await store.update(student, { id }, { removedAt })) === 1
    },

    /** Ends whatever loans of this student or this instrument are open. */
    async endLoans(studentId: string, instrumentId: string | null, on: string): Promise<void> {
      await store.update(loan, { studentId, toDate: null }, { toDate: on })
      if (instrumentId !== null) await store.update(loan, { instrumentId, toDate: null }, { toDate: on })
    },

    addLoan: (row: Omit<LoanRow, 'studioId'>) => store.insert(loan, [row]),
  }
}
