import { group } from 'd3-array'
import { Op } from 'sequelize'
import type { CheckRow, FindingRow, ReadingRow } from '../../db/rows'
import type { StudioStore } from '../../db/studio-store'

/** A check with its notes and what was found, each in the order they were kept in. */
export interface CheckFacts {
  readonly check: CheckRow
  readonly readings: readonly ReadingRow[]
  readonly findings: readonly FindingRow[]
}

export function checkRepository(store: StudioStore) {
  const { check, reading, finding } = store.models

  async function withParts(checks: CheckRow[]): Promise<CheckFacts[]> {
    const ids = checks.map((c) => c.id)
    const of = { checkId: { [Op.in]: ids } }
    const order: [string, string][] = [['position', 'ASC']]
    const readings = ids.length > 0 ? await store.all(reading, of, { order }) : []
    const findings = ids.length > 0 ? await store.all(finding, of, { order }) : []
    const readingsBy = group(readings, (row) => row.checkId)
    const findingsBy = group(findings, (row) => row.checkId)
    return checks.map((row) => ({
      check: row,
      readings: readingsBy.get(row.id) ?? [],
      findings: findingsBy.get(row.id) ?? [],
    }))
  }

  return {
    async ofStudent(studentId: string): Promise<CheckFacts[]> {
      const order: [string, string][] = [
        ['takenAt', 'DESC'],
        ['id', 'DESC'],
      ]
      return withParts(await store.all(check, { studentId, removedAt: null }, { order }))
    },

    async byId(id: string): Promise<CheckFacts | undefined> {
      return (await withParts(await store.all(check, { id })))[0]
    },

    /** The newest check of each of these students, without its notes. */
    async newestOf(studentIds: readonly string[]): Promise<CheckFacts[]> {
      if (studentIds.length === 0) return []
      const newest = await store.select<{ id: string }>(
        `SELECT id FROM (
           SELECT id, ROW_NUMBER() OVER (PARTITION BY student_id ORDER BY taken_at DESC, id DESC) AS age
           FROM hand_check WHERE studio_id = :studioId AND removed_at IS NULL AND student_id IN (:studentIds)
         ) AS ranked WHERE age = 1`,
        { studentIds: [...studentIds] },
      )
      return withParts(await store.all(check, { id: { [Op.in]: newest.map((row) => row.id) } }))
    },

    async add(facts: {
      readonly check: Omit<CheckRow, 'studioId'>
      readonly readings: readonly Omit<ReadingRow, 'studioId'>[]
      readonly findings: readonly Omit<FindingRow, 'studioId'>[]
    }): Promise<void> {
      await store.insert(check, [facts.check])
      await store.insert(reading, facts.readings)
      await store.insert(finding, facts.findings)
    },

    async setRemoved(id: string, removedAt: Date | null): Promise<boolean> {
      return (await store.update(check, { id }, { removedAt })) === 1
    },
  }
}
