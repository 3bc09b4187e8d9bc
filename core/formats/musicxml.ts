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
export async function writeMusicXml(score: Score, title: string, instrument: string): Promise<string> {
  // Wanted only when somebody saves a line.
  const { XMLBuilder } = await import('fast-xml-parser')
  const builder = new XMLBuilder({ preserveOrder: true, ignoreAttributes: false, format: true })
  const bars = score.bars.map((bar, index) =>
    element(
      'measure',
      [
        ...(index === 0 ? [attributes(score)] : []),
        ...bar.flatMap((note) => notes(note, score)),
        ...(index === score.bars.length - 1
          ? [element('barline', [element('bar-style', 'light-heavy')], { location: 'right' })]
          : []),
      ],
      { number: index + 1 },
    ),
  )
  const root = element(
    'score-partwise',
    [
      element('work', [element('work-title', title)]),
      element('identification', [element('encoding', [element('software', 'Jadefell')])]),
      element('part-list', [element('score-part', [element('part-name', instrument)], { id: 'P1' })]),
      element('part', bars, { id: 'P1' }),
    ],
    { version: '4.0' },
  )
  return `<?xml version="1.0" encoding="UTF-8"?>${builder.build([root])}\n`
}

/** An element as the builder takes it: its children in order, and its attributes. */
type Element = Readonly<Record<string, unknown>>

function element(
  name: string,
  content: string | number | readonly Element[],
  given: Readonly<Record<string, string | number>> = {},
): Element {
  const attributes = Object.fromEntries(Object.entries(given).map(([key, value]) => [`@_${key}`, value]))
  return { [name]: typeof content === 'object' ? content : [{ '#text': String(content) }], ':@': attributes }
}

function attributes({ clef, signs, family }: Score): Element {
  const { writtenOctavesUp } = techniqueOf(family)
  const transposed = [
    element('diatonic', 0),
    element('chromatic', 0),
    element('octave-change', -writtenOctavesUp),
  ]
  return element('attributes', [
    element('divisions', DIVISIONS),
    element('key', [element('fifths', signs)]),
    element('time', [element('beats', 4), element('beat-type', 4)]),
    clefOf(clef),
    ...(writtenOctavesUp === 0 ? [] : [element('transpose', transposed)]),
  ])
}

function clefOf(clef: Clef): Element {
  const [sign, line] = CLEFS[clef]
  return element('clef', [element('sign', sign), element('line', line)])
}

function notes(note: ScoreNote, score: Score): Element[] {
  return [
    ...(note.clef ? [element('attributes', [clefOf(note.clef)])] : []),
    head(note, score, false),
    ...(note.second ? [head({ ...note.second, isExtended: false }, score, true)] : []),
  ]
}

type Head = Pick<ScoreNote, 'written' | 'sign' | 'isCourtesy' | 'finger' | 'isExtended'> &
  Partial<Pick<ScoreNote, 'string' | 'harmonic'>>

function head(note: Head, { value }: Score, isUpper: boolean): Element {
  const { letter, accidental, octave } = note.written
  return element('note', [
    ...(isUpper ? [element('chord', [])] : []),
    element('pitch', [
      element('step', letter),
      ...(accidental === 0 ? [] : [element('alter', accidental)]),
      element('octave', octave),
    ]),
    element('duration', (DIVISIONS * 4) / VALUES[value]),
    element('voice', 1),
    element('type', TYPES[value]),
    ...(note.sign
      ? [element('accidental', ACCIDENTALS[note.sign], note.isCourtesy ? { cautionary: 'yes' } : {})]
      : []),
    element('notations', [element('technical', technical(note))]),
  ])
}

function technical({ harmonic, finger, isExtended, string }: Head): Element[] {
  const played =
    finger === THUMB
      ? element('thumb-position', [])
      : finger === 0
        ? element('open-string', [])
        : element('fingering', `${isExtended ? 'x' : ''}${finger}`)
  return [
    ...(harmonic ? [element('harmonic', [element('natural', [])])] : []),
    played,
    ...(string === undefined ? [] : [element('string', string)]),
  ]
}
