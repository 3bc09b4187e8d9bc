<template>
  <form class="card measure" aria-label="Measure the hand" @submit.prevent="keep">
    <p class="eyebrow">Measure the left hand</p>
    <div class="fields">
      <FieldRow
        v-for="field in MEASURE_FIELDS.slice(0, 3)"
        :key="field.id"
        v-slot="{ id }"
        :label="field.label"
        :fault="form.faults.value[field.id]"
        :class="{ wide: field.id === 'comfortable' }"
      >
        <ElInput
          :id="id"
          :ref="(el: unknown) => field.id === 'comfortable' && (firstField = el as Focusable)"
          v-model="form.texts[field.id]"
          inputmode="decimal"
          data-takes="length"
          @focus="drawn = field.drawing"
        >
          <template #suffix>mm</template>
        </ElInput>
      </FieldRow>
      <FieldRow label="Thumb">
        <ElSegmented
          v-model="form.thumb.value"
          :options="THUMBS"
          aria-label="Thumb"
          @focusin="drawn = 'thumb'"
        />
      </FieldRow>
    </div>
    <details>
      <summary>Finger lengths, and the day</summary>
      <div class="lengths">
        <FieldRow
          v-for="field in MEASURE_FIELDS.slice(3)"
          :key="field.id"
          v-slot="{ id }"
          :label="field.label"
          :fault="form.faults.value[field.id]"
        >
          <ElInput
            :id="id"
            v-model="form.texts[field.id]"
            inputmode="decimal"
            data-takes="length"
            @focus="drawn = field.drawing"
          />
        </FieldRow>
      </div>
      <FieldRow v-slot="{ id }" label="Measured on">
        <input :id="id" v-model="form.measuredOn.value" type="date" class="day" />
      </FieldRow>
    </details>
    <p v-if="form.doubt.value" class="doubt" role="alert">{{ spanDoubtSentence(form.doubt.value) }}</p>
    <ElButton type="primary" native-type="submit" :disabled="!form.draft.value"
      >{{ isAsked ? 'Keep it all the same' : 'Keep' }}<KeyHint of="Enter" on-button
    /></ElButton>
    <p class="soft small">
      Gently, and never into pain. A child’s measures: with a guardian’s consent, kept no longer than needed.
    </p>
  </form>
  <aside class="card"><HandDrawing :shown="drawn" /></aside>
</template>

<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import type { SpanOnDay } from '#core'
import type { HandMeasurementDraft } from '#contracts'
import FieldRow from '../../ui/FieldRow.vue'
import HandDrawing from './HandDrawing.vue'
import { MEASURE_FIELDS, useHandForm, type HandField } from './useHandForm'
import KeyHint from '../../ui/KeyHint.vue'
import { spanDoubtSentence } from '../../words/hand-fit'

interface Focusable {
  focus(): void
}

const THUMBS = [
  { value: 'straight', label: 'Straight' },
  { value: 'double_jointed', label: 'Double-jointed' },
]

/** What is measured of a hand, and how to measure it; `save` keeps it. */
const props = defineProps<{
  /** What was measured until now. */
  before: readonly SpanOnDay[]
  save: (draft: HandMeasurementDraft) => Promise<void>
}>()
const form = useHandForm(() => props.before)
/** The doubt was told at the first Enter; the second keeps it. */
const isAsked = ref(false)
watch(form.doubt, () => (isAsked.value = false))
const drawn = ref<HandField>('span')
const firstField = ref<Focusable>()

async function keep() {
  if (!form.draft.value) return
  if (form.doubt.value && !isAsked.value) return void (isAsked.value = true)
  await props.save(form.draft.value)
  form.clear()
  await nextTick()
  firstField.value?.focus()
}

defineExpose({ begin: () => firstField.value?.focus() })
</script>

<style scoped>
.measure,
.fields {
  display: grid;
  gap: 10px;
}

.wide :deep(.el-input__inner) {
  height: 44px;
  font-size: 24px;
  font-weight: 700;
}

.doubt {
  padding: 6px 12px;
  border-left: 3px solid var(--brass);
  background: var(--brass-wash);
  color: var(--brass-ink);
}

.lengths {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  margin: 8px 0;
}

summary {
  cursor: pointer;
  font-weight: 600;
}

.day {
  padding: 6px 10px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--card);
  color: var(--ink);
  font: inherit;
}

.small {
  font-size: 13.5px;
}
</style>
