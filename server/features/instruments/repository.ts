import { group } from 'd3-array'
import { FAMILY_IDS, familyOf } from '#core'
import type {
  InstrumentRow,
  MeasurementRow,
  RingFindRow,
  StudentRow,
  TapeEventRow,
  TapeSetRow,
} from '../../db/rows'
import { inOrderOf, orderBy, searchFor, type Listing, type Sorted } from '../../db/listing'
import { readAll } from '../../db/reads'
import { given } from '../../http/given'
import { columnsOf, partOf, type By, type StudioStore } from '../../db/studio-store'

/** How a set of tapes was laid. */
type LaidSet = Pick<TapeSetRow, (typeof TAPE_SET_NAMES)[number]>

/** An instrument with what is known of it now. */
export interface InstrumentFacts extends StringFacts {
  readonly tapeSet: By<LaidSet> | undefined
  /** What happened to its tapes, in order of time. */
  readonly events: readonly TapeEventRow[]
  readonly holder: Pick<StudentRow, 'id' | 'name'> | undefined
}

/** As much of it as tells what its tapes ask for. */
export interface DueFacts {
  readonly instrument: Pick<InstrumentRow, 'id' | 'warmHands'>
  readonly measurement: MeasurementRow | undefined
  readonly events: readonly TapeEventRow[]
}

/** As much of it as its places follow from. */
export interface StringFacts {
  readonly instrument: InstrumentRow
  readonly measurement: By<MeasurementRow> | undefined
  /** Found since the bridge was changed, in order of time. */
  readonly finds: readonly By<RingFindRow>[]
}

/** The log's order: days first, then as it was written down; ids are made in order of time. */
export const IN_ORDER_OF_TIME: [string, string][] = [
  ['onDate', 'ASC'],
  ['recordedAt', 'ASC'],
  ['id', 'ASC'],
]

/** The log says what became of the marks: of the set only how it was laid. */
const TAPE_SET_NAMES = [
  'id',
  'instrumentId',
  'schoolId',
  'system',
  'lengthMm',
  'tapeWidthMm',
  'laidOn',
] as const

const newestFirst = (day: string): [string, string][] => [
  [day, 'DESC'],
  ['recordedAt', 'DESC'],
  ['id', 'DESC'],
]

export interface CupboardListing extends Listing<keyof typeof SORTED_BY> {
  readonly family?: string | undefined
  readonly holder?: 'none' | 'some' | undefined
  readonly sizeId?: string | undefined
  /** Those taken out of the cupboard, in place of those in it. */
  readonly out?: 'yes' | undefined
  /** Only those with something in their log. */
  readonly isLogged?: boolean
}

/** How long the strings of the instrument `i` were when they were measured last. */
export const NEWEST_LENGTH = `(
  SELECT m.length_mm FROM measurement m WHERE m.studio_id = i.studio_id AND m.instrument_id = i.id
  ORDER BY m.measured_on DESC, m.recorded_at DESC, m.id DESC LIMIT 1)`

const WITH_HOLDER = `
  LEFT JOIN loan l ON l.studio_id = i.studio_id AND l.instrument_id = i.id AND l.is_open = 1
  LEFT JOIN student h ON h.studio_id = l.studio_id AND h.id = l.student_id`

const LOGGED = `AND EXISTS (
  SELECT 1 FROM tape_event e
  WHERE e.studio_id = i.studio_id AND e.instrument_id = i.id AND e.removed_at IS NULL)`

const KINDS = FAMILY_IDS.flatMap((id) => familyOf(id).sizes.map((size) => `'${id} ${size.id}'`)).join(', ')

/** Labels as a person counts: no. 2 before no. 10. */
const SORTED_BY = {
  label: { column: 'NATURAL_SORT_KEY(i.label)' },
  kind: { column: `FIELD(CONCAT(i.family, ' ', i.size_id), ${KINDS})` },
  length: { column: NEWEST_LENGTH, mayLack: true },
  holder: { column: 'h.name', mayLack: true },
} as const satisfies Record<string, Sorted>

const HOLDERS = { none: 'AND h.id IS NULL', some: 'AND h.id IS NOT NULL' } as const

