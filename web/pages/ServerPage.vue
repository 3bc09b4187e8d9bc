<template>
  <header class="page-head">
    <h1>The server</h1>
    <p v-if="state" class="whose">Jadefell {{ state.version }}, up since {{ dayAndTime(state.since) }}</p>
    <div class="actions">
      <ElButton @click="loaded.reload()">Look again<KeyHint of="r" on-button /></ElButton>
    </div>
  </header>
  <template v-if="state">
    <div class="marks">
      <section
        v-for="mark in marks"
        :key="mark.title"
        class="card mark"
        :class="{ heeded: !mark.isSound }"
        :aria-label="mark.title"
      >
        <p class="eyebrow">{{ mark.title }}</p>
        <p class="big">{{ mark.value }}</p>
        <p class="soft">{{ mark.said }}</p>
      </section>
    </div>
    <div class="two">
      <section class="card" aria-label="The slowest requests">
        <h2>The slowest requests</h2>
        <table class="ledger">
          <thead>
            <tr>
              <th>Route</th>
              <th class="number">19 of 20 within</th>
              <th class="number">Asked</th>
              <th class="number">Failed</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in state.routes" :key="one.route">
              <th scope="row">{{ one.route === 'none' ? 'files of the page' : one.route }}</th>
              <td class="number">{{ milliseconds(one.p95Ms) }}</td>
              <td class="number">{{ one.count }}</td>
              <td class="number">{{ one.failed }}</td>
            </tr>
          </tbody>
        </table>
        <p class="soft">Of this one process, since it started.</p>
      </section>
      <section class="card" aria-label="The last drill">
        <h2>The last drill</h2>
        <template v-if="state.drill">
          <p>{{ dayAndTime(state.drill.at) }}</p>
          <ol class="steps">
            <li v-for="step in state.drill.steps" :key="step.said" :class="{ fault: !step.isSound }">
              {{ step.isSound ? '' : 'Not sound: ' }}{{ step.said }}
            </li>
          </ol>
        </template>
        <p v-else>
          None yet. <code>npm run db:drill</code> puts a backup back beside the data, and says what that has
          shown.
        </p>
        <p class="soft">
          What to do when something here is not as it should be stands in <code>docs/runbook.md</code>.
        </p>
      </section>
    </div>
  </template>
  <p v-else-if="!session?.isOperator" class="card">
    Whoever runs the server looks at it here: their addresses stand in its setting OPERATORS.
  </p>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed } from 'vue'
import { call } from '../api/client'
import { useLoaded } from '../api/useLoaded'
import { useSession } from '../stores/session'
import KeyHint from '../ui/KeyHint.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { dayAndTime } from '../words/dates'
import { count } from '../words/numbers'

const { session } = storeToRefs(useSession())
const loaded = useLoaded(
  () => (session.value?.isOperator ? '' : undefined),
  () => call('server.read', {}),
)
const state = loaded.data

const HOUR_MS = 3600_000
/** Older than this a backup is asked for. */
const OLD_BACKUP_H = 36
const OLD_DRILL_H = 24 * 45
const ageH = (at: string) => (Date.now() - Date.parse(at)) / HOUR_MS
const ago = (at: string) => {
  const hours = Math.floor(ageH(at))
  if (hours < 1) return 'just now'
  return hours < 48 ? `${count(hours, 'hour')} ago` : `${Math.floor(hours / 24)} days ago`
}
const milliseconds = (ms: number) => (ms < 10 ? `${ms.toFixed(1)} ms` : `${Math.round(ms)} ms`)

interface Mark {
  readonly title: string
  readonly value: string
  readonly said: string
  readonly isSound: boolean
}
const marks = computed<Mark[]>(() => {
  const now = state.value
  if (!now) return []
  const { database, queue, counts, backup, drill } = now
  return [
    {
      title: 'Database',
      value: !database.isUp ? 'away' : database.nodes > 0 ? count(database.nodes, 'node') : 'up',
      said: [database.version, database.lastMigration].filter(Boolean).join(' · '),
      isSound: database.isUp && database.isReady,
    },
    {
      title: 'Waiting',
      value: String(queue.waiting),
      said: `${count(queue.using, 'connection')} in use, ${queue.trail} of the trail to write`,
      isSound: queue.waiting < 10,
    },
    {
      title: 'Backup',
      value: backup ? ago(backup.at) : 'none',
      said: backup
        ? `${backup.rows} rows, ${backup.isLocked ? 'locked' : 'readable by whoever has it'}`
        : 'npm run db:backup',
      isSound: backup !== null && ageH(backup.at) < OLD_BACKUP_H,
    },
    {
      title: 'Drill',
      value: drill ? (drill.isSound ? 'sound' : 'not sound') : 'none',
      said: drill ? ago(drill.at) : 'npm run db:drill',
      isSound: drill !== null && drill.isSound && ageH(drill.at) < OLD_DRILL_H,
    },
    {
      title: 'In it',
      value: counts ? count(counts.studios, 'studio') : '?',
      said: counts
        ? `about ${counts.students} students, ${counts.checks} checks; ${count(counts.sessions, 'session')}`
        : '',
      isSound: true,
    },
  ]
})

useShortcuts('The server', [{ key: 'r', does: 'Look again', run: () => void loaded.reload() }])
</script>

<style scoped>
.marks {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: var(--gap);
  margin-bottom: var(--gap);
}

.mark p {
  margin: 0;
}

.big {
  font: 500 30px/1.2 var(--font-title);
}

.heeded {
  border-left: 4px solid var(--brass);
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr);
  align-items: start;
  gap: var(--gap);
}

h2 {
  margin-bottom: 8px;
  font-size: 21px;
}

.steps {
  padding-left: 20px;
}

@media (width <= 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
