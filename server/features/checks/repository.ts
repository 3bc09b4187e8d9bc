import { group } from 'd3-array'
import type { CheckRow, LandingRow } from '../../db/rows'
import type { By, StudioStore } from '../../db/studio-store'
import type { CheckFacts } from './dto'

const NEWEST_FIRST: [string, string][] = [
  ['takenAt', 'DESC'],
  ['id', 'DESC'],
]
/** Checks that say what a student plays these days. */
const RECENT = 100

export function checkRepository(store: StudioStore) {
  const { check, landing, takeTrack } = store.models

  async function withLandings(checks: readonly By<CheckRow>[]): Promise<CheckFacts[]> {
    const ids = checks.map((c) => c.id)
    const rows =
      ids.length > 0 ? await store.all(landing, { checkId: ids }, { order: [['position', 'ASC']] }) : []
    const byCheck = group(rows, (row) => row.checkId)
    return checks.map(({ by, ...row }) => ({ check: row, landings: byCheck.get(row.id) ?? [], by }))
  }

  return {
    async ofStudent(studentId: string): Promise<CheckFacts[]> {
      return withLandings(await store.written(check, { studentId, removedAt: null }, { order: NEWEST_FIRST }))
    },

    /** The last checks, newest first, without what was heard. */
    recent: (studentId: string): Promise<CheckRow[]> =>
      store.all(check, { studentId, removedAt: null }, { order: NEWEST_FIRST, limit: RECENT }),

    async byId(id: string): Promise<CheckFacts | undefined> {
      return (await withLandings(await store.written(check, { id })))[0]
    },

    async add(
      row: Omit<CheckRow, 'studioId'>,
      landings: readonly Omit<LandingRow, 'studioId'>[],
      track: Buffer | null,
    ): Promise<void> {
      await store.insert(check, [row])
      await store.insert(landing, landings)
      if (track) await store.insert(takeTrack, [{ checkId: row.id, bytes: track }])
    },

    async trackOf(checkId: string): Promise<Buffer | undefined> {
      return (await store.all(takeTrack, { checkId }))[0]?.bytes
    },

    async setRemoved(id: string, removedAt: Date | null): Promise<boolean> {
      return (await store.update(check, { id }, { removedAt })) === 1
    },
  }
}
