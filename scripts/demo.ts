// `npm run demo:remove`: takes the demo studio away from the database that is in use.
import { openDatabase } from '../server/db/database'
import { removeDemo } from '../server/demo/remove'
import { runningDatabaseUrl } from './database/running'

try {
  const database = openDatabase(runningDatabaseUrl())
  try {
    const removed = await removeDemo(database)
    console.log(
      removed === undefined
        ? 'There is no demo studio.'
        : `The demo studio is gone, ${removed} rows of it. Start with JADEFELL_DEMO=off from now on, or it is made again where no studio is.`,
    )
  } finally {
    await database.close()
  }
} catch (error) {
  console.error((error as Error).message)
  process.exitCode = 1
}
