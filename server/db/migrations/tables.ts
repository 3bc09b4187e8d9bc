/**
 * Keys inside a studio are pairs of studio and id, so the database itself refuses a row of one studio that points at a
 * row of another. A table is not part of a transaction: where a migration was cut short, it goes on from what is there.
 */
export const ID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL'
export const INSTANT = 'DATETIME(3) NOT NULL'
export const ENGINE = 'ENGINE = InnoDB DEFAULT CHARSET = utf8mb4 COLLATE = utf8mb4_unicode_ci'

export function studioTable(name: string, columns: string, constraints: string[] = []): string {
  return `CREATE TABLE IF NOT EXISTS ${name} (
    id ${ID}, studio_id ${ID}, ${columns},
    PRIMARY KEY (id), UNIQUE KEY (studio_id, id),
    ${['FOREIGN KEY (studio_id) REFERENCES studio (id)', ...constraints].join(', ')}
  ) ${ENGINE}`
}

export function belongsTo(table: string, column: string): string {
  return `FOREIGN KEY (studio_id, ${column}) REFERENCES ${table} (studio_id, id)`
}
