import { expect, openFile, test } from './fixtures'

/** From Today into a round of the lesson’s student. */
async function begin(page: import('@playwright/test').Page, name: string) {
  await openFile(page, name)
  await page.keyboard.press('s')
  await expect(page.getByRole('heading', { name: 'Does nothing hurt, now or after practice?' })).toBeVisible()
}

test('sixty seconds beside a child: a round by keys alone stops at its cause, is kept, and is in the file', async ({
  page,
}) => {
  await begin(page, 'Isolde Marsh')
  // The last round stopped at the elbow: pain is asked all the same, then the elbow.
  await page.keyboard.press('f')
  await page.keyboard.press('y')
  await expect(page.getByRole('heading', { name: /elbow come under/ })).toBeVisible()
  await page.keyboard.press('x')
  await expect(page.getByRole('heading', { name: /Find it: place 1 to 4 in tune/ })).toBeVisible()
  await expect(page.getByText('never force the elbow round').first()).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Kept. Today’s one thing: elbow.' })).toBeVisible()
  await page.keyboard.press('r')
  const rounds = page.getByRole('region', { name: 'Rounds' })
  await expect(rounds.getByRole('row', { name: /elbow/ })).toContainText('not yet')
  await expect(page.getByRole('region', { name: 'Gates' })).toContainText('elbow: not yet')
})

test('a stop lists its keys, is left by Escape, and another student is a name away: what is typed there is no answer', async ({
  page,
}) => {
  await begin(page, 'Corin Blythe')
  for (const key of 'yx') await page.keyboard.press(key)
  await expect(page.getByText('Stop here: tension')).toBeVisible()
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('It is right now: go on')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  const question = page.getByRole('heading', { name: 'Do the shoulders hang, and does the breath go on?' })
  await expect(question).toBeVisible()
  await page.keyboard.press('0')
  await page.keyboard.type('yxn')
  await expect(page.getByText('Nobody is called that')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(question).toBeVisible()
  await page.keyboard.press('0')
  await page.keyboard.type('Tamsin')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Does nothing hurt, now or after practice?' })).toBeVisible()
  await expect(page.locator('.lesson').getByRole('link', { name: 'Tamsin Reed' })).toBeVisible()
})

test('a round survives a reload, and another teacher’s round beside it', async ({
  page,
  app,
  browser,
  cookies,
}) => {
  await begin(page, 'Jory Pellam')
  for (const key of 'yyn') await page.keyboard.press(key)
  await page.reload()
  await expect(page.getByRole('heading', { name: 'Does the size suit hand and arm?' })).toBeVisible()

  const context = await browser.newContext({ baseURL: app.url })
  await context.addCookies(cookies)
  const other = await context.newPage()
  await other.goto('/')
  await begin(other, 'Jory Pellam')
  for (const key of 'yx') await other.keyboard.press(key)
  await other.keyboard.press('Enter')
  await expect(other.getByText('Today’s one thing: tension')).toBeVisible()
  await context.close()

  for (const key of 'yx') await page.keyboard.press(key)
  await page.keyboard.press('Enter')
  await expect(page.getByText('Today’s one thing: nails')).toBeVisible()
  await page.keyboard.press('r')
  const rounds = page.getByRole('region', { name: 'Rounds' })
  await expect(rounds.getByText('4 rounds in the file')).toBeVisible()
  // Each answer stands as it was given last: the one’s nails, the other’s tension is right again.
  await expect(rounds.getByRole('row', { name: /nails/ })).toContainText('too long')
  await expect(rounds.getByRole('row', { name: /open strings/ })).toContainText('nearly in tune')
})

test('pain stops every room with its caution until somebody says who cleared it, and can be told by mistake', async ({
  page,
}) => {
  await begin(page, 'Rook Bramble')
  await page.keyboard.press('x')
  await page.getByRole('button', { name: 'left shoulder' }).click()
  await page.getByRole('button', { name: 'Mark it in the file' }).click()
  await expect(page.getByText('Nothing else is asked while this stands.')).toBeVisible()
  for (const room of ['/check', '/tapes', '/patterns', '/patterns/scales', '/instruments']) {
    await page.goto(room)
    const marked = page.getByRole('region', { name: 'Pain that is not cleared' })
    await expect(marked).toHaveCount(1)
    await expect(marked).toContainText(/Pain: left shoulder.*Stop and rest\./)
  }
  await page.goto('/check')
  await expect(page.getByText('Nothing is played while it hurts.')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Listen/ })).toHaveCount(0)
  await page.goto('/')
  await expect(page.getByText('pain: left shoulder', { exact: true })).toBeVisible()
  await expect(page.getByText(/Pain: left shoulder\. Stop and rest\./)).toBeVisible()
  await page.goto('/setup')
  await page.getByRole('button', { name: 'It is cleared' }).click()
  await page.getByLabel('Who said that playing is all right again?').fill('The physiotherapist, on Friday.')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /nothing hurt/ })).toBeVisible()
  await page.keyboard.press('z')
  await expect(page.getByText('Pain: left shoulder')).toBeVisible()
})

