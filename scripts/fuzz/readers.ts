import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import {
  encodeTrack,
  decodeTrack,
  exerciseBook,
  note,
  parseKey,
  parseLength,
  parseNote,
  parseScala,
  parseWav,
  parseWritten,
  readMeasure,
  readMusicXml,
  tuningSystem,
  writeWav,
} from '#core'
import { mutatedBytes, mutatedText, type Source } from '../../server/testing/mutate'
import { parseReadings } from '../../web/features/check/readings-text'
import { readPracticeFile } from '../../web/features/plan/practice-file'
import { parseInstruments } from '../../web/files/parse-instruments'
import { readBackup, sealBackup } from '../database/backup-file'

/** Something that reads what somebody typed or brought. It answers with what is wrong in its own type, and throws nothing else. */
export interface Reader {
  readonly name: string
  /** Sound ones, which are changed. */
  readonly corpus: readonly (string | Uint8Array)[]
  readonly read: (input: string | Uint8Array) => unknown
  /** What it says it throws. */
  readonly throws?: new (...of: never[]) => Error
}

export interface ReaderFuzz {
  readonly reader: string
  readonly inputs: number
  /** What it threw that it does not say, or how long it took: with what was read. */
  readonly wrong: readonly string[]
  readonly longestMs: number
}

/** The largest of these inputs has 200,000 characters; a page that stands still so long is noticed. */
const TOO_LONG_MS = 2000

const text = (input: string | Uint8Array) =>
  typeof input === 'string' ? input : new TextDecoder().decode(input)
const bytes = (input: string | Uint8Array) =>
  typeof input === 'string' ? new TextEncoder().encode(input) : input

const SCALA = `! meantone.scl\n!\n1/4-comma meantone\n 12\n!\n 76.04900\n 193.15686\n 310.26471\n 5/4\n 503.42157\n 579.47057\n 696.57843\n 25/16\n 889.73529\n 1006.84314\n 1082.89214\n 2/1\n`
const INSTRUMENTS = `Name,Family,Size,String length (mm),Strings\nQ1,violin,1/2,"278,5",G D A E\nQ2;x,cello,4/4,690,\n"Q ""3""",bass,3/4,104 cm,EADG\n`
const PRACTICE = `student,day,exercise,minutes,times\nOrla,2026-11-28,shake_out,5,\n"Zoë ""=""",2026-11-29,open_and_first,,12\n`

let folder: string | undefined
function ownFolder(): string {
  if (folder !== undefined) return folder
  const made = mkdtempSync(join(tmpdir(), 'jadefell-fuzz-'))
  process.once('exit', () => rmSync(made, { recursive: true, force: true }))
  return (folder = made)
}

