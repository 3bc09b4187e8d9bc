<template>
  <section class="card gates" aria-label="Gates">
    <p class="eyebrow">Gates</p>
    <article v-for="gate in gates" :key="gate.id" :class="{ open: gate.standsOpen }">
      <header>
        <h3>{{ GATE_NAMES[gate.id] }}</h3>
        <span class="state">{{ gate.standsOpen ? 'stands open' : 'not yet' }}</span>
        <span v-if="gate.said" class="soft">
          by {{ gate.said.by || 'your word' }}, {{ shortDay(gate.said.at) }}
        </span>
      </header>
      <ul v-if="gate.missing.length">
        <li v-for="(missing, index) in gate.missing" :key="index" :class="{ said: missing.code === 'said' }">
          <template v-if="missing.code === 'said'">
            <ElCheckbox
              :model-value="false"
              @change="emit('say', { gate: gate.id, item: missing.item, state: 'yes' })"
              >{{ SAID_WORDS[missing.item] }}</ElCheckbox
            >
          </template>
          <template v-else>{{ missingWords(missing) }}</template>
        </li>
      </ul>
      <p v-if="!gate.standsOpen" class="soft">Until then: {{ UNTIL_THEN[gate.id] }}</p>
      <div class="acts">
        <ElButton
          v-if="gate.said"
          text
          @click="emit('say', { gate: gate.id, item: 'gate', state: 'reckoned' })"
          >As reckoned again</ElButton
        >
        <ElButton
          v-else
          text
          @click="emit('say', { gate: gate.id, item: 'gate', state: gate.standsOpen ? 'shut' : 'open' })"
          >{{ gate.standsOpen ? 'Keep it shut' : 'Open it all the same' }}</ElButton
        >
      </div>
    </article>
  </section>
</template>

<script setup lang="ts">
import type { GateMarkDraft } from '#contracts'
import { shortDay } from '../../words/dates'
import { GATE_NAMES, missingWords, SAID_WORDS, UNTIL_THEN } from '../../words/gates'
import type { ShownGate } from '../../stores/file-gates'

/** What a player may be let through next, what is still missing, and the teacher’s own word on it. */
defineProps<{ gates: readonly ShownGate[] }>()
const emit = defineEmits<{ say: [mark: GateMarkDraft] }>()
</script>

<style scoped>
.gates {
  display: grid;
  align-content: start;
  gap: 0;
}

article {
  display: grid;
  gap: 3px;
  padding: 10px 0 8px 14px;
  border-top: 1px solid var(--line);
  border-left: 3px solid var(--line);
}

article.open {
  border-left-color: var(--jade);
}

header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 10px;
}

h3 {
  font-size: 19px;
}

.state {
  font-weight: 600;
  color: var(--brass-ink);
}

.open .state {
  color: var(--jade);
}

ul {
  margin: 0;
  padding-left: 18px;
}

.said {
  margin-left: -18px;
  list-style: none;
}

.soft {
  font-size: 14.5px;
}

.acts {
  margin-left: -8px;
}
</style>
