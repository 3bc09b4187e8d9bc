import type { Page } from './page'

/** A page as an SVG document at 1:1; `fontFamily` names the face of its text. */
export function pageSvg({ widthMm, heightMm, items }: Page, fontFamily: string): string {
  const drawn = items.map((item) => {
    if (item.kind === 'band')
      return `<rect x="${n(item.x)}" y="${n(item.y)}" width="${n(item.w)}" height="${n(item.h)}" fill="#000" fill-opacity="0.12"/>`
    if (item.kind === 'line')
      return `<line x1="${n(item.x1)}" y1="${n(item.y1)}" x2="${n(item.x2)}" y2="${n(item.y2)}" stroke="#000" stroke-width="${n(item.widthMm)}"${item.isDashed ? ' stroke-dasharray="3 2"' : ''}/>`
    if (item.kind === 'circle')
      return `<circle cx="${n(item.x)}" cy="${n(item.y)}" r="${n(item.r)}" fill="${FILLS[item.fill]}" stroke="#000" stroke-width="${n(item.widthMm)}"${item.isDashed ? ' stroke-dasharray="1 0.8"' : ''}/>`
    if (item.kind === 'path') {
      const placed = `transform="translate(${n(item.x)} ${n(item.y)}) scale(${f(item.scaleX)} ${f(item.scaleY)})"`
      const ink =
        item.widthMm === undefined
          ? 'fill="#000"'
          : `fill="none" stroke="#000" stroke-width="${f(item.widthMm / Math.abs(item.scaleX))}"`
      return `<path d="${item.d}" ${placed} ${ink}/>`
    }
    return `<text x="${n(item.x)}" y="${n(item.y)}" font-size="${n(item.sizeMm)}"${item.isBold ? ' font-weight="600"' : ''}${item.isCentred ? ' text-anchor="middle"' : ''}${item.isWhite ? ' fill="#fff"' : ''}>${escaped(item.text)}</text>`
  })
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}" font-family="${escaped(fontFamily)}">`,
    ...drawn,
    '</svg>',
    '',
  ].join('\n')
}

const FILLS = { white: '#fff', black: '#000', none: 'none' } as const

/** A scale, finer than a place. */
function f(value: number): string {
  return String(Number(value.toPrecision(6)))
}

function n(value: number): string {
  return String(Number(value.toFixed(4)))
}

const ENTITIES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }

function escaped(text: string): string {
  return text.replace(/[&<>"]/g, (c) => ENTITIES[c] ?? c)
}
