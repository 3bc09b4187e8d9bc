import { stringingOfInstrument, tapesDue, type FamilyId, type Stringing } from '#core'
import type { Answer, HandlerInput, Instrument, Measurement, PressingChoice, TapeSet } from '#contracts'
import { readAll, readInParts } from '../../db/reads'
import type { StudioStore } from '../../db/studio-store'
import type { Call } from '../../http/call'
import { ProblemError } from '../../http/problem-error'
import { instrumentDto, measurementDto, tapedDto, tapeSetDto } from './dto'
import { instrumentRepository, type InstrumentFacts, type StringFacts } from './repository'

export function instrumentReads({ store, signedIn }: Pick<Call, 'store' | 'signedIn'>) {
  const repository = instrumentRepository(store)

  async function existing(id: string): Promise<InstrumentFacts> {
    const facts = await repository.factsOf(id)
    if (!facts) throw new ProblemError('not_found')
    return facts
  }

  async function insistOnInstrument(id: string): Promise<void> {
    if (!(await repository.exists(id))) throw new ProblemError('not_found')
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

  async function read(id: string): Promise<Instrument> {
    return instrumentDto(await existing(id))
  }

  return {
    existing,
    insistOnInstrument,
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

    async measurements(id: string): Promise<Measurement[]> {
      await insistOnInstrument(id)
      return (await repository.measurements(id)).map(measurementDto)
    },

    async tapeSets(id: string): Promise<TapeSet[]> {
      await insistOnInstrument(id)
      return (await repository.tapeSets(id)).map(tapeSetDto)
    },
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
