/**
 * What spreadsheets take for the beginning of a formula, or skip before one: the signs of the OWASP cheat sheet on CSV
 * injection, in their full-width forms too, which some fold into the plain ones.
 */
const SIGNS = '=+\\-@\\t\\r\\n＝＋－＠'
const FORMULA = new RegExp(`^'*[${SIGNS}]`)
const GUARDED = new RegExp(`^'+[${SIGNS}]`)

/** Text for a table's cell that no spreadsheet runs: one apostrophe before what looks like a formula, guarded or not. */
export function guardFormula(text: string): string {
  return FORMULA.test(text) ? `'${text}` : text
}

/** The text again: one apostrophe off what {@link guardFormula} would have guarded. */
export function unguardFormula(text: string): string {
  return GUARDED.test(text) ? text.slice(1) : text
}
