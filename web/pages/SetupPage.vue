<template>
  <NobodyChosen v-if="!student && lesson.studentId === ''" room="Setup">
    <section class="card about" aria-label="A setup round">
      <FigureView class="shows" :figure="shows" label="A left hand at the neck, cut across" />
      <h2>A minute before a note is judged</h2>
      <p>
        Pain first, then the instrument, then the hand from the gap to the fingertip: causes before what
        follows from them. The first “no” ends the round and says what to change.
      </p>
      <RouterLink :to="{ name: 'drawings' }">All drawings, right and wrong</RouterLink>
    </section>
  </NobodyChosen>
  <div v-else-if="student" class="room">
    <header class="page-head">
      <h1>Setup</h1>
      <p class="whose">
        <RouterLink :to="{ name: 'student', params: { studentId: student.id } }">{{
          student.name
        }}</RouterLink>
        · {{ kind }}
      </p>
      <RoundProgress
        v-if="student.pains.length === 0"
        class="progress"
        :items="round.items.value"
        :answers="round.answers.value"
        :at-id="round.at.value?.id"
        :suggested="round.suggested.value"
      />
      <div class="actions">
        <ElButton v-if="from" @click="round.goOnFrom(from)"
          >From where it stopped: {{ setupName(from) }}<KeyHint of="f" on-button
        /></ElButton>
        <ElButton :disabled="round.answers.value.length === 0" @click="round.back()"
          >Back<KeyHint of="b" on-button
        /></ElButton>
        <ElButton @click="openRecord">Record, fit and gates<KeyHint of="r" on-button /></ElButton>
      </div>
    </header>
    <template v-if="student.pains.length">
      <PainMarked :pains="student.pains" :student-id="student.id" :name="student.name" />
      <p class="nothing">Nothing else is asked while this stands. The lesson can listen, clap and sing.</p>
    </template>
    <template v-else-if="kept">
      <section class="card kept" aria-label="Kept">
        <h2 ref="keptHeading" tabindex="-1">{{ keptSentence }}</h2>
        <div class="acts">
          <ElButton
            type="primary"
            size="large"
            :disabled="!student.instrument?.measurement"
            @click="goToCheck"
            >Check the hand<KeyHint of="c" on-button
          /></ElButton>
          <ElButton size="large" @click="openRecord"
            >Record, fit and gates<KeyHint of="r" on-button
          /></ElButton>
          <ElButton size="large" @click="kept = undefined">Another round</ElButton>
        </div>
        <p v-if="stillOpen" class="open">Still to come back to: {{ stillOpen }}.</p>
      </section>
      <ItemPictures
        v-if="workedOn"
        class="worked"
        :item-id="workedOn.id"
        :words="round.wordsOf(workedOn)"
        :figure-of="round.figureOf"
      />
    </template>
    <RoundDone v-else-if="round.isDone.value" :round="round" @keep="keep" />
    <PainStop
      v-else-if="round.isStopped.value && round.at.value?.id === 'pain'"
      :round="round"
      @keep="keep"
    />
    <ItemStop
      v-else-if="round.isStopped.value && round.at.value"
      :key="`stop ${round.at.value.id}`"
      :item="round.at.value"
      :round="round"
      @keep="keep"
    />
    <ItemQuestion v-else-if="round.at.value" :item="round.at.value" :round="round" />
  </div>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, nextTick, ref } from 'vue'
import { useRouter } from 'vue-router'
import NobodyChosen from '../features/lesson/NobodyChosen.vue'
import ItemPictures from '../features/setup/ItemPictures.vue'
import ItemQuestion from '../features/setup/ItemQuestion.vue'
import ItemStop from '../features/setup/ItemStop.vue'
import PainMarked from '../features/setup/PainMarked.vue'
import PainStop from '../features/setup/PainStop.vue'
import RoundDone from '../features/setup/RoundDone.vue'
import FigureView from '../figure/FigureView.vue'
import RoundProgress from '../features/setup/RoundProgress.vue'
import { useRound } from '../features/setup/useRound'
import { useLesson } from '../stores/lesson'
import KeyHint from '../ui/KeyHint.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { listed } from '../words/numbers'
import { setupName } from '../words/setup-names'
import { instrumentKind } from '../words/trade'

