import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { IMPORT_BATCH, type ReadRow } from '#core'
import { callUntilAnswered } from '../../api/client'
import { useStudio } from '../../stores/studio'
import type { ImportFault, ParsedTable, TableFault } from '../../files/parse-instruments'
import InstrumentsWorker from '../../workers/instruments.worker?worker'
import { isoDay } from '../../words/dates'

type GoodRow = Extract<ReadRow, { ok: true }>

export interface RowInDoubt {
  readonly row: number
  readonly label: string
  readonly faults: readonly ImportFault[]
}

/** A table of instruments on its way in: read in a worker, looked at, and only then sent, batch by batch. */
export function useImport() {
  const studio = useStudio()
  const state = ref<'empty' | 'reading' | 'read' | 'saving' | 'saved'>('empty')
  const fileFault = shallowRef<TableFault>()
  const rows = shallowRef<readonly ReadRow[]>([])
  const saved = ref(0)
  const isWaiting = ref(false)
  let worker: Worker | undefined
  let isWanted = false
  /** One key a batch, made once: a batch that is sent again is not saved again. */
  let keys: string[] = []

  const taken = computed(() => new Set(studio.instruments?.map((i) => i.label.toLowerCase())))
  const good = computed(() =>
    rows.value.filter(
      (row): row is GoodRow => row.ok && !taken.value.has(row.instrument.label.toLowerCase()),
    ),
  )
  const faulty = computed<readonly RowInDoubt[]>(() =>
    rows.value.flatMap((row): readonly RowInDoubt[] => {
      if (!row.ok) return [row]
      const { label } = row.instrument
      return taken.value.has(label.toLowerCase())
        ? [{ row: row.row, label, faults: [{ code: 'label_taken' }] }]
        : []
    }),
  )
  /** What is being saved, as it was when saving began. */
  const order = shallowRef<readonly GoodRow[]>([])

  async function read(file: File) {
    stop()
    state.value = 'reading'
    fileFault.value = undefined
    rows.value = []
    if (!studio.instruments) await studio.loadInstruments()
    const bytes = await file.arrayBuffer()
    worker = new InstrumentsWorker()
    worker.onmessage = ({ data }: MessageEvent<ParsedTable>) => {
      if (data.ok) rows.value = data.rows
      else fileFault.value = data.fault
      state.value = data.ok ? 'read' : 'empty'
      endWorker()
    }
    worker.postMessage(bytes, [bytes])
  }

  async function save() {
    order.value = good.value
    keys = Array.from({ length: Math.ceil(order.value.length / IMPORT_BATCH) }, () => crypto.randomUUID())
    saved.value = 0
    isWanted = true
    state.value = 'saving'
    const measuredOn = isoDay(new Date())
    for (const [index, idempotencyKey] of keys.entries()) {
      if (!isWanted) break
      const batch = order.value.slice(index * IMPORT_BATCH, (index + 1) * IMPORT_BATCH)
      const body = {
        measuredOn,
        rows: batch.map(({ instrument: { label, family, sizeId, length, tuning } }) => ({
          label,
          family,
          sizeId,
          ...(length === undefined ? {} : { length }),
          ...(tuning === undefined ? {} : { tuning: [...tuning] }),
        })),
      }
      const options = {
        idempotencyKey,
        onWaiting: () => (isWaiting.value = true),
        isWanted: () => isWanted,
      }
      try {
        await callUntilAnswered('instruments.import', { body }, options)
      } catch (error) {
        state.value = 'read'
        throw error
      } finally {
        isWaiting.value = false
      }
      saved.value += batch.length
    }
    state.value = 'saved'
    await studio.loadInstruments()
  }

  function endWorker() {
    worker?.terminate()
    worker = undefined
  }
  function stop() {
    isWanted = false
    endWorker()
  }
  onScopeDispose(stop)

  return { state, fileFault, rows, good, faulty, order, saved, isWaiting, read, save, stop }
}
