<template>
  <section class="card" aria-label="Second factor">
    <p class="eyebrow">Second factor</p>
    <template v-if="codes">
      <p>It is on. These spare codes let you in without the phone, each once:</p>
      <ul class="codes">
        <li v-for="one in codes" :key="one">{{ one }}</li>
      </ul>
      <p class="soft">They are shown this one time. Print them, or write them where the phone is not.</p>
      <div class="acts">
        <ElButton type="primary" @click="codes = undefined">I have them</ElButton>
        <ElButton @click="saveCodes">Save as a file</ElButton>
      </div>
    </template>
    <template v-else-if="made">
      <p>Hold your program of codes before this, or type the secret into it.</p>
      <div class="found">
        <QrCode :text="made.uri" label="The secret as a code for a camera" />
        <p class="secret">{{ grouped }}</p>
      </div>
      <form aria-label="The first code" @submit.prevent="confirm">
        <FieldRow label="The six figures that it shows now" :fault="faults['code'] ?? told">
          <template #default="{ id, invalid }">
            <ElInput
              :id="id"
              ref="codeField"
              v-model="code"
              inputmode="numeric"
              autocomplete="one-time-code"
              maxlength="7"
              :aria-invalid="invalid"
            />
          </template>
        </FieldRow>
        <div class="acts">
          <ElButton type="primary" native-type="submit" :disabled="code.trim().length < 6"
            >Turn it on</ElButton
          >
          <ElButton @click="made = undefined">Leave it</ElButton>
        </div>
      </form>
    </template>
    <template v-else>
      <p v-if="factor?.since">
        On since {{ shortDay(factor.since) }}; {{ count(factor.spareCodes, 'spare code') }} left. Signing in
        asks for six figures from your phone.
      </p>
      <p v-else class="soft">
        Whoever has your password does not come in by it alone. Six figures from your phone are asked for too,
        by any program of codes.
      </p>
      <form
        :aria-label="factor?.since ? 'End the second factor' : 'Begin a second factor'"
        @submit.prevent="go"
      >
        <PasswordField
          ref="passwordField"
          v-model="current"
          label="Your password"
          :fault="faults['current'] ?? told"
        />
        <ElButton native-type="submit" :disabled="!current">
          {{ factor?.since ? 'End it' : 'Set it up' }}<KeyHint of="Enter" on-button />
        </ElButton>
      </form>
    </template>
  </section>
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { computed, nextTick, ref, shallowRef } from 'vue'
import type { SecondFactorKey } from '#contracts'
import { call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { useSending } from '../../api/useSending'
import { saveFile } from '../../files/tables'
import { useNotices } from '../../stores/notices'
import FieldRow from '../../ui/FieldRow.vue'
import KeyHint from '../../ui/KeyHint.vue'
import PasswordField from '../../ui/PasswordField.vue'
import QrCode from '../../ui/QrCode.vue'
import { shortDay } from '../../words/dates'
import { count } from '../../words/numbers'

const notices = useNotices()
const loaded = useLoaded(
  () => '',
  () => call('secondFactor.read', {}),
)
const factor = loaded.data
const made = shallowRef<SecondFactorKey>()
const codes = shallowRef<readonly string[]>()
const current = ref('')
const code = ref('')
const { faults, fault, send } = useSending()
/** Each step has one field: what is said of the whole is said of it. */
const told = computed(() => fault.value || undefined)
const passwordField = ref<InstanceType<typeof PasswordField>>()
const codeField = ref<InputInstance>()

const grouped = computed(() => made.value?.secret.replace(/.{4}(?=.)/g, '$& '))

const go = () =>
  send(async () => {
    // Whoever types faster than the answer comes has read “Set it up”: that is done, and nothing is ended by it.
    const { value: shown } = factor
    const { since } = shown ?? (await call('secondFactor.read', {}))
    if (!shown && since) return loaded.reload()
    const body = { current: current.value }
    if (since) {
      await call('secondFactor.end', { body })
      notices.say('The second factor has ended: the password alone lets you in.')
      await loaded.reload()
    } else {
      made.value = await call('secondFactor.begin', { body })
      code.value = ''
      await nextTick()
      codeField.value?.focus()
    }
    current.value = ''
  })

const confirm = () =>
  send(async () => {
    codes.value = (await call('secondFactor.confirm', { body: { code: code.value } })).codes
    made.value = undefined
    await loaded.reload()
  })

function saveCodes() {
  const text = `Spare codes for Jadefell, each opens once:\n\n${(codes.value ?? []).join('\n')}\n`
  saveFile('spare-codes.txt', text, 'text/plain')
}

defineExpose({ begin: () => passwordField.value?.focus() })
</script>

<style scoped>
.card {
  display: grid;
  gap: 10px;
  align-content: start;
}

.card p {
  margin: 0;
}

form {
  display: grid;
  gap: 10px;
  justify-items: start;
  max-width: 420px;
}

form > :deep(.field) {
  width: 100%;
}

.found {
  display: grid;
  grid-template-columns: 180px minmax(0, 1fr);
  gap: 16px;
  align-items: center;
}

.secret,
.codes {
  font: 600 18px/1.5 var(--font-text);
  font-variant-numeric: tabular-nums lining-nums;
  letter-spacing: 0.04em;
}

.codes {
  columns: 2;
  list-style: none;
  margin: 0;
  padding: 0;
}

.acts {
  display: flex;
  gap: 8px;
}

.acts .el-button {
  margin: 0;
}

@media (width <= 480px) {
  .found {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
