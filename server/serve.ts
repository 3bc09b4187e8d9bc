// The web server alone, on a database that somebody else runs: for development, and for several servers on one cluster.
import { readConfig } from './config'
import { startServer } from './main'

const server = await startServer(readConfig(process.env), 'development')
console.log(`  the server is at ${server.url}`)
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => void server.close().then(() => process.exit()))