const router = useRouter()
const lesson = useLesson()
const { student } = storeToRefs(lesson)
const round = useRound(student)
const shows = computed(() => round.figureOf('gap', 'right')!)
const kind = computed(() => {
  const { instrument, family } = student.value ?? {}
  return instrument ? instrumentKind(instrument.family, instrument.sizeId) : family
})

/** A new round may begin where the last one stopped; pain is asked all the same. */
const from = computed(() => {
  const stoppedAt = student.value?.setup?.stoppedAt
  const isFresh = round.answers.value.length <= 1 && round.standing.value.stoppedAt === undefined
  const isAsked = round.items.value.findIndex(({ id }) => id === stoppedAt) > 1
  return stoppedAt && isFresh && isAsked && !kept.value ? stoppedAt : undefined
})

const { kept } = round
const keptHeading = ref<HTMLElement>()
const keptSentence = computed(() => {
  const stoppedAt = kept.value?.stoppedAt
  if (!stoppedAt) return 'The setup is kept. Now the notes.'
  const own = kept.value?.answers.find(({ itemId }) => itemId === stoppedAt)?.question
  return `Kept. Today’s one thing: ${setupName(stoppedAt, own)}.`
})

/** The one thing of today stays in sight while it is worked on. */
const workedOn = computed(() => round.items.value.find(({ id }) => id === kept.value?.stoppedAt))
const stillOpen = computed(() =>
  listed(
    (student.value?.setup?.standings ?? [])
      .filter(({ itemId }) => itemId !== kept.value?.stoppedAt)
      .map(({ itemId, question }) => setupName(itemId, question)),
  ),
)

async function keep() {
  if (!(await round.keep())) return
  await nextTick()
  keptHeading.value?.focus({ preventScroll: true })
}

function openRecord() {
  if (student.value) void router.push({ name: 'setup-record', params: { studentId: student.value.id } })
}

function goToCheck() {
  if (student.value?.instrument?.measurement) void router.push({ name: 'check' })
}

useShortcuts('Setup', [
  { key: 'b', does: 'Back to the question before', run: () => round.back() },
  {
    key: 'Escape',
    does: 'Leave the stop, to its question',
    run: () => round.isStopped.value && round.at.value && round.lookAt(round.at.value.id),
  },
  {
    key: 'f',
    does: 'From where the last round stopped',
    run: () => from.value && round.goOnFrom(from.value),
  },
  { key: 'r', does: 'Record, fit and gates', run: openRecord },
  { key: 'c', does: 'Check the hand', run: goToCheck },
])
</script>

<style scoped>
.room {
  display: flex;
  flex-direction: column;
  min-height: calc(100vh - 44px);
}

.room > :deep(.asks),
.room > :deep(.stop) {
  flex: 1;
}

.page-head {
  margin-bottom: 8px;
}

.progress {
  order: 3;
  flex: 1 0 100%;
}

.about {
  display: grid;
  gap: 10px;
}

.about h2 {
  font-size: 22px;
}

.shows {
  height: 280px;
}

.nothing {
  font: 500 24px/1.35 var(--font-title);
}

.kept {
  display: grid;
  align-content: center;
  justify-items: start;
  gap: 14px;
  padding: 22px 26px;
}

.worked {
  flex: 1;
  margin-top: var(--gap);
}

.open {
  font-size: 18px;
}

.kept h2 {
  font-size: 30px;
}

.kept h2:focus {
  outline: none;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}

/* On a desk everything is in sight at once; where the page is narrow it scrolls, the pictures keeping their shape. */
@media (width > 900px) {
  .room {
    height: calc(100vh - 44px);
  }
}

@media (width <= 900px) {
  .room {
    min-height: calc(100vh - 140px);
  }

  .room > :deep(.asks),
  .room > :deep(.stop) {
    flex: none;
  }

  .room :deep(.pictures) {
    height: min(44vh, 460px);
  }
}
</style>
