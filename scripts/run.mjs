// Runs what was built and installs nothing: for a service or a container, which may write to its data directory alone.
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = join(fileURLToPath(import.meta.url), '../..')
const built = join(root, 'dist/node/launch.js')
if (!existsSync(built)) {
  console.error('Nothing is built here. Do it once: npm ci && npm run build')
  process.exit(1)
}
const { launch } = await import(built)
await launch(root)
