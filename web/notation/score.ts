import {
  clefFor,
  keyOf,
  note as named,
  parseKey,
  writtenNote,
  type Clef,
  type FamilyId,
  type Key,
  type Note,
} from '#core'

/** Note values a line is written in, as parts of a whole note. */
export const VALUES = { quarter: 4, eighth: 8, sixteenth: 16 } as const
export type NoteValue = keyof typeof VALUES

/** One note on paper. */
export interface ScoreNote {
  /** Letter and octave as notation libraries write them, `f/4`: as written, not as it sounds. */
  readonly pitch: string
  /** The sign before it, beyond the signature: `#`, `b`, `n`, `##`, `bb`; missing where none is needed. */
  readonly sign: string | undefined
  readonly finger: string
}

export interface Score {
  readonly clef: Clef
  /** Name of the major key with the signature, `D`, `Bb`; C where the key has none of its own. */
  readonly signature: string
  readonly bars: readonly (readonly ScoreNote[])[]
}

const MAJOR_KEYS = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#']
const SHARPS_IN_ORDER = 'FCGDAEB'
const SIGNS: Record<string, string> = { '-2': 'bb', '-1': 'b', '0': 'n', '1': '#', '2': '##' }
/** Quarter notes in a bar. */
const BEATS = 4

/** Fingered notes as bars of four beats on the family's clef; a bass is written an octave above where it sounds. */
export function scoreOf(
  familyId: FamilyId,
  key: Key,
  notes: readonly { readonly note: Note; readonly finger: number }[],
  value: NoteValue,
): Score {
  const signs = key.signature ?? 0
  const perBar = (BEATS * VALUES[value]) / 4
  const bars: ScoreNote[][] = []
  for (let at = 0; at < notes.length; at += perBar) {
    // A sign holds to the end of its bar, on its own line or space.
    const inForce = new Map<string, number>()
    bars.push(
      notes.slice(at, at + perBar).map(({ note, finger }) => {
        const { letter, accidental, octave } = writtenNote(familyId, note)
        const place = `${letter}${octave}`
        const before = inForce.get(place) ?? signatureOf(letter, signs)
        inForce.set(place, accidental)
        return {
          pitch: `${letter.toLowerCase()}/${octave}`,
          sign: accidental === before ? undefined : SIGNS[String(accidental)],
          finger: String(finger),
        }
      }),
    )
  }
  return {
    clef: clefFor(
      familyId,
      notes.map((n) => n.note),
    ),
    signature: MAJOR_KEYS[signs + 7] ?? 'C',
    bars,
  }
}

/** The notes of a take as they were meant, in the key of its exercise; without one in none. */
export function takeScore(
  familyId: FamilyId,
  notes: readonly { readonly note: Note; readonly finger: number }[],
  keyId: string | undefined,
): Score {
  const parsed = keyId === undefined ? undefined : parseKey(keyId)
  return scoreOf(familyId, parsed?.ok ? parsed.key : keyOf(named('C4'), 'major'), notes, 'quarter')
}

/** What the signature does to a letter: 1 a sharp, −1 a flat. */
function signatureOf(letter: string, signs: number): number {
  const sharp = SHARPS_IN_ORDER.indexOf(letter)
  if (signs > 0) return sharp < signs ? 1 : 0
  return 6 - sharp < -signs ? -1 : 0
}
