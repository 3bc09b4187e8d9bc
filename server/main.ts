import { createServer } from 'node:http'
import { createServer as createSecureServer } from 'node:https'
import type { AddressInfo } from 'node:net'
import { pino } from 'pino'
import { createApp } from './app'
import type { Config } from './config'
import { openDatabase } from './db/database'
import { DEMO_EMAIL, DEMO_PASSWORD } from './demo/seed'
import { startHousekeeping } from './housekeeping'
import { seenTrail } from './http/trail'
import { addressesFor } from './tls/addresses'
import { followRenewal } from './tls/given'
import type { Tls } from './tls/made'

export interface RunningServer {
  readonly url: string
  /** Where other machines of the network find it; none where it listens to this one alone. */
  readonly addresses: readonly string[]
  /** Stops taking requests, lets those under way finish, then lets go of the database. */
  close(): Promise<void>
}

/** How long requests under way may take once the server is asked to stop. */
const DRAIN_MS = 5000

export interface Serving {
  readonly version: string
  /** Folder of the built page. */
  readonly webRoot?: string | undefined
  /** By which it is served over HTTPS. */
  readonly tls?: Tls | undefined
}

/** Longer than a proxy in front keeps a line open (nginx a minute): else it asks on one that is just being closed. */
const LINE_KEPT_MS = 75_000

/** Serves with these settings. The schema must be up to date. */
export async function startServer(
  config: Config,
  { version, webRoot, tls }: Serving,
): Promise<RunningServer> {
  const logger = pino({ level: config.logLevel, base: null })
  const database = openDatabase(config.databaseUrl)
  const seen = seenTrail(database, logger)
  const app = createApp({
    seen,
    database,
    logger,
    now: () => new Date(),
    version,
    sessionSecret: config.sessionSecret,
    ...(config.sessionSecretBefore === undefined ? {} : { sessionSecretBefore: config.sessionSecretBefore }),
    operators: config.operators ?? (config.isDemoOpen ? [DEMO_EMAIL] : []),
    cookieSecure: config.cookieSecure,
    trustProxy: config.trustProxy,
    ...(config.hasDemo ? {} : { shutFor: DEMO_EMAIL }),
    ...(config.isDemoOpen ? { demo: { email: DEMO_EMAIL, password: DEMO_PASSWORD } } : {}),
    ...(webRoot === undefined ? {} : { webRoot }),
    ...(config.metricsToken === undefined ? {} : { metricsToken: config.metricsToken }),
    ...(tls?.authority === undefined ? {} : { authority: tls.authority }),
    addresses: () => addresses(),
  })
  const secure = tls && createSecureServer({ key: tls.key, cert: tls.cert }, app)
  const server = secure ?? createServer(app)
  server.keepAliveTimeout = LINE_KEPT_MS
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(config.port, config.host, resolve)
  }).catch(async (error: unknown) => {
    await database.close()
    throw error
  })
  const stopHousekeeping = startHousekeeping(database, logger)
  const stopFollowing =
    secure && typeof config.https === 'object'
      ? followRenewal(secure, config.https, (error) => logger.warn(error.message)).stop
      : () => {}
  const { port } = server.address() as AddressInfo
  // What listens everywhere is also here.
  const named = config.host === '0.0.0.0' || config.host === '::' ? 'localhost' : config.host
  const host = named.includes(':') ? `[${named}]` : named
  const scheme = secure ? 'https' : 'http'
  const addresses = () => addressesFor(scheme, config.host, port)
  return {
    url: `${scheme}://${host}:${port}`,
    addresses: addresses(),
    async close() {
      stopHousekeeping()
      stopFollowing()
      const drained = new Promise<void>((resolve) => server.close(() => resolve()))
      server.closeIdleConnections()
      const timer = setTimeout(() => server.closeAllConnections(), DRAIN_MS)
      await drained
      clearTimeout(timer)
      await seen.flush()
      await database.close()
    },
  }
}
