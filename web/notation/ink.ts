/** What is drawn in an SVG element, in its own units. */
export interface Ink {
  top: number
  bottom: number
  left: number
  right: number
}

const pen = () => document.createElement('canvas').getContext('2d')
let measuring: ReturnType<typeof pen> | undefined

/**
 * The ink of every shape and letter in a group: letters by the outlines they are drawn with, for the box that a music face
 * claims is four times as high as its signs.
 */
export function inkOf(group: SVGGElement): Ink {
  const ink: Ink = { top: Infinity, bottom: -Infinity, left: Infinity, right: -Infinity }
  for (const shape of group.querySelectorAll<SVGGraphicsElement>('path, rect:not(.hit), line, circle')) {
    const { x, y, width, height } = shape.getBBox()
    const half = Number(shape.getAttribute('stroke-width') ?? 1) / 2
    take(ink, x - half, y - half, x + width + half, y + height + half)
  }
  for (const text of group.querySelectorAll<SVGTextElement>('text')) {
    const box = letterBox(text)
    if (box) take(ink, box.left, box.top, box.right, box.bottom)
  }
  return ink
}

/** Undefined of a text without letters. */
export function letterBox(text: SVGTextElement): Ink | undefined {
  measuring ??= pen()
  if (!measuring || !text.textContent) return undefined
  const { fontStyle, fontWeight, fontSize, fontFamily, textAnchor } = getComputedStyle(text)
  measuring.font = `${fontStyle} ${fontWeight} ${fontSize} ${fontFamily}`
  measuring.textAlign = textAnchor === 'middle' ? 'center' : 'left'
  const m = measuring.measureText(text.textContent)
  const [x, y] = [Number(text.getAttribute('x')), Number(text.getAttribute('y'))]
  return {
    left: x - m.actualBoundingBoxLeft,
    right: x + m.actualBoundingBoxRight,
    top: y - m.actualBoundingBoxAscent,
    bottom: y + m.actualBoundingBoxDescent,
  }
}

function take(ink: Ink, left: number, top: number, right: number, bottom: number): void {
  ink.left = Math.min(ink.left, left)
  ink.top = Math.min(ink.top, top)
  ink.right = Math.max(ink.right, right)
  ink.bottom = Math.max(ink.bottom, bottom)
}
