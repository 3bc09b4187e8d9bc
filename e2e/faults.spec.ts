import { checkOf, expect, openFile, signIn, test } from './fixtures'

test('a length that cannot be right is explained beside its field, and nothing is kept', async ({ page }) => {
  await openFile(page, 'Orla Venn')
  await page.keyboard.press('t')
  const field = page.getByLabel('String length')
  await expect(field).toHaveValue('284.5')
  for (const [typed, said] of [
    ['0', 'A string is longer than nothing'],
    ['-285', 'A string is longer than nothing'],
    ['half', 'Type a length, as in 328'],
    ['285 cm', 'Did you mean millimetres, 285.0 mm?'],
    ['328', 'That is the string of a 4/4, not of a ½.'],
  ] as const) {
    await field.fill(typed)
    await expect(page.getByRole('alert')).toContainText(said)
    await field.press('Enter')
  }
  await page.getByRole('button', { name: 'Use' }).waitFor({ state: 'hidden' })
  await field.fill('11 1/4 in')
  await expect(page.getByText('Fits a violin ½')).toBeVisible()
  await openFile(page, 'Orla Venn')
  await expect(page.getByRole('region', { name: 'Instrument' })).toContainText('284.5 mm')
})

test('a reading that is no reading is named in its row, and a reload loses none of the others', async ({
  page,
}) => {
  await openFile(page, 'Marlow Quill')
  await page.keyboard.press('c')
  await page.getByLabel('Finger 1, cents').fill('6')
  await page.getByLabel('Finger 2, cents').fill('900')
  await expect(page.getByText('900 cents is another note: type −99 to 99.')).toBeVisible()
  await expect(page.getByRole('button', { name: /Keep this verdict/ })).toBeDisabled()
  await page.getByLabel('Finger 2, cents').fill('7 flat')
  await expect(page.getByText('“flat” is no number')).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Finger 1, cents')).toHaveValue('6')
  await expect(page.getByLabel('Finger 2, cents')).toHaveValue('7 flat')
  await page.getByRole('button', { name: 'Clear' }).click()
  await expect(page.getByLabel('Finger 1, cents')).toHaveValue('')
})

test('a bass in 1-2-4 has no row for the third finger', async ({ page }) => {
  await openFile(page, 'Lark Penhale')
  await page.keyboard.press('c')
  await expect(page.getByLabel('Finger 4, cents')).toBeVisible()
  await expect(page.getByLabel('Finger 3, cents')).toHaveCount(0)
})

