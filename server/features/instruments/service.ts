import { v7 as uuid } from 'uuid'
import {
  familyFault,
  familyOf,
  judgeLength,
  judgeStrings,
  noteName,
  notesOf,
  parseLength,
  sizeOf,
  stringingOfInstrument,
  tapesDue,
  tuningFault,
  type Family,
  type FamilyId,
  type MeasuredLength,
  type ParsedLength,
  type Size,
  type Stringing,
} from '#core'
import { contradictoryLengths, tuningSentence, unreadableLength } from '#contracts'
import type { Answer, HandlerInput, Instrument, Measurement, PressingChoice, TapeSet } from '#contracts'
import { readAll, readInParts } from '../../db/reads'
import { given } from '../../http/given'
import { insistOnDay } from '../../http/days'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import type { Call } from '../../http/call'
import type { InstrumentRow, MeasurementRow } from '../../db/rows'
import type { StudioStore } from '../../db/studio-store'
import { instrumentDto, measurementDto, tapedDto, tapeSetDto } from './dto'
import { instrumentRepository, type InstrumentFacts, type StringFacts } from './repository'

export function instrumentService({ store, signedIn, now }: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const repository = instrumentRepository(store)
  const userId = signedIn.session.user.id

  async function existing(id: string): Promise<InstrumentFacts> {
    const facts = await repository.factsOf(id)
    if (!facts) throw new ProblemError('not_found')
    return facts
  }

  async function insistOnInstrument(id: string): Promise<void> {
    if (!(await repository.exists(id))) throw new ProblemError('not_found')
  }

  async function read(id: string): Promise<Instrument> {
    return instrumentDto(await existing(id))
  }

  /** What is due is reckoned from the log, so all that are looked for are read. */
  async function dueOnDay(
    listing: HandlerInput<'instruments.list'>['query'],
    day: string,
  ): Promise<Answer<'instruments.list'>> {
    const ids = await repository.found({ ...listing, isLogged: true }, undefined)
    const due = await readInParts(ids, async (part) =>
      (await repository.dueFactsOf(part))
        .filter((one) => tapesDue(day, tapedDto(one), signedIn.session.studio.settings.intervals).length > 0)
        .map((one) => one.instrument.id),
    )
    const facts = await repository.facts(due.slice(listing.offset, listing.offset + listing.limit))
    return { total: due.length, rows: facts.map(instrumentDto) }
  }

  return {
    read,

    async list(listing: HandlerInput<'instruments.list'>['query']): Promise<Answer<'instruments.list'>> {
      const { offset, limit, dueOn } = listing
      if (dueOn !== undefined) return dueOnDay(listing, dueOn)
      const [total, ids] = await readAll(true, [
        () => repository.countFound(listing),
        () => repository.found(listing, { offset, limit }),
      ])
      return { total, rows: (await repository.facts(ids)).map(instrumentDto) }
    },

    labels: () => repository.labels(),

    async create(draft: HandlerInput<'instruments.create'>['body']): Promise<Instrument> {
      const row = instrumentRow(draft, 'tuning', now)
      await repository.add([row])
      return read(row.id)
    },

    /** All rows or none: what is wrong with one is said of that row. Returns their ids, in the order of the rows. */
    async addRows({ rows, measuredOn }: HandlerInput<'instruments.import'>['body']): Promise<string[]> {
      insistOnDay(now, measuredOn, 'measuredOn')
      const instruments = rows.map((row, index) => ({
        ...instrumentRow(row, `rows.${index}.tuning`, now, index),
        pressing: row.besides?.pressing ?? null,
        warmHands: row.besides?.warmHands ?? false,
      }))
      const measurements = rows.flatMap((row, index) => {
        if (row.length === undefined) {
          if (row.besides?.stringLengthsMm)
            throw fieldProblem(
              `rows.${index}.length`,
              'Its strings were measured one by one: give their mean as its length.',
            )
          return []
        }
        const instrument = instruments[index]!
        const { family, size } = kindOf(instrument)
        const parsed = readLength(row.length, `rows.${index}.length`)
        // The table was read and its doubtful lengths shown before it was sent.
        insistOnPlausible(family, size, parsed, true, `rows.${index}.length`)
        const typed = row.length.trim()
        const on = row.measuredOn ?? measuredOn
        insistOnDay(now, on, `rows.${index}.measuredOn`)
        const { method = 'bridge', stringLengthsMm: each } = row.besides ?? {}
        const stringLengthsMm = each ? [...each] : null
        if (stringLengthsMm && stringLengthsMm.length !== instrument.tuning.length)
          throw fieldProblem(
            `rows.${index}.besides`,
            `It has ${instrument.tuning.length} strings: give as many lengths, or none.`,
          )
        for (const lengthMm of stringLengthsMm ?? [])
          insistOnPlausible(family, size, { number: lengthMm, unit: 'mm' }, true, `rows.${index}.besides`)
        return [
          measurementRow(instrument.id, {
            lengthMm: parsed.lengthMm,
            typed,
            measuredOn: on,
            // Measured string by string is what has the strings' lengths, and nothing else.
            method: stringLengthsMm ? 'strings' : method === 'strings' ? 'bridge' : method,
            stringLengthsMm,
          }),
        ]
      })
      await repository.add(instruments)
      await repository.addMeasurements(measurements)
      return instruments.map(({ id }) => id)
    },

    /** Takes several out, or none: what was done with one meanwhile is looked at first. */
    async removeAll(ids: readonly string[]): Promise<null> {
      const all = await repository.facts(ids)
      if (all.length < ids.length) throw new ProblemError('not_found')
      const lent = all.find(({ holder }) => holder)
      if (lent)
        throw new ProblemError('instrument_lent', {
          detail: `${lent.instrument.label} is lent to ${lent.holder!.name} by now: take it back first. All are still in the cupboard.`,
        })
      for (const id of ids) await repository.setRemoved(id, now)
      return null
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

    async remove(id: string): Promise<null> {
      const { holder } = await existing(id)
      if (holder)
        throw new ProblemError('instrument_lent', {
          detail: `It is lent to ${holder.name}: take it back first.`,
        })
      await repository.setRemoved(id, now)
      return null
    },

    async restore(id: string): Promise<Instrument> {
      await insistOnInstrument(id)
      await repository.setRemoved(id, null)
      return read(id)
    },

    async measurements(id: string): Promise<Measurement[]> {
      await insistOnInstrument(id)
      return (await repository.measurements(id)).map(measurementDto)
    },

    async measure(id: string, draft: HandlerInput<'measurements.create'>['body']): Promise<Instrument> {
      const { instrument } = await existing(id)
      const { family, size } = kindOf(instrument)
      const { measuredOn, keepAnyway } = draft
      insistOnDay(now, measuredOn, 'measuredOn')
      if (draft.strings) {
        const strings = draft.strings.map((text, i) => readLength(text, `strings.${i}`))
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
      const parsed = { ...typed, times, lengthMm: typed.lengthMm * times } as const
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
      await insistOnInstrument(id)
      return (await repository.tapeSets(id)).map(tapeSetDto)
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
    removedAt: null,
  }
}

export async function readInstruments(
  store: StudioStore,
  ids: readonly string[],
): Promise<Map<string, Instrument>> {
  const all = await instrumentRepository(store).facts(ids)
  return new Map(all.map((facts) => [facts.instrument.id, instrumentDto(facts)]))
}

/** The strings of an instrument as they are kept, in the system with this id; its length must be measured. */
export function stringingOfFacts(
  { instrument, measurement, finds }: StringFacts,
  systemId: string,
): Stringing {
  if (!measurement)
    throw new ProblemError('instrument_not_measured', {
      detail: 'Measure the string from nut to bridge first.',
    })
  return stringingOfInstrument(
    {
      family: instrument.family as FamilyId,
      sizeId: instrument.sizeId,
      tuning: instrument.tuning,
      measurement,
      pressing: instrument.pressing as PressingChoice | null,
      ringFinds: finds.map((find) => ({ ...find, isTrusted: Boolean(find.isTrusted) })),
    },
    systemId,
  )
}

function insistOnSize(familyId: FamilyId, sizeId: string, path = 'sizeId'): void {
  if (familyFault(familyOf(familyId)))
    throw fieldProblem(
      path.replace(/sizeId$/, 'family'),
      `Frets give every note of a ${familyOf(familyId).name} its place: it is not kept here.`,
    )
  const family = familyOf(familyId)
  if (!sizeOf(family, sizeId))
    throw fieldProblem(path, `Choose a ${family.name} size: ${family.sizes.map((s) => s.id).join(', ')}.`)
}

/** Open strings as they are stored, spelled one way. */
function openStrings(texts: readonly string[], path: string): string[] {
  const notes = notesOf(texts)
  const fault = tuningFault(notes)
  if (fault) throw fieldProblem(path, tuningSentence(fault, notes))
  return notes.map((n) => noteName(n))
}
