<template>
  <form class="card walk-in" aria-label="Walk-in" @submit.prevent="begin">
    <h2>A walk-in</h2>
    <p class="soft">Somebody with an instrument and no file: the hand is read, and nothing is kept.</p>
    <p v-if="bench.instrument">
      On the bench lies <strong>{{ bench.instrument.label }}</strong>,
      {{ instrumentKind(bench.instrument.family, bench.instrument.sizeId) }}.
      <ElButton size="small" @click="bench.clear()">Another instrument</ElButton>
    </p>
    <div v-else class="fields">
      <FamilyAndSize v-model:family="familyId" v-model:size-id="bench.setup.sizeId" />
      <FieldRow label="String length, nut to bridge" :fault="fault" class="length">
        <template #default="{ id, invalid }">
          <ElInput
            :id="id"
            ref="lengthField"
            v-model="lengthText"
            :aria-invalid="invalid"
            data-takes="length"
            maxlength="40"
            autocomplete="off"
          >
            <template v-if="!/[a-z″&quot;]/i.test(lengthText)" #suffix>mm</template>
          </ElInput>
        </template>
      </FieldRow>
    </div>
    <ElButton type="primary" native-type="submit" :disabled="!bench.stringing.isMeasured"
      >Read the hand<KeyHint of="Enter" on-button
    /></ElButton>
  </form>
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { computed, ref } from 'vue'
import { unreadableLength } from '#contracts'
import { useBench } from '../../stores/bench'
import FamilyAndSize from '../../ui/FamilyAndSize.vue'
import FieldRow from '../../ui/FieldRow.vue'
import KeyHint from '../../ui/KeyHint.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import { lengthSentence } from '../../words/length'
import { instrumentKind } from '../../words/trade'

/** Family, size and length of an instrument that is not the studio’s: they lie on the bench, which gives the places. */
const emit = defineEmits<{ begin: [] }>()

const bench = useBench()
const familyId = computed({ get: () => bench.setup.familyId, set: (id) => bench.chooseFamily(id) })
/** One length from nut to bridge, however the bench was measured before. */
const lengthText = computed({
  get: () => (bench.setup.method === 'bridge' ? bench.setup.lengthText : ''),
  set: (text) => Object.assign(bench.setup, { method: 'bridge', lengthText: text }),
})
const fault = computed(() => {
  const { parsed, judgement } = bench.lengths.one
  if (lengthText.value.trim() === '') return undefined
  if (!parsed.ok) return unreadableLength(parsed)
  return judgement && judgement.verdict !== 'fits'
    ? lengthSentence(bench.setup.familyId, bench.setup.sizeId, judgement)
    : undefined
})
function begin() {
  if (bench.stringing.isMeasured) emit('begin')
}

const lengthField = ref<InputInstance>()
useShortcuts('A walk-in', [
  {
    key: 'w',
    does: 'A walk-in',
    run: () => {
      lengthField.value?.focus()
      lengthField.value?.select()
    },
  },
])
</script>

<style scoped>
.walk-in {
  display: grid;
  align-content: start;
  gap: 12px;
}

.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}

.length {
  grid-column: 1 / -1;
}

.length :deep(input) {
  font: 600 20px/1 var(--font-text);
}

.walk-in > .el-button {
  justify-self: start;
}
</style>