test('two tabs editing one student keep both teachers’ words', async ({ page, context }) => {
  await openFile(page, 'Beck Tarn')
  const other = await page.context().newPage()
  await other.goto(page.url())
  await expect(other.getByRole('heading', { name: 'Beck Tarn' })).toBeVisible()
  for (const tab of [page, other]) await tab.getByRole('button', { name: /Change/ }).click()

  await other.getByLabel('Note', { exact: true }).fill('Cold hands: warm up first.')
  await other.getByRole('button', { name: 'Save' }).click()
  await expect(other.getByText('Cold hands: warm up first.')).toBeVisible()

  await page.getByLabel('Note', { exact: true }).fill('Bring the blue folder.')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('Somebody changed this file meanwhile')
  await expect(page.getByLabel('Note', { exact: true })).toHaveValue('Bring the blue folder.')
  // Side by side, and nothing is saved before she has chosen.
  await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeDisabled()
  await page.getByRole('button', { name: 'Note, theirs: Cold hands' }).click()
  await expect(page.getByLabel('Note', { exact: true })).toHaveValue('Cold hands: warm up first.')
  await page.getByRole('button', { name: 'Note, yours: Bring the blue' }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Bring the blue folder.')).toBeVisible()
  await other.close()
  await context.close()
})

test('a new student: a fault beside the field, any script in the name, and an undo', async ({ page }) => {
  await page.keyboard.press('2')
  await expect(page.getByRole('row', { name: /Orla Venn/ })).toBeVisible()
  await page.keyboard.press('n')
  const dialog = page.getByRole('dialog', { name: 'New student' })
  await expect(dialog.getByLabel('Name')).toBeFocused()
  await dialog.getByLabel('Born in').fill('20')
  await dialog.getByRole('button', { name: 'Enrol' }).click()
  await expect(dialog.getByText('Give the name.')).toBeVisible()
  await expect(dialog.getByText('Give the year of birth in four figures.')).toBeVisible()
  await dialog.getByLabel('Name').fill('נועה 🎻')
  await dialog.getByLabel('Born in').fill('2018')
  await dialog.getByRole('button', { name: 'Enrol' }).click()
  await expect(page.getByRole('heading', { name: 'נועה 🎻' })).toBeVisible()

  await page.getByRole('button', { name: 'Take off the roster' }).click()
  await expect(page.getByText('is off the roster')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('heading', { name: 'נועה 🎻' })).toBeVisible()
})

test('a session that ended leads to signing in and back, and the check that was kept then is kept once', async ({
  page,
}) => {
  await openFile(page, 'Tamsin Reed')
  const checks = page.getByRole('region', { name: 'Checks' }).getByRole('listitem')
  await expect(checks.first()).toBeVisible()
  const before = await checks.count()
  await page.keyboard.press('c')
  await page.getByLabel('Finger 1, cents').fill('3')
  await page.getByLabel('Finger 2, cents').fill('4')
  await page.context().clearCookies()
  await page.keyboard.press('Control+Enter')
  await expect(page).toHaveURL(/sign-in/)
  await signIn(page)
  await expect(page.getByText('Sent at last: the check of Tamsin Reed.')).toBeVisible()
  await page.goto('/check')
  await expect(page.getByLabel('Finger 2, cents')).toHaveValue('')
  await openFile(page, 'Tamsin Reed')
  await expect(checks).toHaveCount(before + 1)
})

test('what is kept while the server is away waits in sight, over a reload, and is sent in order', async ({
  page,
}) => {
  await openFile(page, 'Jory Pellam')
  await expect(page.getByText('3 things wait')).toHaveCount(0)
  let isAway = true
  const taken: string[] = []
  // What the server takes is told at the door itself: taking the door away would lose sight of a
  // request that stands in it.
  await page.route(
    (url) => url.pathname.startsWith('/api/v1/students/'),
    async (route) => {
      const request = route.request()
      if (request.method() !== 'POST') return route.continue()
      if (isAway) {
        const json = { status: 503, code: 'database_unavailable', title: 'Away' }
        return route.fulfill({ status: 503, json })
      }
      const response = await route.fetch()
      const { exercise } = request.postDataJSON() as { exercise?: { string: string } }
      if (exercise && response.ok()) taken.push(exercise.string)
      return route.fulfill({ response })
    },
  )
  await page.keyboard.press('c')
  for (const cents of ['3', '5']) {
    await page.getByLabel('Finger 1, cents').fill(cents)
    await page.keyboard.press('Control+Enter')
    await expect(page.getByRole('button', { name: 'Waits to be sent' })).toBeVisible()
    if (cents === '3') await page.getByRole('button', { name: 'change' }).click()
    await page
      .getByRole('radiogroup', { name: 'String' })
      .getByText(cents === '3' ? 'D' : 'G')
      .click()
  }
  await page.getByLabel('Finger 1, cents').fill('8')
  await page.keyboard.press('Control+Enter')
  const note = page.getByRole('status', { name: 'On its way' })
  await expect(note).toContainText('3 things wait to be sent.')
  await page.reload()
  await expect(note).toContainText('3 things wait to be sent.')
  await note.getByRole('button', { name: 'Show' }).click()
  await expect(note.getByRole('listitem')).toHaveText(
    Array(3).fill(/the check of Jory Pellam since \d\d:\d\d, waits/),
  )
  isAway = false
  await expect(note).toBeHidden()
  // The note goes when the server is back; what waited follows one by one.
  await expect.poll(() => taken).toEqual(['A4', 'D4', 'G3'])
})

test('from another machine over plain http everything works but listening, which says why', async ({
  app,
  browser,
}) => {
  const context = await browser.newContext({
    baseURL: `http://harbour-desk.example:${new URL(app.url).port}`,
  })
  const page = await context.newPage()
  await signIn(page)
  expect(await page.evaluate(() => window.isSecureContext)).toBe(false)
  await page.goto('/students')
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await page.keyboard.press('n')
  await page.keyboard.type('Wren Quill')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Wren Quill' })).toBeVisible()
  await checkOf(page, 'Lark Penhale')
  await page.getByLabel('Finger 1, cents').fill('12')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('Kept in the file of Lark Penhale.')).toBeVisible()
  await page.getByRole('button', { name: 'Listen' }).click()
  await expect(page.getByRole('alert')).toContainText('over https')
  await context.close()
})
