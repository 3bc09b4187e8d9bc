<template>
  <ol class="history">
    <li v-for="(check, index) in checks" :key="check.id">
      <time :datetime="check.takenAt">{{ shortDay(check.takenAt) }}</time>
      <div>
        <p class="sentence">{{ checkSentence(check) }}</p>
        <p v-if="check.decision?.workOn && isNewWork(index)" class="work">
          To work on: {{ check.decision.workOn }}{{ check.decision.isMended ? ', mended' : '' }}.
        </p>
        <p v-if="check.rejudged" class="soft">{{ rejudgedSentence(check) }}</p>
        <p class="soft">
          <template v-if="check.exercise"
            >{{ exerciseName(check.exercise) }}{{ check.tapesCovered ? ', tapes covered' : '' }} ·
          </template>
          <span v-for="landing in landingsOf(check)" :key="landing.finger" class="landing numbers">
            <b>{{ fingerSign(landing.finger) }}</b> {{ signedCents(landing.cents) }}
          </span>
          <template v-if="check.unreadable"
            >Kept by an earlier version, only the verdict can be read: {{ check.unreadable }} ·
            {{ check.by }}</template
          >
          <template v-else>· {{ count(check.landings.length, 'note') }}, {{ check.by }}</template>
        </p>
      </div>
      <span class="acts">
        <ElButton
          v-if="check.hasTrack"
          text
          :aria-expanded="opened === check.id"
          :aria-label="`The take of ${shortDay(check.takenAt)}, note by note`"
          @click="opened = opened === check.id ? '' : check.id"
          >Note by note</ElButton
        >
        <ElButton
          v-if="!check.unreadable"
          text
          :aria-expanded="deciding === check.id"
          :aria-label="`What you say to the verdict of ${shortDay(check.takenAt)}`"
          @click="deciding = deciding === check.id ? '' : check.id"
          >{{ check.decision ? 'Say otherwise' : 'Accept or not' }}</ElButton
        >
        <ElButton
          text
          :aria-label="`Delete the check of ${shortDay(check.takenAt)}`"
          @click="emit('remove', check)"
          >Delete</ElButton
        >
      </span>
      <DecisionForm
        v-if="deciding === check.id"
        class="whole"
        :verdict="check.verdict"
        :decision="check.decision"
        :standing="standing"
        @decide="(draft) => emit('decide', check, draft)"
      />
      <KeptTake v-if="opened === check.id" :check="check" />
    </li>
  </ol>
</template>

<script setup lang="ts">
import { fingerSign } from '../../words/fingers'
import { ref } from 'vue'
import type { Check, DecisionDraft } from '#contracts'
import DecisionForm from '../../ui/DecisionForm.vue'
import { shortDay } from '../../words/dates'
import { count, signedCents } from '../../words/numbers'
import { exerciseName } from '../../words/exercises'
import { checkSentence, rejudgedSentence } from '../../words/verdict'
import KeptTake from './KeptTake.vue'
import { landingsOf } from './landings'

const props = defineProps<{ checks: readonly Check[]; standing?: string | undefined }>()
const emit = defineEmits<{ remove: [check: Check]; decide: [check: Check, draft: DecisionDraft] }>()
/** What is worked on is said once, with the last check that it was said of. */
function isNewWork(index: number): boolean {
  return props.checks[index]?.decision?.workOn !== props.checks[index - 1]?.decision?.workOn
}

/** Of which the take is looked at. */
const opened = ref('')
/** Whose verdict the teacher has a word on. */
const deciding = ref('')
</script>

<style scoped>
.history {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr) auto;
  gap: 12px;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}

time {
  font-weight: 600;
  font-variant-numeric: tabular-nums;
}

.sentence {
  font: 500 18px/1.3 var(--font-title);
}

.whole {
  grid-column: 1 / -1;
}

.acts {
  display: grid;
  justify-items: end;
  align-content: start;
}

.work {
  font-weight: 600;
}

.soft {
  font-size: 14.5px;
}

.landing {
  margin-right: 8px;
  white-space: nowrap;
}

.landing b {
  color: var(--ink);
}
</style>
