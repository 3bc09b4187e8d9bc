import { test as plain, type Page } from '@playwright/test'
import { checkOf, expect, openFile, test } from './fixtures'

// Beside a fidgeting child: keys pressed before the page is there, twenty a second, Back at the wrong moment, the tablet
// turned, somebody else's turn before this one is over.

const finger = (page: Page, n: number) => page.getByLabel(`Finger ${n}, cents`)

test('keys pressed while a room is on its way are the room’s: none is lost, none acts where it was', async ({
  page,
}) => {
  let open = () => {}
  const isOpen = new Promise<void>((resolve) => (open = resolve))
  await page.route(/assets\/TapesPage.*\.js/, async (route) => {
    await isOpen
    await route.continue()
  })
  await page.reload()
  await expect(page.locator('.row[aria-current="true"]')).toBeVisible()
  const first = await page.locator('.row[aria-current="true"]').textContent()
  await page.keyboard.press('3')
  await page.keyboard.type('284.5')
  await page.keyboard.press('ArrowDown')
  open()
  await expect(page.getByLabel('String length')).toHaveValue('284.5')
  await page.keyboard.press('Escape')
  await page.keyboard.press('1')
  await expect(page.locator('.row[aria-current="true"]')).toHaveText(first!)
})

test('a key at the very first moment leads on, and what follows is for where it leads', async ({ page }) => {
  for (const held of ['TodayPage', 'TapesPage'])
    await page.route(new RegExp(`assets/${held}.*\\.js`), async (route) => {
      await page.waitForFunction(() => document.title.length > 0)
      await route.continue()
    })
  await page.goto('/', { waitUntil: 'commit' })
  await expect(page.getByRole('navigation', { name: 'Rooms' })).toBeVisible()
  for (const key of '3327') await page.keyboard.press(key)
  await expect(page.getByRole('heading', { name: 'Tapes', level: 1 })).toBeVisible()
  await expect(page.getByLabel('String length')).toHaveValue('327')
})

test('twenty keys in a second are all taken, in their order', async ({ page }) => {
  await openFile(page, 'Orla Venn')
  for (const key of ['c', ...'-20', 'Enter', ...'25', 'Enter', ...'30', 'Enter', ...'-24'])
    await page.keyboard.press(key)
  for (const [n, text] of [
    [1, '-20'],
    [2, '25'],
    [3, '30'],
    [4, '-24'],
  ] as const)
    await expect(finger(page, n)).toHaveValue(text)
  await page.getByRole('button', { name: 'Clear' }).click()
  await page.keyboard.press('Escape')
  for (const key of ['6', 'ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowRight', '.', '.'])
    await page.keyboard.press(key)
  // three keys on from D is B; a string up from D is A; two positions on from the first is the third
  await expect(page.getByText('B major · third position · A string')).toBeVisible()
})

test('the verdict that was kept stays to be read aloud, and Undo brings its readings back', async ({
  page,
}) => {
  await openFile(page, 'Marlow Quill')
  await page.keyboard.press('c')
  for (const key of ['4', 'Enter', '8', 'Enter', '-', '2', 'Enter', '-', '2', '4', 'Enter'])
    await page.keyboard.press(key)
  await expect(page.getByText(/Kept in the file of/)).toBeVisible()
  const verdict = page.getByRole('region', { name: 'Verdict' })
  await expect(verdict).toContainText('Kept verdict, ')
  await expect(verdict).toContainText('the fourth finger lands 26 cents flat')
  // a tablet that is put down and taken up, another room and back
  await page.keyboard.press('Escape')
  await page.keyboard.press('6')
  await expect(page.getByRole('grid', { name: 'Keys and strings' })).toBeVisible()
  await page.keyboard.press('5')
  await expect(verdict).toContainText('the fourth finger lands 26 cents flat')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(finger(page, 4)).toHaveValue('-24')
  await page.getByRole('button', { name: 'Clear' }).click()
  await expect(verdict).toContainText('Not enough notes yet')
})

test('two students changed quickly: the sheet is the second one’s, and what was typed stays with the first', async ({
  page,
}) => {
  await checkOf(page, 'Orla Venn')
  await finger(page, 1).fill('11')
  await checkOf(page, 'Jory Pellam')
  await checkOf(page, 'Corin Blythe')
  await checkOf(page, 'Jory Pellam')
  await expect(page.getByRole('link', { name: 'Jory Pellam' }).first()).toBeVisible()
  await expect(finger(page, 1)).toHaveValue('')
  await checkOf(page, 'Orla Venn')
  await expect(finger(page, 1)).toHaveValue('11')
  await page.getByRole('button', { name: 'Clear' }).click()
})

