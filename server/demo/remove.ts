import { QueryTypes } from 'sequelize'
import { LEAVING_STUDIO } from '../db/append-only'
import type { Database } from '../db/database'
import { DEMO_EMAIL } from './seed'

/**
 * Takes the demo studio away whole: every row of it in every table there is, in one transaction.
 *
 * @returns how many rows were removed; undefined where there is no demo studio
 */
export async function removeDemo(database: Database): Promise<number | undefined> {
  const { sequelize } = database
  return database.inTransaction(async (transaction) => {
    const [demo] = await sequelize.query<{ studioId: string }>(
      'SELECT studio_id AS studioId FROM user WHERE email = ? FOR UPDATE',
      { replacements: [DEMO_EMAIL], type: QueryTypes.SELECT, transaction },
    )
    if (!demo) return undefined
    // A table that is added later is found here by itself.
    const tables = await sequelize.query<{ name: string }>(
      `SELECT table_name AS name FROM information_schema.columns
      WHERE table_schema = DATABASE() AND column_name = 'studio_id'`,
      { type: QueryTypes.SELECT, transaction },
    )
    // All of a studio goes at once: nothing of it is left that could point at what is gone.
    await sequelize.query('SET SESSION FOREIGN_KEY_CHECKS = 0', { transaction })
    await sequelize.query(LEAVING_STUDIO, { replacements: [demo.studioId], transaction })
    try {
      let removed = 0
      const remove = async (table: string, column: string) => {
        removed += await sequelize.query(`DELETE FROM \`${table}\` WHERE ${column} = ?`, {
          replacements: [demo.studioId],
          type: QueryTypes.BULKDELETE,
          transaction,
        })
      }
      for (const { name } of tables) await remove(name, 'studio_id')
      await remove('studio', 'id')
      return removed
    } finally {
      await sequelize.query('SET SESSION FOREIGN_KEY_CHECKS = 1', { transaction })
      await sequelize.query(LEAVING_STUDIO, { replacements: [null], transaction })
    }
  })
}
