// The web server alone, on a database that somebody else runs: for development, and for several servers on one cluster. With the page
// where that was built.
import { existsSync } from 'node:fs'
import { resolve } from 'node:path'
import { readConfig } from './config'
import { startServer } from './main'

const PAGE = resolve('dist/web')
const server = await startServer(readConfig(process.env), 'development', existsSync(PAGE) ? PAGE : undefined)
console.log(`  the server is at ${server.url}`)
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => void server.close().then(() => process.exit()))
