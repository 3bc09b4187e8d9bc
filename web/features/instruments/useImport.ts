import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { IMPORT_BATCH, type ImportFault, type ReadRow, type TableFault } from '#core'
import type { Answer } from '#contracts'
import { ApiProblem, call } from '../../api/client'
import { useOutbox, Withdrawn } from '../../stores/outbox'
import { useStudio } from '../../stores/studio'
import type { ParsedTable } from '../../files/parse-instruments'
import InstrumentsWorker from '../../files/instruments.worker?worker'
import { studioDay } from '../../words/shown'

/** Names the batches under way, so that they can be taken back. */
const DRAFT = 'instruments.import'

type GoodRow = Extract<ReadRow, { ok: true }>

export interface RowInDoubt {
  readonly row: number
  readonly label: string
  readonly faults: readonly ImportFault[]
}

/** A table of instruments on its way in: read in a worker, looked at, and only then sent, batch by batch. */
export function useImport() {
  const studio = useStudio()
  const outbox = useOutbox()
  const state = ref<'empty' | 'reading' | 'read' | 'saving' | 'saved'>('empty')
  const fileFault = shallowRef<TableFault>()
  const rows = shallowRef<readonly ReadRow[]>([])
  const unread = shallowRef<readonly string[]>([])
  const saved = ref(0)
  /** What came in, by the parts in which it was sent. */
  const batches = shallowRef<readonly (readonly string[])[]>([])
  /** Who was said to have an instrument and was not lent it. */
  const notLent = shallowRef<Answer<'instruments.import'>['notLent']>([])
  /** Why nothing of the part under way was saved, with the row of the file. */
  const saveFault = ref('')
  const isWaiting = computed(() => state.value === 'saving' && outbox.isAway)
  let worker: Worker | undefined
  let isWanted = false

  const labels = shallowRef<readonly string[]>([])
  const taken = computed(() => new Set(labels.value.map((label) => label.toLowerCase())))
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
    saveFault.value = ''
    rows.value = []
    unread.value = []
    labels.value = await call('instruments.labels', {})
    const bytes = await file.arrayBuffer()
    worker = new InstrumentsWorker()
    worker.onmessage = ({ data }: MessageEvent<ParsedTable>) => {
      unread.value = data.ok ? data.unread : []
      if (data.ok) rows.value = data.rows
      else fileFault.value = data.fault
      state.value = data.ok ? 'read' : 'empty'
      endWorker()
    }
    worker.postMessage(bytes, [bytes])
  }

  async function save() {
    order.value = good.value
    saved.value = 0
    batches.value = []
    notLent.value = []
    saveFault.value = ''
    isWanted = true
    state.value = 'saving'
    const measuredOn = studioDay()
    for (let from = 0; from < order.value.length && isWanted; from += IMPORT_BATCH) {
      const batch = order.value.slice(from, from + IMPORT_BATCH)
      const body = {
        measuredOn,
        rows: batch.map(
          ({ instrument: { label, family, sizeId, isDoubtful: _, length, tuning, tapes, ...rest } }) => ({
            label,
            family,
            sizeId,
            ...(length === undefined ? {} : { length }),
            ...(tuning === undefined ? {} : { tuning: [...tuning] }),
            ...(tapes === undefined ? {} : { tapes: [...tapes] }),
            ...rest,
          }),
        ),
      }
      try {
        const answer = await outbox.send(
          'instruments.import',
          { body },
          { what: `${batch.length} instruments of a table`, draft: DRAFT },
        )
        batches.value = [...batches.value, answer.ids]
        notLent.value = [...notLent.value, ...answer.notLent]
      } catch (error) {
        if (error instanceof Withdrawn) break
        state.value = 'read'
        const [named] = namedRows(error, batch)
        if (named === undefined) throw error
        saveFault.value = named
        return
      }
      saved.value += batch.length
    }
    state.value = 'saved'
    labels.value = await call('instruments.labels', {})
    studio.noteSave()
  }

  /** Takes all that came in out of the cupboard again. */
  async function undo() {
    while (batches.value.length > 0) {
      await call('instruments.unimport', { body: { ids: [...batches.value.at(-1)!] } })
      batches.value = batches.value.slice(0, -1)
    }
    state.value = 'empty'
    rows.value = []
    notLent.value = []
    studio.noteSave()
  }

  function endWorker() {
    worker?.terminate()
    worker = undefined
  }
  function stop() {
    isWanted = false
    outbox.withdraw(DRAFT)
    endWorker()
  }
  onScopeDispose(stop)

  return {
    state,
    fileFault,
    rows,
    unread,
    good,
    faulty,
    order,
    saved,
    notLent,
    saveFault,
    isWaiting,
    read,
    save,
    undo,
    stop,
  }
}

/** What the server found wrong, `Row 17: …`: it knows the rows by their place in the part that was sent. */
function namedRows(error: unknown, batch: readonly GoodRow[]): string[] {
  if (!(error instanceof ApiProblem)) return []
  return (error.problem?.fields ?? []).flatMap(({ path, message }) => {
    const [, index] = /^rows\.(\d+)\./.exec(path) ?? []
    const row = index === undefined ? undefined : batch[Number(index)]
    return row ? [`Row ${row.row}, ${row.instrument.label}: ${message}`] : []
  })
}
