<template>
  <form class="form" aria-label="Change the password" @submit.prevent="change">
    <FieldRow label="The password you have now" :fault="faults['current']">
      <template #default="{ id, invalid }">
        <ElInput
          :id="id"
          ref="first"
          v-model="current"
          type="password"
          autocomplete="current-password"
          :aria-invalid="invalid"
          maxlength="500"
        />
      </template>
    </FieldRow>
    <FieldRow
      label="The new one"
      :hint="`at least ${SHORTEST_PASSWORD} characters; a few words are easy to keep`"
      :fault="faults['next']"
    >
      <template #default="{ id, invalid }">
        <ElInput
          :id="id"
          v-model="next"
          type="password"
          show-password
          autocomplete="new-password"
          :aria-invalid="invalid"
          maxlength="500"
        />
      </template>
    </FieldRow>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <ElButton type="primary" native-type="submit" :loading="isSaving" :disabled="!current || !next">
      Change it<KeyHint of="Enter" on-button />
    </ElButton>
    <p class="soft small">Every other session ends with the old password.</p>
  </form>
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { ref } from 'vue'
import { SHORTEST_PASSWORD } from '#contracts'
import { ApiProblem, call } from '../../api/client'
import { useNotices } from '../../stores/notices'
import FieldRow from '../../ui/FieldRow.vue'
import KeyHint from '../../ui/KeyHint.vue'

const emit = defineEmits<{ changed: [] }>()
const notices = useNotices()
const first = ref<InputInstance>()
const current = ref('')
const next = ref('')
const faults = ref<Record<string, string>>({})
const fault = ref('')
const isSaving = ref(false)

async function change() {
  isSaving.value = true
  faults.value = {}
  fault.value = ''
  try {
    await call('password.change', { body: { current: current.value, next: next.value } })
    current.value = ''
    next.value = ''
    notices.say('The password is changed.')
    emit('changed')
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.code === 'not_signed_in') throw error
    faults.value = Object.fromEntries((error.problem?.fields ?? []).map((f) => [f.path, f.message]))
    if (Object.keys(faults.value).length === 0) fault.value = error.message
  } finally {
    isSaving.value = false
  }
}

defineExpose({ begin: () => first.value?.focus() })
</script>

<style scoped>
.form {
  display: grid;
  gap: 12px;
  max-width: 420px;
  justify-items: start;
}

.form > :deep(.field) {
  width: 100%;
}

.small {
  font-size: 14.5px;
}
</style>
