import { v7 as uuid } from 'uuid'
import {
  familyOf,
  judgeLength,
  judgeStrings,
  noteName,
  parseLength,
  parseNote,
  sizeOf,
  tuningFault,
  type Family,
  type FamilyId,
  type Note,
  type ParsedLength,
  type Size,
} from '#core'
import type { Answer, HandlerInput, Instrument, Measurement, TapeSet } from '#contracts'
import { given } from '../../http/given'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import type { Call } from '../../http/call'
import type { InstrumentRow, MeasurementRow } from '../../db/rows'
import type { StudioStore } from '../../db/studio-store'
import { instrumentDto, measurementDto, tapeSetDto } from './dto'
import { instrumentRepository, type InstrumentFacts } from './repository'

const LENGTH_MESSAGES = {
  length_empty: 'Type the string length, from the nut to the top of the bridge, as in 328 or 12 7/8 in.',
  length_not_a_number: 'Type a length, as in 328, 32.8 cm or 12 7/8 in.',
  length_not_positive: 'A string is longer than nothing: type what the ruler shows from nut to bridge.',
} as const

export function instrumentService({ store, signedIn, now }: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const repository = instrumentRepository(store)
  const userId = signedIn.session.user.id

  async function existing(id: string): Promise<InstrumentFacts> {
    const facts = await repository.factsOf(id)
    if (!facts) throw new ProblemError('not_found')
    return facts
  }

  async function read(id: string): Promise<Instrument> {
    return instrumentDto(await existing(id), await repository.teacherNames())
  }

  return {
    read,

    async list(): Promise<Instrument[]> {
      const names = await repository.teacherNames()
      return (await repository.facts()).map((facts) => instrumentDto(facts, names))
    },

    async create(draft: HandlerInput<'instruments.create'>['body']): Promise<Instrument> {
      const row = instrumentRow(draft, 'tuning', now)
      await repository.add([row])
      return read(row.id)
    },

    /** All rows or none: what is wrong with one is said of that row. */
    async importRows({
      rows,
      measuredOn,
    }: HandlerInput<'instruments.import'>['body']): Promise<Answer<'instruments.import'>> {
      const instruments = rows.map((row, index) => instrumentRow(row, `rows.${index}.tuning`, now, index))
      const measurements = rows.flatMap((row, index) => {
        if (row.length === undefined) return []
        const instrument = instruments[index]!
        const { family, size } = kindOf(instrument)
        const parsed = readLength(row.length, `rows.${index}.length`)
        // The table was read and its doubtful lengths shown before it was sent.
        insistOnPlausible(family, size, parsed, true, `rows.${index}.length`)
        const typed = row.length.trim()
        return [measurementRow(instrument.id, { lengthMm: parsed.lengthMm, typed, measuredOn })]
      })
      await repository.add(instruments)
      await repository.addMeasurements(measurements)
      return { count: instruments.length }
    },

    async update(id: string, change: HandlerInput<'instruments.update'>['body']): Promise<Instrument> {
      const { instrument } = await existing(id)
      const { version, tuning, ...rest } = change
      if (rest.sizeId !== undefined) insistOnSize(instrument.family as FamilyId, rest.sizeId)
      const values = { ...given(rest), ...(tuning ? { tuning: openStrings(tuning, 'tuning') } : {}) }
      if (!(await repository.change(id, version, values)))
        throw new ProblemError('changed_meanwhile', { data: await read(id) })
      return read(id)
    },

    async measurements(id: string): Promise<Measurement[]> {
      await existing(id)
      const names = await repository.teacherNames()
      return (await repository.measurements(id)).map((row) => measurementDto(row, names))
    },

    async measure(id: string, draft: HandlerInput<'measurements.create'>['body']): Promise<Instrument> {
      const { instrument } = await existing(id)
      const { family, size } = kindOf(instrument)
      const { measuredOn, keepAnyway } = draft
      if (draft.strings) {
        const strings = draft.strings.map((text, i) => readLength(text, `strings.${i}`))
        if (strings.length !== instrument.tuning.length)
          throw fieldProblem('strings', `Give ${instrument.tuning.length} lengths, lowest string first.`)
        const lengthsMm = strings.map((string) => string.lengthMm)
        const judged = judgeStrings(family, lengthsMm)
        if (judged.code === 'contradictory')
          throw fieldProblem(
            'strings',
            `${judged.shortestMm.toFixed(1)} and ${judged.longestMm.toFixed(1)} mm cannot be on one instrument: measure each string again from the nut to the bridge.`,
          )
        for (const [i, string] of strings.entries())
          insistOnPlausible(family, size, string, keepAnyway, `strings.${i}`)
        const lengthMm = lengthsMm.reduce((a, b) => a + b) / lengthsMm.length
        const typed = draft.strings
          .map((text) => text.trim())
          .join(' ')
          .slice(0, 40)
        await repository.addMeasurements([
          measurementRow(id, { lengthMm, typed, measuredOn, method: 'strings', stringLengthsMm: lengthsMm }),
        ])
        return read(id)
      }
      const typed = readLength(draft.length, 'length')
      const times = draft.method === 'harmonic' ? 2 : 1
      const parsed = { ...typed, number: typed.number * times, lengthMm: typed.lengthMm * times }
      insistOnPlausible(family, size, parsed, keepAnyway, 'length')
      await repository.addMeasurements([
        measurementRow(id, {
          lengthMm: parsed.lengthMm,
          typed: draft.length.trim(),
          measuredOn,
          method: draft.method,
        }),
      ])
      return read(id)
    },

    async tapeSets(id: string): Promise<TapeSet[]> {
      await existing(id)
      const names = await repository.teacherNames()
      return (await repository.tapeSets(id)).map((row) => tapeSetDto(row, names))
    },
  }

  function measurementRow(
    instrumentId: string,
    values: Pick<MeasurementRow, 'lengthMm' | 'typed' | 'measuredOn'> & Partial<MeasurementRow>,
  ): Omit<MeasurementRow, 'studioId'> {
    return {
      id: uuid(),
      instrumentId,
      userId,
      method: 'bridge',
      stringLengthsMm: null,
      recordedAt: now,
      ...values,
    }
  }
}

