import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, type Page } from '@playwright/test'
import { installedChromium } from '../scripts/lib/chromium'
import {
  exerciseOf,
  familyOf,
  hearNotes,
  landingsOf,
  mannerOf,
  perform,
  placementContext,
  readTake,
  record,
  seededSource,
  stringingOf,
  playedNotes,
  tuningSystem,
  writeWav,
  type FamilyId,
} from '../core'
import { API_BASE, CSRF_HEADER, IDEMPOTENCY_HEADER } from '../contracts'
import type { Check, Session, Student, Studio } from '../contracts'
import { checkOf, expect, test } from './fixtures'

// The browser's own stand-in for a microphone is fed with takes of which all is known: what the page says of them is what the
// core says of the file. Chromium loses samples when the machine is busy; then the take is played once more.

const RATE = 48_000
const LENGTHS_MM: Record<FamilyId, number> = { violin: 328, viola: 370, cello: 690, bass: 1060 }

/** A hand on one string, or a scale over the strings. */
const PLAYS: Record<FamilyId, 'shape' | 'scale'> = {
  violin: 'shape',
  viola: 'scale',
  cello: 'scale',
  bass: 'shape',
}

function playedBy(id: FamilyId) {
  const family = familyOf(id)
  const stringing = stringingOf({
    family,
    sizeId: family.sizes[0]!.id,
    system: tuningSystem('fifths')!,
    lengthsMm: [LENGTHS_MM[id]],
  })
  const made = exerciseOf(
    placementContext(family, family.tuning),
    PLAYS[id] === 'scale'
      ? { kind: 'scale', keyId: 'D:major', octaves: 1, openStrings: 'prefer' }
      : { kind: 'shape', shapeId: family.defaultShapeId, stringIndex: family.tuning.length - 2 },
  )
  if (!made.ok) throw new Error(made.code)
  const { exercise } = made
  const notes = playedNotes(exercise)
  const manner = { ...mannerOf('intermediate', { frameErrorMm: -4 }), tempo: 100 }
  const performance = perform(seededSource(31), stringing, { ...exercise, notes }, manner)
  const sound = record(seededSource(32), performance, { sampleRateHz: RATE })
  // The browser begins the file anew when it ends: by then the take is over.
  const file = new Float32Array(sound.length + 9 * RATE)
  file.set(sound, RATE)
  const landings = landingsOf(
    stringing,
    readTake(hearNotes(file, RATE).notes, stringing, notes),
    'microphone',
  )
  return { wav: writeWav(file, RATE), landings, count: notes.length }
}

interface KeptNote {
  readonly finger: number
  readonly landingCents: number
  readonly settledCents: number
}

const takeOf = (page: Page) =>
  page.evaluate(() => {
    const drafts = JSON.parse(localStorage.getItem('jadefell.drafts') ?? '{}') as Record<
      string,
      { texts: { take?: string } }
    >
    const text = Object.values(drafts).find((draft) => draft.texts.take)?.texts.take
    return text === undefined ? [] : (JSON.parse(text) as { notes: KeptNote[] }).notes
  })

for (const family of ['violin', 'viola', 'cello', 'bass'] as const)
  test(`a ${family} at the microphone is heard as the core hears the same sound`, async ({
    app,
    cookies,
  }) => {
    const folder = mkdtempSync(join(tmpdir(), 'jadefell-take-'))
    const { wav, landings, count } = playedBy(family)
    expect(landings).toHaveLength(count)
    const path = join(folder, 'take.wav')
    writeFileSync(path, wav)
    const browser = await chromium.launch({
      executablePath: installedChromium(),
      args: [
        '--use-fake-ui-for-media-stream',
        '--use-fake-device-for-media-stream',
        `--use-file-for-fake-audio-capture=${path}`,
        '--disable-background-networking',
        '--no-first-run',
      ],
    })
    try {
      const context = await browser.newContext({ baseURL: app.url, viewport: { width: 1280, height: 800 } })
      await context.addCookies(cookies)
      const page = await context.newPage()
      await page.goto('/check')
      await page.getByRole('combobox', { name: 'Family' }).click({ force: true })
      await page.getByRole('option', { name: family[0]!.toUpperCase() + family.slice(1) }).click()
      await page.getByLabel('String length, nut to bridge').fill(String(LENGTHS_MM[family]))
      await page.keyboard.press('Enter')
      await page.getByRole('button', { name: 'change' }).click()
      await page.getByLabel('Exercise', { exact: true }).selectOption(PLAYS[family])
      await expect(async () => {
        await page.keyboard.press('Escape')
        await page.keyboard.press('l')
        await expect(page.getByText('Playing', { exact: true })).toBeVisible()
        // Of half a take nothing is said.
        await expect(page.getByRole('region', { name: 'Verdict' })).toContainText('when the take ends')
        await expect(page.getByRole('button', { name: /Note by note/ })).toBeVisible({ timeout: 30_000 })
        const heard = await takeOf(page)
        expect(heard.map(({ finger }) => finger)).toEqual(landings.map(({ finger }) => finger))
        heard.forEach((note, i) => {
          expect(Math.abs(note.landingCents - landings[i]!.cents)).toBeLessThan(2)
          expect(Math.abs(note.settledCents - landings[i]!.heard!.settledCents)).toBeLessThan(2)
        })
      }).toPass({ timeout: 200_000 })
      await expect(page.getByRole('region', { name: 'Verdict' })).toContainText(`${count} notes read`)
    } finally {
      await browser.close()
      rmSync(folder, { recursive: true })
    }
  })

