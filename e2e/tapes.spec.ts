import { readFileSync, writeFileSync } from 'node:fs'
import type { Download, Page } from '@playwright/test'
import { expect, openInstrument, test } from './fixtures'

/** What a click makes the browser keep. */
async function saved(page: Page, click: () => Promise<void>): Promise<{ name: string; bytes: Buffer }> {
  const [download] = await Promise.all([page.waitForEvent('download'), click()] as [
    Promise<Download>,
    Promise<void>,
  ])
  return { name: download.suggestedFilename(), bytes: readFileSync(await download.path()) }
}

const middleOf = (page: Page, tape: string | RegExp) =>
  page.getByRole('row', { name: tape }).locator('.middle')

test('from “half-size, 284.5 mm” to two tapes, by keys alone and without a student', async ({ page }) => {
  await page.keyboard.press('3')
  await expect(page.getByLabel('String length')).toBeFocused()
  await page.keyboard.type('284.5')
  await page.getByRole('button', { name: 'It is a ½' }).click()
  await expect(page.getByText('Fits a violin ½')).toBeVisible()
  await page.getByRole('heading', { name: 'Tapes', level: 1 }).click()

  await page.keyboard.press('y')
  await expect(page.getByRole('heading', { name: 'Tune first.' })).toBeVisible()
  await expect(page.getByText('never with a blade on the board')).toBeVisible()
  await page.keyboard.press('Enter')
  const figure = page.locator('.figure')
  await expect(figure).toHaveText('31.6 mm') // a ninth of the string, Helmholtz
  expect(await figure.evaluate((el) => getComputedStyle(el).fontSize)).toBe('128px') // 96 points
  await expect(page.getByText(/until open E rings, an octave above/)).toBeVisible()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowUp')
  await expect(figure).toHaveText('32.2 mm')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toHaveText(
    'Still to do, and to tick: set it straight (S) and press it on and wrap it round (W).',
  )
  for (const key of ['s', 'w', 'Enter']) await page.keyboard.press(key)
  await expect(figure).toHaveText('71.6 mm')
  await page.getByLabel('Found at, mm').fill('far')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('“far” is no place on this string')
  await page.getByLabel('Found at, mm').fill('71.4')
  for (const key of ['Enter', 's', 'w', 'Enter']) await page.keyboard.press(key)
  await expect(page.getByRole('heading', { name: '2 tapes laid.' })).toBeVisible()
  await expect(page.getByRole('row', { name: /3rd finger/ })).toContainText('71.4 mm')
  await page.keyboard.press('Enter')
  // One key to the check, and one back.
  await expect(page.getByRole('button', { name: 'Check a hand' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('heading', { name: 'Tapes', level: 1 })).toBeVisible()
})

test('tapes laid on an instrument are in its log; a check finds one crept; an entry is taken back', async ({
  page,
}) => {
  await openInstrument(page, 'no. 14')
  await expect(page.getByText('No tapes lie on it.')).toBeVisible()
  await page.keyboard.press('t')
  await expect(page.getByLabel('String length')).toHaveValue('618')
  await page.getByRole('heading', { name: 'Tapes', level: 1 }).click()
  await page.keyboard.press('y')
  await expect(page.getByRole('heading', { name: 'Tune first.' })).toBeVisible()
  for (const key of ['Enter', 's', 'w', 'Enter']) await page.keyboard.press(key)
  await expect(page.getByText('tape 2 of 2')).toBeVisible()
  // a reload in mid-tape goes on where it was
  await page.reload()
  await expect(page.getByText('tape 2 of 2')).toBeVisible()
  await expect(page.getByText(/no\. 14/).first()).toBeVisible()
  for (const key of ['s', 'w', 'Enter']) await page.keyboard.press(key)
  // first tapes need no reason: nothing is asked
  await expect(page.getByRole('textbox')).toHaveCount(0)
  await page.getByRole('button', { name: /Log as laid on no. 14/ }).click()
  await expect(page.getByText(/mm logged as laid on no\. 14/)).toBeVisible()

  await openInstrument(page, 'no. 14')
  const now = page.getByRole('region', { name: 'Now' })
  await expect(now).toContainText('68.7 mm') // 618 / 9
  await expect(page.getByRole('region', { name: 'Log' })).toContainText('Laid')
  await page.getByLabel('Middle now').fill('70.1')
  await page.getByLabel('Why').fill('=HYPERLINK("x")')
  await page.getByRole('button', { name: 'Write it down' }).click()
  await expect(now).toContainText('crept +1.4 mm')
  await expect(now).toContainText('a tape has crept 1.4 mm')

  await expect(page.getByRole('region', { name: 'Log' })).toContainText('=HYPERLINK')
  const csv = await saved(page, () => page.getByRole('button', { name: 'CSV' }).click())
  expect(csv.name).toBe('tape-log-no-14.csv')
  // a spreadsheet is never given a formula
  expect(csv.bytes.toString('utf8')).toContain(`"'=HYPERLINK(""x"")"`)

  await page.getByRole('button', { name: /Take back: Crept/ }).click()
  await expect(now).not.toContainText('crept')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(now).toContainText('crept +1.4 mm')
})

test('a place found by ring moves the places; one that disagrees is questioned; removing restores', async ({
  page,
}) => {
  await page.keyboard.press('3')
  await page.getByLabel('String length').fill('328')
  await expect(middleOf(page, /1st finger/)).toHaveText('36.4')
  await page.getByRole('tab', { name: 'Ring and fit' }).click()
  const field = page.getByLabel('E4 on the D string rings at, mm')
  await field.fill('nowhere')
  await field.press('Enter')
  await expect(page.getByRole('alert')).toContainText('“nowhere” is no place on this string')
  await field.fill('37.1')
  await field.press('Enter')
  await expect(page.getByText('E4 on D rings at 37.1 mm')).toBeVisible()
  const second = page.getByLabel('G4 on the D string rings at, mm')
  await second.fill('140')
  await second.press('Enter')
  await expect(page.getByText('Is that right? It disagrees with everything else')).toBeVisible()

  await page.getByRole('tab', { name: 'Places' }).click()
  const moved = Number(await middleOf(page, /1st finger/).textContent())
  expect(moved).toBeGreaterThan(36.6)
  expect(moved).toBeLessThan(37.1)
  await expect(page.getByRole('columnheader', { name: '± (95 %)' })).toBeVisible()

  await page.reload()
  await page.getByRole('tab', { name: 'Ring and fit' }).click()
  await page.getByRole('button', { name: 'Remove' }).first().click()
  await page.getByRole('button', { name: 'Remove' }).first().click()
  await page.getByRole('tab', { name: 'Places' }).click()
  await expect(middleOf(page, /1st finger/)).toHaveText('36.4')
})

const scl = (text: string) => ({ name: 'quay.scl', mimeType: 'text/plain', buffer: Buffer.from(text) })

test('a Scala file: wrong lines by number, ten megabytes at once, and a good one moves the tapes', async ({
  page,
}) => {
  await page.keyboard.press('3')
  await page.getByLabel('String length').fill('328')
  await page.getByText('Strings and scale').click()
  const file = page.getByLabel('Scale of your own')
  await file.setInputFiles(scl('! quay.scl\nQuay\n 12\n100.0\nhalf a step\n'))
  await expect(page.getByRole('alert')).toContainText('Line 5: “half a step” is no pitch')
  // By its path: what is handed over in memory crosses to the browser letter by letter.
  const large = test.info().outputPath('large.scl')
  writeFileSync(large, 'x'.repeat(10_000_000))
  await file.setInputFiles(large)
  await expect(page.getByRole('alert')).toContainText('This file is no scale')
  const nineteen = Array.from({ length: 19 }, (_, i) => (((i + 1) * 1200) / 19).toFixed(4)).join('\n')
  await file.setInputFiles(scl(`Nineteen\n19\n${nineteen}\n`))
  // fingers are named by twelve: each takes the nearest of the nineteen, a whole tone three of them, 328 (1 − 2^(−3/19))
  await expect(page.getByText('It has 19 notes.')).toBeVisible()
  await expect(middleOf(page, /1st finger/)).toHaveText('34.0')
  const steps = Array.from({ length: 12 }, (_, i) => ` ${(i + 1) * 100}.0`).join('\n')
  await file.setInputFiles(scl(`! quay.scl\nAll alike\n 12\n!\n${steps}\n`))
  // equal steps: 328 (1 − 2^(−2/12))
  await expect(middleOf(page, /1st finger/)).toHaveText('35.8')
  const written = await saved(page, () => page.getByRole('button', { name: /as .scl/ }).click())
  expect(written.bytes.toString('utf8')).toMatch(/^! all-alike.*\n!\nAll alike.*\n 12\n!\n 100\.00000\n/)

  await page.getByLabel('Open strings').fill('C3 G3 D4 A4 E5')
  await expect(page.locator('.board svg')).toContainText('C')
  await page.getByLabel('Open strings').fill('G3 D4 C4 E5')
  await expect(page.getByRole('alert')).toContainText('C4 is not above D4')
})

test('a strip comes out as a PDF; a batch shows how far it is and can be stopped', async ({ page }) => {
  await page.keyboard.press('7')
  await expect(page.getByRole('row', { name: /no\. 7/ })).toBeVisible()
  await page.keyboard.press('a')
  await page.getByRole('button', { name: /Print \d+ strips/ }).click()
  const pdf = await saved(page, () => page.getByRole('button', { name: 'Save as PDF' }).click())
  expect(pdf.name).toBe('tape-strips.pdf')
  const text = pdf.bytes.toString('latin1')
  expect(text.startsWith('%PDF-')).toBe(true)
  expect(text.trimEnd().endsWith('%%EOF')).toBe(true)
  // of nineteen measured instruments at least, two short strips on a page; A4 in points
  const pages = text.match(/\/Type \/Page\b/g)!.length
  expect(pages).toBeGreaterThanOrEqual(10)
  expect(pages).toBeLessThan(19)
  expect(text).toMatch(/\/MediaBox \[0 0 595\.27\d* 841\.88\d*\]/)

  await page.getByRole('button', { name: 'Save as PDF' }).click()
  await page.getByRole('button', { name: 'Cancel' }).click()
  await expect(page.getByRole('button', { name: 'Cancel' })).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Save as PDF' })).toBeEnabled()
})

test('a table of instruments is looked at before it is saved, and comes in once', async ({ page }) => {
  await page.goto('/instruments/import')
  const file = page.getByLabel('Choose the file')
  const give = (content: string | Buffer) =>
    file.setInputFiles({ name: 'cupboard.csv', mimeType: 'text/csv', buffer: Buffer.from(content) })
  await give(Buffer.from('label,family,size\nno. 1\u00e4,violin,1/2\n', 'latin1'))
  await expect(page.getByRole('alert')).toContainText('Save it from the spreadsheet as “CSV UTF-8”')
  await give('name,family\nx,violin\n')
  await expect(page.getByRole('alert')).toContainText('does not name size. It has: name, family')
  const many = Array.from({ length: 600 }, (_, i) => `shelf ${i},violin,1/2,284.${i % 10},`)
  await give(['Label;Family;Size;Length;Tuning', ...many.map((row) => row.replaceAll(',', ';'))].join('\n'))
  await expect(page.getByText('600 ready')).toBeVisible()
  await give(
    [
      'label,family,size,length,tuning',
      ...many,
      'no. 7,violin,1/2,,',
      'x,violin,1/2,2845,',
      '=cmd,viola,15,,',
    ].join('\n'),
  )
  await expect(page.getByText('601 ready')).toBeVisible()
  await expect(page.getByText('2 rows to mend')).toBeVisible()
  await expect(page.getByRole('row', { name: /no\. 7/ })).toContainText('in the cupboard already')
  await expect(page.getByRole('row', { name: /^603 x/ })).toContainText('2845 cannot be its string')
  await page.getByRole('button', { name: 'Save 601 instruments' }).click()
  await expect(page.getByRole('heading', { name: '601 instruments saved.' })).toBeVisible()
  await page.getByRole('button', { name: 'To the cupboard' }).click()
  await expect(page.getByText('621 instruments')).toBeVisible()
  await page.getByLabel('Find an instrument').fill('=cmd')
  const csv = await saved(page, () => page.getByRole('button', { name: 'CSV' }).click())
  expect(csv.bytes.toString('utf8')).toContain(`"'=cmd","viola","15 in"`)
})
