import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { openDatabase } from '../../server/db/database'
import { migrate } from '../../server/db/migrate'
import { openDataDirectory } from '../database/data-directory'
import { startPrivateServer } from '../database/private-server'
import { databasePrograms } from '../database/programs'
import { endWith } from './guard'

/** A MariaDB of its own for the tests of the server, made before them and gone after them. */
export default async function setup(): Promise<() => Promise<void>> {
  const path = mkdtempSync(join(tmpdir(), 'jadefell-api-'))
  const data = openDataDirectory(path)
  // Before it is started: who is killed meanwhile leaves nothing either.
  endWith(process.pid, data.file('mariadb.pid'), path)
  const server = await startPrivateServer(data, databasePrograms, () => {})
  const database = openDatabase(server.url)
  await migrate(database.sequelize)
  await database.close()
  process.env['DATABASE_URL'] = server.url
  return async () => {
    await server.stop()
    rmSync(path, { recursive: true })
  }
}
