import type { BrowserContext, Page } from '@playwright/test'
import { expect, openFile, signIn, test } from './fixtures'

/** A tablet on which somebody signed in over the network, and which has read what today’s lessons need. */
async function readied(context: BrowserContext): Promise<Page> {
  const page = await context.newPage()
  await signIn(page)
  await page.evaluate(() => navigator.serviceWorker.ready)
  // The worker has the page from the next one on.
  await page.reload()
  await expect.poll(() => page.evaluate(() => !!navigator.serviceWorker.controller)).toBe(true)
  await expect
    .poll(() => page.evaluate(async () => !!(await caches.match('/read-ahead'))), { timeout: 120_000 })
    .toBe(true)
  return page
}
const kept = (page: Page) =>
  page.evaluate(async () =>
    (await caches.has('jadefell-read')) ? (await (await caches.open('jadefell-read')).keys()).length : 0,
  )

test('a lesson without a network: opened, looked up, checked and kept; everything is sent once it is back', async ({
  browser,
  app,
}) => {
  const context = await browser.newContext({ baseURL: app.url, serviceWorkers: 'allow' })
  const page = await readied(context)
  // The browser itself says whether it would install the page.
  const browsers = await context.newCDPSession(page)
  expect(await browsers.send('Page.getInstallabilityErrors')).toEqual({ installabilityErrors: [] })
  await context.setOffline(true)
  await page.goto('/')
  await expect(page.getByText('The server is away.')).toBeVisible()
  // Whose file nobody opened on this tablet.
  await openFile(page, 'Tamsin Reed')
  await expect(page.locator('.history li').first()).toBeVisible()
  await page.keyboard.press('c')
  await expect(page.getByLabel('Finger 1, cents')).toBeFocused()
  for (const cents of ['5', '9', '-3', '-21']) {
    await page.keyboard.type(cents)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByText('1 thing waits to be sent.')).toBeVisible()
  for (const room of ['/tapes', '/patterns', '/setup', '/students', '/patterns/scales']) {
    await page.goto(room)
    await expect(
      page.locator('main h1, main [role="grid"], main table, main .whom, main svg').first(),
    ).toBeVisible()
  }
  await context.setOffline(false)
  await page.goto('/')
  await expect(page.getByText('Sent at last: the check of Tamsin Reed.')).toBeVisible()
  await expect(page.getByText('The server is away.')).toBeHidden()
  await context.close()
})

test('whoever leaves takes it along, without a network as well; an end from afar empties a lost tablet', async ({
  browser,
  app,
}) => {
  const lost = await browser.newContext({ baseURL: app.url, serviceWorkers: 'allow' })
  const tablet = await readied(lost)
  expect(await kept(tablet)).toBeGreaterThan(50)
  // Its session alone is ended, from another device: the others are of tests beside this one.
  const id = await tablet.evaluate(async () => {
    const sessions = (await (await fetch('/api/v1/sessions')).json()) as { id: string; isThis: boolean }[]
    return sessions.find(({ isThis }) => isThis)!.id
  })
  const desk = await browser.newContext({ baseURL: app.url })
  const other = await desk.newPage()
  await signIn(other)
  const status = await other.evaluate(async (sessionId) => {
    const { session } = (await (await fetch('/api/v1/door')).json()) as { session: { csrfToken: string } }
    const headers = { 'x-csrf-token': session.csrfToken }
    return (await fetch(`/api/v1/sessions/${sessionId}`, { method: 'DELETE', headers })).status
  }, id)
  expect(status).toBe(204)
  await tablet.goto('/students')
  await expect(tablet).toHaveURL(/sign-in/)
  expect(await kept(tablet)).toBe(0)
  await desk.close()
  await lost.close()

  const context = await browser.newContext({ baseURL: app.url, serviceWorkers: 'allow' })
  const page = await readied(context)
  await context.setOffline(true)
  await page.getByRole('button', { name: 'Hester Lowe' }).click()
  await page.locator('#account-menu').getByRole('button', { name: 'Sign out' }).click()
  await expect(page).toHaveURL(/sign-in/)
  expect(await kept(page)).toBe(0)
  await context.setOffline(false)
  // The server hears of it as soon as it is reached.
  await page.goto('/students')
  await expect(page).toHaveURL(/sign-in/)
  await context.close()
})