/** The instruments of the cupboard that a listing is about. */
function cupboard({ q, sort, family, sizeId, holder, out, isLogged }: CupboardListing) {
  const needsHolder = q.trim() !== '' || sort === 'holder' || holder !== undefined
  const search = searchFor(q, ['i.label', 'i.family', 'i.size_id', 'h.name'])
  return {
    sql: `
      FROM instrument i
      ${needsHolder ? WITH_HOLDER : ''}
      WHERE i.studio_id = :studioId AND i.removed_at IS ${out ? 'NOT NULL' : 'NULL'} ${isLogged ? LOGGED : ''}
        ${family === undefined ? '' : 'AND i.family = :family'} ${sizeId === undefined ? '' : 'AND i.size_id = :sizeId'}
        ${holder === undefined ? '' : HOLDERS[holder]} ${search.condition}`,
    replacements: { ...search.replacements, ...given({ family, sizeId }) },
  }
}

interface JoinedInstrument {
  readonly instrument: InstrumentRow
  readonly measurement: By<MeasurementRow> | { id: null }
  readonly tapeSet: By<LaidSet> | { id: null }
  readonly holder: Pick<StudentRow, 'id' | 'name'> | { id: null }
}

export function instrumentRepository(store: StudioStore) {
  const { instrument, measurement, tapeSet, tapeEvent, ringFind } = store.models

  /** The newest row of an instrument in a table that only grows. */
  const newest = (table: 'measurement' | 'tape_set', day: string) =>
    `(SELECT n.id FROM ${table} n WHERE n.studio_id = i.studio_id AND n.instrument_id = i.id
      ORDER BY n.${day} DESC, n.recorded_at DESC, n.id DESC LIMIT 1)`

  /** Instruments with newest length, newest tapes and holder, in one statement. */
  function joined(ids: readonly string[]): Promise<JoinedInstrument[]> {
    return store.select<JoinedInstrument>(
      `SELECT ${columnsOf(instrument, 'i', 'instrument')},
              ${columnsOf(measurement, 'm', 'measurement')}, mu.name AS \`measurement.by\`,
              ${columnsOf(tapeSet, 't', 'tapeSet', TAPE_SET_NAMES)}, tu.name AS \`tapeSet.by\`,
              h.id AS \`holder.id\`, h.name AS \`holder.name\`
       FROM instrument i
       LEFT JOIN measurement m ON m.id = ${newest('measurement', 'measured_on')}
       LEFT JOIN user mu ON mu.id = m.user_id
       LEFT JOIN tape_set t ON t.id = ${newest('tape_set', 'laid_on')}
       LEFT JOIN user tu ON tu.id = t.user_id
       LEFT JOIN loan l ON l.studio_id = i.studio_id AND l.instrument_id = i.id AND l.is_open = 1
       LEFT JOIN student h ON h.studio_id = l.studio_id AND h.id = l.student_id
       WHERE i.studio_id = :studioId AND i.id IN (:ids)`,
      { ids },
    )
  }

  /** What happened to the tapes of these instruments, in order of time. */
  async function logOf(ids: readonly string[]): Promise<TapeEventRow[]> {
    const rows = await store.select<{ event: TapeEventRow }>(
      `SELECT ${columnsOf(tapeEvent, 'e', 'event')} FROM tape_event e
       WHERE e.studio_id = :studioId AND e.instrument_id IN (:ids) AND e.removed_at IS NULL
       ORDER BY e.on_date, e.recorded_at, e.id`,
      { ids },
    )
    return rows.map((row) => row.event)
  }

  /** Finds that still hold: a changed bridge makes what rang before it history. */
  async function holdingFinds(ids: readonly string[]): Promise<By<RingFindRow>[]> {
    const rows = await store.select<{ find: By<RingFindRow> }>(
      `SELECT ${columnsOf(ringFind, 'f', 'find')}, u.name AS \`find.by\`
       FROM ring_find f LEFT JOIN user u ON u.id = f.user_id
       WHERE f.studio_id = :studioId AND f.instrument_id IN (:ids) AND f.removed_at IS NULL AND NOT EXISTS (
         SELECT 1 FROM tape_event e
         WHERE e.studio_id = f.studio_id AND e.instrument_id = f.instrument_id
           AND e.kind = 'bridge_changed' AND e.removed_at IS NULL
           AND (e.on_date, e.recorded_at) > (f.found_on, f.recorded_at))
       ORDER BY f.recorded_at, f.id`,
      { ids },
    )
    return rows.map((row) => row.find)
  }

  /** The facts of the instruments with these ids, in their order. */
  async function facts(ids: readonly string[]): Promise<InstrumentFacts[]> {
    if (ids.length === 0) return []
    const [rows, events, finds] = await readAll(ids.length > 1, [
      () => joined(ids),
      () => logOf(ids),
      () => holdingFinds(ids),
    ])
    const logged = group(events, (row) => row.instrumentId)
    const found = group(finds, (row) => row.instrumentId)
    return inOrderOf(ids, rows, (row) => row.instrument.id).map((row) => ({
      instrument: row.instrument,
      measurement: partOf(row.measurement),
      tapeSet: partOf(row.tapeSet),
      holder: partOf(row.holder),
      events: logged.get(row.instrument.id) ?? [],
      finds: found.get(row.instrument.id) ?? [],
    }))
  }

  return {
    facts,

    /** The ids of the cupboard's instruments that are looked for, in order; a page of them, or all. */
    async found(
      listing: CupboardListing,
      page: Pick<Listing, 'limit' | 'offset'> | undefined,
    ): Promise<string[]> {
      const { sql, replacements } = cupboard(listing)
      const rows = await store.select<{ id: string }>(
        `SELECT i.id ${sql} ORDER BY ${orderBy(SORTED_BY[listing.sort], listing.direction, listing.sort === 'label' ? 'i.id' : 'NATURAL_SORT_KEY(i.label)')}
         ${page ? 'LIMIT :limit OFFSET :offset' : ''}`,
        { ...replacements, ...page },
      )
      return rows.map((row) => row.id)
    },
    async countFound(listing: CupboardListing): Promise<number> {
      const { sql, replacements } = cupboard(listing)
      const [row] = await store.select<{ total: number }>(`SELECT COUNT(*) AS total ${sql}`, replacements)
      return Number(row?.total ?? 0)
    },
    /** As much of these instruments as tells what is due. */
    async dueFactsOf(ids: readonly string[]): Promise<DueFacts[]> {
      if (ids.length === 0) return []
      const [rows, events] = await Promise.all([
        store.select<{
          instrument: DueFacts['instrument']
          measurement: DueFacts['measurement'] | { id: null }
        }>(
          `SELECT i.id AS \`instrument.id\`, i.warm_hands AS \`instrument.warmHands\`,
                  ${columnsOf(measurement, 'm', 'measurement')}
           FROM instrument i LEFT JOIN measurement m ON m.id = ${newest('measurement', 'measured_on')}
           WHERE i.studio_id = :studioId AND i.id IN (:ids)`,
          { ids },
        ),
        logOf(ids),
      ])
      const logged = group(events, (row) => row.instrumentId)
      return inOrderOf(ids, rows, (row) => row.instrument.id).map((row) => ({
        instrument: row.instrument,
        measurement: partOf(row.measurement as MeasurementRow | { id: null }),
        events: logged.get(row.instrument.id) ?? [],
      }))
    },
    async labels(): Promise<string[]> {
      const rows = await store.select<{ label: string }>(
        'SELECT label FROM instrument WHERE studio_id = :studioId AND removed_at IS NULL ORDER BY label',
      )
      return rows.map((row) => row.label)
    },
    async factsOf(id: string): Promise<InstrumentFacts | undefined> {
      return (await facts([id]))[0]
    },
    /** What the places of one instrument follow from, without its log. */
    async stringsOf(id: string): Promise<StringFacts | undefined> {
      const [[row], finds] = await Promise.all([joined([id]), holdingFinds([id])])
      return row && { instrument: row.instrument, measurement: partOf(row.measurement), finds }
    },
    async exists(id: string): Promise<boolean> {
      return (await store.one(instrument, { id })) !== undefined
    },
    measurements: (instrumentId: string) =>
      store.written(measurement, { instrumentId }, { order: newestFirst('measuredOn') }),
    tapeSets: (instrumentId: string) =>
      store.written(tapeSet, { instrumentId }, { order: newestFirst('laidOn') }),
    add: (rows: readonly Omit<InstrumentRow, 'studioId'>[]) => store.insert(instrument, rows),
    addMeasurements: (rows: readonly Omit<MeasurementRow, 'studioId'>[]) => store.insert(measurement, rows),
    setRemoved: (id: string, removedAt: Date | null) => store.update(instrument, { id }, { removedAt }),
    /** False when the row is no longer at `version`. */
    async change(id: string, version: number, values: Partial<InstrumentRow>): Promise<boolean> {
      return (await store.update(instrument, { id, version }, { ...values, version: version + 1 })) === 1
    },
  }
}
