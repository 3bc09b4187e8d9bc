<template>
  <FieldRow label="String length, nut to bridge" :fault="fault">
    <template #default="{ id, invalid }">
      <ElInput
        :id="id"
        ref="input"
        v-model="text"
        size="large"
        class="length"
        autocomplete="off"
        maxlength="40"
        :aria-invalid="invalid"
        @keydown.enter.prevent="emit('enter')"
      >
        <template v-if="!/[a-z″&quot;]/i.test(text)" #suffix>mm</template>
      </ElInput>
      <p v-if="judged?.verdict === 'fits'" class="fits">{{ sentence }}</p>
    </template>
    <template #after>
      <div v-if="offers.length" class="offers">
        <ElButton v-for="offer in offers" :key="offer.label" size="small" @click="offer.run()">{{
          offer.label
        }}</ElButton>
      </div>
    </template>
  </FieldRow>
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { computed, ref } from 'vue'
import type { FamilyId } from '#core'
import { lengthSentence, unreadableLength } from '../../words/length'
import { mm } from '../../words/numbers'
import { sizeName } from '../../words/trade'
import FieldRow from '../shell/FieldRow.vue'
import type { TypedLength } from './useTypedLength'

const text = defineModel<string>({ required: true })
const props = defineProps<{ typed: TypedLength; family: FamilyId; sizeId: string; canKeepAnyway: boolean }>()
const emit = defineEmits<{ enter: []; size: [sizeId: string]; keepAnyway: [] }>()

const judged = computed(() => (props.typed.parsed.ok ? props.typed.judgement : undefined))
const sentence = computed(() => judged.value && lengthSentence(props.family, props.sizeId, judged.value))
const fault = computed(() => {
  const { parsed } = props.typed
  if (!parsed.ok) return text.value.trim() === '' ? undefined : unreadableLength(parsed)
  return judged.value?.verdict === 'fits' ? undefined : sentence.value
})

/** One press for what the teacher may have meant. */
const offers = computed(() => {
  const explanations = judged.value?.explanations ?? []
  const list = explanations.flatMap((e) => {
    if (e.code === 'wrong_unit')
      return [{ label: `Use ${mm(e.lengthMm)} mm`, run: () => (text.value = e.lengthMm.toFixed(1)) }]
    if (e.code === 'other_size')
      return e.sizeIds.map((id) => ({ label: `It is a ${sizeName(id)}`, run: () => emit('size', id) }))
    return []
  })
  if (props.canKeepAnyway && judged.value?.verdict === 'doubtful')
    list.push({ label: 'Measured twice: keep it', run: () => emit('keepAnyway') })
  return list
})

const input = ref<InputInstance>()
defineExpose({
  focus: () => {
    input.value?.focus()
    input.value?.select()
  },
})
</script>

<style scoped>
.length :deep(input) {
  font: 600 24px/1 var(--font-text);
  font-variant-numeric: tabular-nums;
}

.length {
  --el-component-size-large: 46px;
}

.fits {
  color: var(--jade);
  font-size: 15px;
}

.offers {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