type GoodLength = Extract<ParsedLength, { ok: true }>

function readLength(text: string, path: string): GoodLength {
  const parsed = parseLength(text)
  if (!parsed.ok) throw fieldProblem(path, LENGTH_MESSAGES[parsed.code])
  return parsed
}

function insistOnPlausible(
  family: Family,
  size: Size,
  length: GoodLength,
  keepAnyway: boolean,
  path: string,
): void {
  const judgement = judgeLength(family, size, length)
  if (judgement.verdict === 'fits' || (judgement.verdict === 'doubtful' && keepAnyway)) return
  throw new ProblemError(judgement.verdict === 'doubtful' ? 'length_doubtful' : 'length_impossible', {
    detail: `A ${family.id} ${size.id} has about ${judgement.lowMm.toFixed(0)} to ${judgement.highMm.toFixed(0)} mm from nut to bridge.`,
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

function instrumentRow(
  draft: Pick<HandlerInput<'instruments.create'>['body'], 'label' | 'family' | 'sizeId' | 'tuning'>,
  tuningPath: string,
  now: Date,
  row?: number,
): Omit<InstrumentRow, 'studioId'> {
  insistOnSize(draft.family, draft.sizeId, row === undefined ? 'sizeId' : `rows.${row}.sizeId`)
  return {
    id: uuid(),
    version: 1,
    label: draft.label,
    family: draft.family,
    sizeId: draft.sizeId,
    tuning: draft.tuning
      ? openStrings(draft.tuning, tuningPath)
      : familyOf(draft.family).tuning.map((n) => noteName(n)),
    pressing: null,
    warmHands: false,
    createdAt: now,
  }
}

export async function readInstruments(
  store: StudioStore,
  ids: readonly string[],
): Promise<Map<string, Instrument>> {
  const repository = instrumentRepository(store)
  if (ids.length === 0) return new Map()
  const [names, all] = await Promise.all([repository.teacherNames(), repository.facts(ids)])
  return new Map(all.map((facts) => [facts.instrument.id, instrumentDto(facts, names)]))
}

/** The open strings of a stored instrument, lowest first. */
export function tuningOf(stored: readonly string[]): Note[] {
  return stored.map((text) => {
    const open = parseNote(text)
    if (!open) throw new Error(`stored tuning has no note ${text}`)
    return open
  })
}

function insistOnSize(familyId: FamilyId, sizeId: string, path = 'sizeId'): void {
  const family = familyOf(familyId)
  if (!sizeOf(family, sizeId))
    throw fieldProblem(path, `Choose a ${familyId} size: ${family.sizes.map((s) => s.id).join(', ')}.`)
}

const TUNING_MESSAGES = {
  strings_few_or_many: 'Name four to six open strings, lowest first.',
  strings_out_of_order:
    'Name the open strings from the lowest up: one is not higher than the string before it.',
  strings_far_apart: 'Two neighbouring strings are more than an octave apart: look at the octave numbers.',
} as const

/** Open strings as they are stored, spelled one way. */
function openStrings(texts: readonly string[], path: string): string[] {
  const notes = tuningOf(texts)
  const fault = tuningFault(notes)
  if (fault) throw fieldProblem(path, TUNING_MESSAGES[fault.code])
  return notes.map((n) => noteName(n))
}
