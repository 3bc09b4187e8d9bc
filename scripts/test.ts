import { spawn, spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { galeraPackages } from './database/cluster'
import { databasePrograms } from './database/programs'
import { aptInstall, findProgram } from './lib/apt'
import { installedChromium } from './lib/chromium'
import { browserOutcome, unitOutcome, type Outcome } from './testing/outcome'
import { soundPrograms } from './testing/sound-programs'

const folder = mkdtempSync(join(tmpdir(), 'jadefell-test-'))
const outcomes: Outcome[] = []
/** Lines of a faulty part's end that are told again when all is done. */
const TOLD_LINES = 15
const faulty: string[] = []

try {
  const chromium = installedChromium()
  // Pages are measured as a printer's driver would draw them.
  if (!findProgram('pdftoppm')) aptInstall(['poppler-utils'], 'Install Poppler’s pdftoppm in another way.')
  databasePrograms()
  // Before anything runs beside another: of two that install at once one is turned away.
  galeraPackages()
  soundPrograms()
  // Reading the code and running it disturb each other only by the clock: side by side, each told when it ends. What waits for nodes
  // and processes has a worker of its own beside those that reckon.
  const [reckoned, waited] = [join(folder, 'reckoned.json'), join(folder, 'waited.json')]
  await Promise.all([
    (async () => {
      await quietStep('known faults', 'npm', ['run', '--silent', 'advisories'])
      await quietStep('types, rules and formatting', 'npm', ['run', '--silent', 'lint'])
      await quietStep('types of components', 'npm', ['run', '--silent', 'typecheck'])
    })(),
    tests('core, page and server', reckoned, ['--project=core', '--project=page', '--project=api']),
    tests('scripts, databases and sound', waited, ['--project=scripts', '--maxWorkers=1']),
  ])
  outcomes.push(unitOutcome(readFileSync(reckoned, 'utf8')), unitOutcome(readFileSync(waited, 'utf8')))
  step('build', process.execPath, ['scripts/build.mjs'])
  const ends = join(folder, 'playwright.json')
  step('end to end', 'npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], {
    JADEFELL_COUNTS: ends,
    CHROMIUM: chromium,
  })
  outcomes.push(browserOutcome(readFileSync(ends, 'utf8')))
} finally {
  rmSync(folder, { recursive: true })
}

// Named last: of a long run's words often only the end is kept.
const faults = [...faulty, ...outcomes.flatMap((outcome) => outcome.faults)]
if (faults.length > 0) console.log(`\nWhat failed:\n${faults.join('\n')}`)
const sum = (key: 'passed' | 'failed' | 'skipped') => outcomes.reduce((total, o) => total + o[key], 0)
console.log(`\nTests: ${sum('passed')} passed, ${sum('failed')} failed, ${sum('skipped')} skipped`)
if (faults.length > 0 || sum('failed') > 0 || sum('passed') === 0) process.exit(1)

/** Runs one part and goes on after a failure: one run tells everything that is wrong. */
function step(title: string, command: string, args: string[], env: Record<string, string> = {}): void {
  console.log(`\n== ${title}`)
  const from = Date.now()
  const done = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } })
  console.log(
    `== ${title}: ${done.status === 0 ? 'sound' : 'FAULTY'}, ${((Date.now() - from) / 1000).toFixed(0)} s`,
  )
  if (done.status !== 0) faulty.push(`- ${title}`)
}

/** Vitest's tests of some projects beside other parts, their outcome written to `file`. */
function tests(title: string, file: string, args: string[]): Promise<void> {
  return quietStep(title, 'npx', [
    'vitest',
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile=${file}`,
    ...args,
  ])
}

/** The same beside other parts: what it prints comes in one piece when it ends. */
function quietStep(title: string, command: string, args: string[]): Promise<void> {
  const from = Date.now()
  const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] })
  const chunks: Buffer[] = []
  child.stdout.on('data', (chunk: Buffer) => chunks.push(chunk))
  child.stderr.on('data', (chunk: Buffer) => chunks.push(chunk))
  return new Promise((resolve, reject) => {
    child.once('error', reject)
    child.once('close', (code) => {
      const seconds = ((Date.now() - from) / 1000).toFixed(0)
      const words = Buffer.concat(chunks).toString().trimEnd()
      console.log(`\n== ${title}\n${words}\n`)
      console.log(`== ${title}: ${code === 0 ? 'sound' : 'FAULTY'}, ${seconds} s`)
      if (code !== 0) faulty.push([`- ${title}`, ...words.split('\n').slice(-TOLD_LINES)].join('\n    '))
      resolve()
    })
  })
}
