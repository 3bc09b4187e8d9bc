import { Op } from 'sequelize'
import type { LoanRow, StudentRow } from '../../db/rows'
import type { StudioStore } from '../../db/studio-store'

export function studentRepository(store: StudioStore) {
  const { student, loan } = store.models
  return {
    byId: (id: string) => store.one(student, { id }),

    /** The roster by name; `q` is looked for anywhere in the name. */
    roster(q: string): Promise<StudentRow[]> {
      const like = `%${q.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`
      return store.all(
        student,
        { removedAt: null, ...(q === '' ? {} : { name: { [Op.like]: like } }) },
        { order: [['name', 'ASC']] },
      )
    },

    openLoans: (studentIds: readonly string[]): Promise<LoanRow[]> =>
      store.all(loan, { toDate: null, studentId: { [Op.in]: [...studentIds] } }),

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
