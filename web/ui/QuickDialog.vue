<template>
  <dialog
    ref="dialog"
    :class="{ wide }"
    :aria-label="label"
    @close="onClose"
    @cancel.self="open = false"
    @click="onClick"
    @keydown.enter.capture="onEnter"
  >
    <div v-if="open" class="inside"><slot /></div>
  </dialog>
</template>

<script setup lang="ts">
import { onBeforeUnmount, onMounted, provide, ref, watch } from 'vue'
import { IN_DIALOG } from './field'
import { useDialog } from './useShortcuts'

/**
 * The browser's own modal dialog: there, with the focus in it, at the very key that asked for it, and gone the same way.
 * Whoever types fast loses no letter to a fade, and an Escape behind the one that closes it is the page's.
 */
defineProps<{ label: string; wide?: boolean }>()
const open = defineModel<boolean>({ required: true })
const dialog = ref<HTMLDialogElement>()
const arrive = useDialog(open)
provide(IN_DIALOG, true)

function show() {
  dialog.value?.showModal()
  arrive()
}
watch(open, (isOpen) => (isOpen ? show() : dialog.value?.close()), { flush: 'post' })
onMounted(() => open.value && show())
// Taken out while it is open, as where a page makes it when it is asked for: the focus goes back all the same.
onBeforeUnmount(() => dialog.value?.close())

/** The browser tells that it closed in a task of its own: on a busy machine after a key has opened it again. */
function onClose() {
  if (!dialog.value?.open) open.value = false
}

/**
 * Enter does what the main button shows, wherever the focus is: on a heading, in a choice that keeps the focus after it was made,
 * among segments. A button in focus is pressed itself, a list that is open takes its own, lines of text break; with Ctrl it is
 * the main button from there too.
 */
function onEnter(event: KeyboardEvent) {
  const { target } = event
  if (event.isComposing || event.repeat || !(target instanceof HTMLElement)) return
  if (!(event.ctrlKey || event.metaKey)) {
    if (target.matches('button, a, summary, textarea')) return
    if (target.matches('[role=combobox]') && target.getAttribute('aria-expanded') !== 'false') return
  }
  const main = dialog.value?.querySelector<HTMLElement>(
    '.el-button--primary:not(:disabled), [type=submit]:not(:disabled)',
  )
  if (!main) return
  event.preventDefault()
  event.stopPropagation()
  main.click()
}

/** The backdrop belongs to the dialog element itself, everything else to what is inside. */
function onClick(event: MouseEvent) {
  if (event.target === dialog.value) open.value = false
}
</script>

<style scoped>
dialog {
  width: min(560px, 92vw);
  max-height: 80vh;
  margin-top: 12vh;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 12px;
  background: var(--card);
  color: var(--ink);
  box-shadow: var(--shadow);
}

dialog.wide {
  width: min(880px, 94vw);
  max-height: 88vh;
  margin-top: 6vh;
}

dialog::backdrop {
  background: var(--el-mask-color);
}

.inside {
  padding: 22px 24px;
}
</style>
