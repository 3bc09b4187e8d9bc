import type { DrawnLine, PageItem, Score } from '#core'
import bravura from '@vexflow-fonts/bravura/bravura.otf?url'
import { drawScore } from './draw'
import { inkOf } from './ink'

/** A space between two lines of the staff: 10 px on the screen, on paper so many mm. */
const SPACE_PX = 10
/** Thinner than the screen's. */
const LINE_MM = 0.2

interface Face {
  readonly unitsPerEm: number
  /** The outline of a letter, and how far the next one stands from it, in font units, upwards and to the right. */
  letter(letter: string): { readonly d: string; readonly advance: number }
}

let face: Promise<Face> | undefined

/** The music face by its outlines: a sheet needs no font to be printed or looked at elsewhere. */
function musicFace(): Promise<Face> {
  face ??= (async () => {
    const [{ create }, response] = await Promise.all([import('fontkit'), fetch(bravura)])
    if (!response.ok) throw new Error('The music face was not reached.')
    const font = create(new Uint8Array(await response.arrayBuffer()) as never)
    if (!('glyphForCodePoint' in font)) throw new Error('The music face is a collection.')
    return {
      unitsPerEm: font.unitsPerEm,
      letter: (letter) => {
        const glyph = font.glyphForCodePoint(letter.codePointAt(0)!)
        return { d: glyph.path.toSVG(), advance: glyph.advanceWidth }
      },
    }
  })()
  // What did not arrive is asked for again with the next sheet.
  face.catch(() => (face = undefined))
  return face
}

/** A score as lines for paper of this width, the same drawing as on the screen, in mm; `spaceMm` from one line of the staff to the next. */
export async function linesForPaper(score: Score, widthMm: number, spaceMm: number): Promise<DrawnLine[]> {
  const paperMmPerPx = spaceMm / SPACE_PX
  const paper = document.createElement('div')
  // Drawn where nobody sees it: letters are measured in a page.
  paper.style.cssText = 'position:absolute;left:-9999px;top:0;visibility:hidden'
  document.body.append(paper)
  try {
    const [music] = await Promise.all([
      musicFace(),
      drawScore(paper, score, Math.floor(widthMm / paperMmPerPx)),
    ])
    return [...paper.querySelectorAll<SVGGElement>('svg > g')].map((line) => {
      const ink = inkOf(line)
      // A crowded line is drawn smaller, on paper as on the screen.
      const mmPerPx = paperMmPerPx * line.transform.baseVal.consolidate()!.matrix.a
      return { heightMm: (ink.bottom - ink.top) * mmPerPx, items: itemsOf(line, music, -ink.top, mmPerPx) }
    })
  } finally {
    paper.remove()
  }
}

/** Every shape and letter of a line, moved down by `dy` px, in mm. */
function itemsOf(line: SVGGElement, music: Face, dy: number, mmPerPx: number): PageItem[] {
  const mm = (px: number) => px * mmPerPx
  const outline = (d: string, widthMm?: number): PageItem => ({
    kind: 'path',
    d,
    x: 0,
    y: mm(dy),
    scaleX: mmPerPx,
    scaleY: mmPerPx,
    ...(widthMm === undefined ? {} : { widthMm }),
  })
  const shapes = line.querySelectorAll<SVGElement>('path, rect:not(.hit), line, circle, text')
  return [...shapes].flatMap((element): PageItem[] => {
    const n = (name: string) => Number(element.getAttribute(name) ?? 0)
    switch (element.tagName) {
      case 'path': {
        const d = element.getAttribute('d') ?? ''
        const isFilled = getComputedStyle(element).fill !== 'none' && /z\s*$/i.test(d)
        return [outline(d, isFilled ? undefined : LINE_MM)]
      }
      case 'rect':
        return [outline(`M${n('x')} ${n('y')}h${n('width')}v${n('height')}h${-n('width')}Z`)]
      case 'line':
        return [
          {
            kind: 'line',
            x1: mm(n('x1')),
            y1: mm(n('y1') + dy),
            x2: mm(n('x2')),
            y2: mm(n('y2') + dy),
            widthMm: LINE_MM,
            isDashed: element.hasAttribute('stroke-dasharray'),
          },
        ]
      case 'circle':
        return [
          {
            kind: 'circle',
            x: mm(n('cx')),
            y: mm(n('cy') + dy),
            r: mm(n('r')),
            widthMm: LINE_MM,
            fill: 'none',
          },
        ]
      default:
        return lettersOf(element as SVGTextElement, music, dy, mmPerPx)
    }
  })
}

/** A sign of the music face by its outline; a figure or a name in the sheet's own face. */
function lettersOf(text: SVGTextElement, music: Face, dy: number, mmPerPx: number): PageItem[] {
  const letters = text.textContent ?? ''
  const { fontSize, fontWeight, textAnchor } = getComputedStyle(text)
  const sizePx = parseFloat(fontSize)
  const isCentred = textAnchor === 'middle'
  const x = Number(text.getAttribute('x'))
  const y = (Number(text.getAttribute('y')) + dy) * mmPerPx
  if (!isMusic(letters)) {
    const isBold = Number(fontWeight) >= 600
    return [{ kind: 'text', x: x * mmPerPx, y, sizeMm: sizePx * mmPerPx, text: letters, isCentred, isBold }]
  }
  const scale = (sizePx / music.unitsPerEm) * mmPerPx
  let at = (isCentred ? x - text.getComputedTextLength() / 2 : x) * mmPerPx
  // A reminder is three letters, one after the other: its sign between brackets.
  return [...letters].map((letter): PageItem => {
    const { d, advance } = music.letter(letter)
    const left = at
    at += advance * scale
    return { kind: 'path', d, x: left, y, scaleX: scale, scaleY: -scale }
  })
}

/** Signs of the Standard Music Font Layout lie in the private use area. */
function isMusic(letters: string): boolean {
  return /^[\uE000-\uF8FF]+$/.test(letters)
}
