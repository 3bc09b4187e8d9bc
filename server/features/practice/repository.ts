import { group } from 'd3-array'
import { Op } from 'sequelize'
import type { PracticeEntryRow, PracticePlanRow } from '../../db/rows'
import type { By, StudioStore } from '../../db/studio-store'

const NEWEST_FIRST: [string, string][] = [
  ['startsOn', 'DESC'],
  ['recordedAt', 'DESC'],
  ['id', 'DESC'],
]
const AS_SAID: [string, string][] = [
  ['recordedAt', 'ASC'],
  ['id', 'ASC'],
]

/** Which students of a class are wanted. */
export interface ClassPage {
  readonly from: string
  readonly to: string
  readonly family?: string | undefined
  readonly offset: number
  readonly limit: number
}

export function practiceRepository(store: StudioStore) {
  const { practicePlan, practiceEntry } = store.models

  return {
    byId: async (id: string): Promise<By<PracticePlanRow> | undefined> =>
      (await store.written(practicePlan, { id }))[0],

    ofIds: (ids: readonly string[]) => store.written(practicePlan, { id: { [Op.in]: [...ids] } }),

    /** The newest week first; of a week the plan that was given last. */
    async plansOf(studentId: string, startsOn?: string): Promise<By<PracticePlanRow>[]> {
      const where = { studentId, removedAt: null, ...(startsOn !== undefined && { startsOn }) }
      const rows = await store.written(practicePlan, where, { order: NEWEST_FIRST })
      const weeks = new Set<string>()
      return rows.filter((row) => !weeks.has(row.startsOn) && weeks.add(row.startsOn))
    },

    /** Of each student, exercise and day what was said last, by day; what was taken back is not there. */
    async doneBy(studentIds: readonly string[], from = '0001-01-01'): Promise<By<PracticeEntryRow>[]> {
      if (studentIds.length === 0) return []
      const where = { studentId: { [Op.in]: [...studentIds] }, practisedOn: { [Op.gte]: from } }
      const rows = await store.written(practiceEntry, where, { order: AS_SAID })
      const newest = new Map(
        rows.map((row) => [`${row.studentId} ${row.practisedOn} ${row.exerciseId}`, row] as const),
      )
      return [...newest.values()]
        .filter(({ isDone }) => isDone)
        .sort((a, b) => (a.practisedOn < b.practisedOn ? -1 : a.practisedOn > b.practisedOn ? 1 : 0))
    },

    /** Students on the roster whose newest plan of these days began on one of them, by name: a page, and how many there are. */
    async ofClass({
      family = null,
      ...page
    }: Omit<ClassPage, 'family'> & { family?: string | null | undefined }) {
      const rows = await store.select<{ studentId: string; planId: string; total: number }>(
        `SELECT p.student_id AS studentId, p.id AS planId, COUNT(*) OVER () AS total
         FROM (
           SELECT id, student_id, ROW_NUMBER() OVER (
             PARTITION BY student_id ORDER BY starts_on DESC, recorded_at DESC, id DESC) AS place
           FROM practice_plan
           WHERE studio_id = :studioId AND removed_at IS NULL AND starts_on BETWEEN :from AND :to) p
         JOIN student s ON s.studio_id = :studioId AND s.id = p.student_id AND s.removed_at IS NULL
         WHERE p.place = 1 AND (:family IS NULL OR s.family = :family)
         ORDER BY s.name, s.id LIMIT :limit OFFSET :offset`,
        { ...page, family },
      )
      return { total: Number(rows[0]?.total ?? 0), rows }
    },

    /** Students who had a plan since that day, a page by their ids, with those plans; and how many students there are. */
    async planned(from: string, page: { offset: number; limit: number }) {
      const rows = await store.select<{ studentId: string; total: number }>(
        `SELECT DISTINCT student_id AS studentId, COUNT(*) OVER () AS total FROM (
           SELECT DISTINCT student_id FROM practice_plan
           WHERE studio_id = :studioId AND removed_at IS NULL AND starts_on >= :from) p
         ORDER BY student_id LIMIT :limit OFFSET :offset`,
        { from, ...page },
      )
      const where = {
        studentId: { [Op.in]: rows.map(({ studentId }) => studentId) },
        removedAt: null,
        startsOn: { [Op.gte]: from },
      }
      const plans = rows.length > 0 ? await store.all(practicePlan, where) : []
      return { total: Number(rows[0]?.total ?? 0), plans: group(plans, ({ studentId }) => studentId) }
    },

    /** Holds a student until the transaction ends: two teachers who plan one at once come one after the other. */
    hold: (studentId: string) =>
      store.select('SELECT id FROM student WHERE studio_id = :studioId AND id = :studentId FOR UPDATE', {
        studentId,
      }),

    add: (row: Omit<PracticePlanRow, 'studioId'>) => store.insert(practicePlan, [row]),
    say: (rows: readonly Omit<PracticeEntryRow, 'studioId'>[]) => store.insert(practiceEntry, rows),
    setRemoved: async (id: string, removedAt: Date | null) =>
      (await store.update(practicePlan, { id }, { removedAt })) === 1,
  }
}
