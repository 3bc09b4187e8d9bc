import { test as plain } from '@playwright/test'
import { newDataPath, removeDataPath, startApp } from './app'
import { expect, openFile, signIn, test } from './fixtures'

const kept = /Kept in the file of/

test('from a measured string to a judged hand, by keyboard alone', async ({ page }) => {
  // Corin's three-quarter was never measured: the day says so and leads to the bench
  const row = page.locator('.row', { hasText: 'Corin Blythe' })
  await expect(row).toContainText('measure the string')
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowDown')
  await page.keyboard.press('c')
  await expect(page.getByRole('heading', { name: 'Tapes' })).toBeVisible()
  await expect(page.getByLabel('String length')).toBeFocused()

  await page.keyboard.type('308')
  // a ninth and a quarter of 308 mm: whole-number places, Helmholtz
  await expect(page.getByRole('row', { name: /1st finger/ })).toContainText('34.2')
  await expect(page.getByRole('row', { name: /3rd finger/ })).toContainText('77.0')
  await expect(page.locator('.board svg')).toContainText('34.2')
  await expect(page.getByText('Fits a violin ¾')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByText('308.0 mm is kept for no. 9.')).toBeVisible()

  await page.keyboard.press('Control+k')
  await page.keyboard.type('Check Corin')
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Finger 1, cents')).toBeFocused()
  await page.keyboard.type('+4')
  await page.keyboard.press('Enter')
  await page.keyboard.type('8')
  await expect(page.getByRole('heading', { name: /Not enough notes yet: 1 and 2 heard/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await page.keyboard.type('-2')
  await page.keyboard.press('Enter')
  await page.keyboard.type('-24')
  // 4 should show +2, so −24 lands 26 cents flat: on 308 mm at 102.7 mm that is 3.1 mm; chosen since it is large, it is told a little smaller
  await expect(
    page.getByRole('heading', {
      name: /The frame is 3\.0 mm too narrow: the fourth finger lands 26 cents flat/,
    }),
  ).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByText(kept)).toBeVisible()

  await openFile(page, 'Corin Blythe')
  await expect(page.getByRole('region', { name: 'Checks' })).toContainText('The frame is 3.0 mm too narrow')
})

test('from Today to a kept four-note check in at most twelve key presses', async ({ page }) => {
  await expect(page.locator('.row[aria-current="true"]')).toBeVisible()
  let presses = 0
  const press = async (...keys: string[]) => {
    for (const key of keys) {
      await page.keyboard.press(key)
      presses++
    }
  }
  await press('c')
  await expect(page.getByLabel('Finger 1, cents')).toBeFocused()
  await press('4', 'Enter', '8', 'Enter', '-', '2', 'Enter', '-', '9', 'Enter')
  await expect(page.getByText(kept)).toBeVisible()
  expect(presses).toBeLessThanOrEqual(12)
})

test('a verdict is overruled in other words, and these stand wherever the check is told', async ({
  page,
}) => {
  await openFile(page, 'Tamsin Reed')
  await page.keyboard.press('c')
  await expect(page.getByLabel('Finger 1, cents')).toBeFocused()
  for (const cents of ['4 5', '8 7', '-2 -3', '-30 -31']) {
    await page.keyboard.type(cents)
    if (!cents.startsWith('-30')) await page.keyboard.press('Enter')
  }
  await page.keyboard.press('Enter')
  await expect(page.getByText(kept)).toBeVisible()
  await page.keyboard.press('v')
  await expect(page.getByLabel('In your words')).toBeFocused()
  await page.keyboard.type('A chilly hand: look again next week.')
  await page.getByLabel('One thing to work on').fill('Warm hands first')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Overruled: I saw it otherwise.')).toBeVisible()

  await page.keyboard.press('Escape')
  await page.keyboard.press('1')
  await expect(page.locator('.row', { hasText: 'Tamsin Reed' })).toContainText('Warm hands first.')
  await page.reload()
  await openFile(page, 'Tamsin Reed')
  await expect(page.getByRole('region', { name: 'Checks' })).toContainText(
    'A chilly hand: look again next week.',
  )
  await page.keyboard.press('8')
  await expect(page.getByText('What was told in a year, and what you said to it')).toBeVisible()
})

plain('no acknowledged check is lost when database and server are killed', async ({ browser }) => {
  plain.setTimeout(240_000)
  const dataPath = newDataPath()
  let app = await startApp(dataPath)
  try {
    const context = await browser.newContext({ baseURL: app.url })
    const page = await context.newPage()
    await signIn(page)
    await openFile(page, 'Orla Venn')
    await page.keyboard.press('c')
    await expect(page.getByLabel('Finger 1, cents')).toBeFocused()
    for (const cents of ['5', '9', '-3', '-21']) {
      await page.keyboard.type(cents)
      if (cents !== '-21') await page.keyboard.press('Enter')
    }
    process.kill(app.databasePid(), 'SIGKILL')
    await page.keyboard.press('Enter')
    await expect(page.getByText(kept)).toBeVisible({ timeout: 30_000 })
    expect(app.output()).toContain('the database is back')

    await app.kill()
    const { port } = new URL(app.url)
    app = await startApp(dataPath, { PORT: port })
    expect(app.output()).toContain('adopting the database that still runs')
    await page.reload()
    await openFile(page, 'Orla Venn')
    const today = page.locator('.history li', { hasText: '23 cents flat' }).first()
    await expect(today).toContainText('4 notes')
    await expect(page.locator('.history li', { hasText: '4 notes' })).toHaveCount(1)
  } finally {
    await app.stop()
    removeDataPath(dataPath)
  }
})
