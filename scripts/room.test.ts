import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { X509Certificate } from 'node:crypto'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { request } from 'node:https'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openDatabase } from '../server/db/database'
import { migrate } from '../server/db/migrate'
import { SIGN_IN_ATTEMPTS } from '../server/http/rate-limit'
import { startServer } from '../server/main'
import { readConfig } from '../server/config'
import { startHarness, type Harness } from '../server/testing/harness'
import { addressesFor, networkAddresses } from '../server/tls/addresses'
import { followRenewal, givenCertificate } from '../server/tls/given'
import { madeCertificate, type Tls } from '../server/tls/made'
import { openDataDirectory, writePrivate } from './database/data-directory'
import { startPrivateServer, type PrivateServer } from './database/private-server'
import { databasePrograms } from './database/programs'
import { aptInstall, aptUnpack, findProgram } from './lib/apt'

const folder = mkdtempSync(join(tmpdir(), 'jadefell-room-'))
let server: PrivateServer
beforeAll(async () => {
  server = await startPrivateServer(openDataDirectory(join(folder, 'data')), databasePrograms, () => {})
  const database = openDatabase(server.url)
  await migrate(database.sequelize)
  await database.close()
})
afterAll(async () => {
  await server.stop()
  rmSync(folder, { recursive: true, force: true })
})
/** By the machine's own clock, which those who check a certificate go by, not that of the tests. */
function machineNow(): Date {
  writeFileSync(join(folder, 'now'), '')
  return statSync(join(folder, 'now')).mtime
}
const at = (day: string) => new Date(`${day}T12:00:00Z`)
const make = (names: string[], day = '2026-11-28') =>
  madeCertificate({ folder: join(folder, 'https'), names, now: at(day), write: writePrivate })

interface Got {
  readonly status: number
  readonly headers: Record<string, string | string[] | undefined>
  readonly text: string
}

/** One request that trusts `ca` alone, as a tablet that has installed it. */
function ask(url: string, ca: string, sent: { body?: string; headers?: Record<string, string> } = {}) {
  return new Promise<Got>((resolve, reject) => {
    const asking = request(
      url,
      {
        ca,
        method: sent.body === undefined ? 'GET' : 'POST',
        headers: { connection: 'keep-alive', ...sent.headers },
      },
      (response) => {
        let text = ''
        response.on('data', (chunk: Buffer) => (text += chunk.toString()))
        response.on('end', () => resolve({ status: response.statusCode!, headers: response.headers, text }))
      },
    )
    asking.on('error', reject)
    asking.end(sent.body)
  })
}

describe('a certificate that is made', () => {
  it('holds for its names and no other, as OpenSSL’s strict reading of RFC 5280 has it', async () => {
    const made = await make(['strings.local', '192.0.2.7', '2001:db8::7'])
    if (!findProgram('openssl')) aptInstall(['openssl'], 'Install OpenSSL in another way.')
    writeFileSync(join(folder, 'ca.pem'), made.authority!)
    writeFileSync(join(folder, 'server.pem'), made.cert)
    const verify = (...named: string[]) =>
      spawnSync(
        findProgram('openssl')!,
        // The clock of the certificate, not of the machine that tests it.
        [
          'verify',
          '-x509_strict',
          '-purpose',
          'sslserver',
          '-attime',
          String(at('2026-11-28').getTime() / 1000),
        ]
          .concat(named)
          .concat(['-CAfile', join(folder, 'ca.pem'), join(folder, 'server.pem')]),
        { encoding: 'utf8' },
      ).status
    expect(verify('-verify_hostname', 'strings.local')).toBe(0)
    expect(verify('-verify_ip', '192.0.2.7')).toBe(0)
    expect(verify('-verify_ip', '2001:db8::7')).toBe(0)
    expect(verify('-verify_ip', '192.0.2.8')).not.toBe(0)
    expect(verify('-verify_hostname', 'other.local')).not.toBe(0)
  })

  it('stays as it is, is made anew where the machine has moved or time runs out, and keeps its authority', async () => {
    const first = await make(['127.0.0.1'])
    expect(await make(['127.0.0.1'])).toEqual(first)
    const moved = await make(['127.0.0.1', '192.0.2.9'])
    expect(moved.cert).not.toBe(first.cert)
    expect(moved.authority).toBe(first.authority)
    const days = (tls: Tls) => {
      const { validFrom, validTo } = new X509Certificate(tls.cert)
      return (Date.parse(validTo) - Date.parse(validFrom)) / 86_400_000
    }
    // Browsers refuse one of more than 398 days (CA/Browser Forum, Baseline Requirements 6.3.2).
    expect(days(moved)).toBeLessThanOrEqual(398)
    const both = ['127.0.0.1', '192.0.2.9']
    expect((await make(both, '2027-11-10')).cert).toBe(moved.cert)
    const renewed = await make(both, '2027-11-25')
    expect(renewed.cert).not.toBe(moved.cert)
    expect(renewed.authority).toBe(first.authority)
  })
})

