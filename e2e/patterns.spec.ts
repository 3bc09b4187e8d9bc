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
    .getByRole('button', { name: /Take out the hand of/ })
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
  const staff = page.getByRole('img', { name: 'C major scale, one octave' })
  await expect(staff.locator('svg .vf-stavenote')).toHaveCount(15)
  const fingers = await staff.locator('svg .vf-annotation').allTextContents()
  expect(fingers.slice(0, 8).join(' ')).toBe('0 1 3 4 0 1 3 4')
  await expect(page.getByText('Bass clef.')).toBeVisible()
  await page.keyboard.press(' ')
  await expect(staff.locator('svg .now')).toHaveCount(1)
  await page.keyboard.press(' ')
  await expect(staff.locator('svg .now')).toHaveCount(0)
})

/** What a page draws of notes outside of its own picture: stems, ledger lines, fingers, and noteheads by their middle. */
const cutOff = (svg: Element) => {
  const frame = svg.getBoundingClientRect()
  const HEAD = 6
  const heads = [...svg.querySelectorAll('.vf-notehead text')].map((head) => {
    const { top, bottom } = head.getBoundingClientRect()
    return [(top + bottom) / 2 - HEAD, (top + bottom) / 2 + HEAD]
  })
  const drawn = [...svg.querySelectorAll('path, rect, .vf-annotation text')].map((part) => {
    const { top, bottom } = part.getBoundingClientRect()
    return [top, bottom]
  })
  return [...heads, ...drawn].filter(
    ([top, bottom]) => top! < frame.top - 0.5 || bottom! > frame.bottom + 0.5,
  ).length
}

test('nothing is cut off the staff, in any family’s scales of one to three octaves', async ({ page }) => {
  await page.keyboard.press('6')
  await expect(page.getByRole('grid', { name: 'Keys and strings' })).toBeVisible()
  await page.keyboard.press('d')
  await expect(page.getByRole('region', { name: 'Sound' })).toBeVisible()
  for (const family of ['violin', 'viola', 'cello', 'bass'])
    for (const key of ['G', 'C', 'A flat'])
      for (const octaves of ['1', '3']) {
        await page.getByLabel('Instrument', { exact: true }).selectOption(family)
        const field = page.getByLabel('Key', { exact: true })
        await field.fill(key)
        await field.press('Enter')
        await page.getByRole('radiogroup', { name: 'Octaves' }).getByText(octaves, { exact: true }).click()
        const words = octaves === '1' ? 'one octave' : 'three octaves'
        const name = `${key.replace(' flat', '♭')} major scale, ${words}`
        const staff = page.getByRole('img', { name })
        const fault = page.getByText('The strings do not hold')
        await expect(staff.locator('svg .vf-stavenote').first().or(fault)).toBeVisible()
        if (await fault.isVisible()) continue
        await expect
          .poll(() => staff.locator('svg').evaluate(cutOff), { message: `${family} ${name}` })
          .toBe(0)
      }
})