export function readers(): readonly Reader[] {
  const file = join(ownFolder(), 'backup.sql')
  const book = exerciseBook([])
  const samples = Float32Array.from({ length: 600 }, (_, at) => Math.sin(at / 9) / 2)
  const track = encodeTrack({
    stepS: 0.01,
    cents: Float32Array.from({ length: 80 }, (_, at) => (at % 9 === 0 ? NaN : 100 * at)),
    levelDb: Float32Array.from({ length: 80 }, (_, at) => -at),
  })
  const musicXml = ['violin', 'clarinet', 'bass'].map((name) =>
    readFileSync(`core/formats/fixtures/${name}.musicxml`, 'utf8').slice(0, 12_000),
  )
  return [
    { name: 'parseNote', corpus: ['A4', 'B♭3', 'F##5', 'c#'], read: (input) => parseNote(text(input)) },
    {
      name: 'parseKey',
      corpus: ['D major', 'f# harmonic minor', 'Bb dorian'],
      read: (input) => parseKey(text(input)),
    },
    {
      name: 'parseLength',
      corpus: ['328', '32,8 cm', '12 7/8 in', "12-7/8''"],
      read: (input) => {
        const length = parseLength(text(input))
        if (length.ok && !Number.isFinite(length.lengthMm)) throw new Error(`read as ${length.lengthMm} mm`)
      },
    },
    {
      name: 'readMeasure',
      corpus: ['-18', '−2.5 cm', '31°'],
      read: (input) => readMeasure(text(input), 'mm'),
    },
    {
      name: 'parseWritten',
      corpus: ['D4 E F#/2 | A4/4', 'G3/0 A Bb/T'],
      read: (input) => parseWritten(text(input), note('G3')),
    },
    {
      name: 'parseReadings',
      corpus: ['-22 -20', '2 1.5 mm', 'b o b'],
      read: (input) => parseReadings(text(input), { by: 'meter' }),
    },
    {
      name: 'tuningSystem',
      corpus: ['fifths', 'just:G', 'scale:C:own:76,193,310,386,503,579,697,773,890,1007,1083,1200'],
      read: (input) => tuningSystem(text(input))?.centsAboveA4(note('C5')),
    },
    { name: 'parseScala', corpus: [SCALA], read: (input) => parseScala(text(input)) },
    { name: 'readMusicXml', corpus: musicXml, read: (input) => readMusicXml(text(input)) },
    {
      name: 'parseWav',
      corpus: [writeWav(samples, 44_100), writeWav(samples, 8000)],
      read: (input) => parseWav(bytes(input)),
    },
    { name: 'decodeTrack', corpus: [track], read: (input) => decodeTrack(bytes(input)), throws: RangeError },
    {
      name: 'parseInstruments',
      corpus: [INSTRUMENTS, new TextEncoder().encode(INSTRUMENTS.replaceAll(',', '\t'))],
      read: (input) => parseInstruments(Uint8Array.from(bytes(input)).buffer),
    },
    {
      name: 'readPracticeFile',
      corpus: [
        PRACTICE,
        JSON.stringify([
          { student: 'Orla', day: '2026-11-28', exercise: 'shake_out' },
          { student: 'Orla', cards: [] },
        ]),
      ],
      read: (input) => readPracticeFile(text(input), book, '2026-11-30'),
    },
    {
      name: 'readBackup',
      corpus: [
        new TextEncoder().encode(
          'INSERT INTO `studio` VALUES (\'a\\\'b(\',1),(2,0xAB);\n-- Jadefell, whole: {"sha256":"00","rows":{"studio":2}}\n',
        ),
      ],
      async read(input) {
        writeFileSync(file, input)
        return readBackup(file)
      },
    },
    {
      name: 'sealBackup',
      corpus: ["INSERT INTO `student` (`id`) VALUES ('a;b'),('\\\\');\nINSERT INTO `x` VALUES (1);\n"],
      async read(input) {
        // As mariadb-dump, which ends its last line.
        writeFileSync(file, `${text(input)}\n`)
        await sealBackup(file)
        const read = await readBackup(file)
        // Whatever is in a file, what was sealed is whole.
        if (!read.ok) throw new Error(`sealed, and not whole: ${read.reason}`)
      },
    },
  ]
}

/** Reads so many changed inputs with each; `of` names one reader alone. */
export async function fuzzReaders({
  inputs,
  source,
  of,
}: {
  inputs: number
  source: Source
  of?: string | undefined
}): Promise<ReaderFuzz[]> {
  const told: ReaderFuzz[] = []
  for (const reader of readers()) {
    if (of !== undefined && reader.name !== of) continue
    const wrong: string[] = []
    let longestMs = 0
    for (let nth = 0; nth < inputs; nth++) {
      const from = reader.corpus[Math.floor(source() * reader.corpus.length)]!
      // Of text, some comes as the bytes that it is in a file.
      const input = typeof from === 'string' ? mutatedText(source, from) : mutatedBytes(source, from)
      const began = performance.now()
      try {
        await reader.read(input)
      } catch (error) {
        if (!reader.throws || !(error instanceof reader.throws))
          wrong.push(`${(error as Error).stack?.split('\n').slice(0, 3).join(' ')} of ${shown(input)}`)
      }
      const tookMs = performance.now() - began
      longestMs = Math.max(longestMs, tookMs)
      if (tookMs > TOO_LONG_MS) wrong.push(`${Math.round(tookMs)} ms for ${shown(input)}`)
    }
    told.push({ reader: reader.name, inputs, wrong, longestMs })
  }
  return told
}

function shown(input: string | Uint8Array): string {
  return (typeof input === 'string' ? JSON.stringify(input) : Buffer.from(input).toString('base64')).slice(
    0,
    1500,
  )
}
