import { THUMB, type Score, type ScoreNote } from '#core'
import { shortPositionName } from '../words/positions'
import { stringMark } from '../words/score'
import { letterBox } from './ink'

const SVG = 'http://www.w3.org/2000/svg'
/** The thumb’s sign in the Standard Music Font Layout, stringsThumbPosition. */
const THUMB_SIGN = '\uE624'
const FINGER_PX = 15
const NUMERAL_PX = 12
const POSITION_PX = 12.5
/** Clear of what is under it. */
const GAP = 5
/** From letter to letter of a column. */
const STEP = 4
const RING_R = 2.6

/** A note where it stands on its line. */
export interface PlacedNote {
  readonly note: ScoreNote
  readonly element: Element | undefined
  readonly x: number
  /** The highest ink of it: head, ledger lines, sign and stem; never lower than the staff. */
  readonly topY: number
}

/**
 * Writes over each note of a line what a player reads there: finger, harmonic, string and position; over all of
 * them octave lines; between two fingers the line of a shift. Returns every note’s own parts.
 */
export function drawMarks(group: SVGGElement, score: Score, notes: readonly PlacedNote[]): Element[][] {
  const columns = notes.map((placed) => column(group, score, placed))
  let highest = Math.min(...columns.map(({ topY }) => topY))
  notes.forEach(({ note, x }, i) => {
    const own = columns[i]!
    if (note.position) {
      // Its letters reach over the next note.
      const y = Math.min(own.topY, columns[i + 1]?.topY ?? Infinity) - GAP
      highest = Math.min(highest, y - POSITION_PX)
      const text = letters(
        group,
        x - FINGER_PX / 2,
        y,
        shortPositionName(note.position),
        'position',
        POSITION_PX,
      )
      text.setAttribute('text-anchor', 'start')
      own.parts.push(text)
    }
    const before = notes[i - 1]
    if (note.isShift && before) shiftLine(group, before.x, columns[i - 1]!.fingerY, x, own.fingerY)
  })
  ottavas(group, notes, highest - GAP)
  return columns.map(({ parts }) => parts)
}

interface Column {
  readonly parts: Element[]
  /** Middle of the finger’s figure. */
  readonly fingerY: number
  readonly topY: number
}

function column(group: SVGGElement, score: Score, { note, element, x, topY }: PlacedNote): Column {
  const parts: Element[] = element ? [element] : []
  const finger = fingerText(group, note, x, topY - GAP)
  parts.push(finger)
  const box = letterBox(finger) ?? { top: topY - GAP - FINGER_PX, bottom: topY - GAP }
  let top = box.top
  if (note.second) {
    // The upper note's finger over the lower one's, as the notes stand.
    parts.push(fingerText(group, { ...note.second, isExtended: false }, x, top - STEP))
    top -= STEP + FINGER_PX * 0.75
  }
  if (note.harmonic) {
    const ring = group.appendChild(document.createElementNS(SVG, 'circle'))
    for (const [name, value] of Object.entries({ cx: x, cy: top - STEP - RING_R, r: RING_R }))
      ring.setAttribute(name, String(value))
    ring.classList.add('ring')
    parts.push(ring)
    top -= STEP + 2 * RING_R
  }
  if (note.string !== undefined) {
    parts.push(letters(group, x, top - STEP, stringMark(score, note.string), 'numeral', NUMERAL_PX))
    top -= STEP + NUMERAL_PX * 0.75
  }
  return { parts, fingerY: (box.top + box.bottom) / 2, topY: top }
}

function fingerText(
  group: SVGGElement,
  note: Pick<ScoreNote, 'finger' | 'isExtended'>,
  x: number,
  baseline: number,
): SVGTextElement {
  if (note.finger !== THUMB)
    return letters(group, x, baseline, `${note.isExtended ? 'x' : ''}${note.finger}`, 'finger', FINGER_PX)
  const sign = letters(group, x, baseline, THUMB_SIGN, 'thumb', 34)
  // The sign hangs below its baseline in some cuts: stand it on the line.
  const box = letterBox(sign)
  if (box) sign.setAttribute('y', String(baseline - (box.bottom - baseline)))
  return sign
}

function letters(
  group: SVGGElement,
  x: number,
  y: number,
  text: string,
  kind: string,
  sizePx: number,
): SVGTextElement {
  const element = group.appendChild(document.createElementNS(SVG, 'text'))
  element.textContent = text
  element.classList.add('mark', kind)
  const attributes = {
    x,
    y,
    'text-anchor': 'middle',
    'font-family': kind === 'thumb' ? 'Bravura' : "'Source Sans 3 Variable'",
    'font-size': `${sizePx}px`,
    'font-weight': kind === 'finger' ? 600 : 400,
    'font-style': kind === 'position' ? 'italic' : 'normal',
  }
  for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, String(value))
  return element
}

function shiftLine(group: SVGGElement, fromX: number, fromY: number, toX: number, toY: number): void {
  const [a, b] = [fromX + 7, toX - 8]
  if (b - a < 4) return
  stroke(group, a, fromY, b, toY, 'shift')
}

function stroke(
  group: SVGGElement,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  kind: string,
): SVGLineElement {
  const line = group.appendChild(document.createElementNS(SVG, 'line'))
  for (const [name, value] of Object.entries({ x1, y1, x2, y2, 'stroke-width': 1 }))
    line.setAttribute(name, String(value))
  line.classList.add(kind)
  return line
}

/** 8va and its line over each run of notes that are written an octave lower. */
function ottavas(group: SVGGElement, notes: readonly PlacedNote[], y: number): void {
  for (let i = 0; i < notes.length; i++) {
    if (!notes[i]!.note.isOttava || notes[i - 1]?.note.isOttava) continue
    let end = i
    while (notes[end + 1]?.note.isOttava) end++
    const x = notes[i]!.x - FINGER_PX / 2
    const text = letters(group, x, y, '8va', 'position', POSITION_PX)
    text.setAttribute('text-anchor', 'start')
    const toX = notes[end]!.x + FINGER_PX / 2
    if (toX > x + 26)
      stroke(group, x + 24, y - 4, toX, y - 4, 'ottava').setAttribute('stroke-dasharray', '4 3')
    stroke(group, toX, y - 4, toX, y + 3, 'ottava')
  }
}
