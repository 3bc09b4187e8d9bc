// `npm run advisories`: whether a fault is known in what ships, by the package registry's own list. Where the registry keeps none,
// that is said, and nothing is wrong.
import { spawnSync } from 'node:child_process'

interface Audit {
  readonly error?: unknown
  readonly message?: string
  readonly vulnerabilities?: Readonly<Record<string, { readonly severity: string; readonly range: string }>>
}

const GRAVE = new Set(['high', 'critical'])

const { stdout } = spawnSync('npm', ['audit', '--omit=dev', '--json'], { encoding: 'utf8' })
const { vulnerabilities } = JSON.parse(stdout || '{}') as Audit
if (!vulnerabilities) console.log('The package registry in use answers no question for known faults.')
else {
  const known = Object.entries(vulnerabilities)
  for (const [name, { severity, range }] of known) console.log(`${severity}: ${name} ${range}`)
  console.log(
    known.length === 0 ? 'No fault is known in what ships.' : `${known.length} known: npm audit says more.`,
  )
  if (known.some(([, { severity }]) => GRAVE.has(severity))) process.exitCode = 1
}
