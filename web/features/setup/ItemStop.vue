<template>
  <section class="stop" aria-label="Stopped here">
    <div class="said">
      <p class="eyebrow bad">Stop here: {{ name }}</p>
      <h2 ref="heading" tabindex="-1" dir="auto">{{ words.change || words.right }}</h2>
      <p v-if="words.reason" class="why">{{ words.reason }}</p>
      <dl>
        <template v-if="symptoms">
          <dt>Tends to show as</dt>
          <dd>{{ symptoms }}</dd>
        </template>
        <template v-if="words.test">
          <dt>Test</dt>
          <dd>{{ words.test }}</dd>
        </template>
        <template v-if="remedies.length">
          <dt>Try</dt>
          <dd>
            <p v-for="remedy in remedies" :key="remedy">{{ remedy }}</p>
          </dd>
        </template>
      </dl>
      <p v-if="cautionOf(item.id)" class="heed">{{ cautionOf(item.id) }}</p>
    </div>
    <ItemPictures :item-id="item.id" :words="words" :figure-of="round.figureOf" :measured="measured" />
    <div class="acts">
      <BigButton of="Enter" tone="main" :disabled="round.isKeeping.value" @click="emit('keep')"
        >Keep, and work on this</BigButton
      >
      <BigButton of="y" @click="round.answer('yes')">It is right now</BigButton>
      <BigButton of="n" @click="round.answer('nearly')">Nearly now</BigButton>
      <BigButton of="g" @click="round.pass()">Go on all the same</BigButton>
    </div>
  </section>
</template>

<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { isSetupItem, SYMPTOMS, type RoundItem } from '#core'
import BigButton from '../../ui/BigButton.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import { practised } from '../../words/practice'
import { cautionOf, SYMPTOM_WORDS } from '../../words/setup'
import { setupName } from '../../words/setup-names'
import ItemPictures from './ItemPictures.vue'
import type { Round } from './useRound'

/** The first thing that is not right: what to change, why, and how; the rest can wait. */
const props = defineProps<{ item: RoundItem; round: Round }>()
const emit = defineEmits<{ keep: [] }>()
const words = computed(() => props.round.wordsOf(props.item))
const name = computed(() => setupName(props.item.id, props.item.own?.question))
const measured = computed(
  () => props.round.answers.value.find(({ itemId }) => itemId === props.item.id)?.measured ?? undefined,
)
const symptoms = computed(() =>
  isSetupItem(props.item.id)
    ? SYMPTOMS[props.item.id].map((symptom) => SYMPTOM_WORDS[symptom]).join(' · ')
    : '',
)
const remedies = computed(() => {
  const { item, round } = props
  const hasTapes = round.schools.value.tapes !== 'none'
  return round.remediesOf(item).map((id) => practised(id, { hasTapes }))
})
const heading = ref<HTMLElement>()
onMounted(() => heading.value?.focus({ preventScroll: true }))

useShortcuts('Stopped', [
  { key: 'Enter', does: 'Keep the round in the file', run: () => emit('keep') },
  { key: 'y', does: 'It is right now: go on', run: () => props.round.answer('yes') },
  { key: 'n', does: 'Nearly right now: go on', run: () => props.round.answer('nearly') },
  { key: 'g', does: 'Go on all the same', run: () => props.round.pass() },
])
</script>

<style scoped>
.stop {
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(300px, 1fr) minmax(0, 1.35fr);
  gap: 12px var(--gap);
  min-height: 0;
}

.said {
  display: grid;
  align-content: start;
  gap: 9px;
  padding: 14px 18px;
  border: 1px solid var(--line);
  border-left: 4px solid var(--sharp);
  border-radius: var(--radius);
  background: var(--card);
}

.bad {
  color: var(--sharp);
}

h2 {
  font-size: clamp(22px, 2.2vw, 27px);
  line-height: 1.28;
  overflow-wrap: anywhere;
}

h2:focus {
  outline: none;
}

.why {
  font-size: 17px;
}

dl {
  display: grid;
  gap: 1px;
  margin: 0;
}

dt {
  margin-top: 5px;
  font-size: 13.5px;
  font-weight: 600;
  color: var(--ink-soft);
}

dd {
  margin: 0;
}

.heed {
  font-size: 14px;
  color: var(--ink-soft);
}

.acts {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: 1.5fr repeat(3, 1fr);
  gap: var(--gap);
}

@media (width <= 900px) {
  .stop {
    grid-template: auto auto auto / minmax(0, 1fr);
  }

  .acts {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
