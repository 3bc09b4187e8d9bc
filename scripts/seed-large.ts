// `npm run seed:large`: beside the demo, a district of 200 studios and 20,000 students, one studio of it with 2,000 students, as many
// instruments, 120,000 checks and a million readings: to see how that works, on a machine of one's own. Its password is the demo's.
import { parseArgs } from 'node:util'
import { openDatabase } from '../server/db/database'
import { addDistrict, districtEmail, LARGE_EMAIL } from '../server/demo/large'
import { DEMO_PASSWORD } from '../server/demo/seed'
import { runningDatabaseUrl } from './database/running'

const { values } = parseArgs({
  options: { studios: { type: 'string', default: '200' }, checks: { type: 'string', default: '120000' } },
})
const database = openDatabase(runningDatabaseUrl())
try {
  if ((await database.models.studio.count()) !== 1)
    throw new Error('Only the demo may be there: this is for looking at, not for a school that works.')
  const [studios, checks] = [Number(values.studios), Number(values.checks)]
  await addDistrict(
    database,
    { studios, students: 100, large: { students: 2000, checks } },
    DEMO_PASSWORD,
    (line) => console.log(`  ${line}`),
  )
  console.log(`Sign in as ${LARGE_EMAIL} or ${districtEmail(1)}, with the demo’s password.`)
} catch (error) {
  console.error((error as Error).message)
  process.exitCode = 1
} finally {
  await database.close()
}
