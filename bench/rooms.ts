import { chromium, type Page } from '@playwright/test'
import { isoDay } from '../core'
import { DEMO_PASSWORD } from '../server/demo/seed'
import { installedChromium } from '../scripts/lib/chromium'
import { LARGE_EMAIL } from '../server/demo/large'
import type { Ratio } from './ratio'
import type { BenchServer } from './server'

/** What is to be there after this, from the key on. */
const LIMIT_MS = 300
/** Where a bare page alone takes more than half of that, a room may take so many times as long: the machine is slow, not the room. */
const BARE_PAGES = 2
const ROUNDS = 7

/**
 * From the key until what was asked for is in the page and painted, ms. As text, so that no compiler puts its own names in:
 * the key, the frame in which the last of `wanted` is there, and the frame after it.
 */
const untilPainted = (act: string, wanted: string) => `(async () => {
  const isThere = () => [...document.querySelectorAll(${JSON.stringify(wanted)})].some((el) => el.getClientRects().length > 0)
  const frame = () => new Promise((drawn) => requestAnimationFrame(drawn))
  const from = performance.now()
  ${act}
  while (!isThere()) {
    if (performance.now() - from > 20000) throw new Error('never there: ' + ${JSON.stringify(wanted)})
    await frame()
  }
  await frame()
  return performance.now() - from
})()`
const key = (name: string) =>
  `document.activeElement.blur?.(); document.body.dispatchEvent(new KeyboardEvent('keydown', { key: ${JSON.stringify(name)}, bubbles: true, cancelable: true }))`
const click = (selector: string) => `document.querySelector(${JSON.stringify(selector)}).click()`

const ROOMS: readonly (readonly [name: string, key: string, wanted: string])[] = [
  ['Today', '1', '.row .name'],
  ['Students', '2', '[role="row"] a.name'],
  ['Tapes', '3', '.panel table'],
  ['Setup', '4', '.whom li, .asks h2'],
  ['Check', '5', '.whom li, .ledger input'],
  ['Patterns', '6', '[role="grid"] td'],
  ['Instruments', '7', '[role="row"] .length'],
  ['Studio', '8', '.schools select'],
]
/** Whence each is opened: it has no list of its own. */
const BETWEEN = '/account'

/**
 * Opening rooms and lists of a studio with so many instruments, in Chromium: from the key to the painted page, the second worst
 * of seven, against three tenths of a second, or twice a bare page of the same server where that is longer.
 */
export async function roomsAgainstLimit({ origin }: BenchServer): Promise<Ratio[]> {
  const browser = await chromium.launch({
    executablePath: installedChromium(),
  })
  try {
    const page = await (await browser.newContext({ baseURL: origin, serviceWorkers: 'block' })).newPage()
    await page.goto('/sign-in')
    await page.getByLabel('E-mail').fill(LARGE_EMAIL)
    await page.getByLabel('Password', { exact: true }).fill(DEMO_PASSWORD)
    await page.keyboard.press('Enter')
    await page.getByRole('navigation', { name: 'Rooms' }).waitFor()
    const total = await page.evaluate(async () => {
      const { total: count } = (await (await fetch('/api/v1/instruments?limit=1')).json()) as {
        total: number
      }
      return count
    })
    const of = `of ${total.toLocaleString('en-GB')} instruments`
    const rows: Ratio[] = [await bare(page)]
    const between = async () => {
      await goTo(page, BETWEEN)
      await page.getByRole('heading', { name: 'Account' }).waitFor()
    }
    for (const [name, number, wanted] of ROOMS)
      rows.push(
        await worst(
          `${name} opened by its key, ${of} / 300 ms`,
          between,
          () => untilPainted(key(number), wanted),
          page,
        ),
      )

    const { rows: students } = await page.evaluate(async () => {
      const answer = await fetch('/api/v1/students?limit=50')
      return (await answer.json()) as { rows: { id: string; hand: unknown; family: string }[] }
    })
    const measured = students.find((s) => s.hand !== null && s.family === 'violin') ?? students[0]!
    const fileOf = (studentId: string) => async () => {
      await between()
      await goTo(page, `/students/${studentId}`)
      await page.getByRole('region', { name: 'Instrument', exact: true }).waitFor()
    }
    rows.push(
      await worst(
        `the lend list ${of} / 300 ms`,
        fileOf(measured.id),
        () => untilPainted(key('l'), '[role="option"] .fit'),
        page,
      ),
    )
    rows.push(
      await worst(
        'a week’s plan from the file, with two years of practice / 300 ms',
        fileOf(await mostPractised(page)),
        () => untilPainted(key('w'), '.week .item'),
        page,
      ),
      await worst(
        'practice of the class, 50 of all who have a plan / 300 ms',
        between,
        () => untilPainted(goingTo('/practice'), '.ledger tbody a'),
        page,
      ),
    )
    const compare = async () => {
      await goTo(page, BETWEEN)
      await page.getByRole('heading', { name: 'Account' }).waitFor()
      await goTo(page, '/tapes/compare')
      await page.getByRole('heading', { name: 'Changing size' }).waitFor()
    }
    rows.push(
      await worst(
        `Compare’s choice ${of} / 300 ms`,
        compare,
        () => untilPainted(click('.choose .el-select__wrapper'), '.el-select-dropdown__item'),
        page,
      ),
    )
    rows.push(await strip(page))
    return rows.map((row) => against(Math.max(LIMIT_MS, BARE_PAGES * rows[0]!.oursMs), row))
  } finally {
    await browser.close()
  }
}

