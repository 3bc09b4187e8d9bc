<template>
  <form class="form" aria-label="Change the password" @submit.prevent="change">
    <PasswordField
      ref="first"
      v-model="current"
      label="The password you have now"
      :fault="faults['current']"
    />
    <PasswordField
      v-model="next"
      is-new
      label="The new one"
      :hint="`at least ${SHORTEST_PASSWORD} characters; a few words are easy to keep`"
      :fault="faults['next']"
    />
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <ElButton type="primary" native-type="submit" :loading="isSending" :disabled="!current || !next">
      Change it<KeyHint of="Enter" on-button />
    </ElButton>
    <p class="soft small">Every other session ends with the old password.</p>
  </form>
</template>

<script setup lang="ts">
import { ref } from 'vue'
import { SHORTEST_PASSWORD } from '#contracts'
import { call } from '../../api/client'
import { useSending } from '../../api/useSending'
import { useNotices } from '../../stores/notices'
import KeyHint from '../../ui/KeyHint.vue'
import PasswordField from '../../ui/PasswordField.vue'

const emit = defineEmits<{ changed: [] }>()
const notices = useNotices()
const first = ref<InstanceType<typeof PasswordField>>()
const current = ref('')
const next = ref('')
const { faults, fault, isSending, send } = useSending()

const change = () =>
  send(async () => {
    await call('password.change', { body: { current: current.value, next: next.value } })
    current.value = ''
    next.value = ''
    notices.say('The password is changed.')
    emit('changed')
  })

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
