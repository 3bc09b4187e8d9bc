<template>
  <div class="stack" role="status" aria-live="polite">
    <div v-for="notice in notices" :key="notice.id" class="notice" :class="{ fault: notice.isFault }">
      <span>{{ notice.text }}</span>
      <button v-if="notice.action" type="button" @click="act(notice)">
        {{ notice.action.label }}<KeyHint v-if="notice.id === undoable?.id" of="z" on-button />
      </button>
      <button type="button" aria-label="Dismiss" @click="store.dismiss(notice.id)">×</button>
    </div>
  </div>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed } from 'vue'
import { UNDO, useNotices, type Notice } from '../../stores/notices'
import KeyHint from '../../ui/KeyHint.vue'
import { useShortcuts } from '../../ui/useShortcuts'

const store = useNotices()
const { notices } = storeToRefs(store)

/** What was done last and can be undone, as long as it is said. */
const undoable = computed(() => notices.value.findLast((notice) => notice.action?.label === UNDO))
useShortcuts('Just now', [
  { key: 'z', does: 'Undo what was said to be done', run: () => undoable.value && void act(undoable.value) },
])

async function act(notice: Notice) {
  store.dismiss(notice.id)
  await notice.action?.run()
}
</script>

<style scoped>
.stack {
  position: fixed;
  z-index: 4000;
  inset: auto 0 20px;
  display: grid;
  justify-items: center;
  gap: 8px;
  pointer-events: none;
}

.notice {
  display: flex;
  align-items: center;
  gap: 6px;
  max-width: min(720px, 92vw);
  padding: 10px 10px 10px 18px;
  border-radius: 10px;
  background: var(--rail);
  color: #f2f6f3;
  box-shadow: var(--shadow);
  pointer-events: auto;
}

.notice.fault {
  background: #7c2222;
  color: #fff;
  font-weight: 400;
}

button {
  border: 0;
  border-radius: 6px;
  padding: 5px 10px;
  background: transparent;
  color: #f2d391;
  font: 600 15px var(--font-text);
  cursor: pointer;
}

button:hover {
  background: rgb(255 255 255 / 12%);
}
</style>
