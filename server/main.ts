import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { pino } from 'pino'
import { createApp } from './app'
import type { Config } from './config'
import { openDatabase } from './db/database'
import { DEMO_EMAIL, DEMO_PASSWORD } from './demo/seed'
import { startHousekeeping } from './housekeeping'

export interface RunningServer {
  readonly url: string
  /** Stops taking requests, lets those under way finish, then lets go of the database. */
  close(): Promise<void>
}

/** How long requests under way may take once the server is asked to stop. */
const DRAIN_MS = 5000

/** Serves with these settings. The schema must be up to date. */
export async function startServer(config: Config, version: string, webRoot?: string): Promise<RunningServer> {
  const logger = pino({ level: config.logLevel, base: null })
  const database = openDatabase(config.databaseUrl)
  const app = createApp({
    database,
    logger,
    now: () => new Date(),
    version,
    sessionSecret: config.sessionSecret,
    cookieSecure: config.cookieSecure,
    trustProxy: config.trustProxy,
    ...(config.hasDemo ? {} : { shutFor: DEMO_EMAIL }),
    ...(config.isDemoOpen ? { demo: { email: DEMO_EMAIL, password: DEMO_PASSWORD } } : {}),
    ...(webRoot === undefined ? {} : { webRoot }),
    ...(config.metricsToken === undefined ? {} : { metricsToken: config.metricsToken }),
  })
  const server = createServer(app)
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(config.port, config.host, resolve)
  }).catch(async (error: unknown) => {
    await database.close()
    throw error
  })
  const stopHousekeeping = startHousekeeping(database, logger)
  const { port } = server.address() as AddressInfo
  const host = config.host.includes(':') ? `[${config.host}]` : config.host
  return {
    url: `http://${host}:${port}`,
    async close() {
      stopHousekeeping()
      const drained = new Promise<void>((resolve) => server.close(() => resolve()))
      server.closeIdleConnections()
      const timer = setTimeout(() => server.closeAllConnections(), DRAIN_MS)
      await drained
      clearTimeout(timer)
      await database.close()
    },
  }
}
