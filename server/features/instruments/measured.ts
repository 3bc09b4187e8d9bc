import { v7 as uuid } from 'uuid'
import {
  familyOf,
  judgeLength,
  judgeStrings,
  parseLength,
  sizeOf,
  type Family,
  type FamilyId,
  type MeasuredLength,
  type ParsedLength,
  type Size,
} from '#core'
import { contradictoryLengths, unreadableLength } from '#contracts'
import type { HandlerInput } from '#contracts'
import type { InstrumentRow, MeasurementRow } from '../../db/rows'
import { fieldProblem, ProblemError } from '../../http/problem-error'

type Measured = Pick<MeasurementRow, 'lengthMm' | 'typed' | 'method'> &
  Partial<Pick<MeasurementRow, 'stringLengthsMm'>>
type Strung = Pick<InstrumentRow, 'family' | 'sizeId' | 'tuning'>

/** What was measured of an instrument, in mm; what cannot be, or is doubtful and not to be kept anyway, is said of its field. */
export function measuredOf(instrument: Strung, draft: HandlerInput<'measurements.create'>['body']): Measured {
  if (draft.strings) return stringByString(instrument, draft.strings, draft.keepAnyway)
  const { family, size } = kindOf(instrument)
  const typed = readLength(draft.length, 'length')
  const times = draft.method === 'harmonic' ? 2 : 1
  const parsed = { ...typed, times, lengthMm: typed.lengthMm * times } as const
  insistOnPlausible(family, size, parsed, draft.keepAnyway, 'length')
  return { lengthMm: parsed.lengthMm, typed: draft.length.trim(), method: draft.method }
}

function stringByString(instrument: Strung, texts: readonly string[], keepAnyway: boolean): Measured {
  const { family, size } = kindOf(instrument)
  const strings = texts.map((text, i) => readLength(text, `strings.${i}`))
  if (strings.length !== instrument.tuning.length)
    throw fieldProblem('strings', `Give ${instrument.tuning.length} lengths, lowest string first.`)
  const lengthsMm = strings.map((string) => string.lengthMm)
  const judged = judgeStrings(family, lengthsMm)
  if (judged.code === 'contradictory')
    throw fieldProblem('strings', contradictoryLengths(judged.shortestMm, judged.longestMm))
  const lengthMm = lengthsMm.reduce((a, b) => a + b) / lengthsMm.length
  // Where all are off alike, no one string is to blame.
  if (strings.every((string) => judgeLength(family, size, string).verdict !== 'fits'))
    insistOnPlausible(family, size, { number: lengthMm, unit: 'mm' }, keepAnyway, 'strings')
  else
    for (const [i, string] of strings.entries())
      insistOnPlausible(family, size, string, keepAnyway, `strings.${i}`)
  const typed = texts
    .map((text) => text.trim())
    .join(' ')
    .slice(0, 40)
  return { lengthMm, typed, method: 'strings', stringLengthsMm: lengthsMm }
}

/** What a row of a table says of an instrument's length, if it does; `path` is where the row lies in what was sent. */
export function measuredInRow(
  instrument: Strung,
  row: HandlerInput<'instruments.import'>['body']['rows'][number],
  path: string,
): Measured | undefined {
  if (row.length === undefined) {
    if (row.besides?.stringLengthsMm)
      throw fieldProblem(
        `${path}.length`,
        'Its strings were measured one by one: give their mean as its length.',
      )
    return undefined
  }
  const { family, size } = kindOf(instrument)
  const parsed = readLength(row.length, `${path}.length`)
  // The table was read and its doubtful lengths shown before it was sent.
  insistOnPlausible(family, size, parsed, true, `${path}.length`)
  const { method = 'bridge', stringLengthsMm: each } = row.besides ?? {}
  if (each && each.length !== instrument.tuning.length)
    throw fieldProblem(
      `${path}.besides`,
      `It has ${instrument.tuning.length} strings: give as many lengths, or none.`,
    )
  for (const lengthMm of each ?? [])
    insistOnPlausible(family, size, { number: lengthMm, unit: 'mm' }, true, `${path}.besides`)
  return {
    lengthMm: parsed.lengthMm,
    typed: row.length.trim(),
    // Measured string by string is what has the strings' lengths, and nothing else.
    method: each ? 'strings' : method === 'strings' ? 'bridge' : method,
    stringLengthsMm: each ? [...each] : null,
  }
}

export function measurementRow(
  { now, userId }: { readonly now: Date; readonly userId: string },
  instrumentId: string,
  measuredOn: string,
  measured: Measured,
): Omit<MeasurementRow, 'studioId'> {
  return { id: uuid(), instrumentId, userId, stringLengthsMm: null, recordedAt: now, measuredOn, ...measured }
}

type GoodLength = Extract<ParsedLength, { ok: true }>

function readLength(text: string, path: string): GoodLength {
  const parsed = parseLength(text)
  if (!parsed.ok) throw fieldProblem(path, unreadableLength(parsed))
  return parsed
}

function insistOnPlausible(
  family: Family,
  size: Size,
  length: MeasuredLength,
  keepAnyway: boolean,
  path: string,
): void {
  const judgement = judgeLength(family, size, length)
  if (judgement.verdict === 'fits' || (judgement.verdict === 'doubtful' && keepAnyway)) return
  throw new ProblemError(judgement.verdict === 'doubtful' ? 'length_doubtful' : 'length_impossible', {
    detail: `A ${family.name} ${size.id} has about ${judgement.lowMm.toFixed(0)} to ${judgement.highMm.toFixed(0)} mm from nut to bridge.`,
    fields: [{ path, message: 'Measure again from the nut edge to the top of the bridge.' }],
    data: judgement,
  })
}

function kindOf({ family: familyId, sizeId }: Pick<InstrumentRow, 'family' | 'sizeId'>): {
  family: Family
  size: Size
} {
  const family = familyOf(familyId as FamilyId)
  const size = sizeOf(family, sizeId)
  if (!size) throw new Error(`stored size ${sizeId} is not a ${family.id} size`)
  return { family, size }
}
