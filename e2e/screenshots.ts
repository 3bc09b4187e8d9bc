// `npm run screenshots`: one picture of each main view from the demo studio, into docs/screenshots. Needs a build
// (`npm run build`) and Chromium.
import { chromium, type Page } from '@playwright/test'
import { mkdirSync, rmSync } from 'node:fs'
import { newDataPath, removeDataPath, startApp } from './app'
import { openFile, openInstrument, signIn } from './fixtures'
import { installedChromium } from '../scripts/lib/chromium'

const FOLDER = 'docs/screenshots'

interface Picture {
  readonly name: string
  readonly width?: number
  readonly height?: number
  readonly dark?: boolean
  readonly open: (page: Page) => Promise<unknown>
}

const PICTURES: readonly Picture[] = [
  { name: 'today', open: (page) => page.locator('.row').first().waitFor() },
  {
    name: 'students',
    open: async (page) => {
      await page.keyboard.press('2')
      // She stands on Today as well.
      await page.getByRole('heading', { name: 'Students', level: 1 }).waitFor()
      await page.getByText('Orla Venn').waitFor()
    },
  },
  { name: 'student-file', open: (page) => openFile(page, 'Orla Venn') },
  { name: 'tapes', open: tapes },
  { name: 'ring', height: 1180, open: ring },
  { name: 'lay', open: lay },
  {
    name: 'instruments',
    open: (page) => page.keyboard.press('7').then(() => page.getByText('no. 7').waitFor()),
  },
  { name: 'history', open: history },
  {
    name: 'class',
    open: async (page) => {
      await page.goto('/practice')
      await page.getByRole('row', { name: /Orla Venn/ }).waitFor()
    },
  },
  { name: 'atlas', open: (page) => atlas(page, 'Orla Venn') },
  { name: 'scales', open: scales },
  { name: 'hand', height: 1100, open: hand },
  { name: 'plan', open: plan },
  { name: 'check', open: check },
  { name: 'take', height: 1180, open: take },
  { name: 'setup', open: (page) => setup(page, 'Orla Venn', 'y'.repeat(15)) },
  { name: 'setup-stop', dark: true, open: (page) => setup(page, 'Wren Ottery', `${'y'.repeat(10)}x`) },
  { name: 'setup-record', height: 1360, open: record },
  {
    name: 'studio',
    height: 1180,
    open: (page) => page.keyboard.press('8').then(() => page.getByText('How you teach').waitFor()),
  },
]

async function tapes(page: Page) {
  await openFile(page, 'Orla Venn')
  await page.keyboard.press('t')
  await page.getByRole('row', { name: /3rd finger/ }).waitFor()
}

async function history(page: Page) {
  await openFile(page, 'Marlow Quill')
  await page.keyboard.press('o')
  await page.getByRole('slider', { name: /Place on the/ }).waitFor()
}

async function plan(page: Page) {
  await openFile(page, 'Marlow Quill')
  await page.keyboard.press('w')
  await page.locator('.week .item').first().waitFor()
  await page.keyboard.press('y')
}

async function bench(page: Page) {
  await openInstrument(page, 'no. 7')
  await page.keyboard.press('t')
  await page.getByLabel('String length').waitFor()
}

async function ring(page: Page) {
  await bench(page)
  await page.getByRole('tab', { name: 'Ring and fit' }).click()
}

async function lay(page: Page) {
  await bench(page)
  await page.getByRole('button', { name: /Lay them/ }).click()
  await page.getByRole('button', { name: /Begin/ }).click()
  for (const key of ['ArrowRight', 's']) await page.keyboard.press(key)
}

async function atlas(page: Page, name: string) {
  await openFile(page, name)
  await page.keyboard.press('p')
  await page.getByRole('grid', { name: 'Positions and strings' }).waitFor()
}

async function setup(page: Page, name: string, keys: string) {
  await openFile(page, name)
  await page.keyboard.press('s')
  await page.getByRole('heading', { name: /nothing hurt/ }).waitFor()
  for (const key of keys) await page.keyboard.press(key)
}

async function record(page: Page) {
  await openFile(page, 'Orla Venn')
  await page.keyboard.press('r')
  await page.getByText('side by side').waitFor()
}

async function scales(page: Page) {
  await atlas(page, 'Orla Venn')
  await page.keyboard.press('d')
  await page.getByRole('radiogroup', { name: 'Octaves' }).getByText('2', { exact: true }).click()
  await page.locator('.staff svg .vf-stavenote').nth(28).waitFor()
  await page.getByRole('button', { name: 'Play space' }).click()
  await page.locator('.staff svg .now').first().waitFor()
}

async function hand(page: Page) {
  await openFile(page, 'Orla Venn')
  await page.keyboard.press('h')
  await page.getByText(/The span grows/).waitFor()
}

async function check(page: Page) {
  await openFile(page, 'Orla Venn')
  await page.keyboard.press('c')
  await page.getByLabel('Finger 1, cents').waitFor()
  for (const cents of ['7 5 8', '13 11 12', '-6 -4 -7', '-20 -22 -19']) {
    await page.keyboard.type(cents)
    await page.keyboard.press('ArrowDown')
  }
}

/** The same simulated student each time. */
async function take(page: Page) {
  await openFile(page, 'Orla Venn')
  await page.keyboard.press('c')
  await page.getByLabel('Finger 1, cents').waitFor()
  await page.getByRole('button', { name: 'change' }).click()
  await page.getByLabel('Exercise', { exact: true }).selectOption('scale')
  await page.getByRole('button', { name: 'done' }).click()
  await page.evaluate(() => (Math.random = () => 0.4))
  await page.keyboard.press('Escape')
  await page.keyboard.press('p')
  await page.getByRole('button', { name: /Note by note/ }).waitFor({ timeout: 60_000 })
  await page.keyboard.press('t')
}

rmSync(FOLDER, { recursive: true, force: true })
mkdirSync(FOLDER, { recursive: true })
const dataPath = newDataPath()
const app = await startApp(dataPath)
const browser = await chromium.launch({
  executablePath: installedChromium(),
})
try {
  for (const { name, width = 1280, height = 800, dark = false, open } of PICTURES) {
    const context = await browser.newContext({
      serviceWorkers: 'block',
      baseURL: app.url,
      viewport: { width, height },
      colorScheme: dark ? 'dark' : 'light',
      reducedMotion: 'reduce',
    })
    const page = await context.newPage()
    await signIn(page)
    await page.locator('.row').first().waitFor()
    await open(page)
    await page.evaluate(() => document.fonts.ready)
    await page.waitForTimeout(500)
    await page.screenshot({ path: `${FOLDER}/${name}.png` })
    await context.close()
    console.log(`  ${name}`)
  }
} finally {
  await browser.close()
  await app.stop()
  removeDataPath(dataPath)
}
