import { QueryTypes, type Sequelize } from 'sequelize'

/** How the node that is asked stands in its cluster; no nodes where there is none. */
export interface Standing {
  readonly nodes: number
  readonly isReady: boolean
}

/** Asked of the status: a node that is not ready refuses everything else. */
export const STANDING = "SHOW GLOBAL STATUS WHERE Variable_name IN ('wsrep_ready', 'wsrep_cluster_size')"

export function readStanding(rows: readonly { Variable_name: string; Value: string }[]): Standing {
  const said = Object.fromEntries(rows.map((row) => [row.Variable_name, row.Value]))
  return { nodes: Number(said['wsrep_cluster_size'] ?? 0), isReady: said['wsrep_ready'] === 'ON' }
}

export async function standingOf(sequelize: Sequelize): Promise<Standing> {
  const rows = await sequelize.query<{ Variable_name: string; Value: string }>(STANDING, {
    type: QueryTypes.SELECT,
  })
  return readStanding(rows)
}
