import type { RingFindRow, TapeEventRow, TapeSetRow } from '../../db/rows'
import type { StudioStore } from '../../db/studio-store'
import { IN_ORDER_OF_TIME } from '../instruments/repository'

const AS_WRITTEN: [string, string][] = [
  ['recordedAt', 'ASC'],
  ['id', 'ASC'],
]

export function tapeRepository(store: StudioStore) {
  const { tapeSet, tapeEvent, ringFind } = store.models
  return {
    addTapeSet: (row: Omit<TapeSetRow, 'studioId'>) => store.insert(tapeSet, [row]),
    addEvents: (rows: readonly Omit<TapeEventRow, 'studioId'>[]) => store.insert(tapeEvent, rows),
    events: (instrumentId: string) =>
      store.written(tapeEvent, { instrumentId, removedAt: null }, { order: IN_ORDER_OF_TIME }),
    eventsOf: (instrumentIds: readonly string[]) =>
      instrumentIds.length === 0
        ? Promise.resolve([])
        : store.all(
            tapeEvent,
            { instrumentId: [...instrumentIds], removedAt: null },
            { order: IN_ORDER_OF_TIME },
          ),
    event: (id: string) => store.one(tapeEvent, { id }),
    changeEvent: (id: string, values: Partial<TapeEventRow>) => store.update(tapeEvent, { id }, values),
    addFind: (row: Omit<RingFindRow, 'studioId'>) => store.insert(ringFind, [row]),
    finds: (instrumentId: string) =>
      store.written(ringFind, { instrumentId, removedAt: null }, { order: AS_WRITTEN }),
    findWith: async (id: string) => (await store.written(ringFind, { id }))[0],
    changeFind: (id: string, values: Partial<RingFindRow>) => store.update(ringFind, { id }, values),
  }
}
