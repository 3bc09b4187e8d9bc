import { group } from 'd3-array'
import { Op } from 'sequelize'
import type { CheckRow, FindingRow, ReadingRow } from '../../db/rows'
import type { StudioStore } from '../../db/studio-store'

/** A check with what was found, in the order it was kept in. */
export interface JudgedCheck {
  readonly check: CheckRow
  readonly findings: readonly FindingRow[]
}

/** A check with its notes as well. */
export interface CheckFacts extends JudgedCheck {
  readonly readings: readonly ReadingRow[]
}

export function checkRepository(store: StudioStore) {
  const { check, reading, finding } = store.models

  const inOrder: { order: [string, string][] } = { order: [['position', 'ASC']] }

  async function withFindings(checks: readonly CheckRow[]): Promise<JudgedCheck[]> {
    const ids = checks.map((c) => c.id)
    const rows = ids.length > 0 ? await store.all(finding, { checkId: { [Op.in]: ids } }, inOrder) : []
    const byCheck = group(rows, (row) => row.checkId)
    return checks.map((row) => ({ check: row, findings: byCheck.get(row.id) ?? [] }))
  }

  async function withParts(checks: readonly CheckRow[]): Promise<CheckFacts[]> {
    const ids = checks.map((c) => c.id)
    const [judged, rows] = await Promise.all([
      withFindings(checks),
      ids.length > 0 ? store.all(reading, { checkId: { [Op.in]: ids } }, inOrder) : [],
    ])
    const byCheck = group(rows, (row) => row.checkId)
    return judged.map((facts) => ({ ...facts, readings: byCheck.get(facts.check.id) ?? [] }))
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
    async newestOf(studentIds: readonly string[]): Promise<JudgedCheck[]> {
      if (studentIds.length === 0) return []
      const newest = await store.select<{ id: string }>(
        `SELECT id FROM (
           SELECT id, ROW_NUMBER() OVER (PARTITION BY student_id ORDER BY taken_at DESC, id DESC) AS age
           FROM hand_check WHERE studio_id = :studioId AND removed_at IS NULL AND student_id IN (:studentIds)
         ) AS ranked WHERE age = 1`,
        { studentIds: [...studentIds] },
      )
      return withFindings(await store.all(check, { id: { [Op.in]: newest.map((row) => row.id) } }))
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