describe('a certificate that is given', () => {
  it('is refused in a sentence where it cannot be used, and taken over when it is renewed', async () => {
    const made = await make(['127.0.0.1'])
    const files = { cert: join(folder, 'given.pem'), key: join(folder, 'given-key.pem') }
    writeFileSync(files.cert, made.cert)
    expect(() => givenCertificate(files)).toThrow(/HTTPS_KEY: .*given-key.pem cannot be read \(ENOENT\)/)
    writeFileSync(files.key, readFileSync(join(folder, 'https/authority-key.pem')))
    expect(() => givenCertificate(files)).toThrow(/The key .* is not of the certificate/)
    writeFileSync(files.key, 'no key')
    expect(() => givenCertificate(files)).toThrow(/cannot be used for HTTPS: .* without a passphrase/)
    writeFileSync(files.key, made.key)
    const shown: unknown[] = []
    const faults: string[] = []
    const { look, stop } = followRenewal(
      { setSecureContext: (tls) => void shown.push(tls) },
      files,
      (error) => faults.push(error.message),
    )
    look()
    expect(shown).toEqual([])
    writeFileSync(files.cert, 'half of')
    utimesSync(files.cert, 1, 1)
    look()
    expect([shown.length, faults.length]).toEqual([0, 1])
    writeFileSync(files.cert, made.cert)
    utimesSync(files.cert, 2, 2)
    look()
    look()
    expect(shown).toEqual([{ cert: made.cert, key: made.key }])
    stop()
  })

  it.each([{ HTTPS: 'made', HTTPS_KEY: 'key.pem' }, { HTTPS: 'cert.pem' }, { HTTPS_KEY: 'key.pem' }])(
    'is asked for with its key: %o',
    (env) => {
      const needed = { DATABASE_URL: 'mariadb://u:p@127.0.0.1/j', SESSION_SECRET: 's'.repeat(32) }
      expect(() => readConfig({ ...needed, ...env })).toThrow(/HTTPS, HTTPS_KEY/)
    },
  )
})

it('names the addresses by which another machine finds it', () => {
  const address = (ip: string, family: 'IPv4' | 'IPv6', internal = false) =>
    ({ address: ip, family, internal, netmask: '', mac: '', cidr: null }) as never
  const found = networkAddresses({
    lo: [address('127.0.0.1', 'IPv4', true)],
    eth0: [address('fe80::1', 'IPv6'), address('2001:db8::1', 'IPv6'), address('192.0.2.3', 'IPv4')],
  })
  expect(found).toEqual(['192.0.2.3', '2001:db8::1'])
  expect(addressesFor('https', '2001:db8::1', 4747)).toEqual(['https://[2001:db8::1]:4747'])
  expect(addressesFor('https', 'localhost', 4747)).toEqual([])
})

it('serves over HTTPS: the authority to install, and a session that never goes in the clear', async () => {
  const tls = await madeCertificate({
    folder: join(folder, 'today'),
    names: ['127.0.0.1'],
    now: machineNow(),
    write: writePrivate,
  })
  const config = readConfig({
    DATABASE_URL: server.url,
    SESSION_SECRET: 's'.repeat(32),
    HTTPS: 'made',
    PORT: '0',
    LOG_LEVEL: 'silent',
  })
  expect([config.host, config.cookieSecure, config.isDemoOpen]).toEqual(['0.0.0.0', true, false])
  const running = await startServer({ ...config, host: '127.0.0.1' }, { version: 'test', tls })
  const got = await ask(`${running.url}/authority.crt`, tls.authority!)
  expect([got.status, got.headers['content-type'], got.text]).toEqual([
    200,
    'application/x-x509-ca-cert',
    tls.authority,
  ])
  // nginx keeps a line to it for a minute, and would ask on one that is being closed.
  expect(Number(/timeout=(\d+)/.exec(String(got.headers['keep-alive']))?.[1])).toBeGreaterThan(60)
  expect(got.headers['strict-transport-security']).toMatch(/max-age=\d{7,}/)
  const other = await madeCertificate({
    folder: join(folder, 'b'),
    names: ['127.0.0.1'],
    now: machineNow(),
    write: writePrivate,
  })
  await expect(ask(`${running.url}/api/live`, other.authority!)).rejects.toThrow(/certificate/)
  await running.close()
})

