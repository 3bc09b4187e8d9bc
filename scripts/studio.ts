// `npm run studio:new -- --name "…" --teacher "…" --email … `: a studio of one's own beside the demo. The password is
// read from standard input, so that it stands in no history of commands.
import { createInterface } from 'node:readline/promises'
import { parseArgs } from 'node:util'
import { SHORTEST_PASSWORD } from '../contracts'
import { openDatabase } from '../server/db/database'
import { addStudio } from '../server/features/session/accounts'
import { runningDatabaseUrl } from './database/running'

const USAGE =
  'npm run studio:new -- --name "Harbour Strings" --teacher "Hester Lowe" --email hester@harbour.example'

const { values } = parseArgs({
  options: { name: { type: 'string' }, teacher: { type: 'string' }, email: { type: 'string' } },
})
const { name, teacher, email } = values
if (!name || !teacher || !email?.includes('@')) {
  console.error(`Say whose studio it is:\n  ${USAGE}`)
  process.exit(1)
}
const reader = createInterface({ input: process.stdin, output: process.stdout })
const password = await reader.question(`Password, at least ${SHORTEST_PASSWORD} characters: `)
reader.close()
if (password.length < SHORTEST_PASSWORD) {
  console.error(`That is shorter than ${SHORTEST_PASSWORD} characters. Nothing was made.`)
  process.exit(1)
}
const database = openDatabase(runningDatabaseUrl())
try {
  await database.inTransaction((transaction) =>
    addStudio(database, transaction, {
      studioName: name,
      teacherName: teacher,
      email,
      password,
      now: new Date(),
    }),
  )
  console.log(`${name} is ready; sign in as ${email.toLowerCase()}.`)
} catch (error) {
  console.error(`Nothing was made: ${(error as Error).message}. Is the address taken already?`)
  process.exitCode = 1
} finally {
  await database.close()
}
