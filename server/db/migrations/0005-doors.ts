import { QueryTypes } from 'sequelize'
import { normalEmail } from '../../features/session/email'
import type { Step } from './step'
import { ENGINE, INSTANT } from './tables'

/** Addresses are compared letter by letter; a session can be told and ended from another one; saving can be held up. */
export const steps: readonly Step[] = [
  async (sequelize, report) => {
    const users = await sequelize.query<{ id: string; email: string }>('SELECT id, email FROM user', {
      type: QueryTypes.SELECT,
    })
    const taken = new Set(users.map((user) => user.email))
    for (const { id, email } of users) {
      const normal = normalEmail(email)
      if (normal === email) continue
      if (taken.has(normal))
        report(`two accounts are called ${normal}: the one spelled otherwise stays as it is`)
      else
        await sequelize.query('UPDATE user SET email = :normal WHERE id = :id', {
          replacements: { id, normal },
        })
    }
  },
  'ALTER TABLE user MODIFY email VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL',
  `ALTER TABLE session
    ADD COLUMN IF NOT EXISTS public_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
    ADD COLUMN IF NOT EXISTS device VARCHAR(20) NOT NULL DEFAULT 'unknown',
    ADD COLUMN IF NOT EXISTS seen_at DATETIME(3) NULL`,
  'UPDATE session SET public_id = UUID(), seen_at = created_at WHERE public_id IS NULL',
  `ALTER TABLE session
    MODIFY public_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    MODIFY seen_at DATETIME(3) NOT NULL,
    ADD UNIQUE KEY IF NOT EXISTS session_public_id (public_id)`,
  `CREATE TABLE IF NOT EXISTS maintenance (id INT NOT NULL, until_at ${INSTANT}, PRIMARY KEY (id)) ${ENGINE}`,
]
