import { expect, openFile, test } from './fixtures'
import type { Page } from '@playwright/test'

async function openPlan(page: Page, name: string) {
  await openFile(page, name)
  await page.keyboard.press('w')
  await expect(page.getByRole('region', { name: 'The week', exact: true })).toBeVisible()
}
const given = (page: Page, name: string) => page.getByText(`The plan is in the file of ${name}.`)
const itemsOf = (page: Page) => page.locator('.week .item')

test('a lesson’s end by keys alone: the last week is said in a key a day, the next is given with one more', async ({
  page,
}) => {
  await openPlan(page, 'Marlow Quill')
  const log = page.getByRole('region', { name: /What was practised/ })
  const asked = log.getByText(/Did \w+\?/)
  await expect(asked).toBeVisible()
  // Eleven keys: every day of the last plan, the plan, and its paper.
  for (let day = 0; day < 6; day++) await page.keyboard.press(day === 2 ? 'n' : 'y')
  await expect(log.getByText(/^5 days practised/)).toBeVisible()
  // One of them was shorter: exactly.
  await page.keyboard.press('m')
  const exact = page.getByRole('dialog', { name: 'What exactly was practised' })
  await exact.getByRole('textbox', { name: 'Minutes of An old piece' }).fill('12')
  await page.keyboard.press('Enter')
  await expect(log.getByText(/^5 days practised/)).toBeVisible()
  await page.keyboard.press('g')
  await expect(given(page, 'Marlow Quill')).toBeVisible()
  await page.keyboard.press('p')
  await expect(page.getByRole('dialog', { name: /Practice of Marlow/ }).getByText('1 page')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.reload()
  await expect(page.getByRole('button', { name: /^Given/ })).toBeDisabled()
  await expect(log.getByText(/^5 days practised/)).toBeVisible()
})

test('a card is moved by keys and by hand, set, dropped and undone; the week is replanned round it', async ({
  page,
}) => {
  await openPlan(page, 'Isolde Marsh')
  const before = await itemsOf(page).allInnerTexts()
  const chosen = page.locator('.item.chosen')
  const name = (await chosen.locator('.what').innerText()).trim()
  await page.keyboard.press('X')
  await expect(page.locator('.week').getByText(name, { exact: true })).toHaveCount(0)
  await page.keyboard.press('u')
  await expect.poll(() => itemsOf(page).allInnerTexts()).toEqual(before)
  await page.keyboard.press('k')
  await expect(page.locator('.item.fixed')).toHaveCount(1)
  await page.keyboard.press('+')
  await expect(page.locator('.item.fixed')).toContainText('set')
  await page.keyboard.press('x')
  await expect(page.locator('.item.fixed')).toHaveCount(0)
  // Into the day of rest, by hand.
  const rest = page.locator('.day.rest ul')
  await page
    .locator('.day:not(.rest) .item')
    .last()
    .dragTo(rest, { targetPosition: { x: 20, y: 20 } })
  await expect(rest.locator('.item.fixed')).toHaveCount(1)
  await page.reload()
  await expect(rest.locator('.item.fixed')).toHaveCount(1)
})

test('what cannot be is named: nothing while a pain is marked, an exercise that is added, a second teacher’s plan', async ({
  page,
  app,
  browser,
  cookies,
}) => {
  await openPlan(page, 'Edda Ash')
  await expect(page.getByText('A pain is marked: nothing is planned before it is cleared.')).toBeVisible()
  await openPlan(page, 'Tamsin Reed')
  await page.keyboard.press('a')
  await page.getByRole('combobox', { name: 'Find an exercise' }).fill('long')
  await page.keyboard.press('Enter')
  await expect(page.locator('.week').getByText('Long notes').first()).toBeVisible()
  const context = await browser.newContext({ baseURL: app.url })
  await context.addCookies(cookies)
  const other = await context.newPage()
  await other.goto(page.url())
  await expect(other.getByRole('button', { name: /^Give the plan/ })).toBeEnabled()
  await other.keyboard.press('g')
  await expect(given(other, 'Tamsin Reed')).toBeVisible()
  await context.close()
  await page.keyboard.press('g')
  await expect(page.getByText(/has given Tamsin Reed a plan for this week meanwhile/)).toBeVisible()
  // Nothing of what was changed here is lost: given once more, it counts.
  await expect(page.locator('.week').getByText('Long notes').first()).toBeVisible()
  await page.keyboard.press('g')
  await expect(given(page, 'Tamsin Reed')).toBeVisible()
})

test('an exercise of the studio’s own is written where it is missed, and is in the week with its notes', async ({
  page,
}) => {
  await openPlan(page, 'Wren Ottery')
  await page.keyboard.press('a')
  const sought = page.getByRole('combobox', { name: 'Find an exercise' })
  await sought.fill('Seaweed')
  await page.getByRole('button', { name: 'Write “Seaweed” as an exercise of your own' }).press('Enter')
  const form = page.getByRole('dialog', { name: 'An exercise of the studio’s own' })
  await form.getByLabel('How it is done').fill('Sway from one string to the next.')
  await form.getByLabel('Notes, for a violin').fill('A4 H')
  await form.getByRole('button', { name: 'Keep the exercise' }).click()
  await expect(form.getByText('“H” is no note')).toBeVisible()
  await form.getByLabel('From a file').setInputFiles('core/formats/fixtures/bass.musicxml')
  await expect(form.getByText('4 notes brought in')).toBeVisible()
  await expect(form.getByText('E1 is below the lowest string of a violin')).toBeVisible()
  await form.getByLabel('Notes, for a violin').fill('A4/0 B C#')
  await form.getByRole('button', { name: 'Keep the exercise' }).click()
  await expect(page.locator('.week').getByText('Seaweed').first()).toBeVisible()
  await page.keyboard.press('g')
  await expect(given(page, 'Wren Ottery')).toBeVisible()
  await page.reload()
  await expect(page.locator('.week').getByText('Seaweed').first()).toBeVisible()
})

test('a class: who did what, and one exercise for all of one instrument', async ({ page }) => {
  await page.goto('/practice')
  await expect(page.getByRole('row', { name: /Lark Penhale/ })).toBeVisible()
  await page.getByText('bass', { exact: true }).click()
  await page.keyboard.press('a')
  await page.getByRole('combobox', { name: 'Find an exercise' }).fill('roll')
  await expect(page.getByRole('option', { name: /Roll the hand/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByText(/plans? given\./)).toBeVisible()
  await expect(page.getByRole('row', { name: /Denzil Crake/ })).toContainText('Roll the hand')
})

test('a log that was saved as a table comes in again: what is wrong is named, and it is taken back at once', async ({
  page,
}) => {
  await page.goto('/practice')
  await expect(page.getByRole('row', { name: /Lark Penhale/ })).toBeVisible()
  await page.keyboard.press('t')
  await expect(page.getByRole('columnheader', { name: 'Did it' })).toBeVisible()
  await page.keyboard.press('t')
  await expect(page.getByRole('columnheader', { name: 'Gone when looked at later' })).toBeVisible()
  await page.keyboard.press('t')
  const denzil = page.getByRole('row', { name: /Denzil Crake/ })
  const before = await denzil.textContent()
  await page.keyboard.press('b')
  const dialog = page.getByRole('dialog', { name: 'Bring plans or logs in' })
  const day = new Date().toISOString().slice(0, 10)
  const table = [
    'student,day,exercise,minutes,times',
    `Denzil Crake,${day},review_piece,7,`,
    'Denzil Crake,soon,review_piece,7,',
    `Nobody Known,${day},review_piece,7,`,
  ]
  await dialog
    .getByLabel('The file')
    .setInputFiles({ name: 'log.csv', mimeType: 'text/csv', buffer: Buffer.from(table.join('\r\n')) })
  await expect(dialog.getByText('Row 3: “soon” is no day')).toBeVisible()
  await expect(dialog.getByText('called “Nobody Known”')).toBeVisible()
  await expect(dialog.getByRole('status')).toHaveText('1 of a log, 0 plans, of 1 student.')
  await page.keyboard.press('Enter')
  await expect(page.getByText('1 line of the log and 0 plans brought in.')).toBeVisible()
  await expect(denzil).not.toHaveText(before!)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(denzil).toHaveText(before!)
})
