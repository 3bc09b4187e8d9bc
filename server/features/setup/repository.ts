import { Op } from 'sequelize'
import type { SetupNow } from '#contracts'
import type { BodyFitRow, GateMarkRow, PainRow, SetupRoundRow } from '../../db/rows'
import { columnsOf, type By, type StudioStore } from '../../db/studio-store'

const OLDEST_FIRST: [string, string][] = [
  ['takenAt', 'ASC'],
  ['id', 'ASC'],
]
const TOLD_FIRST: [string, string][] = [
  ['toldOn', 'DESC'],
  ['recordedAt', 'DESC'],
  ['id', 'DESC'],
]

export function setupRepository(store: StudioStore) {
  const { student, setupRound, pain, bodyFit, gateMark } = store.models
  return {
    rounds: {
      /** Oldest first. */
      ofStudent: (studentId: string) =>
        store.written(setupRound, { studentId, removedAt: null }, { order: OLDEST_FIRST }),
      /** Of some students since an instant. */
      ofStudents: (studentIds: readonly string[], since: Date): Promise<SetupRoundRow[]> =>
        store.all(setupRound, {
          studentId: { [Op.in]: [...studentIds] },
          removedAt: null,
          takenAt: { [Op.gte]: since },
        }),
      byId: async (id: string) => (await store.written(setupRound, { id }))[0],
      add: (row: Omit<SetupRoundRow, 'studioId'>) => store.insert(setupRound, [row]),
      setRemoved: (id: string, removedAt: Date | null) => store.update(setupRound, { id }, { removedAt }),
    },

    /** Whoever adds to or takes from a student’s rounds waits here for whoever does so already. */
    async lockStudent(id: string): Promise<void> {
      await store.select('SELECT id FROM student WHERE studio_id = :studioId AND id = :id FOR UPDATE', { id })
    },
    setNow: (id: string, setupNow: SetupNow | null) => store.update(student, { id }, { setupNow }),

    pains: {
      ofStudent: (studentId: string) =>
        store.written(pain, { studentId, removedAt: null }, { order: TOLD_FIRST }),
      byId: async (id: string) => (await store.written(pain, { id }))[0],
      /** Told by these students and not cleared, the newest first. */
      async openOf(studentIds: readonly string[]): Promise<By<PainRow>[]> {
        if (studentIds.length === 0) return []
        const rows = await store.select<{ pain: By<PainRow> }>(
          `SELECT ${columnsOf(pain, 'p', 'pain')}, u.name AS \`pain.by\`
           FROM pain p LEFT JOIN user u ON u.id = p.user_id
           WHERE p.studio_id = :studioId AND p.student_id IN (:studentIds)
             AND p.removed_at IS NULL AND p.cleared_on IS NULL
           ORDER BY p.told_on DESC, p.recorded_at DESC, p.id DESC`,
          { studentIds },
        )
        return rows.map((row) => row.pain)
      },
      add: (row: Omit<PainRow, 'studioId'>) => store.insert(pain, [row]),
      change: (id: string, values: Partial<Pick<PainRow, 'clearedOn' | 'clearedNote' | 'removedAt'>>) =>
        store.update(pain, { id }, values),
    },

    fits: {
      ofStudent: (studentId: string) =>
        store.written(
          bodyFit,
          { studentId, removedAt: null },
          {
            order: [
              ['fittedOn', 'DESC'],
              ['recordedAt', 'DESC'],
              ['id', 'DESC'],
            ],
          },
        ),
      byId: async (id: string) => (await store.written(bodyFit, { id }))[0],
      add: (row: Omit<BodyFitRow, 'studioId'>) => store.insert(bodyFit, [row]),
      setRemoved: (id: string, removedAt: Date | null) => store.update(bodyFit, { id }, { removedAt }),
    },

    gates: {
      /** Oldest first. */
      ofStudent: (studentId: string) =>
        store.written(
          gateMark,
          { studentId },
          {
            order: [
              ['recordedAt', 'ASC'],
              ['id', 'ASC'],
            ],
          },
        ),
      add: (row: Omit<GateMarkRow, 'studioId'>) => store.insert(gateMark, [row]),
    },
  }
}