test('the studio’s names of notes, units and own items are everybody’s at once', async ({
  page,
  app,
  browser,
  cookies,
}) => {
  await page.keyboard.press('8')
  await page.getByLabel('Names of notes').selectOption({ label: 'German: B, H' })
  await page.getByLabel('Lengths in').selectOption({ label: 'Inches, in fractions' })
  await expect(page.getByText('B3, H3, Fis4 · 1 1/4 in, 12 29/32 in')).toBeVisible()
  await page.getByRole('button', { name: 'Add an item' }).click()
  const dialog = page.getByRole('dialog', { name: 'An item of the studio’s own' })
  await dialog.getByLabel('The question, as asked beside a child').fill('Is the <i>rosin</i> on?')
  await dialog.getByLabel('Why it matters').fill('A dry bow slides.')
  await dialog.getByRole('button', { name: 'Keep the item' }).click()
  await expect(page.getByText('Is the <i>rosin</i> on?')).toBeVisible()

  const context = await browser.newContext({ baseURL: app.url })
  await context.addCookies(cookies)
  const other = await context.newPage()
  await other.goto('/tapes')
  await expect(other.getByRole('row', { name: /1st finger/ })).toContainText('H')
  await openFile(other, 'Tamsin Reed')
  await other.keyboard.press('r')
  await expect(other.getByText(/a span of \d+ \d+\/\d+ in/)).toBeVisible()
  await context.close()

  await page.getByRole('button', { name: 'Remove', exact: true }).click()
  await page.getByLabel('Names of notes').selectOption({ label: 'Letters: B♭, B' })
  await page.getByLabel('Lengths in').selectOption({ label: 'Millimetres' })
  await expect(page.getByText('B♭3, B3, F♯4 · 31.6 mm, 328.0 mm')).toBeVisible()
})

test('what sets a loan instrument up is measured, drawn with its numbers, and doubted where it should be', async ({
  page,
}) => {
  await openFile(page, 'Corin Blythe')
  await page.keyboard.press('r')
  const fit = page.getByRole('region', { name: 'Fit to the body' })
  await fit.getByRole('textbox', { name: 'Shoulder rest, end under the chin rest' }).fill('30')
  await fit.getByRole('textbox', { name: 'Shoulder rest, outer end' }).fill('64')
  await expect(fit.getByText('tilts the instrument steeply')).toBeVisible()
  await fit.getByRole('textbox', { name: 'Shoulder rest, outer end' }).fill('4 cm')
  await expect(fit.getByText('tilts the instrument steeply')).toBeHidden()
  await expect(fit.locator('svg text', { hasText: '40 mm' })).toBeVisible()
  await fit.getByRole('textbox', { name: 'Stayed with both hands away' }).fill('9')
  await expect(fit.getByText('Give 0 to 5 of 5.')).toBeVisible()
  await fit.getByRole('textbox', { name: 'Stayed with both hands away' }).fill('5')
  await fit.getByRole('button', { name: 'Keep the fit' }).click()
  await expect(page.getByText('The fit is in the file.')).toBeVisible()
  await page.reload()
  await expect(fit.locator('svg text', { hasText: '40 mm' })).toBeVisible()
})
