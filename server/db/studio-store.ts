import { QueryTypes, type FindOptions, type Transaction, type WhereOptions } from 'sequelize'
import type { Database } from './database'
import { TEACHER, type Models, type Table } from './models'
import type { StudioRow } from './rows'

/** Every column of a table under an alias, named so that a query's rows carry it as a part: ``m.length_mm AS `measurement.lengthMm` ``. */
export function columnsOf<Row extends object>(
  table: Table<Row>,
  alias: string,
  part: string,
  names: readonly (keyof Row & string)[] = Object.keys(table.getAttributes()) as (keyof Row & string)[],
): string {
  return Object.entries<{ field?: string }>(table.getAttributes())
    .filter(([name]) => (names as readonly string[]).includes(name))
    .map(([name, { field = name }]) => `${alias}.\`${field}\` AS \`${part}.${name}\``)
    .join(', ')
}

/** A part of a joined row, or undefined where the join found none. */
export function partOf<Row extends { id: string }>(part: Row | { id: null }): Row | undefined {
  return part.id === null ? undefined : part
}

const BY = `${TEACHER}.name` as const

/** Rows with their columns `part.name` as parts: the names are taken apart once, not for every row. */
function inParts<Row extends object>(rows: readonly Record<string, unknown>[]): Row[] {
  const columns = Object.keys(rows[0] ?? {}).map((column) => [column, ...column.split('.')] as const)
  return rows.map((row) => {
    const made: Record<string, unknown> = {}
    for (const [column, part, name] of columns)
      if (name === undefined) made[part!] = row[column]
      else ((made[part!] ??= {}) as Record<string, unknown>)[name] = row[column]
    return made as Row
  })
}

type Picked<Row extends object> = Pick<FindOptions<Row>, 'order' | 'limit' | 'group'>

/** A row with the name of the teacher who wrote it. */
export type By<Row> = Row & { readonly by: string }

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

  /** The same with the name of the teacher who wrote each row. */
  async written<Row extends { studioId: string; userId: string }>(
    table: Table<Row>,
    where: WhereOptions<Row> = {},
    options: Picked<Row> = {},
  ): Promise<By<Row>[]> {
    const rows = (await table.findAll({
      ...options,
      ...this.bounded(where),
      include: [{ association: TEACHER, attributes: ['name'] }],
      raw: true,
    })) as unknown as (Row & { [BY]: string | null })[]
    return rows.map(({ [BY]: by, ...row }) => ({ ...(row as unknown as Row), by: by ?? '' }))
  }

  async insert<Row extends { studioId: string }>(
    table: Table<Row>,
    rows: readonly Omit<Row, 'studioId'>[],
  ): Promise<void> {
    const owned = rows.map((row) => ({ ...row, studioId: this.studioId }) as unknown as Row)
    if (owned.length > 0) await table.bulkCreate(owned as never[], { hooks: false, ...this.inTransaction() })
  }

  /** Changes the rows that match; returns how many did. */
  async update<Row extends { studioId: string }>(
    table: Table<Row>,
    where: WhereOptions<Row>,
    values: Partial<Omit<Row, 'id' | 'studioId'>>,
  ): Promise<number> {
    const [count] = await table.update(values as Parameters<typeof table.update>[0], {
      ...this.bounded(where),
      // The contracts have checked what the database does not; a model built to check it again takes longer than the update.
      validate: false,
      sideEffects: false,
      hooks: false,
    })
    return count
  }

  /**
   * Rows of a hand-written query, which must be bounded by `:studioId` as everything else is. Names with a point, as
   * {@link columnsOf} makes them, come back as parts of the row.
   */
  select<Row extends object>(sql: string, replacements: Record<string, unknown> = {}): Promise<Row[]> {
    if (!sql.includes(':studioId')) throw new Error('query names no studio')
    const rows = this.database.sequelize.query<Record<string, unknown>>(sql, {
      type: QueryTypes.SELECT,
      replacements: { ...replacements, studioId: this.studioId },
      ...this.inTransaction(),
    })
    return rows.then(inParts<Row>)
  }

  /** A hand-written change, bounded by the studio's id as the first of its values. */
  async run(sql: string, values: readonly string[]): Promise<void> {
    if (values[0] !== this.studioId || !sql.includes('studio_id = ?'))
      throw new Error('change names no studio')
    await this.database.sequelize.query(sql, {
      type: QueryTypes.RAW,
      replacements: [...values],
      ...this.inTransaction(),
    })
  }

  /** Takes rows away for good; returns how many. */
  async remove<Row extends { studioId: string }>(
    table: Table<Row>,
    where: WhereOptions<Row>,
  ): Promise<number> {
    return table.destroy(this.bounded(where))
  }

  /** The studio itself. */
  async studio(): Promise<StudioRow | undefined> {
    const row = await this.models.studio.findByPk(this.studioId, { raw: true, ...this.inTransaction() })
    return (row ?? undefined) as unknown as StudioRow | undefined
  }

  /** Changes the studio itself; false where it is no longer at `version`. */
  async changeStudio(
    version: number,
    values: Partial<Pick<StudioRow, 'name' | 'system' | 'settings'>>,
  ): Promise<boolean> {
    const [count] = await this.models.studio.update(
      { ...values, version: version + 1 },
      { where: { id: this.studioId, version }, ...this.inTransaction() },
    )
    return count === 1
  }

  private bounded<Row extends { studioId: string }>(where: WhereOptions<Row>) {
    return { where: { ...where, studioId: this.studioId } as WhereOptions<Row>, ...this.inTransaction() }
  }

  private inTransaction() {
    return this.transaction ? { transaction: this.transaction } : {}
  }
}
