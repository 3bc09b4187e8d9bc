<template>
  <FieldRow :label="label" :hint="hint" :fault="fault">
    <template #default="{ id, invalid }">
      <ElInput
        :id="id"
        ref="field"
        v-model="password"
        type="password"
        :show-password="isNew"
        :autocomplete="isNew ? 'new-password' : 'current-password'"
        maxlength="500"
        :aria-invalid="invalid"
      />
    </template>
  </FieldRow>
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { ref } from 'vue'
import FieldRow from './FieldRow.vue'

/** A password: the one that opens now, or a new one, which may be looked at while it is typed. */
withDefaults(
  defineProps<{
    label: string
    isNew?: boolean
    hint?: string | undefined
    fault?: string | undefined
  }>(),
  { hint: undefined, fault: undefined },
)
const password = defineModel<string>({ required: true })
const field = ref<InputInstance>()
defineExpose({ focus: () => field.value?.focus() })
</script>
