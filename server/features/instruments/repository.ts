import { Op } from 'sequelize'
import type { InstrumentRow, LoanRow, MeasurementRow, StudentRow, TapeSetRow } from '../../db/rows'
import type { StudioStore } from '../../db/studio-store'

/** An instrument with what is known of it now. */
export interface InstrumentFacts {
  readonly instrument: InstrumentRow
  readonly measurement: MeasurementRow | undefined
  readonly tapeSet: TapeSetRow | undefined
  readonly loan: LoanRow | undefined
  readonly holder: StudentRow | undefined
}

const newestFirst = (day: string): [string, string][] => [
  [day, 'DESC'],
  ['recordedAt', 'DESC'],
  ['id', 'DESC'],
]

export function instrumentRepository(store: StudioStore) {
  const { instrument, loan, measurement, tapeSet, student, user } = store.models

  /** The facts of the instruments with these ids, or of all. */
  async function facts(ids?: readonly string[]): Promise<InstrumentFacts[]> {
    if (ids?.length === 0) return []
    const only = ids ? { [Op.in]: [...ids] } : undefined
    const of = only ? { instrumentId: only } : {}
    const [instruments, measurements, tapeSets, loans] = await Promise.all([
      store.all(instrument, only ? { id: only } : {}, { order: [['label', 'ASC']] }),
      store.all(measurement, of, { order: newestFirst('measuredOn') }),
      store.all(tapeSet, of, { order: newestFirst('laidOn') }),
      store.all(loan, { ...of, toDate: null }),
    ])
    const holders = await store.all(student, { id: { [Op.in]: loans.map((l) => l.studentId) } })
    return instruments.map((row) => {
      const open = loans.find((l) => l.instrumentId === row.id)
      return {
        instrument: row,
        measurement: measurements.find((m) => m.instrumentId === row.id),
        tapeSet: tapeSets.find((t) => t.instrumentId === row.id),
        loan: open,
        holder: holders.find((s) => s.id === open?.studentId),
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
    add: (row: Omit<InstrumentRow, 'studioId'>) => store.insert(instrument, [row]),
    addMeasurement: (row: Omit<MeasurementRow, 'studioId'>) => store.insert(measurement, [row]),
    addTapeSet: (row: Omit<TapeSetRow, 'studioId'>) => store.insert(tapeSet, [row]),
    /** False when the row is no longer at `version`. */
    async change(id: string, version: number, values: Partial<InstrumentRow>): Promise<boolean> {
      return (await store.update(instrument, { id, version }, { ...values, version: version + 1 })) === 1
    },
  }
}
