// Builds what `npm start` runs, when its sources changed: the server by esbuild, the page by Vite.
import { createHash } from 'node:crypto'
import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { isBuiltin } from 'node:module'
import { join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'

const root = join(fileURLToPath(import.meta.url), '../..')
const SOURCES = [
  'core',
  'contracts',
  'server',
  'web',
  'scripts',
  'package-lock.json',
  'package.json',
  'vite.config.ts',
]
/** Its own for each build: two that start at once do not build into one another. */
const NEXT = `dist/.next-${process.pid}`
/** The first page's JavaScript, gzipped. */
const FIRST_PAGE_LIMIT = 140_000
/** A smaller file fits a packet of the network as it is. */
const PACKED_FROM_BYTES = 1024
/** Brotli's best, 11, takes four times as long for a twentieth less. */
const BROTLI_QUALITY = 9

export async function build({ force = false, say = console.log } = {}) {
  const stamp = join(root, 'dist/.sources')
  const sources = hashOf(SOURCES)
  if (!force && existsSync(stamp) && readFileSync(stamp, 'utf8') === sources) return false
  // Built beside what may be served at this moment, and put in its place when it is whole.
  clearLeft(join(root, 'dist'))
  say('  building the server')
  const esbuild = await import('esbuild')
  const { metafile } = await esbuild.build({
    absWorkingDir: root,
    metafile: true,
    entryPoints: ['scripts/launch.ts'],
    outdir: `${NEXT}/node`,
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    sourcemap: true,
    logLevel: 'warning',
  })
  const circle = circleIn(metafile.inputs)
  if (circle) throw new Error(`These files import one another in a circle: ${circle.join(' → ')}`)
  const missing = undeclared(metafile.inputs)
  if (missing.length > 0)
    throw new Error(
      `What runs needs ${missing.join(', ')}, which is no dependency: a server without the tools lacks it.`,
    )
  say('  building the page')
  const vite = await import('vite')
  await vite.build({
    root: join(root, 'web'),
    configFile: join(root, 'vite.config.ts'),
    logLevel: 'warn',
    build: { outDir: join(root, NEXT, 'web') },
  })
  await buildServiceWorker(esbuild)
  pack(join(root, NEXT, 'web'))
  const size = firstPageSize()
  say(`  first page: ${(size / 1000).toFixed(0)} kB of gzipped JavaScript`)
  if (size > FIRST_PAGE_LIMIT)
    throw new Error(
      `The first page carries ${size} bytes of gzipped JavaScript; the limit is ${FIRST_PAGE_LIMIT}.`,
    )
  swap(join(root, 'dist'), join(root, NEXT))
  writeFileSync(stamp, sources)
  return true
}

/** Packages that the server loads and that `npm prune --omit=dev` would take away. */
function undeclared(inputs) {
  const { dependencies } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'))
  const paths = Object.values(inputs).flatMap(({ imports }) =>
    imports.filter((one) => one.external).map(({ path }) => path),
  )
  const names = paths
    .filter((path) => !path.startsWith('node:') && !isBuiltin(path))
    .map((path) =>
      path
        .split('/')
        .slice(0, path.startsWith('@') ? 2 : 1)
        .join('/'),
    )
  return [...new Set(names)].filter((name) => !(name in dependencies))
}

/** With a list of what was built: each file by its name, and what keeps its name by what is in it. */
async function buildServiceWorker(esbuild) {
  const page = join(root, NEXT, 'web')
  const built = readdirSync(page, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => relative(page, join(entry.parentPath, entry.name)).replaceAll('\\', '/'))
    .filter((file) => !file.startsWith('.vite/'))
    .map((file) => ({
      url: `/${file}`,
      revision: file.startsWith('assets/')
        ? null
        : createHash('sha256')
            .update(readFileSync(join(page, file)))
            .digest('hex'),
    }))
  await esbuild.build({
    absWorkingDir: root,
    entryPoints: ['web/offline/sw.ts'],
    outfile: join(page, 'sw.js'),
    bundle: true,
    minify: true,
    target: 'es2022',
    define: { BUILT: JSON.stringify(built), 'process.env.NODE_ENV': '"production"' },
    logLevel: 'warning',
  })
}

/** Beside each file of letters the same packed, in both ways that browsers take. */
function pack(page) {
  for (const entry of readdirSync(page, { recursive: true, withFileTypes: true })) {
    if (!entry.isFile() || !/\.(css|html|js|json|otf|svg|ttf|webmanifest)$/.test(entry.name)) continue
    const path = join(entry.parentPath, entry.name)
    const bytes = readFileSync(path)
    if (bytes.length < PACKED_FROM_BYTES) continue
    writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }))
    writeFileSync(
      `${path}.br`,
      brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: BROTLI_QUALITY } }),
    )
  }
}

