<template>
  <ElSelect v-bind="attributes" v-model="chosen" :aria-label="label">
    <template #label>{{ chosenLabel }}</template>
  </ElSelect>
</template>

<script setup lang="ts" generic="T extends string | number">
import { computed } from 'vue'

/** One of a few: a drop-down that takes its choices as a list. */
const props = defineProps<{
  label: string
  options: readonly { readonly value: T; readonly label: string }[]
  placeholder?: string
  filterable?: boolean
}>()
const chosen = defineModel<T>({ required: true })

/** Bound as one: Element Plus types these single props as their own descriptions. */
const attributes = computed<Record<string, unknown>>(() => ({
  options: [...props.options],
  placeholder: props.placeholder ?? 'Choose',
  filterable: props.filterable,
  // The list is made when it is opened: on a page with several, the lists would take longer than the page.
  persistent: false,
}))
const chosenLabel = computed(() => props.options.find((o) => o.value === chosen.value)?.label ?? '')
</script>
