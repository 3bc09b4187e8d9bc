import PDFDocument from 'pdfkit'
import type { PageItem, Page } from '#core'

/** The faces of a printed sheet, TrueType: they have ♯ and ♭ and most alphabets that names are written in. */
export interface SheetFonts {
  readonly regular: ArrayBuffer
  readonly bold: ArrayBuffer
}

/** PDF's unit: a 72nd of an inch. Source: ISO 32000-1, 8.3.2.3. */
const POINTS_PER_MM = 72 / 25.4
const GREY = '#dcdcdc'

/**
 * Pages at 1:1 as one PDF. `onPage` hears of every page that is done; the document is whole or not there at all.
 */
export async function pagesToPdf(
  pages: readonly Page[],
  fonts: SheetFonts,
  title: string,
  onPage: (done: number) => void = () => {},
): Promise<Uint8Array<ArrayBuffer>> {
  const document = new PDFDocument({
    autoFirstPage: false,
    margin: 0,
    // The page's own face from the start: where there are no files there is no standard one either.
    font: fonts.regular as never,
    info: { Title: title, Creator: 'Jadefell' },
    // A viewer that follows the file prints it as large as it is.
    ...({ viewerPreferences: { PrintScaling: 'None' } } as object),
  })
  const chunks: Uint8Array[] = []
  const whole = new Promise<void>((resolve, reject) => {
    document.on('data', (chunk: Uint8Array) => chunks.push(chunk))
    document.on('end', resolve)
    document.on('error', reject)
  })
  document.registerFont('regular', fonts.regular)
  document.registerFont('bold', fonts.bold)
  for (const [index, page] of pages.entries()) {
    document.addPage({ size: [mm(page.widthMm), mm(page.heightMm)], margin: 0 })
    for (const item of page.items) draw(document, item)
    onPage(index + 1)
  }
  document.end()
  await whole
  return joined(chunks)
}

function draw(document: PDFKit.PDFDocument, item: PageItem): void {
  if (item.kind === 'band') {
    document.rect(mm(item.x), mm(item.y), mm(item.w), mm(item.h)).fill(GREY)
  } else if (item.kind === 'line') {
    document.lineWidth(mm(item.widthMm)).strokeColor('#000')
    if (item.isDashed) document.dash(mm(3), { space: mm(2) })
    document.moveTo(mm(item.x1), mm(item.y1)).lineTo(mm(item.x2), mm(item.y2)).stroke()
    if (item.isDashed) document.undash()
  } else if (item.kind === 'circle') {
    document.lineWidth(mm(item.widthMm)).strokeColor('#000')
    if (item.isDashed) document.dash(mm(1), { space: mm(0.8) })
    document.circle(mm(item.x), mm(item.y), mm(item.r))
    if (item.fill === 'none') document.stroke()
    else document.fillAndStroke(item.fill, '#000')
    if (item.isDashed) document.undash()
  } else if (item.kind === 'path') {
    document.save().translate(mm(item.x), mm(item.y)).scale(mm(item.scaleX), mm(item.scaleY)).path(item.d)
    if (item.widthMm === undefined) document.fill('#000')
    else document.lineWidth(item.widthMm / Math.abs(item.scaleX)).stroke('#000')
    document.restore()
  } else {
    document
      .font(item.isBold ? 'bold' : 'regular')
      .fontSize(mm(item.sizeMm))
      .fillColor(item.isWhite ? '#fff' : '#000')
    const left = item.isCentred ? mm(item.x) - document.widthOfString(item.text) / 2 : mm(item.x)
    // y is where the letters stand, as in SVG.
    document.text(item.text, left, mm(item.y), { baseline: 'alphabetic', lineBreak: false })
  }
}

function mm(value: number): number {
  return value * POINTS_PER_MM
}

function joined(chunks: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(chunks.reduce((sum, chunk) => sum + chunk.length, 0))
  let at = 0
  for (const chunk of chunks) {
    bytes.set(chunk, at)
    at += chunk.length
  }
  return bytes
}
