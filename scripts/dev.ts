// `npm run dev`: the page by Vite and the server by tsx, both reloading as files change; the database of `.jadefell`.
import { spawn } from 'node:child_process'
import { openDatabase } from '../server/db/database'
import { prepareDatabase } from '../server/demo/prepare'
import { DEMO_EMAIL, DEMO_PASSWORD } from '../server/demo/seed'
import { openDataDirectory } from './database/data-directory'
import { databasePrograms } from './database/programs'
import { startPrivateServer } from './database/private-server'
import { lockDirectory } from './lib/lock'

const API_PORT = '4748'
const PAGE_PORT = process.env['PORT'] ?? '4747'

const say = (text: string) => console.log(`  ${text}`)
const data = openDataDirectory(process.env['JADEFELL_DATA'] ?? '.jadefell')
const lock = lockDirectory(data)
const server = await startPrivateServer(data, databasePrograms, say)
const database = openDatabase(server.url)
await prepareDatabase(database, true, say)
await database.close()

const env = {
  ...process.env,
  DATABASE_URL: server.url,
  SESSION_SECRET: data.secrets.sessionSecret,
  JADEFELL_API_PORT: API_PORT,
}
const parts = [
  spawn('npx', ['tsx', 'watch', '--clear-screen=false', 'server/serve.ts'], {
    stdio: 'inherit',
    env: { ...env, PORT: API_PORT },
  }),
  spawn('npx', ['vite', '--config', 'vite.config.ts'], {
    stdio: 'inherit',
    env: { ...env, PORT: PAGE_PORT },
  }),
]
say(`the page is at http://127.0.0.1:${PAGE_PORT}; sign in as ${DEMO_EMAIL} with ${DEMO_PASSWORD}`)

for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => {
    for (const part of parts) part.kill('SIGTERM')
    void server.stop().finally(() => {
      lock.release()
      process.exit()
    })
  })
