// `npm run bench:letters`: how often the letters typed into a dialog while it opens are all in its field, the processor six
// times slower. Chromium itself presses the keys, one after the other without a pause. Ends with an error where one is lost.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { openDataDirectory } from '../scripts/database/data-directory'
import { databasePrograms } from '../scripts/database/programs'
import { startPrivateServer } from '../scripts/database/private-server'
import { installedChromium } from '../scripts/lib/chromium'
import { DEMO_EMAIL, DEMO_PASSWORD } from '../server/demo/seed'
import { startBenchServer } from './server'

const SLOWER = 6
const TIMES = 100
const TYPED = 'Maren'
const DIALOGS = [
  { room: '/students', opens: 'n', field: 'Name' },
  { room: '/instruments', opens: 'n', field: 'Number or name' },
  { room: '/', opens: 'Control+k', field: 'Find a room, a student or an action' },
] as const

const path = mkdtempSync(join(tmpdir(), 'jadefell-letters-'))
const server = await startPrivateServer(openDataDirectory(path), databasePrograms, () => {})
const app = await startBenchServer(server.url)
const browser = await chromium.launch({
  executablePath: installedChromium(),
})
try {
  const context = await browser.newContext({ baseURL: app.origin, serviceWorkers: 'block' })
  const page = await context.newPage()
  await page.goto('/sign-in')
  await page.getByLabel('E-mail').fill(DEMO_EMAIL)
  await page.getByLabel('Password', { exact: true }).fill(DEMO_PASSWORD)
  await page.keyboard.press('Enter')
  await page.getByRole('navigation', { name: 'Rooms' }).waitFor()
  const slow = await context.newCDPSession(page)
  await slow.send('Emulation.setCPUThrottlingRate', { rate: SLOWER })
  console.log(`| dialog | whole of ${TIMES} |\n|---|---:|`)
  for (const { room, opens, field } of DIALOGS) {
    await page.goto(room)
    await page.getByRole('heading', { level: 1 }).waitFor()
    const shown = page.getByRole('dialog')
    let whole = 0
    for (let time = 0; time < TIMES; time++) {
      await page.keyboard.press(opens)
      await page.keyboard.type(TYPED)
      const input = shown.getByLabel(field, { exact: true })
      const isWhole = await input
        .and(page.locator('input:focus'))
        .waitFor({ timeout: 5000 })
        .then(() => input.inputValue())
        .then((value) => value === TYPED)
        .catch(() => false)
      if (isWhole) whole++
      await page.keyboard.press('Escape')
      await shown.waitFor({ state: 'hidden' })
    }
    console.log(`| ${field} | ${whole} |`)
    if (whole < TIMES) process.exitCode = 1
  }
} finally {
  await browser.close()
  await app.close()
  await server.stop()
  rmSync(path, { recursive: true, force: true })
}
