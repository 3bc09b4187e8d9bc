import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

export interface Notice {
  readonly id: number
  readonly text: string
  readonly isFault: boolean
  readonly action?: { readonly label: string; readonly run: () => void | Promise<void> }
}

/** The label of an action that undoes what the notice says; it has a key of its own. */
export const UNDO = 'Undo'

const SHOWN_MS = 8000

/** Short messages at the foot of the page; what can be undone carries its undo. */
export const useNotices = defineStore('notices', () => {
  const notices = ref<Notice[]>([])
  let next = 1

  function show(notice: Omit<Notice, 'id'>) {
    const id = next++
    notices.value = [...notices.value.slice(-2), { ...notice, id }]
    setTimeout(() => dismiss(id), SHOWN_MS)
  }
  function dismiss(id: number) {
    notices.value = notices.value.filter((notice) => notice.id !== id)
  }

  async function act(notice: Notice) {
    dismiss(notice.id)
    await notice.action?.run()
  }
  /** What was done last and can be undone, as long as it is said. */
  const undoable = computed(() => notices.value.findLast((notice) => notice.action?.label === UNDO))

  return {
    notices,
    dismiss,
    act,
    undoable,
    clear: () => (notices.value = []),
    say: (text: string, action?: Notice['action']) =>
      show({ text, isFault: false, ...(action ? { action } : {}) }),
    fault: (error: unknown) =>
      show({ text: error instanceof Error ? error.message : 'Something went wrong.', isFault: true }),
  }
})
