import { Op } from 'sequelize'
import type { HandMeasurementRow } from '../../db/rows'
import type { StudioStore } from '../../db/studio-store'

const NEWEST_FIRST: [string, string][] = [
  ['measuredOn', 'DESC'],
  ['recordedAt', 'DESC'],
  ['id', 'DESC'],
]

export function handRepository(store: StudioStore) {
  const { handMeasurement } = store.models
  return {
    /** What was measured of these students' hands, newest first. */
    ofStudents: (studentIds: readonly string[]) =>
      studentIds.length === 0
        ? Promise.resolve([])
        : store.written(
            handMeasurement,
            { studentId: { [Op.in]: [...studentIds] }, removedAt: null },
            { order: NEWEST_FIRST },
          ),
    byId: async (id: string) => (await store.written(handMeasurement, { id }))[0],
    add: (row: Omit<HandMeasurementRow, 'studioId'>) => store.insert(handMeasurement, [row]),
    setRemoved: (id: string, removedAt: Date | null) => store.update(handMeasurement, { id }, { removedAt }),
  }
}
