import { defineConfig } from '@playwright/test'
import { installedChromium } from '../scripts/lib/chromium'

export default defineConfig({
  testDir: '.',
  outputDir: '../test-results',
  // One a core: each has an application and a database of its own.
  workers: 2,
  fullyParallel: false,
  timeout: 240_000,
  expect: { timeout: 20_000 },
  reporter: process.env['JADEFELL_COUNTS']
    ? [['line'], ['json', { outputFile: process.env['JADEFELL_COUNTS'] }]]
    : 'line',
  use: {
    browserName: 'chromium',
    // Between the page and a test that answers in the server’s place it would be in the way; offline.spec.ts lets it.
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
    // What does not happen by then never will: better told at once than at the end of the test.
    actionTimeout: 20_000,
    launchOptions: {
      executablePath: installedChromium(),
      args: [
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--disable-quic',
        '--no-first-run',
        // As another machine of the network calls this one: over plain http, a browser trusts it less than itself.
        '--host-resolver-rules=MAP harbour-desk.example 127.0.0.1',
      ],
    },
    // Recording every test takes a third of its time: asked for where one failed.
    trace: process.env['JADEFELL_TRACE'] ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
  },
})
