import {
  HIGHEST_STRING_MM,
  noteName,
  type Note,
  type ParsedLength,
  type PressingFault,
  type TuningFault,
} from '#core'

/** Sentences that the server says of what it is sent and the page says while it is typed: what is wrong, and what to do. */

const UNREADABLE: Record<Extract<ParsedLength, { ok: false }>['code'], string> = {
  length_empty: 'Type the string length, from the nut to the top of the bridge, as in 328 or 12 7/8 in.',
  length_not_a_number: 'Type a length, as in 328, 32.8 cm or 12 7/8 in.',
  length_not_positive: 'A string is longer than nothing: type what the ruler shows from nut to bridge.',
}

export function unreadableLength({ code }: Extract<ParsedLength, { ok: false }>): string {
  return UNREADABLE[code]
}

/** Of lengths measured string by string that no one instrument has together, mm. */
export function contradictoryLengths(shortestMm: number, longestMm: number): string {
  return `${shortestMm.toFixed(1)} and ${longestMm.toFixed(1)} mm cannot be on one instrument: measure each string again from the nut to the bridge.`
}

const HEIGHTS: Record<PressingFault, string> = {
  height_negative: 'A string does not lie under the board: give 0 mm or more.',
  height_too_large: `No string stands higher than ${HIGHEST_STRING_MM} mm over its board.`,
  height_not_a_number: 'Give the height in mm.',
}

export function heightSentence(fault: PressingFault): string {
  return HEIGHTS[fault]
}

/** Of open strings, lowest first. */
export function tuningSentence(fault: TuningFault, open: readonly Note[]): string {
  if (fault.code === 'strings_few_or_many') return `${fault.found} strings: name four to six, lowest first.`
  const [lower, higher] = [open[fault.stringIndex - 1]!, open[fault.stringIndex]!].map((n) => noteName(n))
  return fault.code === 'strings_out_of_order'
    ? `${higher} is not above ${lower}: name the strings from the lowest up.`
    : `${lower} and ${higher} are more than an octave apart: look at the octaves.`
}
