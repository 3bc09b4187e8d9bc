import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test as base, type Page } from '@playwright/test'
import { build } from 'esbuild'
import type { FamilyId, FigureId } from '../core'
import type { Drawn } from './staff/staff'

/** A page with the notation and nothing else, no application behind it. */
const test = base.extend<object, { script: string }>({
  script: [
    async ({}, use) => {
      const made = await build({
        entryPoints: [join(import.meta.dirname, 'staff/staff.ts')],
        bundle: true,
        write: false,
        format: 'iife',
        tsconfigRaw: '{}',
        alias: { '#core': join(import.meta.dirname, '../core/index.ts') },
        plugins: [
          {
            name: 'files by address',
            setup(builder) {
              builder.onResolve({ filter: /\?url$/ }, async ({ path, resolveDir }) => {
                const found = await builder.resolve(path.replace('?url', ''), {
                  resolveDir,
                  kind: 'import-statement',
                })
                return { path: found.path, namespace: 'address' }
              })
              builder.onLoad({ filter: /.*/, namespace: 'address' }, ({ path }) => ({
                contents: readFileSync(path),
                loader: 'dataurl',
              }))
            },
          },
        ],
        loader: { '.woff2': 'dataurl' },
      })
      await use(made.outputFiles[0]!.text)
    },
    { scope: 'worker', timeout: 120_000 },
  ],
})

async function staffPage(page: Page, script: string): Promise<void> {
  await page.setContent('<!doctype html><meta charset="utf-8"><body style="margin:0;background:#fff"></body>')
  await page.addScriptTag({ content: script })
  await page.addStyleTag({
    content: 'svg { display: block } .cover { position: absolute; inset: 0; background: #fff }',
  })
}

/** With every box covered in white nothing is left to be seen but ink outside it: the page is as white as without any. */
async function expectNothingOutside(page: Page, what: string): Promise<void> {
  const shot = async (visibility: 'visible' | 'hidden') => {
    await page.addStyleTag({ content: `svg { overflow: visible !important; visibility: ${visibility} }` })
    return page.screenshot({ fullPage: true })
  }
  const drawn = await shot('visible')
  const blank = await shot('hidden')
  expect(drawn.equals(blank), `${what}: ink outside its box`).toBe(true)
}

const drawn = (page: Page, ask: string) => page.evaluate<Drawn>(ask)

for (const id of ['violin', 'viola', 'cello', 'bass'] satisfies FamilyId[])
  test(`nothing of the ${id}’s staves lies outside its box, whatever the key, the octaves and the width`, async ({
    page,
    script,
  }) => {
    await staffPage(page, script)
    let lines = 0
    for (const figure of ['scale', 'arpeggio'] satisfies FigureId[])
      for (const octaves of [1, 2, 3] as const) {
        const width = octaves === 2 ? 360 : 1000
        const made = await drawn(page, `drawAll('${id}', '${figure}', ${octaves}, ${width})`)
        expect(made.collisions).toEqual([])
        lines += made.lines
        await expectNothingOutside(page, `${id} ${figure} ${octaves}`)
      }
    expect(lines).toBeGreaterThan(80)
    const drills = await drawn(page, `drawDrills('${id}', 800)`)
    expect(drills.lines).toBeGreaterThan(2)
    expect(drills.collisions).toEqual([])
    await expectNothingOutside(page, `${id} drills`)
  })

test('a reminder keeps its brackets on paper: no letter of the music face lies on another', async ({
  page,
  script,
}) => {
  await staffPage(page, script)
  const { letters, covered } = await page.evaluate<{ letters: number; covered: number }>(
    `lettersOnPaper('cello')`,
  )
  expect(letters).toBeGreaterThan(40)
  expect(covered).toBe(0)
})

test('a staff that lies too high in its box is found: the pictures differ', async ({ page, script }) => {
  await staffPage(page, script)
  await drawn(page, `drawAll('violin', 'scale', 3, 1000)`)
  await page.evaluate(() => document.querySelector('svg > g')!.setAttribute('transform', 'translate(0 0)'))
  await expect(expectNothingOutside(page, 'shortened')).rejects.toThrow('ink outside its box')
})
