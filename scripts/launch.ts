import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import qrcode from 'qrcode'
import { readConfig, type Config } from '../server/config'
import { openDatabase } from '../server/db/database'
import { prepareDatabase } from '../server/demo/prepare'
import { DEMO_EMAIL, DEMO_PASSWORD } from '../server/demo/seed'
import { startServer, type RunningServer } from '../server/main'
import { namesOfMachine } from '../server/tls/addresses'
import { givenCertificate } from '../server/tls/given'
import { madeCertificate, type Tls } from '../server/tls/made'
import { openDataDirectory, writePrivate, type DataDirectory, type Secrets } from './database/data-directory'
import { databasePrograms } from './database/programs'
import { startPrivateServer, type PrivateServer } from './database/private-server'
import { tornTables } from './database/torn-tables'
import { lockDirectory } from './lib/lock'
import { stopWithNpm } from './lib/npm'

const WITHOUT_HTTPS =
  'Without HTTPS a tablet lets no page listen, and what is typed goes over the network in the clear: HTTPS=made npm start.'

/** Brings up the database and the web server, and ends them in the opposite order when asked to. */
export async function launch(root: string): Promise<void> {
  const version = (JSON.parse(readFileSync(join(root, 'package.json'), 'utf8')) as { version: string })
    .version
  const data = openDataDirectory(process.env['JADEFELL_DATA'] ?? join(root, '.jadefell'))
  const configFor = (databaseUrl: string) =>
    readConfig({
      ...ownSecrets(data.secrets),
      ...process.env,
      DATABASE_URL: databaseUrl,
    })
  // A setting that cannot be used is told before anything runs.
  const { hasDemo } = configFor(process.env['DATABASE_URL'] || 'mariadb://127.0.0.1/jadefell')
  const lock = lockDirectory(data)
  const undo: (() => Promise<void> | void)[] = [() => lock.release()]
  let ending: Promise<void> | undefined
  const end = () =>
    (ending ??= (async () => {
      for (const step of undo.toReversed())
        try {
          await step()
        } catch (error) {
          console.error(`  ${(error as Error).message}`)
          process.exitCode = 1
        }
    })())
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
    process.on(signal, () => {
      if (!ending) step(`${signal}: stopping`)
      void end().then(() => process.exit())
    })

  stopWithNpm(() => {
    if (!ending) step('npm has ended: stopping')
    void end().then(() => process.exit())
  })

  try {
    const database = await databaseOf(data)
    if (database.server) undo.push(() => (step('stopping MariaDB'), database.server?.stop()))
    if (lock.isOfCopy && database.server) await checkCopy(database.url)
    await prepareSchema(database.url, hasDemo)
    const webRoot = join(root, 'dist/web')
    const config = configFor(database.url)
    const server = await startServer(config, {
      version,
      webRoot: existsSync(webRoot) ? webRoot : undefined,
      tls: await tlsOf(config, data),
    })
    undo.push(() => (step('stopping the web server'), server.close()))
    lock.announce(server.url)
    await greet(server, hasDemo)
  } catch (error) {
    if (!ending) {
      console.error(`\nJadefell could not start.\n${(error as Error).message}`)
      process.exitCode = 1
      await end()
      process.exit()
    }
  }
}

async function databaseOf(data: DataDirectory): Promise<{ url: string; server?: PrivateServer }> {
  const given = process.env['DATABASE_URL']
  if (given !== undefined && given !== '') {
    step('using the database of DATABASE_URL')
    return { url: given }
  }
  const server = await startPrivateServer(data, databasePrograms, step)
  return { url: server.url, server }
}

/** Files that were copied while they were written to may not fit together: that is found out before anybody works with them. */
async function checkCopy(url: string): Promise<void> {
  step('this folder was copied while Jadefell ran on the first one; checking its tables')
  const database = openDatabase(url)
  try {
    const torn = await tornTables(database)
    if (torn.length > 0)
      throw new Error(
        `The copy is not whole (${torn.join(', ')}). What it was copied from is untouched: copy it again after stopping Jadefell there, or take a backup with “npm run db:backup” and put that back.`,
      )
  } finally {
    await database.close()
  }
}

async function prepareSchema(url: string, hasDemo: boolean): Promise<void> {
  const database = openDatabase(url)
  try {
    await prepareDatabase(database, hasDemo, step)
  } finally {
    await database.close()
  }
}

/** A secret of the environment has nothing to do with the one that was made here before. */
function ownSecrets({ sessionSecret, sessionSecretBefore }: Secrets): Record<string, string> {
  if (process.env['SESSION_SECRET'] || sessionSecretBefore === undefined)
    return { SESSION_SECRET: sessionSecret }
  return { SESSION_SECRET: sessionSecret, SESSION_SECRET_BEFORE: sessionSecretBefore }
}

async function tlsOf({ https }: Config, data: DataDirectory): Promise<Tls | undefined> {
  if (https !== 'made') return https && givenCertificate(https)
  return madeCertificate({
    folder: data.file('https'),
    names: namesOfMachine(),
    now: new Date(),
    write: writePrivate,
  })
}

async function greet({ url, addresses }: RunningServer, hasDemo: boolean): Promise<void> {
  console.log(`\n  Jadefell is at ${url}`)
  if (hasDemo) console.log(`  Demo studio: ${DEMO_EMAIL}, password ${DEMO_PASSWORD}`)
  const [nearest, ...others] = addresses
  if (nearest) {
    console.log(`  On a tablet in this network: ${[nearest, ...others].join(', ')}`)
    console.log(await qrcode.toString(nearest, { type: 'terminal', small: true }))
    if (url.startsWith('http:')) console.log(`  ${WITHOUT_HTTPS}`)
  }
  console.log('  Ctrl-C stops it.\n')
}

function step(text: string): void {
  console.log(`  ${text}`)
}
