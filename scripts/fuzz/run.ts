// `npm run fuzz -- [--inputs 100000] [--seed 1] [--readers parseWav] [--routes checks.create]`: every reader, then every route, with what it
// was not made for. The same seed draws the same inputs. What goes wrong is printed with what was read, for a test of its own.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { ROUTES, type RouteName } from '#contracts'
import { seededSource } from '#core'
import { openDatabase } from '../../server/db/database'
import { migrate } from '../../server/db/migrate'
import { fuzzRoutes } from '../../server/testing/fuzz-routes'
import { startHarness } from '../../server/testing/harness'
import { openDataDirectory } from '../database/data-directory'
import { startPrivateServer } from '../database/private-server'
import { databasePrograms } from '../database/programs'
import { fuzzReaders, readers } from './readers'

const { values } = parseArgs({
  options: {
    inputs: { type: 'string', default: '100000' },
    seed: { type: 'string', default: '1' },
    readers: { type: 'string' },
    routes: { type: 'string' },
  },
})
const [inputs, seed] = [Number(values.inputs), Number(values.seed)]
const all = values.readers === undefined && values.routes === undefined

if (all || values.readers !== undefined)
  for (const { name } of readers()) {
    if (values.readers && values.readers !== 'all' && values.readers !== name) continue
    const [told] = await fuzzReaders({ inputs, source: seededSource(seed), of: name })
    say(`${name}: ${inputs} inputs, the longest took ${told!.longestMs.toFixed(0)} ms`, told!.wrong)
  }

if (all || values.routes !== undefined) {
  const folder = mkdtempSync(join(tmpdir(), 'jadefell-fuzz-'))
  const server = await startPrivateServer(openDataDirectory(folder), databasePrograms, () => {})
  try {
    const database = openDatabase(server.url)
    await migrate(database.sequelize)
    const harness = await startHarness({ database })
    for (const route of Object.keys(ROUTES) as RouteName[]) {
      if (values.routes && values.routes !== 'all' && values.routes !== route) continue
      const [told] = await fuzzRoutes(harness, { inputs, source: seededSource(seed), only: route })
      say(`${route}: ${JSON.stringify(told!.answers)}`, told!.wrong)
    }
    await harness.close()
  } finally {
    await server.stop()
    rmSync(folder, { recursive: true })
  }
}

function say(line: string, wrong: readonly string[]): void {
  console.log(`${line}${wrong.length === 0 ? '' : `; ${wrong.length} WRONG`}`)
  for (const one of wrong.slice(0, 5)) console.error(`  ${one}`)
  if (wrong.length > 0) process.exitCode = 1
}
