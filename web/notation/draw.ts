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

const STAVE_HEIGHT = 96
const STAVE_TOP = 6
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
  renderer.resize(width, rows.length * STAVE_HEIGHT + STAVE_TOP)
  const context = renderer.getContext()
  const drawn: Element[] = []
  rows.forEach((bars, row) => {
    const head = CLEF_PX + SIGNATURE_PX * signsOf(score.signature)
    const notes = bars.reduce((sum, bar) => sum + bar.length, 0)
    // The last line is no wider than its notes need.
    const perNote = Math.min((width - head - 8) / notes, NOTE_PX * 1.7)
    let x = 0
    bars.forEach((bar, index) => {
      const own = perNote * bar.length + (index === 0 ? head : 0)
      const stave = new Stave(x, STAVE_TOP + row * STAVE_HEIGHT, own)
      if (index === 0) stave.addClef(score.clef).addKeySignature(score.signature)
      stave.setContext(context).draw()
      const staveNotes = bar.map((n) => staveNote(n, score.clef, value))
      const voice = new Voice({ numBeats: bar.length, beatValue: VALUES[value] }).addTickables(staveNotes)
      const beams = value === 'quarter' ? [] : Beam.generateBeams(staveNotes)
      new Formatter().joinVoices([voice]).formatToStave([voice], stave)
      voice.draw(context, stave)
      for (const beam of beams) beam.setContext(context).draw()
      drawn.push(...staveNotes.flatMap((n) => n.getSVGElement() ?? []))
      x += own
    })
  })
  return drawn
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
