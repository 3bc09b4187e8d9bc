import { THUMB, type Position } from '../instrument'
import type { ModeId } from '../key'
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
/** Modes by the names that the format has; the others have none. */
const MODES: Partial<Record<ModeId, string>> = {
  major: 'major',
  natural_minor: 'minor',
  harmonic_minor: 'minor',
  melodic_minor: 'minor',
  dorian: 'dorian',
  phrygian: 'phrygian',
  lydian: 'lydian',
  mixolydian: 'mixolydian',
  locrian: 'locrian',
  major_pentatonic: 'major',
  minor_pentatonic: 'minor',
}
const BEATS = 4
const TYPES = { quarter: 'quarter', eighth: 'eighth', sixteenth: '16th' } as const

/** What stands over a note in letters. */
export interface MusicXmlWords {
  readonly title: string
  readonly instrument: string
  /** A position and, where it has two, its place: `lower 2nd`. */
  position(position: Position, place: ScoreNote['place']): string
}

/**
 * A line as MusicXML 4.0, uncompressed, with fingers, strings, positions, shifts, thumb, harmonics and octave lines. Source:
 * W3C Music Notation Community Group, MusicXML 4.0 (2021). Strings are counted from the highest, as the format has it; a bass
 * is transposed an octave; under an octave line a note keeps its own octave. The format has no position: it stands in words over
 * its note, and a shift among the other technical marks. Rests fill the last bar.
 */
export async function writeMusicXml(score: Score, words: MusicXmlWords): Promise<string> {
  // Wanted only when somebody saves a line.
  const { XMLBuilder } = await import('fast-xml-parser')
  const builder = new XMLBuilder({ preserveOrder: true, ignoreAttributes: false, format: true })
  const bars = score.bars.map((bar, index) =>
    element(
      'measure',
      [
        ...(index === 0 ? [attributes(score)] : []),
        ...bar.flatMap((note) => notes(note, score, words)),
        ...(index === score.bars.length - 1 ? rests(bar.length, score) : []),
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
      element('work', [element('work-title', words.title)]),
      element('identification', [element('encoding', [element('software', 'Jadefell')])]),
      element('part-list', [element('score-part', [element('part-name', words.instrument)], { id: 'P1' })]),
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

function attributes({ clef, signs, mode, family }: Score): Element {
  const { writtenOctavesUp } = techniqueOf(family)
  const transposed = [
    element('diatonic', 0),
    element('chromatic', 0),
    element('octave-change', -writtenOctavesUp),
  ]
  return element('attributes', [
    element('divisions', DIVISIONS),
    element('key', [
      element('fifths', signs),
      ...(MODES[mode] === undefined ? [] : [element('mode', MODES[mode])]),
    ]),
    element('time', [element('beats', BEATS), element('beat-type', 4)]),
    clefOf(clef),
    ...(writtenOctavesUp === 0 ? [] : [element('transpose', transposed)]),
  ])
}

function clefOf(clef: Clef): Element {
  const [sign, line] = CLEFS[clef]
  return element('clef', [element('sign', sign), element('line', line)])
}

function notes(note: ScoreNote, score: Score, words: MusicXmlWords): Element[] {
  const all = score.bars.flat()
  const isOttava = (index: number) => all[index]?.isOttava ?? false
  const { index, position, place, second, string } = note
  return [
    ...(note.clef ? [element('attributes', [clefOf(note.clef)])] : []),
    ...(note.isOttava && !isOttava(index - 1) ? [octaveShift('down')] : []),
    ...(position
      ? [above(element('words', words.position(position, place), { 'font-style': 'italic' }))]
      : []),
    head(note, score, false),
    // Of two notes the upper one lies on the next string.
    ...(second
      ? [
          head(
            {
              ...second,
              isExtended: false,
              isShift: false,
              string: string === undefined ? undefined : string - 1,
            },
            score,
            true,
          ),
        ]
      : []),
    ...(note.isOttava && !isOttava(index + 1) ? [octaveShift('stop')] : []),
  ]
}

function above(mark: Element): Element {
  return element('direction', [element('direction-type', [mark])], { placement: 'above' })
}

/** `down`: what follows is written an octave lower than it sounds. */
function octaveShift(type: 'down' | 'stop'): Element {
  return above(element('octave-shift', [], { type, size: 8, number: 1 }))
}

/** What is left of the last bar, each rest where a value of its length begins. */
function rests(written: number, { value }: Score): Element[] {
  const wholeBar = BEATS * DIVISIONS
  const found: Element[] = []
  let at = (written * DIVISIONS * 4) / VALUES[value]
  while (at < wholeBar) {
    const [type, duration] = RESTS.find(([, lasts]) => at % lasts === 0 && at + lasts <= wholeBar)!
    found.push(
      element('note', [
        element('rest', []),
        element('duration', duration),
        element('voice', 1),
        element('type', type),
      ]),
    )
    at += duration
  }
  return found
}

/** In divisions, the longest first. */
const RESTS = [
  ['half', DIVISIONS * 2],
  ['quarter', DIVISIONS],
  ['eighth', DIVISIONS / 2],
  ['16th', DIVISIONS / 4],
] as const

type Head = Pick<ScoreNote, 'written' | 'sign' | 'isCourtesy' | 'finger' | 'isExtended' | 'isShift'> &
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

function technical({ harmonic, finger, isExtended, isShift, string }: Head): Element[] {
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
    ...(isShift ? [element('other-technical', 'shift')] : []),
  ]
}
