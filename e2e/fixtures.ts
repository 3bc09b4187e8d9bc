import { test as base, expect, type Cookie, type Page } from '@playwright/test'
import { DEMO_EMAIL, DEMO_PASSWORD } from '../server/demo/seed'
import { newDataPath, removeDataPath, startApp, type RunningApp } from './app'

/** One application with its demo studio for a whole file of tests; a page that is signed in; and no fault in the console. */
export const test = base.extend<{ page: Page; faults: string[] }, { app: RunningApp; cookies: Cookie[] }>({
  app: [
    async ({}, use) => {
      const path = newDataPath()
      const app = await startApp(path)
      await use(app)
      await app.stop()
      removeDataPath(path)
    },
    { scope: 'worker', timeout: 240_000 },
  ],
  cookies: [
    async ({ app, browser }, use) => {
      const context = await browser.newContext({ baseURL: app.url })
      await signIn(await context.newPage())
      await use(await context.cookies())
      await context.close()
    },
    { scope: 'worker' },
  ],
  faults: async ({}, use) => {
    await use([])
  },
  page: async ({ browser, app, cookies, faults, colorScheme, viewport }, use) => {
    const context = await browser.newContext({ baseURL: app.url, colorScheme: colorScheme ?? null, viewport })
    await context.addCookies(cookies)
    const page = await context.newPage()
    page.on('pageerror', (error) => faults.push(error.message))
    page.on('console', (message) => {
      // A refused save is logged by the browser itself; everything else is a fault.
      if (message.type() === 'error' && !/status of (401|409|422|503)/.test(message.text()))
        faults.push(message.text())
    })
    await page.goto('/')
    await expect(page.getByRole('navigation', { name: 'Rooms' })).toBeVisible()
    await use(page)
    expect(faults).toEqual([])
    await context.close()
  },
})

export async function signIn(page: Page): Promise<void> {
  await page.goto('/sign-in')
  await page.getByLabel('E-mail').fill(DEMO_EMAIL)
  await page.getByLabel('Password', { exact: true }).fill(DEMO_PASSWORD)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('navigation', { name: 'Rooms' })).toBeVisible()
}

/** Opens a student's file by the palette, as a teacher does from anywhere. */
export async function openFile(page: Page, name: string): Promise<void> {
  // A key that comes before the page is there is lost, as on any page.
  await expect(page.getByRole('navigation', { name: 'Rooms' })).toBeVisible()
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: /find a room/i }).fill(name)
  await expect(page.getByRole('option', { name }).first()).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible()
}

/** Opens a student's check by the palette. */
export async function checkOf(page: Page, name: string): Promise<void> {
  await page.keyboard.press('Control+k')
  await page.keyboard.type(`Check ${name}`)
  await expect(page.getByRole('option', { name: `Check ${name}` })).toBeVisible()
  await page.keyboard.press('Enter')
}

/** Opens an instrument from the cupboard. */
export async function openInstrument(page: Page, label: string): Promise<void> {
  await page.goto('/instruments')
  await page.getByRole('link', { name: label, exact: true }).click()
  await expect(page.getByRole('heading', { level: 1, name: label })).toBeVisible()
}

export { expect }
