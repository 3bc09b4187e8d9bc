<template>
  <button type="button" :class="['big', tone]">
    <span><slot /></span>
    <KeyHint :of="of" on-button />
  </button>
</template>

<script setup lang="ts">
import KeyHint from './KeyHint.vue'

/** A button for a thumb on a tablet, with its key: what is asked, or what to do next. */
defineProps<{ of: string; tone?: 'plain' | 'main' | 'bad' }>()
</script>

<style scoped>
.big {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  min-height: var(--big, 64px);
  padding: 10px 16px;
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  background: var(--card);
  color: var(--ink);
  font: 600 var(--big-text, 18px) / 1.2 var(--font-text);
  text-align: left;
  cursor: pointer;
}

.big:hover {
  background: var(--card-sunk);
}

.big:disabled {
  opacity: 0.6;
  cursor: default;
}

.main {
  border-color: var(--jade);
  background: var(--jade);
  color: var(--on-jade);
}

.main:hover {
  background: var(--jade-deep);
}

.bad {
  border-color: var(--sharp);
  color: var(--sharp);
}
</style>