/** Without loading the page anew: by its own router. */
const goingTo = (path: string) =>
  `history.pushState(history.state, '', ${JSON.stringify(path)}); dispatchEvent(new PopStateEvent('popstate', { state: history.state }));`
const goTo = (page: Page, path: string) => page.evaluate<void>(`(() => { ${goingTo(path)} })()`)

/** Of those with a plan, the first who has practised for years. */
async function mostPractised(page: Page): Promise<string> {
  const dayBefore = (days: number) => isoDay(new Date(Date.now() - days * MS_PER_DAY))
  // As text, as above.
  const id = await page.evaluate<string | undefined>(`(async () => {
    const answer = await fetch('/api/v1/practice?from=${dayBefore(13)}&to=${dayBefore(0)}&limit=50')
    const { rows } = await answer.json()
    for (const { student } of rows) {
      const log = await (await fetch('/api/v1/students/' + student.id + '/practice')).json()
      if (log.some(({ on }) => on < '${dayBefore(YEARS_BACK)}')) return student.id
    }
  })()`)
  if (id === undefined) throw new Error('Nobody of the first fifty has practised for years.')
  return id
}

const MS_PER_DAY = 86_400_000
/** Further back than a term, days. */
const YEARS_BACK = 500

async function worst(
  name: string,
  before: () => Promise<void>,
  measured: () => string,
  page: Page,
): Promise<Ratio> {
  const spent: number[] = []
  for (let round = 0; round <= ROUNDS; round++) {
    await before()
    const ms = await page.evaluate<number>(measured())
    // The first brings what every later one has.
    if (round > 0) spent.push(ms)
  }
  return limited(name, secondWorst(spent))
}

/** One strip as a file, from the button to the file, after the first one of the page. */
async function strip(page: Page): Promise<Ratio> {
  await page.goto('/tapes')
  await page.getByLabel('String length').fill('328')
  await page.keyboard.press('p')
  const button = page.getByRole('button', { name: 'Save as PDF' })
  const spent: number[] = []
  for (let round = 0; round <= ROUNDS; round++) {
    await button.waitFor()
    const file = page.waitForEvent('download')
    const from = performance.now()
    await button.click()
    await file
    if (round > 0) spent.push(performance.now() - from)
  }
  return limited('a strip as PDF, after the first / 300 ms', secondWorst(spent))
}

/** A page with one word in it, opened by its address. */
async function bare(page: Page): Promise<Ratio> {
  const other = await page.context().newPage()
  const spent: number[] = []
  await other.route('**/bare', (route) =>
    route.fulfill({ contentType: 'text/html', body: '<title>x</title><p>bare' }),
  )
  for (let round = 0; round <= ROUNDS; round++) {
    const from = performance.now()
    await other.goto('/bare')
    await other.evaluate('new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn)))')
    if (round > 0) spent.push(performance.now() - from)
  }
  await other.close()
  return limited('beside them, a bare page opened / 300 ms', secondWorst(spent))
}

/** One of seven may be another process's. */
function secondWorst(spent: readonly number[]): number {
  return [...spent].sort((a, b) => b - a)[1] ?? NaN
}

/** The same against what this machine may take. */
function against(limitMs: number, { name, oursMs, aim }: Ratio): Ratio {
  const limit = `${Math.round(limitMs)} ms`
  return {
    name: name.replace(`${LIMIT_MS} ms`, limit),
    oursMs,
    peerMs: limitMs,
    ratio: oursMs / limitMs,
    aim,
  }
}

function limited(name: string, oursMs: number): Ratio {
  return { name, oursMs, peerMs: LIMIT_MS, ratio: oursMs / LIMIT_MS, aim: 1 }
}
