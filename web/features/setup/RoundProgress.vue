<template>
  <ol class="progress" :aria-label="`${done} of ${items.length} answered`">
    <li
      v-for="(item, index) in items"
      :key="item.id"
      :class="[answerTo(item.id), { here: item.id === atId, looked: suggested.includes(item.id) }]"
      :title="nameOf(item)"
    >
      <span class="visually-hidden">{{ index + 1 }}. {{ nameOf(item) }}: {{ saidOf(item.id) }}</span>
    </li>
  </ol>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { AnsweredItem, RoundItem } from '#core'
import { answerName, setupName } from '../../words/setup-names'

/** Where a round stands: a mark for every item. */
const props = defineProps<{
  items: readonly RoundItem[]
  answers: readonly AnsweredItem[]
  atId: string | undefined
  suggested: readonly string[]
}>()
const done = computed(() => props.answers.length)
const answerTo = (id: string) => props.answers.find(({ itemId }) => itemId === id)?.answer
const nameOf = (item: RoundItem) => setupName(item.id, item.own?.question)
function saidOf(id: string): string {
  const answer = answerTo(id)
  return answer ? answerName(id, answer) : 'not asked yet'
}
</script>

<style scoped>
.progress {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  width: 16px;
  height: 9px;
  border-radius: 5px;
  background: var(--line);
}

.yes {
  background: var(--jade);
}

.nearly {
  background: repeating-linear-gradient(-45deg, var(--brass) 0 3px, var(--brass-wash) 3px 6px);
}

.no {
  background: var(--sharp);
}

.looked:not(.yes, .nearly, .no) {
  box-shadow: inset 0 0 0 2px var(--brass);
}

.here {
  outline: 2px solid var(--brass);
  outline-offset: 1px;
}
</style>
