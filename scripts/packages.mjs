// Installs the packages of the lock file when they are missing or the lock file changed. Needs nothing but Node.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = join(fileURLToPath(import.meta.url), '../..')
const OLDEST_NODE = [20, 19]

export function ensurePackages(say = console.log) {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < OLDEST_NODE[0] || (major === OLDEST_NODE[0] && minor < OLDEST_NODE[1])) {
    console.error(`Jadefell needs Node ${OLDEST_NODE.join('.')} or newer; this is ${process.versions.node}.`)
    process.exit(1)
  }
  const stamp = join(root, 'node_modules/.jadefell-lock')
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  say('  installing npm packages from the lock file (about a minute)')
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: 'inherit',
  })
  if (done.status !== 0) {
    console.error('npm ci failed; the lines above say why. Is the package registry reachable?')
    process.exit(1)
  }
  writeFileSync(stamp, lock)
}
