// `npm run dev`: the page by Vite and the server by tsx, both reloading as files change; the database of `.jadefell`.
import { spawn } from 'node:child_process'
import { openDatabase } from '../server/db/database'
import { prepareDatabase } from '../server/demo/prepare'
import { DEMO_EMAIL, DEMO_PASSWORD } from '../server/demo/seed'
import { openDataDirectory } from './database/data-directory'
import { databasePrograms } from './database/programs'
import { startPrivateServer } from './database/private-server'
import { lockDirectory } from './lib/lock'
import { stopWithNpm } from './lib/npm'

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
// Each with a group of its own: what watches starts others, and all of them end together.
const part = (program: string, args: readonly string[], port: string) =>
  spawn(process.execPath, [`node_modules/${program}`, ...args], {
    stdio: 'inherit',
    detached: true,
    env: { ...env, PORT: port },
  })
const parts = [
  part('tsx/dist/cli.mjs', ['watch', '--clear-screen=false', 'server/serve.ts'], API_PORT),
  part('vite/bin/vite.js', ['--config', 'vite.config.ts'], PAGE_PORT),
]
say(`the page is at http://127.0.0.1:${PAGE_PORT}; sign in as ${DEMO_EMAIL} with ${DEMO_PASSWORD}`)

let isEnding = false
function end(code = 0) {
  if (isEnding) return
  isEnding = true
  for (const { pid } of parts)
    try {
      if (pid !== undefined) process.kill(-pid, 'SIGTERM')
    } catch {
      // It has ended by itself.
    }
  void server.stop().finally(() => {
    lock.release()
    process.exit(code)
  })
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.once(signal, () => end())
stopWithNpm(end)
// Half of it is of no use: where one part ends, the others do.
for (const one of parts) one.once('exit', (code) => end(code ?? 1))
