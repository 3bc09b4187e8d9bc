import { group } from 'd3-array'
import { Op } from 'sequelize'
import { MOST_EARLIER } from '#core'
import type { CheckRow, LandingRow } from '../../db/rows'
import type { By, StudioStore } from '../../db/studio-store'
import type { CheckFacts } from './dto'

const NEWEST_FIRST: [string, string][] = [
  ['takenAt', 'DESC'],
  ['id', 'DESC'],
]
/** Checks that say what a student plays these days. */
const RECENT = 100

interface CountRow {
  readonly toleranceCents: number
  readonly told: string
  readonly count: number
  readonly accepted: number | string
  readonly overruled: number | string
  readonly tooStrict: number | string
}

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
    /** A page of a student’s checks, newest first. */
    async ofStudent(studentId: string, page: { offset: number; limit: number }): Promise<CheckFacts[]> {
      return withLandings(
        await store.written(check, { studentId, removedAt: null }, { order: NEWEST_FIRST, ...page }),
      )
    },

    /** The last checks of a student on one instrument before an instant, newest first; with what was heard where it is asked for. */
    async before(
      of: { studentId: string; instrumentId: string },
      takenAt: Date,
      isHeardWanted: boolean,
    ): Promise<Pick<CheckFacts, 'check' | 'landings'>[]> {
      const where = { ...of, removedAt: null, takenAt: { [Op.lt]: takenAt } }
      const options = { order: NEWEST_FIRST, limit: MOST_EARLIER }
      if (isHeardWanted) return withLandings(await store.written(check, where, options))
      return (await store.all(check, where, options)).map((row) => ({ check: row, landings: [] }))
    },

    /** Every check of a student, oldest first, without what was heard. */
    past: (studentId: string): Promise<CheckRow[]> =>
      store.all(
        check,
        { studentId, removedAt: null },
        {
          order: [
            ['takenAt', 'ASC'],
            ['id', 'ASC'],
          ],
        },
      ),

    /** Checks of some students since an instant, without what was heard. */
    ofStudents: (studentIds: readonly string[], since: Date): Promise<CheckRow[]> =>
      store.all(check, {
        studentId: { [Op.in]: [...studentIds] },
        removedAt: null,
        takenAt: { [Op.gte]: since },
      }),

    /** How often each kind of verdict was told since an instant, and what was said to it. */
    counts: (since: Date) =>
      store.select<CountRow>(
        `SELECT tolerance_cents AS toleranceCents, told, COUNT(*) AS count,
           SUM(COALESCE(said = 'accepted', 0)) AS accepted,
           SUM(COALESCE(said = 'overruled', 0)) AS overruled,
           SUM(COALESCE(said_why = 'too_strict', 0)) AS tooStrict
         FROM hand_check
         WHERE studio_id = :studioId AND removed_at IS NULL AND taken_at >= :since AND told IS NOT NULL
         GROUP BY toleranceCents, told ORDER BY toleranceCents DESC, overruled DESC, count DESC`,
        { since },
      ),

    setDecision: (id: string, decision: CheckRow['decision']) => store.update(check, { id }, { decision }),

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