test('a simulated student fills the board; the take outlives a reload and is kept with its track', async ({
  page,
}) => {
  await checkOf(page, 'Marlow Quill')
  await expect(page.getByLabel('Finger 1, cents')).toBeFocused()
  await page.keyboard.press('p')
  await expect(page.getByText('Playing', { exact: true })).toBeVisible()
  // Seventeen seconds of sound; a busy machine plays it slower than it is.
  await expect(page.getByRole('button', { name: /Note by note/ })).toBeVisible({ timeout: 150_000 })
  const notes = await takeOf(page)
  expect(notes.length).toBeGreaterThan(4)
  await page.reload()
  await expect(page.getByRole('button', { name: /Note by note/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('t')
  await expect(page.getByText('Cents off the note that was meant')).toBeVisible()
  const saved = page.waitForResponse((r) => r.request().method() === 'POST' && r.url().endsWith('/checks'))
  await page.keyboard.press('Control+Enter')
  const check = (await (await saved).json()) as Check
  expect(check.hasTrack).toBe(true)
  expect(check.landings).toHaveLength(notes.length)
  await expect(page.getByText('Kept in the file of Marlow Quill.')).toBeVisible()
  expect(await takeOf(page)).toEqual([])

  await keepSound(page, check, new Float32Array(90 * 8000))
  await page.getByRole('link', { name: 'Marlow Quill' }).first().click()
  await page
    .getByRole('button', { name: /The take of .*, note by note/ })
    .first()
    .click()
  await expect(page.getByRole('img', { name: /notes against what was meant/ })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Hear it as it settled' })).toBeVisible()
  // Its sound can be wound to the second minute at once: the server sends the part that is asked for.
  const stands = await page.locator('audio').evaluate(async (audio: HTMLAudioElement) => {
    audio.preload = 'metadata'
    await new Promise((resolve) => audio.addEventListener('loadedmetadata', resolve, { once: true }))
    audio.currentTime = 60
    await new Promise((resolve) => audio.addEventListener('seeked', resolve, { once: true }))
    return audio.currentTime
  })
  expect(stands).toBe(60)
})

/** Keeps sound beside a check, where studio and guardian allow it: through the door that the page uses. */
async function keepSound(page: Page, check: Check, samples: Float32Array) {
  const api = async (method: string, path: string, data?: object | Buffer) => {
    const response = await page.request.fetch(`${API_BASE}${path}`, {
      method,
      headers: {
        [CSRF_HEADER]: csrfToken,
        [IDEMPOTENCY_HEADER]: crypto.randomUUID(),
        'content-type': typeOf(data),
      },
      ...(data && { data }),
    })
    expect(response.ok(), `${method} ${path}`).toBe(true)
    return (await response.json()) as unknown
  }
  const typeOf = (data: unknown) => (data instanceof Buffer ? 'audio/wav' : 'application/json')
  let csrfToken = ''
  csrfToken = ((await api('GET', '/session')) as Session).csrfToken
  const { version, settings } = (await api('GET', '/studio')) as Studio
  await api('PATCH', '/studio', { version, settings: { ...settings, keepsSound: true } })
  const student = (await api('GET', `/students/${check.studentId}`)) as Student
  const soundConsent = { on: '2026-11-28', by: 'Mr Ash, father' }
  await api('PATCH', `/students/${student.id}`, { version: student.version, soundConsent })
  await api('POST', `/attachments/check/${check.id}`, Buffer.from(writeWav(samples, 8000)))
}

test('a browser that may not listen says what to do, and typing goes on', async ({ page }) => {
  await checkOf(page, 'Marlow Quill')
  await expect(page.getByLabel('Finger 1, cents')).toBeFocused()
  await page.keyboard.press('l')
  await expect(page.getByRole('alert')).toContainText(/microphone/i)
  await page.keyboard.press('r')
  await page.keyboard.type('12')
  await expect(page.getByLabel('Finger 1, cents')).toHaveValue('12')
})
