import { QueryTypes, type FindOptions, type Transaction, type WhereOptions } from 'sequelize'
import type { Database } from './database'
import type { Models, Table } from './models'

type Picked<Row extends object> = Pick<FindOptions<Row>, 'order' | 'limit' | 'group'>

/**
 * The tables as one studio sees them. Every read, change and insert goes through here and carries the studio's id, so
 * what another studio owns is simply not there.
 */
export class StudioStore {
  readonly models: Models

  constructor(
    private readonly database: Database,
    readonly studioId: string,
    private readonly transaction: Transaction | undefined = undefined,
  ) {
    this.models = database.models
  }

  all<Row extends { studioId: string }>(
    table: Table<Row>,
    where: WhereOptions<Row> = {},
    options: Picked<Row> = {},
  ): Promise<Row[]> {
    return table.findAll({ ...options, ...this.bounded(where), raw: true }) as unknown as Promise<Row[]>
  }

  async one<Row extends { studioId: string }>(
    table: Table<Row>,
    where: WhereOptions<Row>,
    options: Picked<Row> = {},
  ): Promise<Row | undefined> {
    return (await this.all(table, where, { ...options, limit: 1 }))[0]
  }

  async insert<Row extends { studioId: string }>(
    table: Table<Row>,
    rows: readonly Omit<Row, 'studioId'>[],
  ): Promise<void> {
    const owned = rows.map((row) => ({ ...row, studioId: this.studioId }) as unknown as Row)
    if (owned.length > 0) await table.bulkCreate(owned as never[], this.inTransaction())
  }

  /** Changes the rows that match; returns how many did. */
  async update<Row extends { studioId: string }>(
    table: Table<Row>,
    where: WhereOptions<Row>,
    values: Partial<Omit<Row, 'id' | 'studioId'>>,
  ): Promise<number> {
    const [count] = await table.update(values as Parameters<typeof table.update>[0], this.bounded(where))
    return count
  }

  /** Rows of a hand-written query, which must be bounded by `:studioId` as everything else is. */
  select<Row extends object>(sql: string, replacements: Record<string, unknown> = {}): Promise<Row[]> {
    if (!sql.includes(':studioId')) throw new Error('query names no studio')
    return this.database.sequelize.query<Row>(sql, {
      type: QueryTypes.SELECT,
      replacements: { ...replacements, studioId: this.studioId },
      ...this.inTransaction(),
    })
  }

  private bounded<Row extends { studioId: string }>(where: WhereOptions<Row>) {
    return { where: { ...where, studioId: this.studioId } as WhereOptions<Row>, ...this.inTransaction() }
  }

  private inTransaction() {
    return this.transaction ? { transaction: this.transaction } : {}
  }
}
