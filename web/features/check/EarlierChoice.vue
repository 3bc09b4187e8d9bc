<template>
  <p class="earlier">
    <ElCheckbox v-model="counts" :disabled="isKept">Earlier takes count <KeyHint of="y" /></ElCheckbox>
    <span class="soft">{{ earlierSentence(verdict) }}</span>
  </p>
</template>

<script setup lang="ts">
import type { KeptVerdict } from '#contracts'
import KeyHint from '../../ui/KeyHint.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import { earlierSentence } from '../../words/verdict'

/** Whether earlier takes of the same hand have a say, and what they had to say. */
const props = defineProps<{
  verdict: KeptVerdict
  /** It is kept as it was judged. */
  isKept: boolean
}>()
const counts = defineModel<boolean>({ required: true })

useShortcuts('Earlier takes', [
  {
    key: 'y',
    does: 'Earlier takes count, or not',
    run: () => {
      if (!props.isKept) counts.value = !counts.value
    },
  },
])
</script>

<style scoped>
.earlier {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: center;
  margin: 0;
  font-size: 15px;
}
</style>
