import { create } from 'xmlbuilder2'
import { THUMB } from '../instrument'
import { VALUES, type Score, type ScoreNote, type Sign } from '../score'
import { techniqueOf, type Clef } from '../technique'

/** A quarter in divisions: a sixteenth is the shortest note written. */
const DIVISIONS = 4

const CLEFS: Record<Clef, readonly [sign: string, line: number]> = {
  treble: ['G', 2],
  alto: ['C', 3],
  tenor: ['C', 4],
  bass: ['F', 4],
}
const ACCIDENTALS: Record<Sign, string> = {
  '#': 'sharp',
  b: 'flat',
  n: 'natural',
  '##': 'double-sharp',
  bb: 'flat-flat',
}
const TYPES = { quarter: 'quarter', eighth: 'eighth', sixteenth: '16th' } as const

/**
 * A line as MusicXML 4.0, uncompressed, with fingers, strings, thumb and harmonics. Source: W3C Music Notation Community
 * Group, MusicXML 4.0 (2021). Strings are counted from the highest, as the format has it; a bass is transposed an octave.
 */
export function writeMusicXml(score: Score, title: string, instrument: string): string {
  const root = create({ version: '1.0', encoding: 'UTF-8' }).ele('score-partwise', { version: '4.0' })
  root.ele('work').ele('work-title').txt(title)
  root.ele('identification').ele('encoding').ele('software').txt('Jadefell')
  root.ele('part-list').ele('score-part', { id: 'P1' }).ele('part-name').txt(instrument)
  const part = root.ele('part', { id: 'P1' })
  score.bars.forEach((bar, index) => {
    const measure = part.ele('measure', { number: index + 1 })
    if (index === 0) attributes(measure, score)
    for (const note of bar) {
      if (note.clef) clefOf(measure.ele('attributes'), note.clef)
      noteOf(measure, note, score)
    }
    if (index === score.bars.length - 1)
      measure.ele('barline', { location: 'right' }).ele('bar-style').txt('light-heavy')
  })
  return root.end({ prettyPrint: true })
}

type Element = ReturnType<ReturnType<typeof create>['ele']>

function attributes(measure: Element, { clef, signs, family }: Score): void {
  const own = measure.ele('attributes')
  own.ele('divisions').txt(String(DIVISIONS))
  own.ele('key').ele('fifths').txt(String(signs))
  const time = own.ele('time')
  time.ele('beats').txt('4')
  time.ele('beat-type').txt('4')
  clefOf(own, clef)
  const { writtenOctavesUp } = techniqueOf(family)
  if (writtenOctavesUp === 0) return
  const transposed = own.ele('transpose')
  transposed.ele('diatonic').txt('0')
  transposed.ele('chromatic').txt('0')
  transposed.ele('octave-change').txt(String(-writtenOctavesUp))
}

function clefOf(attributes: Element, clef: Clef): void {
  const [sign, line] = CLEFS[clef]
  const own = attributes.ele('clef')
  own.ele('sign').txt(sign)
  own.ele('line').txt(String(line))
}

function noteOf(measure: Element, note: ScoreNote, score: Score): void {
  headOf(measure, note, score, false)
  if (note.second) headOf(measure, { ...note.second, isExtended: false }, score, true)
}

type Head = Pick<ScoreNote, 'written' | 'sign' | 'isCourtesy' | 'finger' | 'isExtended'> &
  Partial<Pick<ScoreNote, 'string' | 'harmonic'>>

function headOf(measure: Element, note: Head, { value }: Score, isUpper: boolean): void {
  const { written, sign, isCourtesy, finger, string, harmonic } = note
  const own = measure.ele('note')
  if (isUpper) own.ele('chord')
  const pitch = own.ele('pitch')
  pitch.ele('step').txt(written.letter)
  if (written.accidental !== 0) pitch.ele('alter').txt(String(written.accidental))
  pitch.ele('octave').txt(String(written.octave))
  own.ele('duration').txt(String((DIVISIONS * 4) / VALUES[value]))
  own.ele('voice').txt('1')
  own.ele('type').txt(TYPES[value])
  if (sign) own.ele('accidental', isCourtesy ? { cautionary: 'yes' } : {}).txt(ACCIDENTALS[sign])
  const technical = own.ele('notations').ele('technical')
  if (harmonic) technical.ele('harmonic').ele('natural')
  if (finger === THUMB) technical.ele('thumb-position')
  else if (finger === 0) technical.ele('open-string')
  else technical.ele('fingering').txt(`${note.isExtended ? 'x' : ''}${finger}`)
  if (string !== undefined) technical.ele('string').txt(String(string))
}
