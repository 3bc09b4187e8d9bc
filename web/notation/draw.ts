import bravura from '@vexflow-fonts/bravura/bravura.woff2?url'
import {
  Accidental,
  Annotation,
  AnnotationVerticalJustify,
  Beam,
  Font,
  Formatter,
  Renderer,
  Stave,
  StaveNote,
  VexFlow,
  Voice,
} from 'vexflow/core'
import { VALUES, type NoteValue, type Score, type ScoreNote } from './score'

/** Between the ink of one line and that of the next, and round it all. */
const BETWEEN_ROWS = 14
const EDGE = 6
/** What a clef and the lines themselves reach over and under the outer lines of a stave, in px of this size of note. */
const CLEF_OVER = 18
const CLEF_UNDER = 20
/** Half a notehead's height, and what a sign before it reaches over and under it. */
const HEAD = 6
const SIGN = 16
/** Room a note takes with its sign and finger. */
const NOTE_PX = 30
const SIGNATURE_PX = 13
const CLEF_PX = 44
const FINGER_PT = 11

let ready: Promise<void> | undefined

/** The music face, from the application itself. */
function loadFont(): Promise<void> {
  ready ??= Font.load('Bravura', bravura).then(() => VexFlow.setFonts('Bravura'))
  return ready
}

/**
 * Draws a score into an empty element of `width` pixels, as many bars a line as have room. Returns the drawn element of
 * every note, in order.
 */
export async function drawScore(
  element: HTMLDivElement,
  score: Score,
  value: NoteValue,
  width: number,
): Promise<Element[]> {
  await loadFont()
  element.replaceChildren()
  const rows = rowsOf(score, width)
  const renderer = new Renderer(element, Renderer.Backends.SVG)
  renderer.resize(width, 10)
  const context = renderer.getContext()
  const drawn: Element[] = []
  let bottom = 0
  rows.forEach((bars, row) => {
    const line = context.openGroup() as SVGGElement
    const ink = { top: Infinity, bottom: -Infinity }
    const take = (top: number, under: number) => {
      ink.top = Math.min(ink.top, top)
      ink.bottom = Math.max(ink.bottom, under)
    }
    const head = CLEF_PX + SIGNATURE_PX * signsOf(score.signature)
    const notes = bars.reduce((sum, bar) => sum + bar.length, 0)
    // The last line is no wider than its notes need.
    const perNote = Math.min((width - head - 8) / notes, NOTE_PX * 1.7)
    let x = 0
    bars.forEach((bar, index) => {
      const own = perNote * bar.length + (index === 0 ? head : 0)
      const stave = new Stave(x, 0, own)
      if (index === 0) stave.addClef(score.clef).addKeySignature(score.signature)
      stave.setContext(context).draw()
      const staveNotes = bar.map((n) => staveNote(n, score.clef, value))
      const voice = new Voice({ numBeats: bar.length, beatValue: VALUES[value] }).addTickables(staveNotes)
      const beams = value === 'quarter' ? [] : Beam.generateBeams(staveNotes)
      new Formatter().joinVoices([voice]).formatToStave([voice], stave)
      voice.draw(context, stave)
      for (const beam of beams) beam.setContext(context).draw()
      drawn.push(...staveNotes.flatMap((n) => n.getSVGElement() ?? []))
      take(stave.getYForLine(0) - CLEF_OVER, stave.getYForLine(4) + CLEF_UNDER)
      for (const note of staveNotes) takeInk(note, take)
      x += own
    })
    context.closeGroup()
    // Fingers are set in the page's own face, whose letters say how high they are.
    for (const finger of line.querySelectorAll<SVGGraphicsElement>('.vf-annotation text')) {
      const { y, height } = finger.getBBox()
      take(y, y + height)
    }
    const top = bottom + (row === 0 ? EDGE : BETWEEN_ROWS)
    line.setAttribute('transform', `translate(0 ${top - ink.top})`)
    bottom = top + ink.bottom - ink.top
  })
  renderer.resize(width, Math.ceil(bottom + EDGE))
  return drawn
}

/**
 * How far up and down a note is drawn: heads with their signs, ledger lines, stem. The music face itself is no measure of
 * that: its letters claim four times their height.
 */
function takeInk(note: StaveNote, take: (top: number, bottom: number) => void): void {
  for (const y of note.getYs()) take(y - HEAD, y + HEAD)
  if (note.getModifiersByType(Accidental.CATEGORY).length > 0)
    for (const y of note.getYs()) take(y - SIGN, y + SIGN)
  if (!note.hasStem()) return
  const { topY, baseY } = note.getStemExtents()
  take(Math.min(topY, baseY), Math.max(topY, baseY))
}

function staveNote({ pitch, sign, finger }: ScoreNote, clef: string, value: NoteValue): StaveNote {
  const note = new StaveNote({ keys: [pitch], duration: String(VALUES[value]), clef, autoStem: true })
  if (sign !== undefined) note.addModifier(new Accidental(sign))
  const fingering = new Annotation(finger)
    .setFont("'Source Sans 3 Variable'", FINGER_PT, '600')
    .setVerticalJustification(AnnotationVerticalJustify.TOP)
  return note.addModifier(fingering)
}

/** Bars by line, at least one on each. */
function rowsOf({ bars, signature }: Score, width: number): (readonly ScoreNote[])[][] {
  const room = width - CLEF_PX - SIGNATURE_PX * signsOf(signature)
  const rows: (readonly ScoreNote[])[][] = []
  let used = Infinity
  for (const bar of bars) {
    const needs = bar.length * NOTE_PX
    if (used + needs > room) {
      rows.push([])
      used = 0
    }
    rows.at(-1)!.push(bar)
    used += needs
  }
  return rows
}

const SIGNS: Record<string, number> = { C: 0, G: 1, F: 1, D: 2, Bb: 2, A: 3, Eb: 3, E: 4, Ab: 4, B: 5, Db: 5 }

function signsOf(signature: string): number {
  return SIGNS[signature] ?? 7
}