test('no letter is lost while a dialog opens, with the processor six times slower', async ({ page }) => {
  const slow = await page.context().newCDPSession(page)
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 6 })
  for (const [room, opens, field] of [
    ['/students', 'n', 'Name'],
    ['/instruments', 'n', 'Number or name'],
    ['/', 'Control+k', 'Find a room, a student or an action'],
  ] as const) {
    await page.goto(room)
    await expect(page.getByRole('navigation', { name: 'Rooms' })).toBeVisible()
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    for (let round = 0; round < 8; round++) {
      await page.keyboard.press(opens)
      await page.keyboard.type('Maren')
      await expect(page.getByRole('dialog').getByLabel(field, { exact: true })).toHaveValue('Maren')
      await page.keyboard.press('Escape')
      await expect(page.getByRole('dialog')).toBeHidden()
    }
  }
})

test('what is typed right after a choice in a dialog is in the next field', async ({ page }) => {
  await page.keyboard.press('2')
  await expect(page.getByRole('heading', { name: 'Students', level: 1 })).toBeVisible()
  await page.keyboard.press('n')
  const dialog = page.getByRole('dialog')
  for (let time = 0; time < 3; time++) {
    await dialog.getByLabel('Size of the instrument').focus()
    await page.keyboard.press('ArrowDown')
    await expect(dialog.getByRole('option').first()).toBeVisible()
    for (const key of ['ArrowDown', 'ArrowDown', 'Enter', 'Tab', '2', '8', '4'])
      await page.keyboard.press(key)
    await expect(dialog.getByLabel('String length')).toHaveValue('284')
    await dialog.getByLabel('String length').fill('')
  }
})

test('Enter does what a dialog’s main button shows wherever the focus is, and the focus goes back where it was', async ({
  page,
}) => {
  const dialog = page.getByRole('dialog')
  await page.goto('/students')
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await page.keyboard.press('n')
  await page.keyboard.type('Wenna Marl')
  // A choice made with the pointer keeps the focus; Enter is about the dialog all the same.
  await dialog.getByText('Violin', { exact: true }).click()
  await page.getByRole('option', { name: 'Viola' }).click()
  await page.keyboard.press('Enter')
  await expect(dialog).toBeHidden()
  await expect(page.getByText('Wenna Marl').first()).toBeVisible()
  // A list that is open takes its own Enter, a button in focus is pressed itself.
  await page.goto('/students')
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await page.keyboard.press('n')
  await page.keyboard.type('Nobody')
  await dialog.getByLabel('Lesson day').focus()
  for (const key of ['ArrowDown', 'ArrowDown', 'Enter']) await page.keyboard.press(key)
  await expect(dialog.getByLabel('At')).toBeVisible()
  await dialog.getByRole('button', { name: 'Cancel' }).focus()
  await page.keyboard.press('Enter')
  await expect(dialog).toBeHidden()
  await expect(page.getByText('Nobody', { exact: true })).toBeHidden()
  await page.goto('/patterns/scales')
  const print = page.getByRole('button', { name: /^Print/ })
  await print.focus()
  await page.keyboard.press('Enter')
  await dialog.getByText('Letter', { exact: true }).click()
  const saved = page.waitForEvent('download')
  await page.keyboard.press('Enter')
  expect((await saved).suggestedFilename()).toMatch(/\.pdf$/)
  await page.keyboard.press('Escape')
  await expect(print).toBeFocused()
})

test('Back in the middle of laying leaves it, and laying goes on where it was', async ({ page }) => {
  await page.keyboard.press('3')
  await page.keyboard.type('327')
  await expect(page.getByText('Fits a violin 4/4')).toBeVisible()
  // from the field itself: a length takes no y
  await page.keyboard.press('y')
  await expect(page.getByRole('heading', { name: 'Tune first.' })).toBeVisible()
  for (const key of ['Enter', 'ArrowUp', 's', 'w', 'Enter']) await page.keyboard.press(key)
  await expect(page.getByText('tape 2 of 2')).toBeVisible()
  await expect(page.getByText('Corrected by what rang before: it was 81.8 mm.')).toBeVisible()
  await page.goBack()
  await expect(page.getByRole('heading', { name: 'Tapes', level: 1 })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('y')
  await expect(page.getByText('tape 2 of 2')).toBeVisible()
  await page.keyboard.press('b')
  await expect(page.locator('.figure')).toHaveText('36.8 mm')
})

test('a phone turned while a check is typed keeps the text and the cursor', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await checkOf(page, 'Jory Pellam')
  await finger(page, 2).fill('7')
  await finger(page, 2).press('Enter')
  await page.setViewportSize({ width: 844, height: 390 })
  await page.keyboard.type('-12')
  await expect(finger(page, 3)).toHaveValue('-12')
  await expect(finger(page, 2)).toHaveValue('7')
  await page.getByRole('button', { name: 'Clear' }).click()
})

