<template>
  <section class="card done" aria-label="The round is done">
    <h2 ref="heading" tabindex="-1">{{ sentence }}</h2>
    <ul v-if="open.length">
      <li v-for="{ item, answer } in open" :key="item.id">
        <button type="button" @click="round.lookAt(item.id)">
          <span :class="['answer', answer]">{{ answerName(item.id, answer) }}</span>
          <span class="name" dir="auto">{{ setupName(item.id, item.own?.question) }}</span>
          <span class="soft">{{ round.wordsOf(item).change }}</span>
        </button>
      </li>
    </ul>
    <div class="acts">
      <ElButton type="primary" size="large" :loading="round.isKeeping.value" @click="emit('keep')"
        >Keep in the file<KeyHint of="Enter" on-button
      /></ElButton>
      <ElButton size="large" @click="round.begin()">Begin again</ElButton>
    </div>
  </section>
</template>

<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import KeyHint from '../../ui/KeyHint.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import { count } from '../../words/numbers'
import { answerName, setupName } from '../../words/setup-names'
import type { Round } from './useRound'

/** All is asked: what is not yet right, and keeping it. */
const props = defineProps<{ round: Round }>()
const emit = defineEmits<{ keep: [] }>()
const open = computed(() =>
  props.round.items.value.flatMap((item) => {
    const answer = props.round.answers.value.find(({ itemId }) => itemId === item.id)?.answer
    return answer === 'nearly' || answer === 'no' ? [{ item, answer }] : []
  }),
)
const sentence = computed(() =>
  open.value.length === 0
    ? 'The hold stands as it should: read a note.'
    : `All is asked. ${count(open.value.length, 'thing')} to come back to; one at a time.`,
)
const heading = ref<HTMLElement>()
onMounted(() => heading.value?.focus({ preventScroll: true }))
useShortcuts('The round is done', [{ key: 'Enter', does: 'Keep it in the file', run: () => emit('keep') }])
</script>

<style scoped>
.done {
  display: grid;
  align-content: start;
  gap: 14px;
  max-width: 900px;
  padding: 22px 26px;
}

h2 {
  font-size: 28px;
}

h2:focus {
  outline: none;
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li + li {
  border-top: 1px solid var(--line);
}

li button {
  display: grid;
  grid-template-columns: 74px minmax(120px, 0.6fr) minmax(0, 1.4fr);
  align-items: baseline;
  gap: 12px;
  width: 100%;
  min-height: 46px;
  padding: 8px 0;
  border: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.name {
  font-weight: 600;
  overflow-wrap: anywhere;
}

.answer {
  padding: 2px 8px;
  border-radius: 4px;
  background: var(--brass-wash);
  color: var(--brass-ink);
  font-size: 14px;
  font-weight: 600;
  text-align: center;
}

.answer.no {
  background: var(--sharp-wash);
  color: var(--sharp);
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
</style>
