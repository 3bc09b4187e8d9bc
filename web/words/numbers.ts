/** A place or distance: mm to one decimal, with a real minus. */
export function mm(value: number): string {
  return withMinus(tenths(value))
}

/** Whole cents with their sign: `+3`, `−22`, `0`. */
export function signedCents(value: number): string {
  const rounded = Math.round(value)
  return rounded > 0 ? `+${rounded}` : withMinus(String(rounded === 0 ? 0 : rounded))
}

/** `+0.4` or `−2.4`, mm. */
export function signedMm(value: number): string {
  const text = tenths(value)
  return Number(text) === 0 ? '0.0' : value > 0 ? `+${text}` : withMinus(text)
}

/** `22 cents flat`, `1 cent sharp`, `in tune`: told by word, whatever the colour. */
export function sharpOrFlat(cents: number): string {
  const rounded = Math.round(cents)
  if (rounded === 0) return 'in tune'
  return `${count(Math.abs(rounded), 'cent')} ${rounded > 0 ? 'sharp' : 'flat'}`
}

export function count(n: number, thing: string): string {
  return `${n} ${thing}${n === 1 ? '' : 's'}`
}

/** `1, 2 and 3` */
export function listed(items: readonly (string | number)[]): string {
  return items.length < 2 ? items.join('') : `${items.slice(0, -1).join(', ')} and ${items.at(-1)}`
}

/** Half a tenth goes up, also where the last bit of a sum has fallen short of it: 551 / 4 is 137.8 on every string. */
function tenths(value: number): string {
  return (value + Math.sign(value) * 1e-9).toFixed(1)
}

function withMinus(text: string): string {
  return Number(text) === 0 ? text.replace('-', '') : text.replace('-', '−')
}
