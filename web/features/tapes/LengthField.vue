<template>
  <FieldRow :label="LABELS[setup.method]" :fault="fault">
    <template #default="{ id, invalid }">
      <ElInput
        v-if="setup.method !== 'strings'"
        :id="id"
        ref="input"
        v-model="setup.lengthText"
        size="large"
        class="length"
        autocomplete="off"
        data-takes="length"
        maxlength="40"
        :aria-invalid="invalid"
        @keydown.enter.prevent="emit('enter')"
      >
        <template v-if="!/[a-z″&quot;]/i.test(setup.lengthText)" #suffix>mm</template>
      </ElInput>
      <div v-else class="strings">
        <ElInput
          v-for="(open, index) in bench.tuning"
          :id="index === 0 ? id : `${id}-${index}`"
          :key="index"
          :ref="(el) => index === 0 && (firstString = el as unknown as InputInstance)"
          v-model="setup.stringTexts[index]"
          :aria-label="`Length of the ${noteLabel(open)} string`"
          :aria-invalid="invalid"
          autocomplete="off"
          data-takes="length"
          maxlength="40"
          @keydown.enter.prevent="emit('enter')"
        >
          <template #prefix>{{ noteLabel(open, { octave: false }) }}</template>
        </ElInput>
      </div>
      <p v-if="fits" class="fits">{{ fits }}</p>
      <p v-if="bridgeSays" class="heed">{{ bridgeSays }}</p>
    </template>
    <template #after>
      <div v-if="offers.length" class="offers">
        <ElButton v-for="offer in offers" :key="offer.label" size="small" @click="offer.run()">{{
          offer.label
        }}</ElButton>
      </div>
      <div class="methods" role="group" aria-label="How the length was measured">
        <button
          v-for="method in METHODS"
          :key="method.id"
          type="button"
          :aria-pressed="setup.method === method.id"
          @click="choose(method.id)"
        >
          {{ method.name }}
        </button>
      </div>
    </template>
  </FieldRow>
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { storeToRefs } from 'pinia'
import { computed, nextTick, ref } from 'vue'
import { contradictoryLengths, unreadableLength } from '#contracts'
import { useBench, type LengthMethod } from '../../stores/bench'
import { bridgeSentence, lengthSentence } from '../../words/length'
import { length } from '../../words/numbers'
import { sizeName } from '../../words/trade'
import FieldRow from '../../ui/FieldRow.vue'
import { noteLabel } from '../../words/notes'

const METHODS: readonly { id: LengthMethod; name: string }[] = [
  { id: 'bridge', name: 'One length' },
  { id: 'strings', name: 'Each string' },
  { id: 'harmonic', name: 'To the octave' },
]
const LABELS: Record<LengthMethod, string> = {
  bridge: 'String length, nut to bridge',
  strings: 'Each string, nut to bridge',
  harmonic: 'From the nut to the octave harmonic',
}

const emit = defineEmits<{ enter: []; size: [sizeId: string]; keepAnyway: [] }>()
const bench = useBench()
const { setup } = storeToRefs(bench)

/** The first string whose length has something to be said about. */
const at = computed(() => {
  const { one, each } = bench.lengths
  if (setup.value.method !== 'strings') return { typed: one, text: setup.value.lengthText, name: '' }
  const index = each.findIndex(
    ({ parsed, judgement }, i) =>
      (setup.value.stringTexts[i] ?? '').trim() !== '' && (!parsed.ok || judgement?.verdict !== 'fits'),
  )
  const open = bench.tuning[index]
  return {
    typed: each[index],
    text: setup.value.stringTexts[index] ?? '',
    name: open ? `${noteLabel(open, { octave: false })}: ` : '',
  }
})
const judged = computed(
  () => bench.lengths.together ?? (at.value.typed?.parsed.ok ? at.value.typed.judgement : undefined),
)
const sentence = computed(
  () => judged.value && lengthSentence(setup.value.familyId, setup.value.sizeId, judged.value),
)
const fault = computed(() => {
  const both = bench.lengths.contradiction
  if (both) return contradictoryLengths(both.shortestMm, both.longestMm)
  if (bench.lengths.together) return `All strings: ${sentence.value}`
  const { typed, text, name } = at.value
  if (!typed) return undefined
  if (!typed.parsed.ok) return text.trim() === '' ? undefined : name + unreadableLength(typed.parsed)
  return judged.value?.verdict === 'fits' ? undefined : name + (sentence.value ?? '')
})
const fits = computed(() => {
  if (judged.value?.verdict !== 'fits' || !sentence.value) return undefined
  const { one } = bench.lengths
  const twice = setup.value.method === 'harmonic' && one.parsed.ok
  return twice ? `Twice that: ${length(one.usableMm ?? 0)}. ${sentence.value}` : sentence.value
})
const bridgeSays = computed(
  () =>
    bench.bridge &&
    bridgeSentence(
      bench.bridge,
      bench.tuning.map((n) => noteLabel(n, { octave: false })),
    ),
)

/** One press for what the teacher may have meant. */
const offers = computed(() => {
  const explanations = judged.value?.explanations ?? []
  const isOne = setup.value.method === 'bridge'
  const list = explanations.flatMap((e) => {
    if (e.code === 'wrong_unit' && isOne)
      return [
        { label: `Use ${length(e.lengthMm)}`, run: () => (setup.value.lengthText = e.lengthMm.toFixed(1)) },
      ]
    if (e.code === 'whole_for_octave')
      return [{ label: 'It is the whole string', run: () => choose('bridge') }]
    if (e.code === 'octave_for_whole' && isOne)
      return [{ label: 'It is nut to octave harmonic', run: () => choose('harmonic') }]
    if (e.code === 'other_size')
      return e.sizeIds.map((id) => ({ label: `It is a ${sizeName(id)}`, run: () => emit('size', id) }))
    return []
  })
  if (bench.instrument && judged.value?.verdict === 'doubtful')
    list.push({ label: 'Measured twice: keep it', run: () => emit('keepAnyway') })
  return list
})

const input = ref<InputInstance>()
const firstString = ref<InputInstance | null>()
function focus() {
  const field = setup.value.method === 'strings' ? firstString.value : input.value
  field?.focus()
  field?.select()
}
function choose(method: LengthMethod) {
  // What was measured already is where a measurement string by string starts.
  if (method === 'strings' && setup.value.stringTexts.every((text) => text.trim() === ''))
    setup.value.stringTexts = bench.tuning.map(() =>
      setup.value.method === 'bridge' ? setup.value.lengthText : '',
    )
  setup.value.method = method
  void nextTick(focus)
}
defineExpose({ focus })
</script>

<style scoped>
.length :deep(input) {
  font: 600 24px/1 var(--font-text);
  font-variant-numeric: tabular-nums;
}

.length {
  --el-component-size-large: 46px;
}

.strings {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}

.strings :deep(.el-input__prefix) {
  margin-right: 8px;
  font-weight: 600;
}

.strings :deep(input) {
  font-weight: 600;
  font-variant-numeric: tabular-nums;
}

.fits {
  color: var(--jade);
  font-size: 15px;
}

.offers,
.methods {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.methods button {
  border: 0;
  border-radius: 5px;
  padding: 4px 9px;
  background: none;
  color: var(--ink-soft);
  font: 600 14px var(--font-text);
  cursor: pointer;
}

.methods button:first-child {
  margin-left: -9px;
}

.methods button[aria-pressed='true'] {
  background: var(--jade-wash);
  color: var(--jade);
}
</style>
