<template>
  <QuickDialog :model-value="given !== undefined" label="A key" @update:model-value="emit('close')">
    <template v-if="given">
      <h2>A key for {{ given.email }}</h2>
      <div class="found">
        <QrCode :text="link" label="The same as a code for a camera" />
        <div>
          <p class="key">{{ given.key }}</p>
          <p>It opens once, until {{ dayAndTime(given.until) }}, for choosing a password.</p>
          <p class="soft">
            It is shown this one time. Hand it over in person, or read it out to a voice that you know;
            whoever has it comes in.
          </p>
        </div>
      </div>
      <div class="acts">
        <ElButton type="primary" autofocus @click="emit('close')"
          >Done<KeyHint of="Enter" on-button
        /></ElButton>
        <ElButton @click="copy">{{ isCopied ? 'Copied' : 'Copy the link' }}</ElButton>
      </div>
    </template>
  </QuickDialog>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { OneTimeKey } from '#contracts'
import KeyHint from '../../ui/KeyHint.vue'
import QrCode from '../../ui/QrCode.vue'
import QuickDialog from '../../ui/QuickDialog.vue'
import { dayAndTime } from '../../words/dates'

const props = defineProps<{ given: OneTimeKey | undefined }>()
const emit = defineEmits<{ close: [] }>()
const isCopied = ref(false)

/** Behind the #, which no browser sends to a server: the key stands in no log. */
const link = computed(() =>
  props.given
    ? `${window.location.origin}/sign-in#${new URLSearchParams({ email: props.given.email, key: props.given.key })}`
    : '',
)
watch(link, () => (isCopied.value = false))

async function copy() {
  await navigator.clipboard.writeText(link.value)
  isCopied.value = true
}
</script>

<style scoped>
h2 {
  margin-bottom: 12px;
  font-size: 21px;
  overflow-wrap: anywhere;
}

.found {
  display: grid;
  grid-template-columns: minmax(120px, 190px) minmax(0, 1fr);
  gap: 20px;
}

.key {
  margin-top: 0;
  font: 600 22px/1.3 var(--font-text);
  letter-spacing: 0.04em;
}

.acts {
  display: flex;
  gap: 8px;
  margin-top: 16px;
}

.acts .el-button {
  margin: 0;
}

@media (width <= 560px) {
  .found {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
