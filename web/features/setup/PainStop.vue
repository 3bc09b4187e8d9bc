<template>
  <section class="pain" aria-label="Pain">
    <p class="eyebrow bad">Stop</p>
    <h2 ref="heading" tabindex="-1">{{ PAIN_CAUTION }}</h2>
    <p class="soft">
      Nothing else is asked until it is cleared. What is told here stays in this studio. Write only what the
      lesson needs, and follow your local rules on safeguarding.
    </p>
    <div class="places" role="group" aria-label="Where it hurts">
      <button
        v-for="place in PLACES"
        :key="place"
        type="button"
        :aria-pressed="place === where"
        @click="where = place"
        @keydown.enter.prevent="chooseOrMark(place)"
      >
        {{ place }}
      </button>
    </div>
    <form class="fields" @submit.prevent="emit('keep')">
      <FieldRow v-slot="{ id }" label="Where, in your words" :fault="fault">
        <ElInput :id="id" ref="field" v-model="where" maxlength="80" />
      </FieldRow>
      <FieldRow v-slot="{ id }" label="Since when">
        <ElInput :id="id" v-model="since" maxlength="80" placeholder="a week" />
      </FieldRow>
      <div class="acts">
        <ElButton
          type="primary"
          native-type="submit"
          size="large"
          :disabled="where.trim() === ''"
          :loading="round.isKeeping.value"
          >Mark it in the file<KeyHint of="Enter" on-button
        /></ElButton>
        <ElButton size="large" @click="round.answer('yes')"
          >Nothing hurts after all<KeyHint of="y" on-button
        /></ElButton>
      </div>
    </form>
  </section>
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { computed, onMounted, ref } from 'vue'
import FieldRow from '../../ui/FieldRow.vue'
import KeyHint from '../../ui/KeyHint.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import { PAIN_CAUTION } from '../../words/setup'
import type { Round } from './useRound'

/** Pain, numbness or tingling: the round ends, the file says so, and somebody who knows is asked. */
const props = defineProps<{ round: Round }>()
const emit = defineEmits<{ keep: [] }>()
const PLACES = [
  'fingers',
  'thumb',
  'left wrist',
  'left forearm',
  'left shoulder',
  'neck',
  'jaw',
  'back',
  'right arm',
] as const
const where = computed({
  get: () => props.round.pain.value.place,
  set: (place) => props.round.namePain(place),
})
const since = computed({
  get: () => props.round.pain.value.since,
  set: (text) => props.round.datePain(text),
})
const fault = computed(() => (where.value === '' ? 'Name the place that hurts.' : undefined))
/** Enter does what the button shows, also where the chosen place still has the focus. */
function chooseOrMark(place: string) {
  if (where.value === place) emit('keep')
  else where.value = place
}
const heading = ref<HTMLElement>()
const field = ref<InputInstance>()
onMounted(() => heading.value?.focus({ preventScroll: true }))
useShortcuts('Pain', [
  {
    key: 'Enter',
    does: 'Mark it in the file',
    run: () => (where.value.trim() === '' ? field.value?.focus() : emit('keep')),
  },
  { key: 'm', does: 'Type where it hurts', run: () => field.value?.focus() },
  { key: 'y', does: 'Nothing hurts after all', run: () => props.round.answer('yes') },
])
</script>

<style scoped>
.pain {
  display: grid;
  align-content: start;
  gap: 14px;
  padding: 22px 26px;
  border: 1px solid var(--line);
  border-left: 5px solid var(--danger);
  border-radius: var(--radius);
  background: var(--card);
}

.bad {
  color: var(--danger);
}

h2 {
  font-size: 27px;
  line-height: 1.3;
}

h2:focus {
  outline: none;
}

.places {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.places button {
  min-height: 48px;
  padding: 8px 16px;
  border: 1px solid var(--line-strong);
  border-radius: 24px;
  background: var(--card);
  color: var(--ink);
  font: 600 17px/1.2 var(--font-text);
  cursor: pointer;
}

.places button[aria-pressed='true'] {
  border-color: var(--danger);
  box-shadow: inset 0 0 0 1px var(--danger);
  color: var(--danger);
}

.fields {
  display: grid;
  grid-template-columns: 1.4fr 1fr;
  gap: 12px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}

@media (width <= 560px) {
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
