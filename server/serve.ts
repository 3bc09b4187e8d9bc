// The web server alone, on a database that somebody else runs: for development, and for several servers on one cluster. With the page
// where that was built.
import { existsSync } from 'node:fs'
import { resolve } from 'node:path'
import { readConfig } from './config'
import { startServer } from './main'
import { givenCertificate } from './tls/given'

const PAGE = resolve('dist/web')
const config = readConfig(process.env)
// Several servers share a name, and so a certificate: none of them makes one of its own.
if (config.https === 'made') throw new Error('HTTPS=made is for npm start; give this server a certificate.')
const server = await startServer(config, {
  version: 'development',
  webRoot: existsSync(PAGE) ? PAGE : undefined,
  tls: config.https && givenCertificate(config.https),
})
console.log(`  the server is at ${server.url}`)
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => void server.close().then(() => process.exit()))
