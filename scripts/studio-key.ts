// `npm run studio:key -- --email …`: a key for somebody who has lost password or phone, where no owner of the studio can give one. It is
// for whoever runs the server, in place of a mail.
import { parseArgs } from 'node:util'
import { v7 as uuid } from 'uuid'
import { openDatabase } from '../server/db/database'
import type { UserRow } from '../server/db/rows'
import { KEY_MS } from '../server/features/people/routes'
import { normalEmail } from '../server/features/session/email'
import { plainKey, readableKey } from '../server/features/session/second-factor'
import { KEY_PURPOSE } from '../server/features/session/service'
import { secretsOf } from '../server/http/secrets'
import { dataPath, openDataDirectory } from './database/data-directory'
import { runningDatabaseUrl } from './database/running'

const KEY_CHARACTERS = 20

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
  const now = new Date()
  const key = readableKey(KEY_CHARACTERS)
  const secret = process.env['SESSION_SECRET'] ?? openDataDirectory(dataPath()).secrets.sessionSecret
  const untilAt = new Date(now.getTime() + KEY_MS)
  const whose = { studioId: user.studioId, userId: user.id }
  await database.models.oneTimeKey.update({ usedAt: now }, { where: { ...whose, usedAt: null } })
  await database.models.oneTimeKey.create({
    ...whose,
    id: uuid(),
    hash: secretsOf(secret).hash(KEY_PURPOSE, plainKey(key)),
    madeBy: user.id,
    madeAt: now,
    untilAt,
    usedAt: null,
  })
  console.log(`The key of ${email} is ${key}`)
  console.log(
    `It opens once, until ${untilAt.toISOString()}, by “I have a key from my studio” on the sign-in page.`,
  )
  console.log('Be sure who asks before you hand it over.')
} catch (error) {
  console.error((error as Error).message)
  process.exitCode = 1
} finally {
  await database.close()
}
