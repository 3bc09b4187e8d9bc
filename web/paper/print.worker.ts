import bold from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed-Bold.ttf?url'
import regular from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed.ttf?url'
import { stripSheets, type Page } from '#core'
import { pagesToPdf, type SheetFonts } from './pdf'
import { stripWords, type StripSheet } from './sheet'

/** What is to be printed: strips that are still to be laid out, or pages as they are. */
export type PrintOrder =
  | { readonly title: string; readonly sheets: readonly StripSheet[] }
  | { readonly title: string; readonly pages: readonly Page[] }

export type PrintReport =
  | { readonly kind: 'progress'; readonly done: number; readonly of: number }
  | { readonly kind: 'done'; readonly bytes: Uint8Array<ArrayBuffer> }
  | { readonly kind: 'failed'; readonly message: string }

function report(message: PrintReport, transfer: Transferable[] = []) {
  self.postMessage(message, { transfer })
}

async function bytesOf(url: string): Promise<ArrayBuffer> {
  const response = await fetch(url)
  if (!response.ok) throw new Error('The fonts of the printed sheet were not reached.')
  return response.arrayBuffer()
}

/** Fetched once: the worker stays for the next sheet. */
let fetched: Promise<SheetFonts> | undefined
function fontsOfSheet(): Promise<SheetFonts> {
  fetched ??= Promise.all([bytesOf(regular), bytesOf(bold)]).then(([r, b]) => ({ regular: r, bold: b }))
  // What did not arrive is asked for again with the next sheet.
  fetched.catch(() => (fetched = undefined))
  return fetched
}

self.onmessage = async ({ data }: MessageEvent<PrintOrder>) => {
  try {
    const fonts = await fontsOfSheet()
    const pages =
      'pages' in data
        ? data.pages
        : stripSheets(data.sheets.map((sheet) => ({ ...sheet, words: stripWords })))
    let reported = 0
    const bytes = await pagesToPdf(pages, fonts, data.title, (done) => {
      if (performance.now() - reported < 50 && done < pages.length) return
      reported = performance.now()
      report({ kind: 'progress', done, of: pages.length })
    })
    report({ kind: 'done', bytes }, [bytes.buffer])
  } catch (error) {
    report({ kind: 'failed', message: error instanceof Error ? error.message : String(error) })
  }
}
