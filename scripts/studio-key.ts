// `npm run studio:key -- --email …`: a key for somebody who has lost password or phone, where no owner of the studio can give one. It is
// for whoever runs the server, in place of a mail.
import { parseArgs } from 'node:util'
import { openDatabase } from '../server/db/database'
import type { UserRow } from '../server/db/rows'
import { StudioStore } from '../server/db/studio-store'
import { giveKey } from '../server/features/people/one-time-key'
import { normalEmail } from '../server/features/session/email'
import { secretsOf } from '../server/http/secrets'
import { dataPath, openDataDirectory } from './database/data-directory'
import { runningDatabaseUrl } from './database/running'

const { values } = parseArgs({ options: { email: { type: 'string' } } })
const database = openDatabase(runningDatabaseUrl())
try {
  if (!values.email) throw new Error('Say whose:\n  npm run studio:key -- --email hester@harbour.example')
  const email = normalEmail(values.email)
  const user = (await database.models.user.findOne({
    where: { email },
    raw: true,
  })) as unknown as UserRow | null
  if (!user) throw new Error(`Nobody has the address ${email}. Nothing was made.`)
  const secret = process.env['SESSION_SECRET'] ?? openDataDirectory(dataPath()).secrets.sessionSecret
  const { key, until } = await database.inTransaction((transaction) =>
    giveKey(new StudioStore(database, user.studioId, transaction), secretsOf(secret), user, {
      by: user.id,
      now: new Date(),
    }),
  )
  console.log(`The key of ${email} is ${key}`)
  console.log(`It opens once, until ${until}, by “I have a key from my studio” on the sign-in page.`)
  console.log('Be sure who asks before you hand it over.')
} catch (error) {
  console.error((error as Error).message)
  process.exitCode = 1
} finally {
  await database.close()
}
