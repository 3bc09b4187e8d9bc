import { QueryTypes, type Sequelize } from 'sequelize'
import { FAMILY_IDS, familyOf } from '#core'
import type { Step } from './step'

/** A check of one hand shape as it is kept before this version: no note says where the hand stands. */
interface OldCheck {
  readonly id: string
  readonly family: string
  readonly exercise: { readonly shapeId: string; readonly notes: readonly { readonly finger: number }[] }
}

/** Checks moved in one transaction. */
const BATCH = 500

/**
 * Every note of an exercise says where the hand stands for it, and a student's file whether sound may be stored.
 */
export const steps: readonly Step[] = [
  'ALTER TABLE student ADD COLUMN IF NOT EXISTS sound_consent JSON NULL',
  'ALTER TABLE landing ADD COLUMN IF NOT EXISTS position_id VARCHAR(40) NULL',
  nameThePositions,
]

async function nameThePositions(sequelize: Sequelize): Promise<void> {
  for (let last = ''; ;) {
    const checks = await sequelize.query<OldCheck>(
      `SELECT c.id, i.family, c.exercise FROM hand_check c JOIN instrument i ON i.id = c.instrument_id
       WHERE c.id > :last AND c.exercise IS NOT NULL ORDER BY c.id LIMIT ${BATCH}`,
      { type: QueryTypes.SELECT, replacements: { last } },
    )
    if (checks.length === 0) return
    last = checks.at(-1)!.id
    await sequelize.transaction(async (transaction) => {
      for (const { id, family, exercise } of checks) {
        const positionId = positionOf(family, exercise.shapeId)
        if (positionId === undefined) continue
        const notes = exercise.notes.map((n) => ({ ...n, positionId: n.finger === 0 ? null : positionId }))
        const replacements = { id, positionId, exercise: JSON.stringify({ ...exercise, notes }) }
        const of = { type: QueryTypes.UPDATE as const, transaction, replacements }
        await sequelize.query('UPDATE hand_check SET exercise = :exercise WHERE id = :id', of)
        await sequelize.query(
          'UPDATE landing SET position_id = :positionId WHERE check_id = :id AND finger > 0',
          of,
        )
      }
    })
  }
}

/** Where a shape of the hand stands; undefined of a shape that no family has, and of an exercise without one. */
function positionOf(family: string, shapeId: string | undefined): string | undefined {
  const familyId = FAMILY_IDS.find((id) => id === family)
  return familyId && familyOf(familyId).shapes.find(({ id }) => id === shapeId)?.positionId
}
