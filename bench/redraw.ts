import { chromium, type Page } from '@playwright/test'
import { newDataPath, removeDataPath, startApp } from '../e2e/app'
import { signIn } from '../e2e/fixtures'
import { findProgram } from '../scripts/lib/apt'
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

/**
 * Typing a length on the bench, every finger taped, with the board and each panel that follows it: script between the
 * key and the drawn frame, against one frame. The nineteenth of twenty is told, not the luckiest.
 */
export async function redrawAgainstFrame(): Promise<Ratio[]> {
  const dataPath = newDataPath()
  const app = await startApp(dataPath)
  const browser = await chromium.launch({
    executablePath: process.env['CHROMIUM'] ?? findProgram('chromium') ?? '',
  })
  try {
    const page = await (await browser.newContext({ baseURL: app.url })).newPage()
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
    return rows
  } finally {
    await browser.close()
    await app.stop()
    removeDataPath(dataPath)
  }
}
