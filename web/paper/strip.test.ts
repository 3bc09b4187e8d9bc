import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import PDFDocument from 'pdfkit'
import { describe, expect, it } from 'vitest'
import {
  chartTapes,
  familyOf,
  handMarks,
  marksOfSchool,
  planTapes,
  schoolOf,
  stripPages,
  stripSheets,
  textWidth,
  pageSvg,
  type FamilyId,
  type MarkSpec,
  type PageItem,
  type Page,
  type StripRequest,
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

it.each([
  ['cello', 560, 720],
  ['bass', 900, 1110],
] as const)('of a %s is never joined on a tape, whatever its length', (id, least, most) => {
  const marks = oneEach(id)
  let joined = 0
  for (let length = least; length <= most; length += 2) {
    const chart = chartTapes(strung(id, length), planTapes(strung(id, length), marks))
    const joins = new Set<number>()
    const words = { ...stripWords, join: (placeMm: number) => (joins.add(Number(placeMm.toFixed(6))), '') }
    const pages = stripPages({
      title: '',
      subtitle: '',
      paper: 'a4',
      words,
      marks: chart.map((mark) => ({ ...mark, name: mark.id, notes: '' })),
    })
    // The same place is ruled on both sheets that meet there.
    expect(joins.size).toBe(pages.length - 1)
    joined += joins.size
    for (const join of joins)
      for (const { nearEdgeMm, farEdgeMm } of chart)
        expect(join <= nearEdgeMm - 1.999 || join >= farEdgeMm + 1.999, `${length}: ${join}`).toBe(true)
  }
  expect(joined).toBeGreaterThan(50)
})

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

type Text = Extract<PageItem, { kind: 'text' }>
interface Box {
  readonly text: string
  readonly left: number
  readonly right: number
  readonly top: number
  readonly bottom: number
}

/** Where the letters of a page lie, by the widths that PDFKit takes from the faces themselves. */
function boxesOf(page: Page): Box[] {
  const measured = new PDFDocument({ autoFirstPage: false, font: fonts.regular as never })
  measured.registerFont('regular', fonts.regular)
  measured.registerFont('bold', fonts.bold)
  return page.items
    .filter((item): item is Text => item.kind === 'text' && item.text !== '')
    .map(({ text, x, y, sizeMm, isBold }) => {
      const width = measured
        .font(isBold ? 'bold' : 'regular')
        .fontSize(sizeMm)
        .widthOfString(text)
      return { text, left: x, right: x + width, top: y - 0.75 * sizeMm, bottom: y + 0.22 * sizeMm }
    })
}
function overlaps(boxes: readonly Box[]): string[] {
  return boxes.flatMap((a, i) =>
    boxes
      .slice(i + 1)
      .filter((b) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom)
      .map((b) => `${a.text} × ${b.text}`),
  )
}

const LONG =
  'Maximiliana Wilhelmina Hammersmith-Wainwright Mountwarren · no. 1007 of the Marwood workshop, '.repeat(2)
const request = (
  lengthMm: number,
  familyId: FamilyId,
  paper: 'a4' | 'letter',
  marks: MarkSpec[],
): StripRequest => {
  const strings = strung(familyId, lengthMm)
  return {
    title: LONG.slice(0, 180),
    subtitle: `${familyId}, ${lengthMm} mm nut to bridge · A scale of nineteen notes on C♯ · string by string · with pressing · corrected by 12 rings · no place for high 3rd finger, low 4th finger and octave · 28 Nov 2026`,
    paper,
    words: stripWords,
    marks: chartTapes(strings, planTapes(strings, marks)).map((mark) => ({
      ...mark,
      name: 'half 1st finger, a diminished 5th over the open string',
      notes: 'C♯ G♯ D♯ A♯ E♯ B♯',
    })),
  }
}
const twoTapes = (familyId: FamilyId) =>
  marksOfSchool(familyOf(familyId), schoolOf(familyOf(familyId), familyOf(familyId).defaultSchoolId)!)

describe('names however long', () => {
  it.each([
    ['violin', 328],
    ['cello', 690],
    ['bass', 1100],
  ] as const)('stay clear of instructions, joining lines and one another: %s of %d mm', (id, length) => {
    for (const paper of ['a4', 'letter'] as const)
      for (const page of [twoTapes(id), handMarks(familyOf(id))].flatMap((marks) =>
        stripPages(request(length, id, paper, marks)),
      )) {
        const boxes = boxesOf(page)
        expect(overlaps(boxes)).toEqual([])
        expect(Math.max(...boxes.map((box) => box.right))).toBeLessThanOrEqual(page.widthMm - 8)
      }
  })

  it('are measured by a bound that no text is broader than', () => {
    const measured = new PDFDocument({ autoFirstPage: false, font: fonts.bold as never })
    measured.registerFont('bold', fonts.bold)
    for (const text of [
      LONG,
      'WwMm@%&½',
      'Ўлия Щука',
      'נועה',
      'ÄÖÜ ßøłñ',
      '0123456789 mm',
      'ﬁ “quoted” – … · ♯♭',
    ])
      expect(textWidth(text, 10)).toBeGreaterThanOrEqual(
        measured.font('bold').fontSize(10).widthOfString(text),
      )
  })
})

describe('a batch', () => {
  it('of twenty violins is ten pages, two strips on each, clear of one another and measured', async () => {
    for (const paper of ['a4', 'letter'] as const) {
      const pages = stripSheets(
        Array.from({ length: 20 }, () => request(328, 'violin', paper, twoTapes('violin'))),
      )
      expect(pages).toHaveLength(10)
      expect(overlaps(boxesOf(pages[0]!))).toEqual([])
      const lines = pages[0]!.items.filter((i): i is Line => i.kind === 'line')
      for (const { x1, x2, y1, y2 } of lines) {
        expect(Math.min(x1, x2)).toBeGreaterThanOrEqual(8)
        expect(Math.max(x1, x2)).toBeLessThanOrEqual(pages[0]!.widthMm - 8)
        expect(Math.max(y1, y2)).toBeLessThanOrEqual(pages[0]!.heightMm - 6)
      }
    }
    const [page] = stripSheets([1, 2].map(() => request(328, 'violin', 'a4', twoTapes('violin'))))
    const grey = rasterised(await pagesToPdf([page!], fonts, 'two strips'), 1)
    const ruled = page!.items.filter((i): i is Line => i.kind === 'line' && i.placeMm !== undefined)
    for (const line of ruled) {
      const runs = darkRuns(grey, line.x2 - 1)
      expect(Math.min(...runs.map((run) => Math.abs(run - line.y1)))).toBeLessThan(0.1)
    }
    // the nut's and three of each of two tapes, on both strips
    expect(ruled).toHaveLength(2 * (1 + 3 * 2))
  })

  it('gives a long strip pages of its own, and an odd short one too', () => {
    const batch = [328, 690, 285, 255].map((mm) =>
      request(mm, mm > 400 ? 'cello' : 'violin', 'a4', twoTapes(mm > 400 ? 'cello' : 'violin')),
    )
    const cello = stripPages(batch[1]!).length
    expect(stripSheets(batch)).toHaveLength(2 + cello)
  })
})
