import { Secret, TOTP } from 'otpauth'
import { expect, test } from './fixtures'

const PASSWORD = 'ferry steps at midnight'

test('an owner lets a colleague in by a key; she takes a second factor, and the trail tells of both', async ({
  app,
  page,
  browser,
}) => {
  await page.keyboard.press('8')
  await page.getByRole('heading', { name: 'Studio', level: 1 }).waitFor()
  await page.keyboard.press('w')
  await page.getByRole('heading', { name: 'Who teaches here' }).waitFor()
  await page.keyboard.press('n')
  const email = `wren-${Date.now()}@port-ellery.example`
  await page.keyboard.type('Wren Tallow')
  await page.keyboard.press('Tab')
  await page.keyboard.type(email)
  await page.keyboard.press('Enter')
  const key = page.getByRole('dialog', { name: 'A key' })
  const words = await key.locator('.key').innerText()
  await page.keyboard.press('Enter')
  await expect(key).toBeHidden()

  const context = await browser.newContext({ serviceWorkers: 'block' })
  const hers = await context.newPage()
  await hers.goto(`${app.url}/sign-in#${new URLSearchParams({ email, key: words }).toString()}`)
  await expect(hers.getByLabel('A password of your own')).toBeFocused()
  expect(hers.url()).not.toContain(words)
  await hers.keyboard.type(PASSWORD)
  await hers.keyboard.press('Enter')
  await expect(hers.getByRole('navigation', { name: 'Rooms' })).toBeVisible()

  await hers.goto(`${app.url}/account`)
  await hers.getByRole('form', { name: 'Begin a second factor' }).waitFor()
  await hers.keyboard.press('f')
  await hers.keyboard.type(PASSWORD)
  await hers.keyboard.press('Enter')
  const secret = (await hers.locator('.secret').innerText()).replaceAll(' ', '')
  const totp = new TOTP({ secret: Secret.fromBase32(secret) })
  await expect(hers.getByLabel('The six figures that it shows now')).toBeFocused()
  await hers.keyboard.type(totp.generate())
  await hers.keyboard.press('Enter')
  const spare = await hers.locator('.codes li').first().innerText()
  await hers.getByRole('button', { name: 'I have them' }).click()
  await hers.getByRole('button', { name: 'Sign out' }).first().click()

  await hers.getByLabel('E-mail').fill(email)
  await hers.getByLabel('Password').fill(PASSWORD)
  await hers.keyboard.press('Enter')
  await expect(hers.getByLabel('Code')).toBeFocused()
  await hers.keyboard.type(spare)
  await hers.keyboard.press('Enter')
  await expect(hers.getByRole('navigation', { name: 'Rooms' })).toBeVisible()
  await hers.goto(`${app.url}/studio/people`)
  await expect(hers.getByText('Owners of the studio let people in')).toBeVisible()
  await context.close()

  await page.reload()
  const trail = page.getByRole('region', { name: 'Who saw and changed what' })
  await trail.getByLabel('Who', { exact: true }).selectOption('Wren Tallow')
  await expect(trail.getByText('came in by a key and chose a password')).toBeVisible()
  await expect(trail.getByText('set up a second factor')).toBeVisible()
  await page.getByRole('button', { name: 'Wren Tallow has left' }).click()
  await expect(page.getByText(/Left .*what was written stays/)).toBeVisible()
})
