import { QueryTypes } from 'sequelize'
import type { Database } from '../../server/db/database'

/** Tables that MariaDB's own check finds unsound: files that were copied while they were written to may not fit together. */
export async function tornTables({ sequelize }: Database): Promise<string[]> {
  const tables = await sequelize.query<{ name: string }>(
    "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE'",
    { type: QueryTypes.SELECT },
  )
  const torn: string[] = []
  for (const { name } of tables) {
    const said = await sequelize
      .query<{ Msg_type: string; Msg_text: string }>(`CHECK TABLE \`${name}\` EXTENDED`, {
        type: QueryTypes.SELECT,
      })
      // What cannot even be checked is not whole.
      .catch(() => [])
    if (!said.some((line) => line.Msg_type === 'status' && line.Msg_text === 'OK')) torn.push(name)
  }
  return torn
}