test('an instrument is lent by two keys and what was lent by mistake is taken back by one', async ({
  page,
}) => {
  await openFile(page, 'Wren Ottery')
  const card = page.getByRole('region', { name: 'Instrument', exact: true })
  const before = await card.getByRole('heading').textContent()
  await page.keyboard.press('l')
  await expect(page.getByRole('option').first()).toContainText('mm')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/is lent to Wren Ottery/)).toBeVisible()
  await expect(card.getByRole('heading')).not.toHaveText(before!)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(card.getByRole('heading')).toHaveText(before!)
})

test('who has no instrument is lent one from Today by two keys', async ({ page }) => {
  const row = page.locator('.row', { hasText: 'Sunniva Holt' })
  await expect(row).toContainText('needs an instrument')
  await row.click()
  await page.keyboard.press('c')
  await expect(
    page.getByRole('dialog', { name: 'Lend an instrument' }).getByRole('option').first(),
  ).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByText(/is lent to Sunniva Holt/)).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('heading', { name: 'None lent' })).toBeVisible()
})

const VIEWS: readonly (readonly [name: string, path: string])[] = [
  ['today', '/'],
  ['students', '/students'],
  ['a student', '/students/STUDENT'],
  ['a hand', '/students/STUDENT/hand'],
  ['over time', '/students/STUDENT/history'],
  ['a week’s plan', '/students/STUDENT/plan'],
  ['practice', '/practice'],
  ['tapes', '/tapes'],
  ['laying', '/tapes/lay'],
  ['changing size', '/tapes/compare?from=violin%201/2&to=violin%203/4'],
  ['check', '/check'],
  ['the eye', '/check/eye'],
  ['every finding', '/check/findings'],
  ['atlas', '/patterns'],
  ['scales', '/patterns/scales'],
  ['shifts', '/patterns/shifts'],
  ['frame', '/patterns/frame'],
  ['instruments', '/instruments'],
  ['an instrument', '/instruments/INSTRUMENT'],
  ['a table', '/instruments/import'],
  ['setup', '/setup'],
  ['the drawings', '/setup/drawings'],
  ['the setup’s record', '/students/STUDENT/setup'],
  ['the studio', '/studio'],
  ['account', '/account'],
]

test('nothing scrolls sideways on a phone, with somebody in the lesson', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  const idIn = (list: string) =>
    page.evaluate(async (path) => {
      const { rows } = (await (await fetch(path)).json()) as { rows: { id: string }[] }
      return rows[0]!.id
    }, list)
  const ids = {
    STUDENT: await idIn('/api/v1/students?q=orla'),
    INSTRUMENT: await idIn('/api/v1/instruments?q=no.%207'),
  }
  await checkOf(page, 'Orla Venn')
  for (const [name, path] of VIEWS) {
    await page.goto(path.replace(/STUDENT|INSTRUMENT/, (id) => ids[id as keyof typeof ids]))
    await expect(page.locator('main :is(h1, table, .step)').first()).toBeVisible()
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth), {
        message: name,
      })
      .toBeLessThanOrEqual(0)
  }
})

plain(
  'the first load leaves nothing in the console, and the demo opens by one button',
  async ({ browser }) => {
    plain.setTimeout(240_000)
    const { startApp, newDataPath, removeDataPath } = await import('./app')
    const path = newDataPath()
    const app = await startApp(path)
    try {
      const page = await (await browser.newContext({ baseURL: app.url, serviceWorkers: 'allow' })).newPage()
      const said: string[] = []
      page.on('console', (message) => said.push(message.text()))
      page.on('pageerror', (error) => said.push(error.message))
      await page.goto('/')
      await page.getByRole('button', { name: 'Look round the demo studio' }).click()
      await expect(page.getByRole('heading', { level: 1 })).toHaveText(/Today|Next lessons/)
      expect(said).toEqual([])
    } finally {
      await app.stop()
      removeDataPath(path)
    }
  },
)
