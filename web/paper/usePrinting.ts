import { onScopeDispose, ref } from 'vue'
import { fileName, saveFile } from '../files/tables'
import type { PrintOrder, PrintReport } from './print.worker'
import PrintWorker from './print.worker?worker'

/** Stays with its fonts for the next sheet: after the first one a sheet is there at once. */
let worker: Worker | undefined

/** Makes the PDF in a worker, tells how far it is, and can be stopped; then nothing is left of it. */
export function usePrinting() {
  const progress = ref<{ done: number; of: number }>()
  const fault = ref('')
  function cancel() {
    if (progress.value === undefined) return
    worker?.terminate()
    worker = undefined
    progress.value = undefined
  }

  function print(order: PrintOrder) {
    cancel()
    fault.value = ''
    progress.value = { done: 0, of: 'pages' in order ? order.pages.length : order.sheets.length }
    worker ??= new PrintWorker()
    worker.onmessage = ({ data }: MessageEvent<PrintReport>) => {
      if (data.kind === 'progress') progress.value = { done: data.done, of: data.of }
      if (data.kind === 'failed') fault.value = data.message
      if (data.kind === 'done') saveFile(fileName(order.title, 'pdf'), data.bytes, 'application/pdf')
      if (data.kind !== 'progress') progress.value = undefined
    }
    worker.onerror = (event) => {
      fault.value = event.message || 'The sheet could not be made.'
      cancel()
    }
    // Plain data crosses to the worker; what Vue wraps does not.
    worker.postMessage(JSON.parse(JSON.stringify(order)))
  }

  onScopeDispose(cancel)
  return { progress, fault, print, cancel }
}
