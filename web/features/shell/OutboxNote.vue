<template>
  <section v-if="isShown" class="outbox" role="status" aria-label="On its way">
    <p class="head">
      <strong>{{ headline }}</strong>
      <span v-if="outbox.isAway">{{ why }}{{ outbox.isLoose ? NO_ROOM : SAFE }}</span>
      <button type="button" :aria-expanded="isOpen" @click="isOpen = !isOpen">
        {{ isOpen ? 'Hide' : 'Show' }}
      </button>
    </p>
    <ul v-if="isOpen" class="list">
      <li v-for="entry in outbox.waiting" :key="entry.id">
        <span dir="auto">{{ entry.what }}</span> <span class="soft">since {{ time(entry.at) }}, waits</span>
      </li>
      <li v-for="entry in outbox.refused" :key="entry.id" class="refused">
        <span dir="auto">{{ entry.what }}</span>
        <span class="soft">since {{ time(entry.at) }}, not taken: {{ entry.refusal }}</span>
        <span class="acts">
          <ElButton size="small" @click="outbox.tryAgain(entry.id)">Try again</ElButton>
          <ElButton size="small" @click="outbox.throwAway(entry.id)">Throw away</ElButton>
        </span>
      </li>
      <li v-for="id in outbox.unreadable" :key="id" class="refused">
        <span>Something kept by another version of this page, which this one cannot read.</span>
        <span class="soft">Load the page again. If it stays, ask whoever looks after Jadefell.</span>
        <span class="acts"><ElButton size="small" @click="outbox.throwAway(id)">Throw away</ElButton></span>
      </li>
    </ul>
  </section>
</template>

<script setup lang="ts">
import { computed, ref } from 'vue'
import { useOutbox } from '../../stores/outbox'
import { count } from '../../words/numbers'

/** What waits to be sent; nothing while everything arrives at once. */
const outbox = useOutbox()
const isOpen = ref(false)
const isShown = computed(
  () =>
    (outbox.isAway && outbox.waiting.length > 0) || outbox.refused.length > 0 || outbox.unreadable.length > 0,
)
const headline = computed(() => {
  const { length: waiting } = outbox.waiting
  const stuck = outbox.refused.length + outbox.unreadable.length
  return [
    ...(waiting > 0 ? [`${count(waiting, 'thing')} ${waiting === 1 ? 'waits' : 'wait'} to be sent.`] : []),
    ...(stuck > 0 ? [`${count(stuck, 'thing')} could not be sent.`] : []),
  ].join(' ')
})
const WHY: Partial<Record<NonNullable<typeof outbox.awayBecause>, string>> = {
  disk_full: 'The disk of the server is full',
  being_restored: 'A backup is being put back',
}
const why = computed(() => WHY[outbox.awayBecause ?? 'unreachable'] ?? 'The server is away')
const SAFE = '; what you kept is safe on this device and is sent by itself.'
const NO_ROOM = ', and this device has no room left. Keep this page open until it is sent.'
function time(at: number): string {
  return new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
}
</script>

<style scoped>
.outbox {
  margin: 0 8px;
  padding: 10px 12px;
  border: 1px solid var(--rail-brass);
  border-radius: 10px;
  background: var(--rail-lit);
  color: var(--rail-ink);
  font-size: 14.5px;
  line-height: 1.3;
}

.head {
  display: grid;
  gap: 4px;
}

.head button {
  justify-self: start;
  border: 0;
  padding: 2px 0;
  background: none;
  color: var(--rail-brass);
  font: 600 15px var(--font-text);
  text-decoration: underline;
  cursor: pointer;
}

/* Beside the rail, over whatever room is open: it was asked for. */
.list {
  position: fixed;
  z-index: 30;
  bottom: 20px;
  left: 204px;
  display: grid;
  gap: 8px;
  width: min(520px, 92vw);
  max-height: 60vh;
  overflow-y: auto;
  margin: 0;
  padding: 14px 18px;
  border: 1px solid var(--line);
  border-radius: 10px;
  background: var(--card);
  color: var(--ink);
  box-shadow: var(--shadow);
  font-size: 16px;
  list-style: none;
}

li {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 10px;
}

.acts {
  display: flex;
  gap: 8px;
  margin-left: auto;
}

.acts :deep(.el-button) {
  margin: 0;
}

@media (width <= 900px) {
  .outbox {
    flex: 1 0 100%;
    margin: 0;
    padding: 6px 14px;
    border-width: 1px 0 0;
    border-radius: 0;
  }

  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
  }

  .list {
    inset: 110px 8px auto;
    width: auto;
  }
}
</style>
