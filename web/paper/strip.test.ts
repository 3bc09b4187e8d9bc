import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import {
  chartTapes,
  familyOf,
  handMarks,
  marksOfSchool,
  planTapes,
  schoolOf,
  stripPages,
  pageSvg,
  type FamilyId,
  type MarkSpec,
  type PageItem,
  type Page,
} from '#core'
import { strung } from '../../core/testing'
import { pagesToPdf } from './pdf'
import { stripWords } from './sheet'

const DPI = 600
const PX_PER_MM = DPI / 25.4
const require = createRequire(import.meta.url)
const fontBytes = (name: string) => readFileSync(require.resolve(`dejavu-fonts-ttf/ttf/${name}.ttf`))
const fonts = {
  regular: fontBytes('DejaVuSansCondensed') as never as ArrayBuffer,
  bold: fontBytes('DejaVuSansCondensed-Bold') as never as ArrayBuffer,
}

function pagesOf(familyId: FamilyId, lengthMm: number, paper: 'a4' | 'letter', marks: MarkSpec[]): Page[] {
  const strings = strung(familyId, lengthMm)
  const chart = chartTapes(strings, planTapes(strings, marks))
  return stripPages({
    title: 'Orla Venn · no. 7 ♯♭',
    subtitle: `${familyId}, ${lengthMm} mm`,
    paper,
    words: stripWords,
    marks: chart.map((mark) => ({ ...mark, name: mark.id, notes: '' })),
  })
}

interface Grey {
  readonly width: number
  readonly height: number
  readonly pixels: Uint8Array
}

/** A page of a PDF in grey at 600 dpi, by Poppler: what a printer's driver would see. */
function rasterised(pdf: Uint8Array, page: number): Grey {
  const folder = mkdtempSync(join(tmpdir(), 'jadefell-strip-'))
  try {
    writeFileSync(join(folder, 'strip.pdf'), pdf)
    const only = ['-f', String(page), '-l', String(page), '-singlefile']
    execFileSync('pdftoppm', [
      '-r',
      String(DPI),
      '-gray',
      '-aa',
      'no',
      ...only,
      join(folder, 'strip.pdf'),
      join(folder, 'p'),
    ])
    const bytes = readFileSync(join(folder, 'p.pgm'))
    const header = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(bytes.subarray(0, 40).toString('latin1'))
    if (!header) throw new Error('not a PGM')
    return { width: Number(header[1]), height: Number(header[2]), pixels: bytes.subarray(header[0].length) }
  } finally {
    rmSync(folder, { recursive: true })
  }
}

/** Centres, mm from the top, of the dark runs in the pixel column at `xMm`. */
function darkRuns({ width, height, pixels }: Grey, xMm: number): number[] {
  const x = Math.round(xMm * PX_PER_MM)
  const centres: number[] = []
  for (let y = 0, from = -1; y <= height; y++) {
    const isDark = y < height && (pixels[y * width + x] ?? 255) < 128
    if (isDark && from < 0) from = y
    if (!isDark && from >= 0) {
      centres.push((from + y) / 2 / PX_PER_MM)
      from = -1
    }
  }
  return centres
}

type Line = Extract<PageItem, { kind: 'line' }>

/** One mark a semitone: a low 4 and a high 3 a comma apart would print over one another. */
function oneEach(familyId: FamilyId): MarkSpec[] {
  const marks = handMarks(familyOf(familyId))
  return marks.filter((m, i) => marks.findIndex((n) => n.interval.semitones === m.interval.semitones) === i)
}

describe('a printed strip, rasterised at 600 dpi and measured', () => {
  it.each([
    ['violin', 284.5, 'a4', 1],
    ['violin', 328, 'letter', 1],
    ['cello', 690, 'a4', 2],
    ['bass', 1050, 'letter', 3],
  ] as const)(
    '%s of %f mm on %s has every mark within 0.1 mm over its whole length',
    async (id, length, paper, count) => {
      const pages = pagesOf(id, length, paper, oneEach(id))
      expect(pages).toHaveLength(count)
      const pdf = await pagesToPdf(pages, fonts, 'strip')
      const found = new Set<number>()
      for (const [index, page] of pages.entries()) {
        const grey = rasterised(pdf, index + 1)
        expect(grey.width / PX_PER_MM).toBeCloseTo(page.widthMm, 1)
        const lines = page.items.filter((i): i is Line => i.kind === 'line' && i.placeMm !== undefined)
        const runs = darkRuns(grey, Math.min(...lines.map((line) => line.x2)) - 1)
        for (const line of lines) {
          const nearest = runs.reduce((a, b) => (Math.abs(b - line.y1) < Math.abs(a - line.y1) ? b : a))
          expect(Math.abs(nearest - line.y1)).toBeLessThan(0.1)
          found.add(line.placeMm!)
        }
        // the whole strip, not each line by itself: distances from the first line, as a ruler laid along it shows
        const first = lines[0]!
        for (const line of lines) {
          const [a, b] = [first, line].map((l) => runs.find((run) => Math.abs(run - l.y1) < 0.1)!)
          expect(Math.abs(b! - a! - (line.placeMm! - first.placeMm!))).toBeLessThan(0.1)
        }
      }
      // every edge and middle of every mark is on one of the sheets
      expect(found.size).toBe(3 * oneEach(id).length + 1)
    },
  )

  it('has a proof line of 100 mm, and its nut line before the first tape', async () => {
    const marks = marksOfSchool(familyOf('violin'), schoolOf(familyOf('violin'), 'first_and_third')!)
    const [page] = pagesOf('violin', 284.5, 'a4', marks)
    const grey = rasterised(await pagesToPdf([page!], fonts, 'strip'), 1)
    const proof = page!.items.find(
      (i): i is Line => i.kind === 'line' && i.x1 === i.x2 && i.y2 - i.y1 === 100,
    )!
    const ticks = darkRuns(grey, proof.x1 + 3).filter((y) => y > proof.y1 - 1 && y < proof.y2 + 1)
    expect(ticks.at(-1)! - ticks[0]!).toBeCloseTo(100, 1)
  })

  it('is the same as SVG: as large as the paper in mm, every mark at its place from the nut', () => {
    const [page] = pagesOf('violin', 284.5, 'letter', oneEach('violin'))
    const svg = pageSvg(page!, 'sans-serif')
    expect(svg).toContain('width="215.9mm" height="279.4mm" viewBox="0 0 215.9 279.4"')
    const drawn = [...svg.matchAll(/<line x1="[\d.]+" y1="([\d.]+)"/g)].map((m) => Number(m[1]))
    const lines = page!.items.filter((i): i is Line => i.kind === 'line' && i.placeMm !== undefined)
    const nut = lines.find((line) => line.placeMm === 0)!
    for (const line of lines) {
      expect(Math.min(...drawn.map((y) => Math.abs(y - nut.y1 - line.placeMm!)))).toBeLessThan(0.001)
    }
    expect(
      pageSvg({ ...page!, items: [{ kind: 'text', x: 0, y: 0, sizeMm: 3, text: '<b> & "co"' }] }, 'x'),
    ).toContain('&lt;b&gt; &amp; &quot;co&quot;')
  })

  it('rules the same line on both sheets where they are joined', () => {
    const sheets = pagesOf('bass', 1050, 'a4', handMarks(familyOf('bass')))
    const joins = sheets.map((page) =>
      page.items.flatMap((i) => (i.kind === 'text' && i.text.startsWith('join') ? [i.text] : [])),
    )
    expect(joins[0]).toHaveLength(1)
    expect(joins[1]).toContain(joins[0]![0])
  })
})
