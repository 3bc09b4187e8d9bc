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
import { useNotices } from '../../stores/notices'
import KeyHint from '../../ui/KeyHint.vue'
import { useShortcuts } from '../../ui/useShortcuts'

const store = useNotices()
const { notices, undoable } = storeToRefs(store)
const { act } = store

useShortcuts('Just now', [
  { key: 'z', does: 'Undo what was said to be done', run: () => undoable.value && void act(undoable.value) },
])
</script>

<style scoped>
/* In the rail, or at its foot where it lies on top: never over a field or an advice. */
.stack {
  position: fixed;
  z-index: 4000;
  inset: auto auto 240px 8px;
  display: grid;
  gap: 8px;
  width: 180px;
  pointer-events: none;
}

.notice {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: end;
  gap: 2px 4px;
  padding: 10px 6px 6px 12px;
  border: 1px solid var(--rail-brass);
  border-radius: 10px;
  background: var(--rail-lit);
  color: #f2f6f3;
  font-size: 15px;
  line-height: 1.3;
  overflow-wrap: anywhere;
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

.notice > span {
  flex: 1 0 100%;
}

@media (width <= 900px) {
  .stack {
    inset: 52px 8px auto auto;
    width: min(460px, calc(100vw - 16px));
  }

  .notice {
    padding: 6px 6px 6px 12px;
  }

  .notice > span {
    flex: 1 1 0;
  }
}
</style>
