// `npm start`: packages, build, database, migrations, demo studio, web server. Plain JavaScript, since on a fresh clone
// there is nothing else to run it with.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { ensurePackages } from './packages.mjs'

const root = join(fileURLToPath(import.meta.url), '../..')
console.log('Jadefell')
ensurePackages()
await buildElsewhere()
const { launch } = await import('../dist/node/launch.js')
try {
  await launch(root)
} catch (error) {
  console.error(`\nJadefell could not start.\n${error.message}`)
  process.exit(1)
}

/** In a process of its own: what a build needs of memory, most of a gigabyte, is given back before the server runs. */
async function buildElsewhere() {
  const builder = spawn(process.execPath, [join(root, 'scripts/build.mjs')], { stdio: 'inherit' })
  const stop = () => builder.kill('SIGTERM')
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.once(signal, stop)
  const code = await new Promise((resolve) => builder.once('exit', (left) => resolve(left ?? 1)))
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.off(signal, stop)
  if (code !== 0) process.exit(code)
}
