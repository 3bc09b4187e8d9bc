/** A number from 0 to below 1, the same ones for the same seed. */
export type Source = () => number

const pick = <T>(source: Source, from: readonly T[]): T => from[Math.floor(source() * from.length)]!

/** What breaks readers: ends of ranges, signs, other scripts, halves of characters, what another language would run. */
const TEXTS = [
  '',
  ' ',
  '0',
  '-1',
  '1e999',
  'NaN',
  'null',
  'undefined',
  '__proto__',
  'constructor',
  '\u0000',
  '\u200b',
  '\ud800',
  '\udfff',
  '\u202e',
  'ﬁ',
  'İ',
  '𝄫',
  '¼',
  '１２',
  "' OR 1=1 -- ",
  '%s%n',
  '${7*7}',
  '<script>',
  '&amp;&#0;',
  '../../etc/passwd',
  '=1+1',
  '\r\n',
  '{',
  '[',
  '"',
  '9'.repeat(400),
  'a'.repeat(5000),
  '2026-02-30',
  '0000-00-00',
  '9999-12-31T23:59:59.999Z',
  '00000000-0000-7000-8000-000000000000',
]

const VALUES: readonly unknown[] = [
  ...TEXTS,
  null,
  true,
  false,
  0,
  -0,
  -1,
  1,
  0.1,
  1e308,
  -1e308,
  5e-324,
  2 ** 31,
  2 ** 53,
  -(2 ** 63),
  [],
  {},
  [null],
  [[]],
  { length: -1 },
  { toString: 1 },
]

/** A text with a few things done to it. */
export function mutatedText(source: Source, text: string): string {
  let now = text
  for (let times = 1 + Math.floor(source() * 4); times > 0; times--) {
    const at = Math.floor(source() * (now.length + 1))
    const to = Math.min(now.length, at + Math.floor(source() * 12))
    const kind = Math.floor(source() * 6)
    if (kind === 0) now = now.slice(0, at) + now.slice(to)
    else if (kind === 1) now = now.slice(0, at) + pick(source, TEXTS) + now.slice(at)
    else if (kind === 2) now = now.slice(0, to) + now.slice(at)
    else if (kind === 3)
      now = now.slice(0, at) + String.fromCharCode(Math.floor(source() * 0x1_00_00)) + now.slice(at + 1)
    else if (kind === 4) now = now.slice(0, at)
    else now = now.slice(0, at) + now.slice(at, to).repeat(1 + Math.floor(source() * 40)) + now.slice(to)
  }
  return now.slice(0, 200_000)
}

/** Bytes with a few things done to them. */
export function mutatedBytes(source: Source, bytes: Uint8Array): Uint8Array<ArrayBuffer> {
  let now = Uint8Array.from(bytes)
  for (let times = 1 + Math.floor(source() * 6); times > 0; times--) {
    // Heads say how the rest is read: half of what is done is done there.
    const reach = source() < 0.5 ? Math.min(64, now.length) : now.length
    const at = Math.floor(source() * (reach + 1))
    const kind = Math.floor(source() * 5)
    if (kind === 0 && at < now.length) now[at] = (now[at] ?? 0) ^ (1 << Math.floor(source() * 8))
    else if (kind === 1 && at < now.length) now[at] = pick(source, [0, 1, 127, 128, 255])
    else if (kind === 2) now = now.slice(0, at)
    else if (kind === 3)
      now = Uint8Array.from([...now.slice(0, at), ...now.slice(at + 1 + Math.floor(source() * 8))])
    else now.fill(pick(source, [0, 255]), at, at + 4)
  }
  return now
}

/** A JSON value with one or two of its parts changed, taken away, doubled or put elsewhere. */
export function mutatedJson(source: Source, value: unknown): unknown {
  const now: unknown = structuredClone(value)
  const holder: { root: unknown } = { root: now }
  for (let times = 1 + Math.floor(source() * 2); times > 0; times--) {
    const [parent, key] = pick(source, placesIn(holder, 'root'))
    const old = (parent as Record<string, unknown>)[key]
    // What is drawn is not shared: another draw would change it.
    const put = (next: unknown) => void ((parent as Record<string, unknown>)[key] = structuredClone(next))
    const kind = Math.floor(source() * 6)
    if (kind === 0 && parent !== holder) delete (parent as Record<string, unknown>)[key]
    else if (kind === 1) put(typeof old === 'string' ? mutatedText(source, old) : pick(source, VALUES))
    else if (kind === 2)
      put(typeof old === 'number' ? old * pick(source, [-1, 0, 0.5, 10, 1e6, NaN]) : pick(source, VALUES))
    else if (kind === 3) put([old])
    else if (kind === 4 && Array.isArray(old))
      put(Array.from({ length: 300 }, () => structuredClone(old[0]) as unknown))
    else put(pick(source, VALUES))
  }
  return holder.root
}

type Place = readonly [parent: object, key: string]

function placesIn(parent: object, key: string): Place[] {
  const value = (parent as Record<string, unknown>)[key]
  const below =
    typeof value === 'object' && value !== null
      ? Object.keys(value).flatMap((inner) => placesIn(value, inner))
      : []
  return [[parent, key], ...below]
}