describe('behind nginx, by the example of the documents', () => {
  let harness: Harness
  let proxy: ChildProcess | undefined
  let url: string
  let tls: Tls
  beforeAll(async () => {
    const database = openDatabase(server.url)
    harness = await startHarness({ database, cookieSecure: true, trustProxy: 1 })
    tls = await madeCertificate({
      folder: join(folder, 'proxy'),
      names: ['127.0.0.1'],
      now: machineNow(),
      write: writePrivate,
    })
    const port = await freePort()
    url = `https://127.0.0.1:${port}`
    proxy = await startNginx(port, new URL(harness.url).port, tls)
  }, 60_000)
  afterAll(async () => {
    if (proxy) await ended(proxy)
    await harness.close()
  })

  const json = { 'content-type': 'application/json' }

  it('signs in with a cookie of this host alone', async () => {
    const client = await harness.studio('Behind nginx')
    const body = JSON.stringify({ email: client.email, password: client.password })
    const got = await ask(`${url}/api/v1/session`, tls.authority!, { body, headers: json })
    expect(got.status).toBe(200)
    expect(String(got.headers['set-cookie'])).toMatch(/^__Host-jadefell_session=.*; Secure; SameSite=Strict$/)
    expect((await ask(`${url}/api/metrics`, tls.authority!)).status).toBe(404)
  })

  it('counts attempts by who really calls, whatever a caller claims to be', async () => {
    const client = await harness.studio('Guessed at')
    const guess = (nth: number) =>
      ask(`${url}/api/v1/session`, tls.authority!, {
        body: JSON.stringify({ email: client.email, password: `guess ${nth}` }),
        headers: { ...json, 'x-forwarded-for': `198.51.100.${nth}`, forwarded: `for=198.51.100.${nth}` },
      })
    for (let nth = 1; nth <= SIGN_IN_ATTEMPTS; nth++) expect((await guess(nth)).status).toBe(401)
    expect((await guess(99)).status).toBe(429)
  })

  it('lets pass what the server takes, and no more', async () => {
    const big = (bytes: number) =>
      ask(`${url}/api/v1/session`, tls.authority!, { body: 'x'.repeat(bytes), headers: json })
    // The server’s own word, as a problem that says what is wrong, not the proxy’s.
    expect(JSON.parse((await big(2_000_000)).text)).toMatchObject({ code: 'too_large', status: 413 })
  })
})

it('has a unit that systemd finds nothing to complain of', () => {
  if (!findProgram('systemd-analyze'))
    aptInstall(['systemd'], 'Check docs/examples/jadefell.service elsewhere.')
  const unit = join(folder, 'jadefell.service')
  // Its user and its folders are those of the machine it is for.
  writeFileSync(
    unit,
    readFileSync('docs/examples/jadefell.service', 'utf8')
      .replace('/usr/bin/node', process.execPath)
      .replaceAll('/opt/jadefell', process.cwd()),
  )
  const { status, stderr } = spawnSync(findProgram('systemd-analyze')!, ['verify', '--man=no', unit], {
    encoding: 'utf8',
  })
  expect(stderr.split('\n').filter((line) => line.includes('jadefell.service'))).toEqual([])
  expect(status).toBe(0)
})

async function ended(child: ChildProcess): Promise<void> {
  const gone = new Promise((resolve) => child.once('exit', resolve))
  child.kill('SIGTERM')
  await gone
}

async function freePort(): Promise<number> {
  const server = createServer()
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const { port } = server.address() as { port: number }
  await new Promise((resolve) => server.close(resolve))
  return port
}

async function startNginx(port: number, upstream: string, { cert, key }: Tls): Promise<ChildProcess> {
  const home = join(folder, 'nginx')
  mkdirSync(join(home, 'tmp'), { recursive: true })
  aptUnpack('nginx', home)
  writeFileSync(join(home, 'cert.pem'), cert)
  writeFileSync(join(home, 'key.pem'), key)
  const example = readFileSync('docs/examples/nginx.conf', 'utf8')
    .replace('127.0.0.1:4747', `127.0.0.1:${upstream}`)
    .replace('listen 443', `listen 127.0.0.1:${port}`)
    .replace('/etc/ssl/jadefell/fullchain.pem', join(home, 'cert.pem'))
    .replace('/etc/ssl/jadefell/key.pem', join(home, 'key.pem'))
  const paths = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map(
    (name) => `${name}_temp_path ${join(home, 'tmp', name)};`,
  )
  const log = join(home, 'error.log')
  writeFileSync(
    join(home, 'nginx.conf'),
    `daemon off; worker_processes 1; pid ${join(home, 'pid')}; error_log ${log};
     events {} http { access_log off; ${paths.join(' ')} ${example} }`,
  )
  const child = spawn(join(home, 'usr/sbin/nginx'), ['-p', home, '-c', join(home, 'nginx.conf'), '-e', log], {
    stdio: 'ignore',
  })
  for (let tries = 0; tries < 100; tries++) {
    if (child.exitCode !== null) throw new Error(readFileSync(log, 'utf8'))
    const isUp = await fetch(`http://127.0.0.1:${port}`).then(
      () => true,
      () => false,
    )
    if (isUp) return child
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
  throw new Error(readFileSync(log, 'utf8'))
}
