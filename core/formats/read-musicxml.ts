import { THUMB, type Digit } from '../instrument'
import { LETTERS, transpose, type Letter, type Note } from '../pitch'

/** A note of a file as it sounds, with the finger that stands at it. */
export interface ReadNote {
  readonly note: Note
  readonly finger: Digit | undefined
}

export type MusicXmlFault =
  /** `line` of the file, where the reader knows it. */
  | { readonly code: 'not_xml'; readonly line: number | undefined }
  | { readonly code: 'compressed' }
  /** XML of something else, or scored by time. */
  | { readonly code: 'not_partwise' }
  | { readonly code: 'no_notes' }
  /** A quarter tone: no finger is taught for it here. */
  | { readonly code: 'microtone'; readonly measure: string }
  | { readonly code: 'too_large' }

export type ReadMusicXml =
  | {
      readonly ok: true
      readonly title: string | undefined
      readonly notes: readonly ReadNote[]
      /** Notes that a single line has no room for: of chords, other voices, and graces. */
      readonly leftOut: number
    }
  | { readonly ok: false; readonly fault: MusicXmlFault }

const LARGEST = 2_000_000
/** A zipped file begins so (APPNOTE.TXT, PKWARE: local file header). */
const ZIPPED = 'PK'

interface XmlNote {
  readonly grace?: unknown
  readonly chord?: unknown
  readonly voice?: string
  readonly pitch?: { readonly step?: string; readonly alter?: string; readonly octave?: string }
  readonly tie?: readonly { readonly '@_type'?: string }[]
  readonly notations?: readonly { readonly technical?: readonly XmlTechnical[] }[]
}
interface XmlTechnical {
  readonly fingering?: readonly unknown[]
  readonly 'open-string'?: unknown
  readonly 'thumb-position'?: unknown
}
interface XmlTranspose {
  readonly diatonic?: string
  readonly chromatic?: string
  readonly 'octave-change'?: string
}
interface XmlMeasure {
  readonly '@_number'?: string
  readonly attributes?: readonly { readonly transpose?: XmlTranspose }[]
  readonly note?: readonly XmlNote[]
}
interface XmlScore {
  readonly work?: { readonly 'work-title'?: string }
  readonly 'movement-title'?: string
  readonly part?: readonly { readonly measure?: readonly XmlMeasure[] }[]
}

const MANY = new Set(['part', 'measure', 'note', 'tie', 'notations', 'technical', 'attributes', 'fingering'])

/**
 * The first voice of the first part of a MusicXML file as it sounds, with its fingers; lengths and rests are passed over, tied notes are
 * one. Source: W3C Music Notation Community Group, MusicXML 4.0 (2021), `score-partwise`, uncompressed.
 */
export async function readMusicXml(text: string): Promise<ReadMusicXml> {
  const fail = (fault: MusicXmlFault): ReadMusicXml => ({ ok: false, fault })
  if (text.startsWith(ZIPPED)) return fail({ code: 'compressed' })
  if (text.length > LARGEST) return fail({ code: 'too_large' })
  // Wanted only when somebody brings a line in.
  const { XMLParser, XMLValidator } = await import('fast-xml-parser')
  const valid = XMLValidator.validate(text)
  if (valid !== true) return fail({ code: 'not_xml', line: valid.err.line })
  const parser = new XMLParser({
    ignoreAttributes: false,
    parseTagValue: false,
    isArray: (name) => MANY.has(name),
  })
  let score: XmlScore | undefined
  try {
    score = (parser.parse(text) as Record<string, XmlScore | undefined>)['score-partwise']
  } catch {
    // The one checks less of a head than the other reads.
    return fail({ code: 'not_xml', line: undefined })
  }
  if (!score) return fail({ code: 'not_partwise' })
  const notes: ReadNote[] = []
  let leftOut = 0
  let voice: string | undefined
  let moved: XmlTranspose | undefined
  for (const measure of score.part?.[0]?.measure ?? []) {
    moved = measure.attributes?.find((one) => one.transpose)?.transpose ?? moved
    for (const one of measure.note ?? []) {
      if (!one.pitch) continue
      voice ??= one.voice
      if (one.grace !== undefined || one.chord !== undefined || one.voice !== voice) {
        leftOut++
        continue
      }
      if (one.tie?.some((tie) => tie['@_type'] === 'stop')) continue
      const written = noteOf(one.pitch)
      if (!written) return fail({ code: 'microtone', measure: measure['@_number'] ?? '?' })
      notes.push({ note: sounding(written, moved), finger: fingerOf(one) })
    }
  }
  if (notes.length === 0) return fail({ code: 'no_notes' })
  const title = score.work?.['work-title'] ?? score['movement-title']
  return { ok: true, title: typeof title === 'string' ? title : undefined, notes, leftOut }
}

function noteOf({ step = '', alter = '0', octave = '' }: NonNullable<XmlNote['pitch']>): Note | undefined {
  const accidental = Number(alter)
  const isNote = LETTERS.includes(step as Letter) && /^\d$/.test(octave)
  if (!isNote || !Number.isInteger(accidental) || Math.abs(accidental) > 2) return undefined
  return { letter: step as Letter, accidental, octave: Number(octave) }
}

function sounding(note: Note, moved: XmlTranspose | undefined): Note {
  if (!moved) return note
  const octaves = Number(moved['octave-change'] ?? 0)
  const chromatic = Number(moved.chromatic ?? 0)
  // Without letters to move by, the nearest that there are: seven letters to twelve half steps.
  const steps = Number(moved.diatonic ?? Math.round((chromatic * 7) / 12))
  return transpose(note, { steps: steps + 7 * octaves, semitones: chromatic + 12 * octaves })
}

function fingerOf({ notations }: XmlNote): Digit | undefined {
  for (const technical of (notations ?? []).flatMap((one) => one.technical ?? [])) {
    if (technical['thumb-position'] !== undefined) return THUMB
    if (technical['open-string'] !== undefined) return 0
    const [first] = technical.fingering ?? []
    const text =
      typeof first === 'string' ? first : ((first as { '#text'?: string } | undefined)?.['#text'] ?? '')
    const digit = /^x?([0-4])$/.exec(text.trim())?.[1]
    if (digit !== undefined) return Number(digit) as Digit
  }
  return undefined
}
