import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { keepAppendOnly } from '../../server/db/append-only'
import { openDatabase } from '../../server/db/database'
import { migrate } from '../../server/db/migrate'
import { openDataDirectory } from '../database/data-directory'
import { startPrivateServer } from '../database/private-server'
import { databasePrograms } from '../database/programs'
import { endWith } from './guard'

/**
 * A MariaDB for each of the workers that run the server's tests, made before them and gone after them: what a test does to all
 * sessions, tables or connections is felt by nobody beside it.
 */
export default async function setup({ vitest }: TestProject): Promise<() => Promise<void>> {
  const servers = await Promise.all(Array.from({ length: vitest.config.maxWorkers }, startMigrated))
  process.env['DATABASE_URLS'] = servers.map(({ url }) => url).join(' ')
  return async () => void (await Promise.all(servers.map((server) => server.stop())))
}

async function startMigrated() {
  const path = mkdtempSync(join(tmpdir(), 'jadefell-api-'))
  const data = openDataDirectory(path)
  // Before it is started: who is killed meanwhile leaves nothing either.
  endWith(process.pid, data.file('mariadb.pid'), path)
  const server = await startPrivateServer(data, databasePrograms, () => {})
  const database = openDatabase(server.url)
  await migrate(database.sequelize)
  await keepAppendOnly(database.sequelize)
  await database.close()
  return {
    url: server.url,
    async stop() {
      await server.stop()
      rmSync(path, { recursive: true })
    },
  }
}
