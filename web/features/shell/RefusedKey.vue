<template>
  <p class="refused" :class="{ shown: refusedKey }" role="status" :style="place">
    <template v-if="refusedKey">
      <kbd>{{ refusedKey.key }}</kbd> does nothing here: this field takes {{ refusedKey.takes }}.
      <kbd>Esc</kbd> leaves it.
    </template>
  </p>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { refusedKey } from '../../ui/useShortcuts'

/** Right below the field, at the letter itself; it goes with the next key. */
const place = computed(() => {
  const box = refusedKey.value?.field.getBoundingClientRect()
  return (
    box && {
      left: `${Math.max(8, Math.min(box.left, window.innerWidth - 330))}px`,
      top: `${box.bottom + 6}px`,
    }
  )
})
</script>

<style scoped>
.refused {
  display: none;
  position: fixed;
  z-index: 20;
  max-width: min(320px, calc(100vw - 16px));
  padding: 7px 11px;
  border: 1px solid var(--danger);
  border-radius: 6px;
  background: var(--card);
  box-shadow: var(--shadow);
  font-size: 14.5px;
}

.refused.shown {
  display: block;
}
</style>
