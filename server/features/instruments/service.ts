import { v7 as uuid } from 'uuid'
import {
  familyOf,
  judgeLength,
  noteName,
  parseLength,
  parseNote,
  schoolOf,
  sizeOf,
  tapeChart,
  tuningSystem,
  type FamilyId,
  type Note,
} from '#core'
import type { HandlerInput, Instrument, Measurement, TapeSet } from '#contracts'
import { given } from '../../http/given'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import type { Call } from '../../http/call'
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
      insistOnSize(draft.family, draft.sizeId)
      const id = uuid()
      await repository.add({
        id,
        version: 1,
        label: draft.label,
        family: draft.family,
        sizeId: draft.sizeId,
        tuning: draft.tuning
          ? draft.tuning.map(spelled)
          : familyOf(draft.family).tuning.map((n) => noteName(n)),
        createdAt: now,
      })
      return read(id)
    },

    async update(id: string, change: HandlerInput<'instruments.update'>['body']): Promise<Instrument> {
      const { instrument } = await existing(id)
      const { version, tuning, ...rest } = change
      if (rest.sizeId !== undefined) insistOnSize(instrument.family as FamilyId, rest.sizeId)
      const values = { ...given(rest), ...(tuning ? { tuning: tuning.map(spelled) } : {}) }
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
      const parsed = parseLength(draft.length)
      if (!parsed.ok) throw fieldProblem('length', LENGTH_MESSAGES[parsed.code])
      const family = familyOf(instrument.family as FamilyId)
      const size = sizeOf(family, instrument.sizeId)
      if (!size) throw new Error(`stored size ${instrument.sizeId} is not a ${family.id} size`)
      const judgement = judgeLength(family, size, parsed)
      if (judgement.verdict === 'impossible' || (judgement.verdict === 'doubtful' && !draft.keepAnyway))
        throw new ProblemError(judgement.verdict === 'doubtful' ? 'length_doubtful' : 'length_impossible', {
          detail: `A ${family.id} ${size.id} has about ${judgement.lowMm.toFixed(0)} to ${judgement.highMm.toFixed(0)} mm from nut to bridge.`,
          fields: [{ path: 'length', message: 'Measure again from the nut edge to the top of the bridge.' }],
          data: judgement,
        })
      await repository.addMeasurement({
        id: uuid(),
        instrumentId: id,
        userId,
        lengthMm: parsed.lengthMm,
        typed: draft.length.trim(),
        measuredOn: draft.measuredOn,
        recordedAt: now,
      })
      return read(id)
    },

    async tapeSets(id: string): Promise<TapeSet[]> {
      await existing(id)
      const names = await repository.teacherNames()
      return (await repository.tapeSets(id)).map((row) => tapeSetDto(row, names))
    },

    async layTapes(id: string, draft: HandlerInput<'tapeSets.create'>['body']): Promise<Instrument> {
      const { instrument, measurement } = await existing(id)
      if (!measurement)
        throw new ProblemError('instrument_not_measured', {
          detail: 'Measure the string from nut to bridge first.',
        })
      const family = familyOf(instrument.family as FamilyId)
      const school = schoolOf(family, draft.schoolId)
      const system = tuningSystem(draft.system)
      if (!school || !system) throw fieldProblem('schoolId', `Choose one of the ${family.id}’s tape schools.`)
      const marks = tapeChart({
        family,
        tuning: tuningOf(instrument.tuning),
        lengthMm: measurement.lengthMm,
        system,
        school,
        tapeWidthMm: draft.tapeWidthMm,
      })
      await repository.addTapeSet({
        id: uuid(),
        instrumentId: id,
        userId,
        ...draft,
        lengthMm: measurement.lengthMm,
        marks: marks.map(({ finger, shapeId, middleMm }) => ({ finger, shapeId, middleMm })),
        recordedAt: now,
      })
      return read(id)
    },
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

function insistOnSize(familyId: FamilyId, sizeId: string): void {
  const family = familyOf(familyId)
  if (!sizeOf(family, sizeId))
    throw fieldProblem('sizeId', `Choose a ${familyId} size: ${family.sizes.map((s) => s.id).join(', ')}.`)
}

function spelled(text: string): string {
  const parsed = parseNote(text)
  return parsed ? noteName(parsed) : text
}
