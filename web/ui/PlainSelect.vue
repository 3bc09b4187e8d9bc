<template>
  <span class="plain">
    <select
      :id="id"
      ref="field"
      :value="String(chosen)"
      :aria-label="label"
      @pointerdown="byPointer = true"
      @keydown="byPointer = false"
      @change="take"
    >
      <option v-for="option in options" :key="option.value" :value="String(option.value)">
        {{ option.label }}
      </option>
    </select>
  </span>
</template>

<script setup lang="ts" generic="T extends string | number">
import { ref } from 'vue'
import { useFieldId } from './field'

/** The browser's own drop-down, for pages that are redrawn at every key: it costs a hundredth of a made one. */
const props = defineProps<{
  label: string
  options: readonly { readonly value: T; readonly label: string }[]
}>()
const chosen = defineModel<T>({ required: true })
const id = useFieldId()
const field = ref<HTMLSelectElement>()
const byPointer = ref(false)

function take() {
  const option = props.options.find((o) => String(o.value) === field.value?.value)
  if (option) chosen.value = option.value
  // Chosen by hand, the keys go back to the page; somebody who steps through it by keys stays in it.
  if (byPointer.value) field.value?.blur()
}
</script>

<style scoped>
.plain {
  position: relative;
  display: block;
}

.plain::after {
  content: '';
  position: absolute;
  top: 50%;
  right: 13px;
  width: 7px;
  height: 7px;
  border-right: 1.5px solid var(--ink-soft);
  border-bottom: 1.5px solid var(--ink-soft);
  transform: translateY(-70%) rotate(45deg);
  pointer-events: none;
}

select {
  appearance: none;
  width: 100%;
  height: 36px;
  padding: 0 32px 0 12px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--card);
  color: var(--ink);
  font: 400 16px var(--font-text);
  cursor: pointer;
}
</style>
