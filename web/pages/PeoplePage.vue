<template>
  <header class="page-head">
    <h1>Who teaches here</h1>
    <p v-if="session" class="whose" dir="auto">{{ session.studio.name }}</p>
    <div v-if="isOwner" class="actions">
      <ElButton @click="save">What was seen and changed, as CSV<KeyHint of="e" on-button /></ElButton>
    </div>
  </header>
  <div v-if="isOwner" class="two">
    <div class="column">
      <section class="card" aria-label="Teachers">
        <PeopleList v-if="people" :people="people" @key="giveKey" @change="change" />
        <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      </section>
      <section class="card" aria-label="Somebody new">
        <h2>Somebody new</h2>
        <InviteForm ref="form" @invited="show" />
        <p class="soft">
          A teacher sees and keeps everything of the studio. An owner also lets people in and out, and reads
          what stands here.
        </p>
      </section>
    </div>
    <section class="card" aria-label="Who saw and changed what">
      <h2>Who saw and changed what</h2>
      <TrailList
        ref="trail"
        :teachers="people ?? []"
        :student-id="studentId"
        @all="router.push({ name: 'people' })"
      />
    </section>
  </div>
  <p v-else class="card">Owners of the studio let people in, and read who saw and changed what.</p>
  <KeyDialog :given="given" @close="given = undefined" />
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { OneTimeKey, Person, PersonChange } from '#contracts'
import { ApiProblem, call } from '../api/client'
import { useLoaded } from '../api/useLoaded'
import InviteForm from '../features/people/InviteForm.vue'
import KeyDialog from '../features/people/KeyDialog.vue'
import PeopleList from '../features/people/PeopleList.vue'
import TrailList from '../features/people/TrailList.vue'
import { fileName, saveFile, toCsv } from '../files/tables'
import { useNotices } from '../stores/notices'
import { useSession } from '../stores/session'
import KeyHint from '../ui/KeyHint.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { DEED_WORDS } from '../words/trail'

const route = useRoute()
const router = useRouter()
const notices = useNotices()
const { session } = storeToRefs(useSession())
const isOwner = computed(() => session.value?.user.role === 'owner')
const form = ref<InstanceType<typeof InviteForm>>()
const trail = ref<InstanceType<typeof TrailList>>()
const given = shallowRef<OneTimeKey>()
const fault = ref('')

const studentId = computed(() => {
  const { student } = route.query
  return typeof student === 'string' ? student : undefined
})
const loaded = useLoaded(
  () => (isOwner.value ? session.value?.user.id : undefined),
  () => call('people.list', {}),
)
const people = loaded.data

function show(key: OneTimeKey) {
  given.value = key
  void lookAgain()
}

/** What was done here stands in the trail as well. */
function lookAgain() {
  return Promise.all([loaded.reload(), trail.value?.again()])
}

async function trying(work: () => Promise<void>) {
  fault.value = ''
  try {
    await work()
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.code === 'not_signed_in') throw error
    fault.value = error.message
  }
}
const giveKey = ({ id }: Person) =>
  trying(async () => show(await call('people.key', { params: { userId: id } })))
const change = ({ id, name }: Person, body: PersonChange) =>
  trying(async () => {
    await call('people.change', { params: { userId: id }, body })
    await lookAgain()
    if (body.hasLeft) notices.say(`${name} is out, on every device. What was written stays.`)
  })

async function save() {
  const entries = (await trail.value?.all()) ?? []
  const table = {
    name: 'who-saw-and-changed-what',
    columns: ['when (UTC)', 'who', 'what', 'student', 'student id', 'subject id'],
    rows: entries.map((one) => [
      one.at,
      one.by,
      DEED_WORDS[one.deed],
      one.student,
      one.studentId,
      one.subjectId,
    ]),
  }
  saveFile(fileName(table.name, 'csv'), toCsv(table), 'text/csv')
}

useShortcuts('Who teaches here', [
  { key: 'n', does: 'Let somebody new teach here', run: () => form.value?.begin() },
  { key: 'm', does: 'Earlier entries', run: () => void trail.value?.more() },
  { key: 'e', does: 'What was seen and changed, as CSV', run: () => void save() },
])
</script>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  align-items: start;
  gap: var(--gap);
}

.column {
  display: grid;
  gap: var(--gap);
}

.card {
  display: grid;
  align-content: start;
  gap: 12px;
}

h2 {
  font-size: 21px;
}

@media (width <= 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
