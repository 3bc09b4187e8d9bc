<template>
  <ElSelect v-if="options.length <= FEW" v-bind="attributes" v-model="chosen" :aria-label="label">
    <template #label>{{ chosenLabel }}</template>
  </ElSelect>
  <ElSelectV2 v-else v-bind="many" />
</template>

<script setup lang="ts" generic="T extends string | number">
import type { ElSelectV2 } from 'element-plus'
import { computed, inject } from 'vue'
import { IN_DIALOG, useFieldId } from './field'

/** A drop-down that takes its choices as a list; of many it draws those in sight. */
const props = defineProps<{
  label: string
  options: readonly { readonly value: T; readonly label: string }[]
  placeholder?: string
  filterable?: boolean
}>()
/** More are drawn as they come into sight. */
const FEW = 100
const chosen = defineModel<T>({ required: true })

/** Bound as one: Element Plus types these single props as their own descriptions. */
const id = useFieldId()
const isInDialog = inject(IN_DIALOG, false)
const attributes = computed<Record<string, unknown>>(() => ({
  ...(id === undefined ? {} : { id }),
  options: [...props.options],
  placeholder: props.placeholder ?? 'Choose',
  filterable: props.filterable,
  // The list is made when it is opened: on a page with several, the lists would take longer than the page.
  persistent: false,
  ...(isInDialog ? { teleported: false, popperOptions: { strategy: 'fixed' } } : {}),
}))
const many = computed(
  () =>
    ({
      ...attributes.value,
      modelValue: chosen.value,
      'onUpdate:modelValue': (value: T) => (chosen.value = value),
      ariaLabel: props.label,
    }) as unknown as InstanceType<typeof ElSelectV2>['$props'],
)
const chosenLabel = computed(() => props.options.find((o) => o.value === chosen.value)?.label ?? '')
</script>
