/**
 * How broad a text is at most in the bold condensed face of the printed sheets, as a share of its size: by the classes of
 * letters that differ most, rounded up. Measured on DejaVu Sans Condensed Bold 2.37; a sheet needs no font to be laid out.
 */
const CLASSES: readonly (readonly [letters: RegExp, share: number])[] = [
  [/[\s'’.,:;ijlI|!()[\]/\\·-]/, 0.42],
  [/[ftr♯♭–_`J]/, 0.46],
  [/[a-ln-vx-zLTEFP?"*$\d]/, 0.65],
  [/[A-Z&#+<=>^~]/, 0.79],
  [/[mwWM%@½]/, 1],
]
/** Of scripts that nobody measured: the widest letters of most alphabets. */
const WIDEST = 1.2

/** An upper bound of a text's width, in the unit of `size`. */
export function textWidth(text: string, size: number): number {
  let shares = 0
  for (const letter of text) shares += CLASSES.find(([letters]) => letters.test(letter))?.[1] ?? WIDEST
  return shares * size
}

/** A line of text and the size it is set in. */
export interface FittedText {
  readonly text: string
  readonly size: number
}

/** One line no wider than `width`: smaller letters down to `least`, and then the end left off. */
export function fittedLine(text: string, width: number, size: number, least: number): FittedText {
  const fits = width / textWidth(text, 1)
  if (fits >= least) return { text, size: Math.min(size, fits) }
  const letters = [...text]
  while (letters.length > 1 && textWidth(`${letters.join('')}…`, least) > width) letters.pop()
  return { text: `${letters.join('').trimEnd()}…`, size: least }
}

/** Lines no wider than `width`, broken between words, `most` of them; what is left over is cut off the last. */
export function fittedLines(text: string, width: number, size: number, most: number): string[] {
  const lines: string[] = []
  for (const word of text.split(' ')) {
    const longer = lines.length === 0 ? word : `${lines.at(-1)} ${word}`
    if (lines.length > 0 && (textWidth(longer, size) <= width || lines.length === most))
      lines[lines.length - 1] = longer
    else lines.push(word)
  }
  return lines.map((line) => fittedLine(line, width, size, size).text)
}
