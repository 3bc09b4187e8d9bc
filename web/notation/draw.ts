import bravura from '@vexflow-fonts/bravura/bravura.woff2?url'
import {
  Accidental,
  BarlineType,
  Beam,
  ClefNote,
  Font,
  Formatter,
  Renderer,
  Stave,
  StaveNote,
  Voice,
  VexFlow,
  type RenderContext,
} from 'vexflow/core'
import { VALUES, type Clef, type Score, type ScoreNote } from '#core'
import { inkOf } from './ink'
import { drawMarks, type PlacedNote } from './marks'
import { BAR_NOTES, CLEF_NOTES, headPx, NOTE_PX, rowsOf, type Row } from './rows'

/** Between the ink of one line and that of the next, and round it all. */
const BETWEEN_ROWS = 14
const EDGE = 6
const WIDEST_NOTE_PX = NOTE_PX * 1.7

/** The major keys from seven flats to seven sharps, as the library names them. */
const MAJOR_KEYS = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#']

let ready: Promise<void> | undefined

/** The music face, from the application itself. */
function loadFont(): Promise<void> {
  ready ??= Font.load('Bravura', bravura).then(() => VexFlow.setFonts('Bravura'))
  return ready
}

/** What was drawn of one note: its head, and everything written beside it. */
export interface DrawnNote {
  readonly parts: readonly Element[]
  /** Covers the note from the top of its line to the bottom. */
  readonly hit: SVGRectElement
}

/**
 * Draws a score into an empty element of `width` pixels, as many bars a line as have room, each line as high as its own ink.
 * Returns what was drawn of every note, in order.
 */
export async function drawScore(element: HTMLDivElement, score: Score, width: number): Promise<DrawnNote[]> {
  await loadFont()
  await document.fonts.ready
  element.replaceChildren()
  const renderer = new Renderer(element, Renderer.Backends.SVG)
  renderer.resize(width, 10)
  const context = renderer.getContext()
  const drawn: DrawnNote[] = []
  let bottom = 0
  rowsOf(score, width).forEach((row, index) => {
    const group = context.openGroup('line') as SVGGElement
    const notes = drawRow(context, score, row, width)
    // The library's own areas for a pointer are unseen, and no ink.
    for (const unseen of group.querySelectorAll('rect[opacity="0"]')) unseen.remove()
    const parts = drawMarks(group, score, notes)
    context.closeGroup()
    const ink = inkOf(group)
    const top = bottom + (index === 0 ? EDGE : BETWEEN_ROWS)
    // A bar that is crowded with signs and clefs on a narrow page is drawn a little smaller.
    const scale = Math.min(1, (width - 1) / ink.right)
    group.setAttribute('transform', `translate(0 ${top - scale * ink.top}) scale(${scale})`)
    notes.forEach(({ x }, i) => {
      const left = i === 0 ? x - WIDEST_NOTE_PX / 2 : (notes[i - 1]!.x + x) / 2
      const right = i + 1 < notes.length ? (x + notes[i + 1]!.x) / 2 : x + WIDEST_NOTE_PX / 2
      const hit = document.createElementNS('http://www.w3.org/2000/svg', 'rect')
      const box = { x: left, y: ink.top, width: right - left, height: ink.bottom - ink.top }
      for (const [name, value] of Object.entries(box)) hit.setAttribute(name, String(value))
      hit.classList.add('hit')
      group.append(hit)
      drawn.push({ parts: parts[i]!, hit })
    })
    bottom = top + scale * (ink.bottom - ink.top)
  })
  renderer.resize(width, Math.ceil(bottom + EDGE))
  return drawn
}

function drawRow(context: RenderContext, score: Score, row: Row, width: number): PlacedNote[] {
  const head = headPx(score)
  // The last line is no wider than its notes need.
  const perSign = Math.min((width - head - 8) / row.signs, WIDEST_NOTE_PX)
  let x = 0
  let { clef } = row
  return row.bars.flatMap((bar, index) => {
    const signs = BAR_NOTES + bar.length + CLEF_NOTES * bar.filter((n) => n.clef && n.clef !== clef).length
    const own = perSign * signs + (index === 0 ? head : 0)
    const stave = new Stave(x, 0, Math.min(own, width - x - 1))
    if (row.isLast && index === row.bars.length - 1) stave.setEndBarType(BarlineType.END)
    if (index === 0) stave.addClef(clef).addKeySignature(MAJOR_KEYS[score.signs + 7]!)
    stave.setContext(context).draw()
    x += own
    const staveNotes: StaveNote[] = []
    const tickables = bar.flatMap((n) => {
      const changes = n.clef !== undefined && n.clef !== clef
      if (changes) clef = n.clef!
      const staveNote = staveNoteOf(n, clef, score)
      staveNotes.push(staveNote)
      return changes ? [new ClefNote(clef, 'small'), staveNote] : [staveNote]
    })
    const voice = new Voice({ numBeats: bar.length, beatValue: VALUES[score.value] })
    voice.setStrict(false).addTickables(tickables)
    const beams = score.value === 'quarter' ? [] : Beam.generateBeams(staveNotes)
    new Formatter().joinVoices([voice]).formatToStave([voice], stave)
    voice.draw(context, stave)
    for (const beam of beams) beam.setContext(context).draw()
    return staveNotes.map((staveNote, i) => ({
      note: bar[i]!,
      element: staveNote.getSVGElement() ?? undefined,
      x: staveNote.getAbsoluteX() + HEAD_WIDTH / 2,
      topY: Math.min(stave.getYForLine(0), topOf(staveNote)),
    }))
  })
}

/** Half a notehead's height and a whole one's width, and what a sign before it reaches over it, in px of this size of note. */
const HEAD = 6
const HEAD_WIDTH = 12
const SIGN = 16

function topOf(note: StaveNote): number {
  const hasSign = note.getModifiersByType(Accidental.CATEGORY).length > 0
  const heads = Math.min(...note.getYs()) - (hasSign ? SIGN : HEAD)
  if (!note.hasStem()) return heads
  const { topY, baseY } = note.getStemExtents()
  return Math.min(heads, topY, baseY)
}

function staveNoteOf(score: ScoreNote, clef: Clef, { value }: Score): StaveNote {
  const heads = score.second ? [score, score.second] : [score]
  const keys = heads.map(
    ({ written }) => `${written.letter.toLowerCase()}/${written.octave - (score.isOttava ? 1 : 0)}`,
  )
  const note = new StaveNote({ keys, duration: String(VALUES[value]), clef, autoStem: true })
  heads.forEach(({ sign, isCourtesy }, index) => {
    if (sign === undefined) return
    const accidental = new Accidental(sign)
    note.addModifier(isCourtesy ? accidental.setAsCautionary() : accidental, index)
  })
  return note
}
