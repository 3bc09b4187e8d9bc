<template>
  <header class="page-head">
    <h1>Patterns</h1>
    <nav class="views" aria-label="Views of the Patterns room">
      <RouterLink v-for="view in VIEWS" :key="view.name" :to="{ name: view.name }">
        {{ view.title }}<span class="key">{{ view.key }}</span>
      </RouterLink>
    </nav>
    <p class="whose">
      <RouterLink
        v-if="patterns.student"
        :to="{ name: 'hand', params: { studentId: patterns.student.id } }"
        dir="auto"
        >{{ patterns.student.name }}</RouterLink
      >
      <template v-if="patterns.student && instrument"> · </template>
      <template v-if="instrument"
        >{{ instrumentKind(instrument.family, instrument.sizeId)
        }}{{ patterns.student ? '' : `, ${instrument.label}` }}</template
      >
    </p>
    <div class="actions"><slot /></div>
  </header>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { useRouter } from 'vue-router'
import { useBench } from '../../stores/bench'
import { instrumentKind } from '../../words/trade'
import { useShortcuts } from '../../ui/useShortcuts'
import { usePatterns } from './usePatterns'

const VIEWS = [
  { name: 'patterns', title: 'Atlas', key: 'A' },
  { name: 'scales', title: 'Scales and drills', key: 'D' },
  { name: 'shifts', title: 'Shifts', key: 'G' },
  { name: 'frame', title: 'Frame and fit', key: 'F' },
] as const

const router = useRouter()
const patterns = usePatterns()
const { instrument } = storeToRefs(useBench())

useShortcuts(
  'Patterns',
  VIEWS.map(({ name, title, key }) => ({
    key: key.toLowerCase(),
    does: title,
    run: () => void router.push({ name }),
  })),
)
</script>

<style scoped>
/* Four views, whose they are and three buttons are one line at 1280. */
.page-head {
  column-gap: 11px;
}

.views {
  display: flex;
  flex-wrap: wrap;
}

.views a {
  padding: 6px 8px;
  border-radius: 6px;
  color: var(--ink-soft);
  font-weight: 600;
  text-decoration: none;
}

.views a[aria-current='page'] {
  background: var(--jade-wash);
  color: var(--jade-deep);
}

.key {
  margin-left: 5px;
  color: var(--ink-soft);
  font-size: 12.5px;
  font-weight: 500;
}

/* A phone has no keys to press. */
@media (width <= 560px) {
  .key {
    display: none;
  }
}
</style>
