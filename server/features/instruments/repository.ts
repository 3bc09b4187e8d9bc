import { group } from 'd3-array'
import { Op } from 'sequelize'
import type {
  InstrumentRow,
  LoanRow,
  MeasurementRow,
  StudentRow,
  TapeEventRow,
  TapeSetRow,
} from '../../db/rows'
import type { StudioStore } from '../../db/studio-store'

/** An instrument with what is known of it now. */
export interface InstrumentFacts {
  readonly instrument: InstrumentRow
  readonly measurement: MeasurementRow | undefined
  readonly tapeSet: TapeSetRow | undefined
  /** What happened to its tapes, in order of time. */
  readonly events: readonly TapeEventRow[]
  readonly loan: LoanRow | undefined
  readonly holder: StudentRow | undefined
}

/** The log's order: days first, then as it was written down; ids are made in order of time. */
export const IN_ORDER_OF_TIME: [string, string][] = [
  ['onDate', 'ASC'],
  ['recordedAt', 'ASC'],
  ['id', 'ASC'],
]

const newestFirst = (day: string): [string, string][] => [
  [day, 'DESC'],
  ['recordedAt', 'DESC'],
  ['id', 'DESC'],
]

export function instrumentRepository(store: StudioStore) {
  const { instrument, loan, measurement, tapeSet, tapeEvent, student, user } = store.models

  /** The facts of the instruments with these ids, or of all. */
  async function facts(ids?: readonly string[]): Promise<InstrumentFacts[]> {
    if (ids?.length === 0) return []
    const only = ids ? { [Op.in]: [...ids] } : undefined
    const of = only ? { instrumentId: only } : {}
    const [instruments, measurements, tapeSets, events, loans] = await Promise.all([
      store.all(instrument, only ? { id: only } : {}, { order: [['label', 'ASC']] }),
      store.all(measurement, of, { order: newestFirst('measuredOn') }),
      store.all(tapeSet, of, { order: newestFirst('laidOn') }),
      store.all(tapeEvent, { ...of, removedAt: null }, { order: IN_ORDER_OF_TIME }),
      store.all(loan, { ...of, toDate: null }),
    ])
    const holders = await store.all(student, { id: { [Op.in]: loans.map((l) => l.studentId) } })
    const measured = firstOfEach(measurements, (row) => row.instrumentId)
    const laid = firstOfEach(tapeSets, (row) => row.instrumentId)
    const lent = firstOfEach(loans, (row) => row.instrumentId)
    const held = firstOfEach(holders, (row) => row.id)
    const logged = group(events, (row) => row.instrumentId)
    return instruments.map((row) => {
      const open = lent.get(row.id)
      return {
        instrument: row,
        measurement: measured.get(row.id),
        tapeSet: laid.get(row.id),
        events: logged.get(row.id) ?? [],
        loan: open,
        holder: open && held.get(open.studentId),
      }
    })
  }

  return {
    facts,
    async factsOf(id: string): Promise<InstrumentFacts | undefined> {
      return (await facts([id]))[0]
    },
    measurements: (instrumentId: string) =>
      store.all(measurement, { instrumentId }, { order: newestFirst('measuredOn') }),
    tapeSets: (instrumentId: string) =>
      store.all(tapeSet, { instrumentId }, { order: newestFirst('laidOn') }),
    /** Names of the studio's teachers by id. */
    async teacherNames(): Promise<Map<string, string>> {
      const users = await store.all(user)
      return new Map(users.map((u) => [u.id, u.name]))
    },
    add: (rows: readonly Omit<InstrumentRow, 'studioId'>[]) => store.insert(instrument, rows),
    addMeasurements: (rows: readonly Omit<MeasurementRow, 'studioId'>[]) => store.insert(measurement, rows),
    /** False when the row is no longer at `version`. */
    async change(id: string, version: number, values: Partial<InstrumentRow>): Promise<boolean> {
      return (await store.update(instrument, { id, version }, { ...values, version: version + 1 })) === 1
    },
  }
}

function firstOfEach<Row>(rows: readonly Row[], key: (row: Row) => string): Map<string, Row> {
  const first = new Map<string, Row>()
  for (const row of rows) if (!first.has(key(row))) first.set(key(row), row)
  return first
}
