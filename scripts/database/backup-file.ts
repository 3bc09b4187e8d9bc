import { createHash } from 'node:crypto'
import { appendFileSync, closeSync, createReadStream, fstatSync, openSync, readSync } from 'node:fs'
import { isSigned, type Signed, type Signer } from './signing'

/** What the last line of a backup says of everything before it. */
export interface BackupSeal {
  /** Of all bytes before the line. */
  readonly sha256: string
  /** Rows by table. */
  readonly rows: Readonly<Record<string, number>>
  /** Of the two above, by whoever wrote it. */
  readonly signed?: Signed
}

const SEAL = '-- Jadefell, whole: '
/** The last thing that mariadb-dump writes without comments: backups of before there were seals end so. */
const LAST_OF_DUMP = /^(\/\*M?!\d+ SET (SQL_NOTES|NOTE_VERBOSITY)=@OLD_\w+ \*\/;|-- Dump completed.*)$/
const MOST_SEAL_BYTES = 64 * 1024

/** Reads a dump once, however large, and writes beneath it what it holds. */
export async function sealBackup(file: string, signer?: Signer): Promise<BackupSeal> {
  const measured = await measure(file, Infinity)
  const seal: BackupSeal = signer
    ? { ...measured, signed: { publicKey: signer.publicKey, signature: signer.sign(signedText(measured)) } }
    : measured
  appendFileSync(file, `${SEAL}${JSON.stringify(seal)}\n`)
  return seal
}

const signedText = ({ sha256, rows }: BackupSeal) => JSON.stringify({ sha256, rows })

/** Who signed it, as far as this installation knows. */
export type SignedBy = 'this' | 'another' | 'nobody'

export type ReadBackup =
  | { readonly ok: true; readonly seal: BackupSeal | undefined; readonly signedBy: SignedBy }
  | { readonly ok: false; readonly reason: string }

/** Whether a file is a backup, all of it, as it was written, and by whom; `ownKey` is this installation's. One of before there were seals is only seen to have its end. */
export async function readBackup(file: string, ownKey?: string): Promise<ReadBackup> {
  const last = lastLine(file)
  if (!last.text.startsWith(SEAL))
    return LAST_OF_DUMP.test(last.text)
      ? { ok: true, seal: undefined, signedBy: 'nobody' }
      : { ok: false, reason: 'it is not a whole backup of npm run db:backup: its last line is missing' }
  let seal: BackupSeal
  try {
    seal = JSON.parse(last.text.slice(SEAL.length)) as BackupSeal
  } catch {
    return { ok: false, reason: 'its last line is cut short' }
  }
  const found = await measure(file, last.at)
  const changed = {
    ok: false,
    reason: 'it is not as it was written: something in it was changed or damaged',
  } as const
  if (found.sha256 !== seal.sha256) return changed
  const { signed } = seal
  if (signed && !isSigned(signedText(seal), signed)) return changed
  return { ok: true, seal, signedBy: !signed ? 'nobody' : signed.publicKey === ownKey ? 'this' : 'another' }
}

function lastLine(file: string): { readonly text: string; readonly at: number } {
  const descriptor = openSync(file, 'r')
  try {
    const { size } = fstatSync(descriptor)
    const tail = Buffer.alloc(Math.min(size, MOST_SEAL_BYTES))
    readSync(descriptor, tail, 0, tail.length, size - tail.length)
    // mariadb-dump leaves an empty line behind its last one.
    let end = tail.length
    while (end > 0 && tail[end - 1] === 0x0a) end--
    const begin = tail.lastIndexOf(0x0a, end - 1) + 1
    return { text: tail.subarray(begin, end).toString(), at: size - tail.length + begin }
  } finally {
    closeSync(descriptor)
  }
}

const [QUOTE, BACKSLASH, OPEN, CLOSE, NEWLINE, BACKTICK, SEMICOLON] = [
  0x27, 0x5c, 0x28, 0x29, 0x0a, 0x60, 0x3b,
]
const INSERT = 'INSERT INTO `'
const VALUES = 'VALUES'
/** Of a statement, until its table is named. */
const MOST_HEAD = 100

/** Hash and rows of the first `length` bytes. A row is a bracket outside quotes in a statement that inserts. */
async function measure(file: string, length: number): Promise<BackupSeal> {
  const hash = createHash('sha256')
  const rows: Record<string, number> = {}
  let head = ''
  let table: string | undefined
  let depth = 0
  let isQuoted = false
  let isEscaped = false
  const end = Number.isFinite(length) ? { end: length - 1 } : {}
  if (length === 0) return { sha256: hash.digest('hex'), rows }
  for await (const chunk of createReadStream(file, end) as AsyncIterable<Buffer>) {
    hash.update(chunk)
    for (const byte of chunk) {
      if (isEscaped) isEscaped = false
      else if (isQuoted) {
        if (byte === BACKSLASH) isEscaped = true
        else if (byte === QUOTE) isQuoted = false
      } else if (byte === SEMICOLON) {
        head = ''
        table = undefined
        depth = 0
      } else if (table === undefined) {
        if (byte === QUOTE) isQuoted = true
        if (head.length >= MOST_HEAD || (head === '' && byte === NEWLINE)) continue
        head += String.fromCharCode(byte)
        if (byte === BACKTICK && head.startsWith(INSERT) && head.length > INSERT.length) {
          table = head.slice(INSERT.length, -1)
          rows[table] ??= 0
          head = ''
        }
      } else if (!head.endsWith(VALUES))
        // Names of columns may stand in brackets before them.
        head = head.slice(-VALUES.length) + String.fromCharCode(byte)
      else if (byte === QUOTE) isQuoted = true
      else if (byte === OPEN) {
        if (depth === 0) rows[table] = (rows[table] ?? 0) + 1
        depth++
      } else if (byte === CLOSE) depth--
    }
  }
  return { sha256: hash.digest('hex'), rows }
}
