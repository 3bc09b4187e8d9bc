// `npm run bench:live`: a take in Chromium, on the built application: how long after a note its finger is on the board, how long
// the page is held up meanwhile, and how fast a recording is heard. Fails where something is above its aim.
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { chromium, type Page } from '@playwright/test'
import { mannerOf, perform, PLAYER_LEVELS, record, seededSource, stringingOf, writeWav } from '../core'
import { familyOf, shapeExercise, shapeOf, playedNotes, tuningSystem } from '../core'
import { newDataPath, removeDataPath, startApp } from '../e2e/app'
import { installedChromium } from '../scripts/lib/chromium'

const LENGTH_MM = 328
const RATE = 44_100
const RECORDING_S = 600
const AIMS = { dotMs: 80, scriptMs: 16, heldUpMs: 50, timesRealTime: 20, fiveMinutesBytes: 20_000 } as const

/** Run in the page: notes when a simulated student begins, when which finger sounds on the board, and how long nothing else ran. */
const WATCH = `
  window.__bench = { fingers: [], gaps: [], begunS: undefined }
  const start = AudioBufferSourceNode.prototype.start
  AudioBufferSourceNode.prototype.start = function (...args) {
    window.__bench.context = this.context
    window.__bench.begunS = this.context.currentTime
    return start.apply(this, args)
  }
  let last = ''
  const look = () => {
    const now = document.querySelector('circle.sounding')?.parentNode.querySelector('.finger-number')?.textContent.trim() ?? ''
    if (now !== last && now !== '') window.__bench.fingers.push([now, window.__bench.context.currentTime])
    last = now
  }
  document.addEventListener('DOMContentLoaded', () =>
    new MutationObserver(look).observe(document.body, { subtree: true, childList: true, attributes: true, characterData: true }))
  const channel = new MessageChannel()
  let before = performance.now()
  channel.port1.onmessage = () => {
    const now = performance.now()
    window.__bench.gaps.push(now - before)
    before = now
    setTimeout(() => channel.port2.postMessage(0))
  }
  channel.port2.postMessage(0)
`

interface Watched {
  readonly fingers: readonly (readonly [string, number])[]
  readonly gaps: readonly number[]
  readonly begunS: number
}

const watched = (page: Page) =>
  page.evaluate<Watched>('({ fingers: __bench.fingers, gaps: __bench.gaps, begunS: __bench.begunS })')

function at(values: readonly number[], part: number): number {
  return [...values].sort((a, b) => a - b)[Math.floor(part * (values.length - 1))] ?? NaN
}

const exercise = (() => {
  const family = familyOf('violin')
  return shapeExercise(family.tuning, 2, shapeOf(family, family.defaultShapeId)!)
})()

/** Ten minutes of an exercise over and over. */
function recording(): Buffer {
  const family = familyOf('violin')
  const stringing = stringingOf({
    family,
    sizeId: '4/4',
    system: tuningSystem('fifths')!,
    lengthsMm: [LENGTH_MM],
  })
  const line = { ...exercise, notes: playedNotes(exercise) }
  const performance = perform(seededSource(60_000), stringing, line, mannerOf('intermediate'))
  const once = record(seededSource(60_001), performance, { sampleRateHz: RATE })
  const all = new Float32Array(RECORDING_S * RATE)
  for (let from = 0; from < all.length; from += once.length)
    all.set(once.subarray(0, Math.min(once.length, all.length - from)), from)
  return Buffer.from(writeWav(all, RATE))
}

const faults: string[] = []
function row(name: string, value: number, aim: string, isMet: boolean, unit: string): void {
  console.log(`| ${name} | ${value.toFixed(1)} ${unit} | ${aim} |`)
  if (!isMet) faults.push(`${name}: ${value.toFixed(1)} ${unit}, aim ${aim}`)
}

