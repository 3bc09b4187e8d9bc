import type { HandMeasurementRow } from '../../db/rows'
import { columnsOf, type By, type StudioStore } from '../../db/studio-store'

export function handRepository(store: StudioStore) {
  const { handMeasurement } = store.models
  return {
    /** What was measured of these students' hands, newest first. */
    async ofStudents(studentIds: readonly string[]): Promise<By<HandMeasurementRow>[]> {
      if (studentIds.length === 0) return []
      const rows = await store.select<{ hand: By<HandMeasurementRow> }>(
        `SELECT ${columnsOf(handMeasurement, 'm', 'hand')}, u.name AS \`hand.by\`
         FROM hand_measurement m LEFT JOIN user u ON u.id = m.user_id
         WHERE m.studio_id = :studioId AND m.student_id IN (:studentIds) AND m.removed_at IS NULL
         ORDER BY m.measured_on DESC, m.recorded_at DESC, m.id DESC`,
        { studentIds },
      )
      return rows.map((row) => row.hand)
    },
    byId: async (id: string) => (await store.written(handMeasurement, { id }))[0],
    add: (row: Omit<HandMeasurementRow, 'studioId'>) => store.insert(handMeasurement, [row]),
    setRemoved: (id: string, removedAt: Date | null) => store.update(handMeasurement, { id }, { removedAt }),
  }
}
