<template>
  <form class="form" aria-label="Let somebody teach here" @submit.prevent="invite">
    <FieldRow label="Name" :fault="faults['name']">
      <template #default="{ id, invalid }">
        <ElInput :id="id" ref="first" v-model="name" maxlength="120" :aria-invalid="invalid" />
      </template>
    </FieldRow>
    <FieldRow label="E-mail" hint="for signing in; nothing is sent there" :fault="faults['email']">
      <template #default="{ id, invalid }">
        <ElInput :id="id" v-model="email" type="email" maxlength="200" :aria-invalid="invalid" />
      </template>
    </FieldRow>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <ElButton
      type="primary"
      native-type="submit"
      :loading="isSending"
      :disabled="!name.trim() || !email.trim()"
      >Let in and give a key<KeyHint of="Enter" on-button
    /></ElButton>
  </form>
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { ref } from 'vue'
import type { OneTimeKey } from '#contracts'
import { call } from '../../api/client'
import { useSending } from '../../api/useSending'
import FieldRow from '../../ui/FieldRow.vue'
import KeyHint from '../../ui/KeyHint.vue'

const emit = defineEmits<{ invited: [key: OneTimeKey] }>()
const first = ref<InputInstance>()
const name = ref('')
const email = ref('')
const { faults, fault, isSending, send } = useSending()

const invite = () =>
  send(async () => {
    const { key } = await call('people.invite', { body: { name: name.value, email: email.value } })
    name.value = ''
    email.value = ''
    emit('invited', key)
  })

defineExpose({ begin: () => first.value?.focus() })
</script>

<style scoped>
.form {
  display: grid;
  gap: 12px;
  justify-items: start;
}

.form > :deep(.field) {
  width: 100%;
}
</style>
