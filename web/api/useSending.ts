import { ref } from 'vue'
import { ApiProblem } from './client'

/** A form on its way to the server: whether it is, and what was wrong with it, field by field or as a whole. */
export function useSending() {
  const faults = ref<Readonly<Record<string, string>>>({})
  const fault = ref('')
  const isSending = ref(false)

  /** Does `work` once; what the server refuses is shown, anything else is thrown, an ended session as well. */
  async function send(work: () => Promise<void>): Promise<void> {
    isSending.value = true
    faults.value = {}
    fault.value = ''
    try {
      await work()
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.code === 'not_signed_in') throw error
      const fields = error.problem?.fields ?? []
      faults.value = Object.fromEntries(fields.map(({ path, message }) => [path, message]))
      if (fields.length === 0) fault.value = error.message
    } finally {
      isSending.value = false
    }
  }

  return { faults, fault, isSending, send }
}
