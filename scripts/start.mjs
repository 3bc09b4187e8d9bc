// `npm start`: packages, build, database, migrations, demo studio, web server. Plain JavaScript, since on a fresh clone
// there is nothing else to run it with.
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { ensurePackages } from './packages.mjs'

const root = join(fileURLToPath(import.meta.url), '../..')
console.log('Jadefell')
ensurePackages()
const { build } = await import('./build.mjs')
try {
  await build()
} catch (error) {
  console.error(`\nThe build failed.\n${error.message}`)
  process.exit(1)
}
const { launch } = await import('../dist/node/launch.js')
try {
  await launch(root)
} catch (error) {
  console.error(`\nJadefell could not start.\n${error.message}`)
  process.exit(1)
}
