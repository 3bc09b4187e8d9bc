import { onScopeDispose, ref } from 'vue'
import { fileName, saveFile } from '../files/tables'
import type { PrintOrder, PrintReport } from './print.worker'
import PrintWorker from './print.worker?worker'

/** Makes the PDF in a worker, tells how far it is, and can be stopped; then nothing is left of it. */
export function usePrinting() {
  const progress = ref<{ done: number; of: number }>()
  const fault = ref('')
  let worker: Worker | undefined

  function cancel() {
    worker?.terminate()
    worker = undefined
    progress.value = undefined
  }

  function print(order: PrintOrder) {
    cancel()
    fault.value = ''
    progress.value = { done: 0, of: 'pages' in order ? order.pages.length : order.sheets.length }
    worker = new PrintWorker()
    worker.onmessage = ({ data }: MessageEvent<PrintReport>) => {
      if (data.kind === 'progress') progress.value = { done: data.done, of: data.of }
      if (data.kind === 'failed') fault.value = data.message
      if (data.kind === 'done') saveFile(fileName(order.title, 'pdf'), data.bytes, 'application/pdf')
      if (data.kind !== 'progress') cancel()
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
