<template>
  <section class="asks" :aria-label="words.question">
    <div class="question">
      <h2 ref="heading" tabindex="-1" dir="auto">{{ words.question }}</h2>
      <p v-if="isSuggested" class="look">The last check says: look here</p>
      <p v-if="last" class="soft">
        Last time {{ answerName(item.id, last.answer) }}, since {{ shortDay(last.since)
        }}<template v-if="last.measured !== null">, {{ measuredWords(item.id, last.measured) }}</template>
      </p>
    </div>
    <ItemPictures :item-id="item.id" :words="words" :figure-of="round.figureOf" :measured="value" />
    <div class="answers">
      <BigButton of="y" tone="main" @click="take('yes')">Yes</BigButton>
      <BigButton v-if="!isPain" of="n" @click="take('nearly')">Nearly</BigButton>
      <BigButton of="x" tone="bad" @click="take('no')"
        >No<span class="wide">: {{ isPain ? 'something hurts' : 'stop here' }}</span></BigButton
      >
      <div class="side">
        <p class="test"><b class="eyebrow">Test</b> {{ words.test || words.reason }}</p>
        <form v-if="round.measure.value" class="measure" @submit.prevent="takeMeasured">
          <label :for="fieldId">Measured</label>
          <input
            :id="fieldId"
            ref="field"
            v-model="text"
            :data-takes="isLength ? 'length' : 'number'"
            inputmode="decimal"
            :aria-describedby="`${fieldId}-says`"
            :aria-invalid="fault !== undefined"
          />
          <span>{{ isLength ? 'mm' : '°' }}</span>
          <KeyHint :of="text ? 'Enter' : 'm'" />
          <p :id="`${fieldId}-says`" :class="fault ? 'fault' : 'soft'" aria-live="polite">
            {{ fault ?? judged }}
          </p>
        </form>
      </div>
    </div>
  </section>
</template>

<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useId, watch } from 'vue'
import { ALWAYS_FIRST, readMeasure, type RoundItem, type SetupAnswer } from '#core'
import BigButton from '../../ui/BigButton.vue'
import KeyHint from '../../ui/KeyHint.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import { shortDay } from '../../words/dates'
import { inStudioUnit } from '../../words/numbers'
import { measuredWords } from '../../words/setup'
import { answerName } from '../../words/setup-names'
import ItemPictures from './ItemPictures.vue'
import type { Round } from './useRound'

/** One question, as large as it can be, with what is right beside the usual wrong. */
const props = defineProps<{ item: RoundItem; round: Round }>()
const words = computed(() => props.round.wordsOf(props.item))
const isPain = computed(() => props.item.id === ALWAYS_FIRST)
const last = computed(() => props.round.last.value)
const isSuggested = computed(() => props.round.suggested.value.includes(props.item.id))

const fieldId = useId()
const text = ref('')
const field = ref<HTMLInputElement>()
const heading = ref<HTMLElement>()
const isLength = computed(() => props.round.measure.value?.unit === 'mm')
const read = computed(() => readMeasure(text.value, isLength.value ? 'mm' : 'degrees'))
const fault = computed(() => {
  const { possible } = props.round.measure.value ?? {}
  if (!possible || read.value.code === 'empty') return undefined
  if (read.value.code === 'unreadable')
    return `Type a number, as in ${isLength.value ? '25 or 2.5 cm' : '30'}.`
  const [least, most] = possible
  const unit = isLength.value ? 'mm' : 'degrees'
  return read.value.value < least || read.value.value > most
    ? `Nobody measures that here: ${inStudioUnit(`${least} to ${most} ${unit}`)}.`
    : undefined
})
const value = computed(() =>
  fault.value === undefined && read.value.code === 'value' ? read.value.value : undefined,
)
const judged = computed(() => {
  const { limits } = props.round.measure.value ?? {}
  if (!limits) return 'Kept in the file; no number is right for everybody.'
  const [from, to] = limits.right.map((one) => (isLength.value ? one.toFixed(0) : String(one)))
  const unit = isLength.value ? 'mm' : '°'
  const range = inStudioUnit(`${from} to ${to}${isLength.value ? ' ' : ''}${unit}`)
  const said = value.value === undefined ? undefined : props.round.judge(value.value)
  const sentence =
    said === 'yes'
      ? `Right: it may be ${range}.`
      : `${said ? `${answerName(props.item.id, said)}: ` : ''}right is ${range}.`
  return (sentence.charAt(0).toUpperCase() + sentence.slice(1)).replaceAll('-', '−')
})

function take(answer: SetupAnswer) {
  if (fault.value === undefined) props.round.answer(answer, value.value)
}

/** What was measured says itself whether it is right, where a number can say so. */
function takeMeasured() {
  if (value.value === undefined) return
  const said = props.round.judge(value.value)
  if (said) take(said)
  else field.value?.blur()
}

watch(
  () => props.item.id,
  async () => {
    text.value = ''
    await nextTick()
    heading.value?.focus({ preventScroll: true })
  },
)
onMounted(() => heading.value?.focus({ preventScroll: true }))

useShortcuts('The question', [
  { key: 'y', does: 'Yes, as it should be', run: () => take('yes') },
  { key: 'n', does: 'Nearly', run: () => take('nearly') },
  { key: 'x', does: 'No: stop here', run: () => take('no') },
  { key: 'm', does: 'Type what was measured', run: () => field.value?.focus() },
])
</script>

<style scoped>
.asks {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: 12px;
  min-height: 0;
}

.question {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 18px;
}

h2 {
  font-size: clamp(26px, 3.1vw, 38px);
  overflow-wrap: anywhere;
}

h2:focus {
  outline: none;
}

.look {
  padding: 2px 9px;
  border-radius: 4px;
  background: var(--brass-wash);
  color: var(--brass-ink);
  font-weight: 600;
}

.answers {
  --big: 92px;
  --big-text: 23px;

  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr)) minmax(240px, 1.35fr);
  gap: var(--gap);
}

.side {
  display: grid;
  align-content: center;
  gap: 6px;
  font-size: 15px;
  line-height: 1.35;
}

.measure {
  display: grid;
  grid-template-columns: auto 78px auto auto 1fr;
  align-items: center;
  gap: 2px 8px;
}

.measure label {
  font-weight: 600;
}

.measure p {
  grid-column: 1 / -1;
  font-size: 14px;
}

input {
  min-height: 36px;
  padding: 4px 8px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--card);
  color: var(--ink);
  font: 600 18px/1.2 var(--font-text);
}

@media (width <= 900px) {
  .answers {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }

  .side {
    grid-column: 1 / -1;
  }
}

@media (width <= 560px) {
  .answers {
    --big: 64px;
    --big-text: 19px;
  }

  .wide {
    display: none;
  }
}
</style>
