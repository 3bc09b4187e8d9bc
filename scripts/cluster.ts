// `npm run cluster`: three nodes of MariaDB and two web servers on this machine, as a district runs them on several: to look at, and to
// end one of them by hand. Each server has a node of its own in front; which process is which is said.
import { spawn, spawnSync } from 'node:child_process'
import { resolve } from 'node:path'
import { openDatabase } from '../server/db/database'
import { withInFront } from '../server/db/hosts'
import { prepareDatabase } from '../server/demo/prepare'
import { DEMO_EMAIL, DEMO_PASSWORD } from '../server/demo/seed'
import { startCluster } from './database/cluster'
import { openDataDirectory } from './database/data-directory'
import { lockDirectory } from './lib/lock'
import { stopWithNpm } from './lib/npm'

const FIRST_PORT = 4747
const SERVERS = 2

const say = (text: string) => console.log(`  ${text}`)
if (spawnSync(process.execPath, ['scripts/build.mjs'], { stdio: 'inherit' }).status !== 0) process.exit(1)
const folder = resolve(process.env['JADEFELL_DATA'] ?? '.jadefell/cluster')
say('starting three nodes of MariaDB on 127.0.0.1')
const cluster = await startCluster(folder)
for (const { name, port, pid } of cluster.nodes) say(`${name}: process ${pid}, port ${port}`)
const first = openDataDirectory(`${folder}/node-1`)
const lock = lockDirectory(first)
const database = openDatabase(cluster.url)
await prepareDatabase(database, true, say)
await database.close()

const servers = Array.from({ length: SERVERS }, (_, index) => {
  const port = Number(process.env['PORT'] ?? FIRST_PORT) + index
  const server = spawn(process.execPath, ['--import', 'tsx', 'server/serve.ts'], {
    stdio: 'inherit',
    // In a group of its own: Ctrl-C reaches only us, and the nodes end after it.
    detached: true,
    env: {
      ...process.env,
      PORT: String(port),
      SESSION_SECRET: first.secrets.sessionSecret,
      DATABASE_URL: withInFront(cluster.url, index),
    },
  })
  say(`server ${index + 1}: process ${server.pid}, http://127.0.0.1:${port}, node-${index + 1} in front`)
  return server
})
say(`sign in as ${DEMO_EMAIL} with ${DEMO_PASSWORD}; Ctrl-C stops everything`)

let isEnding = false
function end() {
  if (isEnding) return
  isEnding = true
  const gone = servers.map(
    (server) =>
      new Promise((done) => {
        if (server.exitCode !== null || server.signalCode !== null) done(undefined)
        else server.once('exit', done)
        server.kill('SIGTERM')
      }),
  )
  void Promise.all(gone)
    .then(() => cluster.stop())
    .finally(() => {
      lock.release()
      process.exit()
    })
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, end)
stopWithNpm(end)
