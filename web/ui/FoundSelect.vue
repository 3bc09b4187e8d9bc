<template>
  <ElSelect v-bind="attributes" v-model="chosen" :aria-label="label" @focus="look('')">
    <template #label>{{ chosenLabel }}</template>
  </ElSelect>
</template>

<script setup lang="ts" generic="T extends string | number">
import { computed, shallowRef } from 'vue'
import { useFieldId } from './field'

/** A drop-down whose choices are looked for as somebody types: of thousands it reads those that may be meant. */
const props = defineProps<{
  label: string
  /** What is chosen now is called. */
  chosenLabel: string
  find: (text: string) => Promise<readonly { readonly value: T; readonly label: string }[]>
  placeholder?: string
}>()
const chosen = defineModel<T>({ required: true })

const options = shallowRef<readonly { readonly value: T; readonly label: string }[]>([])
let question = 0
async function look(text: string) {
  const of = ++question
  const found = await props.find(text)
  if (of === question) options.value = found
}

const id = useFieldId()
const attributes = computed<Record<string, unknown>>(() => ({
  ...(id === undefined ? {} : { id }),
  options: [...options.value],
  placeholder: props.placeholder ?? 'Part of a name',
  filterable: true,
  remote: true,
  remoteMethod: look,
  remoteShowSuffix: true,
  // Not half a second's pause: an answer to older letters is dropped anyway.
  debounce: 120,
  noDataText: 'Nothing is called that',
}))
</script>
