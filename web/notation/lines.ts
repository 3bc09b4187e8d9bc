import type { DrawnLine, PageItem, Score } from '#core'
import bravura from '@vexflow-fonts/bravura/bravura.otf?url'
import { drawScore } from './draw'
import { inkOf } from './ink'

/** A space between two lines of the staff: 10 px on the screen, on paper so many mm. */
const SPACE_PX = 10
const SPACE_MM = 2
const MM_PER_PX = SPACE_MM / SPACE_PX
/** Thinner than the screen's. */
const LINE_MM = 0.2

interface Face {
  readonly unitsPerEm: number
  /** The outline of a letter, in font units upwards. */
  outline(letter: string): string
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
      outline: (letter) => font.glyphForCodePoint(letter.codePointAt(0)!).path.toSVG(),
    }
  })()
  // What did not arrive is asked for again with the next sheet.
  face.catch(() => (face = undefined))
  return face
}

/** A score as lines for paper of this width, the same drawing as on the screen, in mm. */
export async function linesForPaper(score: Score, widthMm: number): Promise<DrawnLine[]> {
  const paper = document.createElement('div')
  // Drawn where nobody sees it: letters are measured in a page.
  paper.style.cssText = 'position:absolute;left:-9999px;top:0;visibility:hidden'
  document.body.append(paper)
  try {
    const [music] = await Promise.all([musicFace(), drawScore(paper, score, Math.floor(widthMm / MM_PER_PX))])
    return [...paper.querySelectorAll<SVGGElement>('svg > g')].map((line) => {
      const ink = inkOf(line)
      return {
        heightMm: (ink.bottom - ink.top) * MM_PER_PX,
        items: itemsOf(line, music, -ink.top),
      }
    })
  } finally {
    paper.remove()
  }
}

function itemsOf(line: SVGGElement, music: Face, dy: number): PageItem[] {
  const mm = (px: number) => px * MM_PER_PX
  const number = (element: Element, name: string) => Number(element.getAttribute(name) ?? 0)
  const items: PageItem[] = []
  for (const element of line.querySelectorAll<SVGElement>('path, rect:not(.hit), line, circle, text')) {
    switch (element.tagName) {
      case 'path': {
        const isFilled = getComputedStyle(element).fill !== 'none'
        items.push({
          kind: 'path',
          d: element.getAttribute('d') ?? '',
          x: 0,
          y: mm(dy),
          scaleX: MM_PER_PX,
          scaleY: MM_PER_PX,
          ...(isFilled && isClosed(element) ? {} : { widthMm: LINE_MM }),
        })
        break
      }
      case 'rect': {
        const [x, y, w, h] = ['x', 'y', 'width', 'height'].map((name) => number(element, name))
        items.push({
          kind: 'path',
          d: `M${x} ${y}h${w}v${h}h${-w!}Z`,
          x: 0,
          y: mm(dy),
          scaleX: MM_PER_PX,
          scaleY: MM_PER_PX,
        })
        break
      }
      case 'line':
        items.push({
          kind: 'line',
          x1: mm(number(element, 'x1')),
          y1: mm(number(element, 'y1') + dy),
          x2: mm(number(element, 'x2')),
          y2: mm(number(element, 'y2') + dy),
          widthMm: LINE_MM,
          isDashed: element.hasAttribute('stroke-dasharray'),
        })
        break
      case 'circle':
        items.push({
          kind: 'circle',
          x: mm(number(element, 'cx')),
          y: mm(number(element, 'cy') + dy),
          r: mm(number(element, 'r')),
          widthMm: LINE_MM,
          fill: 'none',
        })
        break
      default:
        items.push(...lettersOf(element as SVGTextElement, music, dy))
    }
  }
  return items
}

function isClosed(element: Element): boolean {
  return /z\s*$/i.test(element.getAttribute('d') ?? '')
}

/** A sign of the music face by its outline; a figure or a name in the sheet's own face. */
function lettersOf(text: SVGTextElement, music: Face, dy: number): PageItem[] {
  const letters = text.textContent ?? ''
  const style = getComputedStyle(text)
  const sizePx = parseFloat(style.fontSize)
  const isCentred = style.textAnchor === 'middle'
  const [x, y] = [Number(text.getAttribute('x')), Number(text.getAttribute('y')) + dy]
  if (!isMusic(letters))
    return [
      {
        kind: 'text',
        x: x * MM_PER_PX,
        y: y * MM_PER_PX,
        sizeMm: sizePx * MM_PER_PX,
        text: letters,
        isCentred,
        isBold: Number(style.fontWeight) >= 600,
      },
    ]
  const scale = (sizePx / music.unitsPerEm) * MM_PER_PX
  const left = isCentred ? x - text.getComputedTextLength() / 2 : x
  return [...letters].map((letter) => ({
    kind: 'path',
    d: music.outline(letter),
    x: left * MM_PER_PX,
    y: y * MM_PER_PX,
    scaleX: scale,
    scaleY: -scale,
  }))
}

/** Signs of the Standard Music Font Layout lie in the private use area. */
function isMusic(letters: string): boolean {
  return /^[\uE000-\uF8FF]+$/.test(letters)
}
