import { QueryTypes, type Sequelize } from 'sequelize'
import { errorCodeOf } from './errors'

/** Nothing of the trail goes before so long, whatever a studio's rule says, days: by then somebody has asked. */
export const TRAIL_KEPT_AT_LEAST_DAYS = 90

const TRIGGERS = {
  audit_unchanged: `BEFORE UPDATE ON audit FOR EACH ROW
    SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'who saw and changed what is never changed'`,
  audit_kept: `BEFORE DELETE ON audit FOR EACH ROW
    IF OLD.at > UTC_TIMESTAMP() - INTERVAL ${TRAIL_KEPT_AT_LEAST_DAYS} DAY AND NOT (OLD.studio_id <=> @leaving_studio)
    THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'who saw and changed what is kept'; END IF`,
}

/** Said on a connection by which a studio is taken away whole, its trail with it. */
export const LEAVING_STUDIO = 'SET @leaving_studio = ?'

/**
 * The database itself refuses to change who saw and changed what, or to forget it early. False where it will not be told to: with a
 * binary log, that takes an administrator's `log_bin_trust_function_creators = 1`.
 */
export async function keepAppendOnly(sequelize: Sequelize): Promise<boolean> {
  try {
    for (const [name, body] of Object.entries(TRIGGERS))
      await sequelize.query(`CREATE TRIGGER IF NOT EXISTS ${name} ${body}`, { type: QueryTypes.RAW })
    return true
  } catch (error) {
    if (errorCodeOf(error) !== 'ER_BINLOG_CREATE_ROUTINE_NEED_SUPER') throw error
    return false
  }
}

/**
 * A table with triggers does not change its schema: a restore takes off those that `schema` has, and puts them on again. Where the
 * database would not be told to keep them there are none, and it need not be told to drop them either.
 */
export const DROP_TRIGGERS_OF = `SELECT CONCAT('DROP TRIGGER \`', trigger_schema, '\`.\`', trigger_name, '\`') AS statement
  FROM information_schema.triggers WHERE trigger_schema = ?`
