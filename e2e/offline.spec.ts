import type { BrowserContext, Page } from '@playwright/test'
import { expect, openFile, signIn, test } from './fixtures'

test.describe.configure({ timeout: 120_000 })

/** A tablet on which somebody signed in over the network, and which has read what today’s lessons need. */
async function readied(context: BrowserContext): Promise<Page> {
  const page = await context.newPage()
  await signIn(page)
  await page.evaluate(() => navigator.serviceWorker.ready)
  // The worker has the page from the next one on.
  await page.reload()
  await expect.poll(() => page.evaluate(() => !!navigator.serviceWorker.controller)).toBe(true)
  await expect
    .poll(() => page.evaluate(async () => !!(await caches.match('/read-ahead'))), { timeout: 60_000 })
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
  // Ended in the list of sessions, on another device.
  const desk = await browser.newContext({ baseURL: app.url })
  const other = await desk.newPage()
  await signIn(other)
  await other.goto('/account')
  await other.getByRole('button', { name: /^End every session but this one/ }).click()
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
