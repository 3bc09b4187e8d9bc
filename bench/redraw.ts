import { chromium, type Browser, type Page } from '@playwright/test'
import { newDataPath, removeDataPath, startApp } from '../e2e/app'
import { signIn } from '../e2e/fixtures'
import { installedChromium } from '../scripts/lib/chromium'
import type { Ratio } from './ratio'

/** A frame at sixty a second, ms. */
const FRAME_MS = 16
const KEYS = 60
const WARM_UP = 12
/** Updates that wait for updates: more turns than any component takes. */
const TURNS = 50

/**
 * Script from a letter in the length field until everything that follows from it is in the document, ms, worst first. The
 * page's updates are microtasks of the event: they run before these turns are over, and painting comes after.
 */
function typeAndMeasure(page: Page): Promise<number[]> {
  return page.getByLabel('String length').evaluate(
    async (field: HTMLInputElement, { keys, warmUp, turns }) => {
      const board = document.querySelector('.board svg')!
      const spent: number[] = []
      for (let key = 0; key < keys + warmUp; key++) {
        const before = board.textContent
        const from = performance.now()
        field.value = key % 2 === 0 ? '328' : '328.4'
        field.dispatchEvent(new InputEvent('input', { bubbles: true }))
        for (let turn = 0; turn < turns; turn++) await Promise.resolve()
        if (key >= warmUp) spent.push(performance.now() - from)
        if (board.textContent === before) throw new Error('a letter was typed and the board shows the same')
        await new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn)))
      }
      return spent.sort((a, b) => b - a)
    },
    { keys: KEYS, warmUp: WARM_UP, turns: TURNS },
  )
}

/** One event of a trace, times in microseconds. */
interface TraceEvent {
  readonly name: string
  readonly ph: string
  readonly ts: number
  readonly dur?: number
  readonly pid: number
  readonly tid: number
}

const SCRIPT_EVENTS = new Set([
  'EventDispatch',
  'FunctionCall',
  'v8.callFunction',
  'EvaluateScript',
  'v8.run',
  'v8.evaluateModule',
  'RunMicrotasks',
  'TimerFire',
])
const FRAME_EVENT = 'FireAnimationFrame'

/**
 * The most script that ran between two frames while something was done, ms, from Chromium's own trace. Events that lie in
 * one another count once. What runs before the first frame and after the last belongs to frames of its own.
 */
async function worstFrame(browser: Browser, page: Page, act: () => Promise<void>): Promise<number> {
  // Frames are counted by a callback in each of them; as text, so that no compiler puts its own names in.
  await page.evaluate(
    `window.isTraced = true; (function frame() { if (window.isTraced) requestAnimationFrame(frame) })()`,
  )
  await browser.startTracing(page, {
    categories: ['devtools.timeline', 'v8', 'disabled-by-default-v8.compile'],
  })
  await act()
  const trace = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: TraceEvent[] }
  await page.evaluate(`window.isTraced = false`)
  const frames = trace.traceEvents.filter((e) => e.name === FRAME_EVENT)
  const [first] = frames
  if (!first) throw new Error('no frame was drawn while the trace ran')
  const own = frames.filter((e) => e.pid === first.pid && e.tid === first.tid).map((e) => e.ts)
  const scripts = trace.traceEvents
    .filter((e) => e.ph === 'X' && SCRIPT_EVENTS.has(e.name) && e.pid === first.pid && e.tid === first.tid)
    .sort((a, b) => a.ts - b.ts)
  const spent = new Map<number, number>()
  let doneTo = -Infinity
  for (const { ts, dur = 0 } of scripts) {
    const from = Math.max(ts, doneTo)
    const to = ts + dur
    if (to <= from) continue
    doneTo = to
    const frame = own.findIndex((at) => at > ts)
    spent.set(frame, (spent.get(frame) ?? 0) + to - from)
  }
  return Math.max(0, ...spent.values()) / 1000
}

/** Opening the atlas from another room, and going from key to key: the most script in one frame against a frame. */
async function atlasAgainstFrame(browser: Browser, page: Page): Promise<Ratio[]> {
  const row = (name: string, oursMs: number): Ratio => ({
    name,
    oursMs,
    peerMs: FRAME_MS,
    ratio: oursMs / FRAME_MS,
    aim: 1,
  })
  const grid = page.getByRole('grid', { name: 'Keys and strings' })
  const opened: number[] = []
  const changed: number[] = []
  for (let round = 0; round < ATLAS_ROUNDS; round++) {
    await page.keyboard.press('2')
    await page.waitForTimeout(SETTLE_MS)
    const opening = await worstFrame(browser, page, async () => {
      await page.keyboard.press('6')
      await grid.waitFor()
      await page.waitForTimeout(SETTLE_MS)
    })
    const changing = await worstFrame(browser, page, async () => {
      for (let key = 0; key < 4; key++) {
        await page.keyboard.press(round % 2 === 0 ? 'ArrowDown' : 'ArrowUp')
        await page.waitForTimeout(SETTLE_MS / 2)
      }
    })
    if (round === 0) continue
    opened.push(opening)
    changed.push(changing)
  }
  return [
    row('the atlas opened, its worst frame / a frame', median(opened)),
    row('a key changed in the atlas, the worst of four / a frame', median(changed)),
  ]
}

const ATLAS_ROUNDS = 8
const SETTLE_MS = 400

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN
}

/**
 * Typing a length on the bench, every finger taped, with the board and each panel that follows it: script between the
 * key and the drawn frame, against one frame. The nineteenth of twenty is told, not the luckiest.
 */
export async function redrawAgainstFrame(): Promise<Ratio[]> {
  const dataPath = newDataPath()
  const app = await startApp(dataPath)
  const browser = await chromium.launch({
    executablePath: installedChromium(),
  })
  try {
    const page = await (await browser.newContext({ baseURL: app.url, serviceWorkers: 'block' })).newPage()
    await signIn(page)
    await page.keyboard.press('3')
    await page.getByLabel('String length').fill('328.4')
    await page.getByText('Every', { exact: true }).click()
    const rows: Ratio[] = []
    for (const tab of ['Places', 'Ring and fit', 'String by string', 'Systems', 'Cutting']) {
      await page.getByRole('tab', { name: tab }).click()
      const spent = await typeAndMeasure(page)
      const oursMs = spent[Math.floor(KEYS / 20)] ?? NaN
      rows.push({
        name: `a length typed, board and “${tab}” drawn / a frame`,
        oursMs,
        peerMs: FRAME_MS,
        ratio: oursMs / FRAME_MS,
        aim: 1,
      })
    }
    rows.push(...(await atlasAgainstFrame(browser, page)))
    return rows
  } finally {
    await browser.close()
    await app.stop()
    removeDataPath(dataPath)
  }
}