const path = newDataPath()
const app = await startApp(path)
const browser = await chromium.launch({
  executablePath: installedChromium(),
  args: ['--autoplay-policy=no-user-gesture-required'],
})
try {
  const page = await (await browser.newContext({ baseURL: app.url, serviceWorkers: 'block' })).newPage()
  await page.addInitScript(WATCH)
  await page.goto('/sign-in')
  await page.getByLabel('E-mail').fill('teacher@port-ellery.example')
  await page.getByLabel('Password', { exact: true }).fill('lantern-round')
  await page.keyboard.press('Enter')
  await page.getByRole('navigation', { name: 'Rooms' }).waitFor()
  await page.goto('/check')
  await page.getByLabel('String length, nut to bridge').fill(String(LENGTH_MM))
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: /Simulated student/ }).waitFor()

  const { tempo } = mannerOf(PLAYER_LEVELS[1])
  const notes = playedNotes(exercise)
  const late: number[] = []
  const held: number[] = []
  for (let take = 0; take < 4; take++) {
    await page.evaluate('__bench.fingers.length = 0; document.activeElement.blur()')
    await page.keyboard.press('p')
    await page.locator('circle.sounding').waitFor({ timeout: 60_000 })
    await page.evaluate('__bench.gaps.length = 0')
    await page.getByRole('button', { name: /Note by note/ }).waitFor({ timeout: 60_000 })
    const { fingers, gaps, begunS } = await watched(page)
    // The first take warms up; its page is compiled as it runs.
    if (take === 0) continue
    for (const gap of gaps) held.push(gap)
    notes.forEach(({ finger }, index) => {
      const beganS = begunS + 0.35 + index * (60 / tempo)
      const shown = fingers.find(
        ([name, atS]) => name === String(finger) && atS > beganS && atS < beganS + 0.6,
      )
      if (finger !== 0 && shown) late.push(1000 * (shown[1] - beganS))
    })
    await page.getByRole('button', { name: 'Clear' }).click()
  }
  console.log('| measured | ours | aim |')
  console.log('|---|---:|---:|')
  const half = at(late, 0.5)
  row(
    `Finger on the board after its note began, median of ${late.length}`,
    half,
    `≤ ${AIMS.dotMs} ms`,
    half <= AIMS.dotMs,
    'ms',
  )
  row(
    'The same, nineteen of twenty',
    at(late, 0.95),
    `≤ ${2 * AIMS.dotMs} ms`,
    at(late, 0.95) <= 2 * AIMS.dotMs,
    'ms',
  )
  const script = at(held, 0.99)
  row(
    'The page held up during a take, 99 of 100',
    script,
    `≤ ${AIMS.scriptMs} ms`,
    script <= AIMS.scriptMs,
    'ms',
  )

  const wav = join(path, 'ten-minutes.wav')
  writeFileSync(wav, recording())
  await page.evaluate('__bench.gaps.length = 0')
  const from = performance.now()
  await page.locator('input[type=file]').setInputFiles(wav)
  await page.getByText('Hearing the recording').waitFor()
  await page.getByRole('button', { name: /Note by note/ }).waitFor({ timeout: 120_000 })
  const times = RECORDING_S / ((performance.now() - from) / 1000)
  row(
    'Ten minutes of recording heard, times real time',
    times,
    `≥ ${AIMS.timesRealTime}`,
    times >= AIMS.timesRealTime,
    '×',
  )
  // Handing fifty megabytes to the page is the test’s own doing: its one long pause is left out.
  const gaps = (await watched(page)).gaps.slice().sort((a, b) => b - a)
  row(
    'The page held up meanwhile, at most',
    gaps[1] ?? 0,
    `≤ ${AIMS.heldUpMs} ms`,
    (gaps[1] ?? 0) <= AIMS.heldUpMs,
    'ms',
  )
  const coded = await page.evaluate<number>(`(() => {
    const drafts = Object.values(JSON.parse(localStorage.getItem('jadefell.drafts')))
    return JSON.parse(drafts.find((d) => d.texts.take).texts.take).track.length * 3 / 4
  })()`)
  const bytes = coded / 2
  row(
    'Five minutes of track, stored',
    bytes / 1000,
    `≤ ${AIMS.fiveMinutesBytes / 1000} kB`,
    bytes <= AIMS.fiveMinutesBytes,
    'kB',
  )
} finally {
  await browser.close()
  await app.stop()
  removeDataPath(path)
}
for (const fault of faults) console.error(`Outside its aim: ${fault}.`)
if (faults.length > 0) process.exitCode = 1