/** What builds that were interrupted left behind; one that still goes on is left alone. */
export function clearLeft(dist) {
  if (!existsSync(dist)) return
  for (const name of readdirSync(dist)) {
    const [, pid] = /^\.next-(\d+)$/.exec(name) ?? []
    if (pid === undefined || (Number(pid) !== process.pid && isAlive(Number(pid)))) continue
    rmSync(join(dist, name), { recursive: true, force: true })
  }
}
function isAlive(pid) {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    return error.code === 'EPERM'
  }
}

/**
 * Puts what was built in `next` in the place of what is in `dist`. A page that is open goes on finding the files of the build
 * that it came with: those of the last one stay beside the new ones.
 */
export function swap(dist, next) {
  const last = join(dist, '.last')
  rmSync(last, { recursive: true, force: true })
  mkdirSync(last, { recursive: true })
  const own = readdirSync(join(next, 'web/assets'))
  const before = join(dist, OWN)
  // Of builds before the last one nothing is kept.
  for (const file of existsSync(before) ? JSON.parse(readFileSync(before, 'utf8')) : []) {
    const [from, to] = [dist, next].map((folder) => join(folder, 'web/assets', file))
    if (existsSync(from) && !existsSync(to)) cpSync(from, to)
  }
  writeFileSync(join(next, OWN), JSON.stringify(own))
  for (const name of readdirSync(next)) {
    if (existsSync(join(dist, name))) renameSync(join(dist, name), join(last, name))
    renameSync(join(next, name), join(dist, name))
  }
  rmSync(last, { recursive: true })
  rmSync(next, { recursive: true })
}
/** The names of what a build made itself. */
const OWN = 'own-assets.json'

/** The entry, what it imports at once, and the pages one meets first. */
function firstPageSize() {
  const manifest = JSON.parse(readFileSync(join(root, NEXT, 'web/.vite/manifest.json'), 'utf8'))
  const wanted = new Set()
  const add = (key) => {
    const chunk = manifest[key]
    if (!chunk || wanted.has(chunk.file)) return
    wanted.add(chunk.file)
    for (const next of chunk.imports ?? []) add(next)
  }
  const first = Object.keys(manifest).filter(
    (key) => manifest[key].isEntry || /pages\/(Today|SignIn)Page/.test(key),
  )
  if (first.length < 3) throw new Error('the build has lost its entry or its first pages')
  first.forEach(add)
  return [...wanted].reduce(
    (sum, file) => sum + gzipSync(readFileSync(join(root, NEXT, 'web', file))).length,
    0,
  )
}

/** Files that import one another round and round, types aside; undefined where there are none. */
export function circleIn(inputs) {
  const done = new Set()
  const visit = (file, trail) => {
    if (trail.includes(file)) return [...trail.slice(trail.indexOf(file)), file]
    if (done.has(file)) return undefined
    for (const { path, external } of inputs[file]?.imports ?? []) {
      const circle = external ? undefined : visit(path, [...trail, file])
      if (circle) return circle
    }
    done.add(file)
    return undefined
  }
  for (const file of Object.keys(inputs)) {
    const circle = visit(file, [])
    if (circle) return circle
  }
  return undefined
}

function hashOf(paths) {
  const hash = createHash('sha256')
  const visit = (path) => {
    const absolute = join(root, path)
    let entries
    try {
      entries = readdirSync(absolute, { withFileTypes: true })
    } catch {
      hash.update(`${path}\0`).update(readFileSync(absolute))
      return
    }
    for (const entry of entries.sort((a, b) => (a.name < b.name ? -1 : 1))) {
      if (/\.test\.ts$/.test(entry.name)) continue
      visit(relative(root, join(absolute, entry.name)))
    }
  }
  paths.forEach(visit)
  return hash.digest('hex')
}

if (process.argv[1] === fileURLToPath(import.meta.url))
  try {
    await build({ force: process.argv.includes('--force') })
  } catch (error) {
    console.error(`\nThe build failed.\n${error.message}`)
    process.exitCode = 1
  }
