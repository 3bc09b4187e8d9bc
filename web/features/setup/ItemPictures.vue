<template>
  <div class="pictures">
    <template v-if="right && other">
      <SetupPicture :figure="right" tone="right" />
      <SetupPicture :figure="other" :tone="measured === undefined ? 'wrong' : 'measured'" />
    </template>
    <template v-else>
      <section class="card words">
        <p class="eyebrow good">Like this</p>
        <p>{{ words.right || 'As the question asks.' }}</p>
      </section>
      <section class="card words">
        <p class="eyebrow bad">Not this</p>
        <p>{{ words.wrong || '–' }}</p>
      </section>
    </template>
  </div>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import SetupPicture from '../../figure/SetupPicture.vue'
import type { ItemWords } from '../../words/setup'
import type { Round } from './useRound'

/** An item as it should be beside the usual wrong, or beside what was measured; in words where the studio added it. */
const props = defineProps<{
  itemId: string
  words: ItemWords
  figureOf: Round['figureOf']
  measured?: number | undefined
}>()
const right = computed(() => props.figureOf(props.itemId, 'right'))
const other = computed(() => props.figureOf(props.itemId, 'wrong', props.measured))
</script>

<style scoped>
.pictures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--gap);
  min-height: 0;
}

.words {
  display: grid;
  align-content: center;
  gap: 10px;
  font: 500 22px/1.35 var(--font-title);
  overflow-wrap: anywhere;
}

.good {
  color: var(--jade);
}

.bad {
  color: var(--sharp);
}

@media (width <= 560px) {
  .pictures {
    gap: 8px;
  }
}
</style>
