<template>
  <section class="card" aria-label="Instrument">
    <p class="eyebrow">Instrument</p>
    <template v-if="instrument">
      <h2>
        <RouterLink :to="{ name: 'instrument', params: { instrumentId: instrument.id } }">{{
          instrument.label
        }}</RouterLink>
      </h2>
      <p class="soft">{{ instrumentKind(instrument.family, instrument.sizeId) }}, {{ tuning }}</p>
      <p class="length numbers">
        <template v-if="instrument.measurement">
          {{ inUnit(instrument.measurement.lengthMm) }}<small>{{ ` ${unitName()}` }} nut to bridge</small>
        </template>
        <template v-else><small>not measured yet</small></template>
      </p>
      <p v-if="instrument.measurement" class="soft small">
        Measured {{ shortDay(instrument.measurement.measuredOn) }} by {{ instrument.measurement.by }}, as “{{
          instrument.measurement.typed
        }}”
      </p>
      <p class="small">{{ tapes }}</p>
      <div class="acts">
        <ElButton type="primary" @click="emit('bench')"
          >{{ instrument.measurement ? 'Tape bench' : 'Measure' }}<KeyHint of="t" on-button
        /></ElButton>
        <ElButton @click="emit('choose')">Another one<KeyHint of="l" on-button /></ElButton>
        <ElButton @click="emit('takeBack')">Take back</ElButton>
      </div>
      <RouterLink class="small" :to="{ name: 'compare', query: { from: instrument.id } }">
        Old and new places at a change of size
      </RouterLink>
    </template>
    <template v-else>
      <h2>None lent</h2>
      <p class="soft">Lend one from the cupboard, or write down a new one.</p>
      <ElButton type="primary" @click="emit('choose')">Lend one<KeyHint of="l" on-button /></ElButton>
      <FieldRow label="Or a new one">
        <div class="new">
          <ChoiceSelect
            v-model="newSizeId"
            label="Size of the new instrument"
            placeholder="Size"
            :options="sizes"
          />
          <ElInput
            v-model="newLabel"
            aria-label="Number or name of the new instrument"
            placeholder="no. 21"
            maxlength="60"
          />
        </div>
      </FieldRow>
      <p v-if="lacks" class="heed" role="status">{{ lacks }}</p>
      <ElButton @click="add">Add and lend</ElButton>
    </template>
  </section>
</template>

<script setup lang="ts">
import { computed, ref } from 'vue'
import { familyOf, marksWithIds } from '#core'
import type { Student } from '#contracts'
import { shortDay } from '../../words/dates'
import { inUnit, listed, unitName } from '../../words/numbers'
import { instrumentKind, shortMarkName, sizeName } from '../../words/trade'
import ChoiceSelect from '../../ui/ChoiceSelect.vue'
import FieldRow from '../../ui/FieldRow.vue'
import KeyHint from '../../ui/KeyHint.vue'

const props = defineProps<{ student: Student }>()
const emit = defineEmits<{
  bench: []
  takeBack: []
  /** Which of the free ones is lent. */
  choose: []
  add: [sizeId: string, label: string]
}>()

const instrument = computed(() => props.student.instrument)
const tuning = computed(() => instrument.value?.tuning.join(' '))
const tapes = computed(() => {
  const lying = instrument.value?.tapes ?? []
  if (!instrument.value || lying.length === 0) return 'No tapes lie on it.'
  const marks = marksWithIds(
    familyOf(instrument.value.family),
    lying.map((tape) => tape.markId),
  )
  const places = marks.map((mark) => {
    const tape = lying.find((t) => t.markId === mark.id)
    return `${shortMarkName(mark)} at ${inUnit(tape?.placeMm ?? NaN)}`
  })
  const since = lying.reduce((a, b) => (b.laidOn < a.laidOn ? b : a)).laidOn
  return `Tapes ${listed(places)} ${unitName()}, the oldest since ${shortDay(since)}.`
})

const newSizeId = ref('')
const newLabel = ref('')
/** What it still needs, once it was asked for. */
const wasAsked = ref(false)
const lacks = computed(() => {
  const missing = [
    ...(newSizeId.value ? [] : ['its size']),
    ...(newLabel.value.trim() ? [] : ['a number or a name for it, as in no. 21']),
  ]
  return wasAsked.value && missing.length > 0 ? `Give ${listed(missing)}.` : ''
})
function add() {
  wasAsked.value = true
  if (newSizeId.value && newLabel.value.trim()) emit('add', newSizeId.value, newLabel.value)
}
const sizes = computed(() =>
  familyOf(props.student.family).sizes.map(({ id }) => ({ value: id, label: sizeName(id) })),
)
</script>

<style scoped>
.card {
  display: grid;
  align-content: start;
  gap: 7px;
}

.length {
  font: 700 30px/1.15 var(--font-text);
  color: var(--jade);
}

.length small {
  font-size: 15px;
  font-weight: 400;
  color: var(--ink-soft);
}

.small {
  font-size: 14.5px;
  line-height: 1.35;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 4px;
}

.acts :deep(.el-button) {
  margin: 0;
}

.new {
  display: grid;
  grid-template-columns: 110px 1fr;
  gap: 8px;
}
</style>
