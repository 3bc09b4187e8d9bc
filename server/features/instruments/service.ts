import type { FamilyId } from '#core'
import type { HandlerInput, Instrument } from '#contracts'
import type { Call } from '../../http/call'
import { insistOnDay } from '../../http/days'
import { given } from '../../http/given'
import { ProblemError } from '../../http/problem-error'
import { measuredInRow, measuredOf, measurementRow } from './measured'
import { instrumentReads } from './reads'
import { instrumentRepository } from './repository'
import { insistOnSize, instrumentRow, openStrings } from './rows'

export function instrumentService(call: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const { store, signedIn, now } = call
  const repository = instrumentRepository(store)
  const { existing, insistOnInstrument, ...reads } = instrumentReads(call)
  const { read } = reads
  const stamp = { now, userId: signedIn.session.user.id }

  return {
    ...reads,

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
        const instrument = instruments[index]!
        const measured = measuredInRow(instrument, row, `rows.${index}`)
        if (!measured) return []
        const on = row.measuredOn ?? measuredOn
        insistOnDay(now, on, `rows.${index}.measuredOn`)
        return [measurementRow(stamp, instrument.id, on, measured)]
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

    async measure(id: string, draft: HandlerInput<'measurements.create'>['body']): Promise<Instrument> {
      const { instrument } = await existing(id)
      insistOnDay(now, draft.measuredOn, 'measuredOn')
      await repository.addMeasurements([
        measurementRow(stamp, id, draft.measuredOn, measuredOf(instrument, draft)),
      ])
      return read(id)
    },
  }
}
