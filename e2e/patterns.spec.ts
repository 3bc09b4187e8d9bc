import { readFileSync } from 'node:fs'
import { expect, openFile, test } from './fixtures'

test('from a student’s file to the hand a key asks for, and what the student has of it', async ({ page }) => {
  await openFile(page, 'Orla Venn')
  await page.keyboard.press('p')
  const keys = page.getByRole('grid', { name: 'Keys and strings' })
  const inG = keys.locator('[data-row="G:major"] th')
  const detail = page.locator('.detail')
  await expect(keys).toBeVisible()
  await expect(page.getByRole('heading', { name: '2 and 3 touch' })).toBeVisible()
  // The places are those of the bench: this instrument was measured, and corrected by its rings.
  await expect(detail.getByText('32.0', { exact: true })).toBeVisible()

  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('heading', { name: '1 and 2 touch' })).toBeVisible()
  await page.keyboard.press('s')
  await expect(inG).toContainText('✓')
  await page.keyboard.press('.')
  await page.keyboard.press('L')
  const second = page.getByRole('grid', { name: 'Positions and strings' }).locator('[data-row="second"] th')
  await expect(second).toContainText('◐')
  await page.keyboard.press(',')
  await page.reload()
  await expect(second).toContainText('◐')
  await expect(inG).toContainText('✓')

  await page.keyboard.press('k')
  await page.keyboard.type('H major')
  await page.keyboard.press('Enter')
  await expect(page.getByText('“H major” is no key: begin with a letter from A to G')).toBeVisible()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('G# major')
  await page.keyboard.press('Enter')
  await expect(page.getByText('G♯ major · first position')).toBeVisible()
  await expect(detail.getByRole('cell', { name: 'F♯♯' })).toBeVisible()

  await page.keyboard.press('k')
  await page.keyboard.type('D major')
  await page.keyboard.press('Enter')
  await page.keyboard.press('p')
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as PDF' }).click(),
  ])
  expect(pdf.suggestedFilename()).toBe('patterns-violin-d-major-first-position.pdf')
  expect(
    readFileSync(await pdf.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-')
})

test('a hand is measured, refused with 400 mm, kept, and told against every size', async ({ page }) => {
  await openFile(page, 'Jory Pellam')
  await page.keyboard.press('h')
  await expect(page.getByText('Too few measurements to tell the growth: 3 of 4')).toBeVisible()
  await page.keyboard.press('m')
  await page.keyboard.type('400')
  await expect(page.getByText('A span from 1 to 4 of 400.0 mm is no hand’s')).toBeVisible()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('5.65 cm')
  await page.keyboard.press('Tab')
  await page.keyboard.type('62')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/The span grows .* mm a year \(four times in five/)).toBeVisible()
  await expect(page.getByRole('cell', { name: '56.5' })).toBeVisible()
  await expect(
    page.getByRole('region', { name: 'Fit', exact: true }).getByText('Reach back with 1').first(),
  ).toBeVisible()
  await page
    .getByRole('button', { name: /Delete the hand of/ })
    .first()
    .click()
  await expect(page.getByText('Too few measurements to tell the growth: 3 of 4')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText(/The span grows/)).toBeVisible()
})

test('a scale is written, fingered and played in step', async ({ page }) => {
  await openFile(page, 'Aubrey Sill')
  await page.keyboard.press('p')
  await expect(page.getByRole('grid', { name: 'Keys and strings' })).toBeVisible()
  await page.keyboard.press('k')
  await page.keyboard.type('C major')
  await page.keyboard.press('Enter')
  await page.keyboard.press('d')
  const staff = page.getByRole('group', { name: 'C major scale, one octave' })
  await expect(staff.locator('svg .vf-stavenote')).toHaveCount(15)
  const fingers = await staff.locator('svg text.finger').allTextContents()
  expect(fingers.slice(0, 8).join(' ')).toBe('0 1 3 4 0 1 3 4')
  await page.keyboard.press(' ')
  await expect(staff.locator('svg .vf-stavenote.now')).toHaveCount(1)
  await page.keyboard.press(' ')
  await expect(staff.locator('svg .now')).toHaveCount(0)
})

test('a scale is fingered by the teacher, kept for the studio, played and printed so from then on', async ({
  page,
}) => {
  await page.keyboard.press('6')
  await page.keyboard.press('d')
  // K is for typing a key here as well.
  await page.keyboard.press('k')
  await page.keyboard.type('D major')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  const staff = page.getByRole('group', { name: 'D major scale, one octave' })
  await expect(staff.locator('svg text.finger')).toHaveCount(15)
  await staff.focus()
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight')
  await expect(staff.locator('[aria-live]')).toHaveText('A4, open string')
  await page.keyboard.press('4')
  await expect(staff.locator('[aria-live]')).toHaveText('A4, finger 4')
  await expect(page.getByText('1 note settled')).toBeVisible()
  // What no hand holds is named, and can be taken back.
  await page.keyboard.press('t')
  await expect(page.getByText('No hand plays note 5, A4, with thumb')).toBeVisible()
  await page.keyboard.press('Backspace')
  await expect(page.getByText('No hand plays')).toHaveCount(0)
  await page.keyboard.press('r')
  await expect(page.getByText('No string sounds A4 as a harmonic')).toBeVisible()
  await page.keyboard.press('4')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('The studio’s own fingering')).toBeVisible()
  await page.reload()
  await expect(page.getByText('kept by')).toBeVisible()

  await page.keyboard.press('p')
  const save = async (name: string) => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: `Save as ${name}` }).click(),
    ])
    return { name: file.suggestedFilename(), text: readFileSync(await file.path()).toString('latin1') }
  }
  const pdf = await save('PDF')
  expect(pdf.name).toBe('d-major-scale-one-octave.pdf')
  expect(pdf.text.slice(0, 5)).toBe('%PDF-')
  const svg = await save('SVG')
  // Clef, signature, heads and stems as outlines: the sheet needs no music face where it is looked at.
  expect(svg.text.match(/<path /g)!.length).toBeGreaterThan(40)
  expect(svg.text).not.toMatch(/[\uE000-\uF8FF]/)
  const xml = await save('MusicXML')
  expect(xml.text.match(/<fingering>4</g)).toHaveLength(2)

  await page.keyboard.press('Escape')
  await page.keyboard.press('h')
  await expect(page.getByRole('heading', { name: 'Check' })).toBeVisible()
  await page.keyboard.press('6')
  await page.keyboard.press('d')
  await page.getByRole('button', { name: 'The usual again' }).click()
  await expect(staff.locator('svg text.finger').nth(4)).toHaveText('0')
})
