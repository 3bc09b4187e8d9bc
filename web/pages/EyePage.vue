<template>
  <header class="page-head">
    <h1>Practise the eye</h1>
    <p class="whose">A simulated hand plays: what does it do?</p>
    <div class="actions">
      <PlainSelect v-model="familyId" label="Family" :options="families" />
      <PlainSelect v-model="level" label="Player" :options="levels" />
      <ElButton @click="hear"
        >{{ player.at.value === undefined ? 'Hear it' : 'Stop' }}<KeyHint of="h" on-button
      /></ElButton>
      <ElButton type="primary" @click="trainer.next">Next hand<KeyHint of="n" on-button /></ElButton>
    </div>
  </header>
  <div v-if="played" class="two">
    <section class="card" aria-label="What does it do?">
      <h2>What does it do?</h2>
      <ul ref="list" class="options">
        <li v-for="(id, index) in trainer.options.value" :key="id">
          <button
            type="button"
            :aria-current="index === at"
            :disabled="isOver"
            :class="{ true: isOver && id === played.id, wrong: isOver && id === answer && id !== played.id }"
            @mousemove="at = index"
            @click="trainer.name(id)"
          >
            {{ CASE_NAMES[id] }}
            <span v-if="isOver && id === played.id" class="mark">what it was</span>
            <span v-else-if="isOver && id === answer" class="mark">what you said</span>
          </button>
        </li>
      </ul>
      <p class="soft"><KeyHint of="↑" /> <KeyHint of="↓" /> and <KeyHint of="Enter" /></p>
    </section>
    <div class="right">
      <section class="card" aria-label="The hand">
        <StringBoard
          :stringing="stringing"
          label="Where the fingers of the hidden hand landed"
          :landings="landings"
          :targets="targets"
          :active-string="sounding?.stringIndex"
          aim-only
        />
        <p class="soft">
          {{ count(played.take.landings.length, 'note') }} of first position, a player to be judged within
          {{ played.take.toleranceCents }} cents. Each dot is a note; heard, they come in their order.
        </p>
      </section>
      <section class="card" aria-label="What it was">
        <div aria-live="polite">
          <template v-if="isOver">
            <h2>{{ answer === played.id ? 'Rightly seen.' : `It was: ${CASE_NAMES[played.id]}.` }}</h2>
            <p class="eyebrow">The tool says</p>
            <p class="tool">{{ verdictSentence(kept) }}</p>
            <p class="soft">
              {{ [evidence(played.take.landings.length), certainty(kept)].filter(Boolean).join(', ') }}
            </p>
            <p v-if="steadiness(kept, played.take.toleranceCents)" class="soft">
              {{ steadiness(kept, played.take.toleranceCents) }}
            </p>
            <p v-if="alternativeSentence(kept)">{{ alternativeSentence(kept) }}</p>
            <p v-if="!played.isNamed" class="soft">
              It has not named this one: so many notes did not carry it.
            </p>
            <p class="eyebrow">Why: the mean of each finger</p>
            <p class="numbers means">
              <span v-for="finger in played.verdict.fingers" :key="finger.finger"
                ><b>{{ finger.finger }}</b> {{ signedCents(finger.meanCents) }} ({{
                  signedLength(finger.meanMm)
                }})</span
              >
            </p>
          </template>
          <p v-else class="soft">Name it first: the answer, and what the tool would have said, come after.</p>
        </div>
        <template v-if="trainer.total.value.asked > 0">
          <p class="eyebrow score">Named rightly so far</p>
          <ScoreTable :scores="trainer.scores.value" :total="trainer.total.value" />
          <ElButton text size="small" @click="trainer.forgetScores">Begin the score anew</ElButton>
        </template>
      </section>
    </div>
  </div>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import {
  familyOf,
  fifths,
  FAMILY_IDS,
  landedPlaces,
  placesOf,
  PLAYER_LEVELS,
  targetOf,
  typicalStringing,
  type FamilyId,
  type PlayerLevel,
} from '#core'
import type { KeptVerdict } from '#contracts'
import { usePlayer } from '../audio/usePlayer'
import { landingsOnBoard } from '../board/landings'
import StringBoard from '../board/StringBoard.vue'
import ScoreTable from '../features/eye/ScoreTable.vue'
import { useEyeTrainer } from '../features/eye/useEyeTrainer'
import { useSession } from '../stores/session'
import KeyHint from '../ui/KeyHint.vue'
import PlainSelect from '../ui/PlainSelect.vue'
import { useRowKeys } from '../ui/useRowKeys'
import { useShortcuts } from '../ui/useShortcuts'
import { CASE_NAMES, PLAYER_LEVEL_NAMES } from '../words/cases'
import { noteLabel } from '../words/notes'
import { count, signedCents, signedLength } from '../words/numbers'
import { FAMILY_NAMES } from '../words/trade'
import { alternativeSentence, certainty, evidence, steadiness, verdictSentence } from '../words/verdict'

const NOTE_MS = 420

const session = useSession()
const familyId = ref<FamilyId>('violin')
const level = ref<PlayerLevel>('trained')
const families = FAMILY_IDS.map((value) => ({ value, label: FAMILY_NAMES[value] }))
const levels = PLAYER_LEVELS.map((value) => ({ value, label: PLAYER_LEVEL_NAMES[value] }))
const stringing = computed(() => {
  const family = familyOf(familyId.value)
  return typicalStringing(family, family.sizes[0]!.id, fifths)
})
const trainer = useEyeTrainer(stringing, level, session.session?.user.id ?? '')
const { hidden: played, answer } = trainer
const isOver = computed(() => answer.value !== undefined)
const kept = computed(() => played.value?.verdict as KeptVerdict)

const player = usePlayer()
const sounding = computed(() =>
  player.at.value === undefined ? undefined : played.value?.take.landings[player.at.value],
)
watch(played, () => player.stop())
function hear() {
  const hand = played.value
  if (!hand) return
  if (player.at.value !== undefined) return player.stop()
  const centsAboveA4 = hand.notes.map((note) => note.writtenCents + note.landingCents)
  void player.start(() => ({ centsAboveA4, noteMs: NOTE_MS, isLoop: false }))
}

/** In the order of the notes while it is heard; nothing is called off before it is named. */
const landings = computed(() => {
  const hand = played.value
  if (!hand) return []
  const { landings: all, toleranceCents } = hand.take
  const upTo = player.at.value === undefined ? all.length : player.at.value + 1
  const now = sounding.value
  return landingsOnBoard(
    stringing.value,
    landedPlaces(stringing.value, all.slice(0, upTo)),
    toleranceCents,
  ).map((one) => ({
    ...one,
    isOff: isOver.value && one.isOff,
    soundingMm: now?.stringIndex === one.stringIndex && now.finger === one.finger ? now.placeMm : undefined,
  }))
})
const targets = computed(() =>
  placesOf(played.value?.take.exercise.notes ?? []).flatMap((expected) => {
    const { finger, stringIndex, placeMm, note } = targetOf(stringing.value, expected)
    return finger === 0 ? [] : [{ finger, stringIndex, placeMm, note: noteLabel(note) }]
  }),
)

const list = ref<HTMLElement>()
const { at, shortcuts } = useRowKeys(
  computed(() => trainer.options.value.length),
  list,
)
function nameIt() {
  const id = trainer.options.value[at.value]
  if (isOver.value) trainer.next()
  else if (id) trainer.name(id)
}

useShortcuts('Practise the eye', [
  ...shortcuts,
  { key: 'Enter', does: 'Name what is marked; after it, the next hand', run: nameIt },
  { key: 'h', does: 'Hear it, note by note', run: hear },
  { key: 'n', does: 'The next hand', run: trainer.next },
])
</script>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 318px minmax(0, 1fr);
  gap: var(--gap);
  align-items: start;
}

.right {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--gap);
}

h2 {
  margin-bottom: 6px;
  font-size: 22px;
}

.options {
  display: grid;
  gap: 2px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.options button {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  width: 100%;
  min-height: 34px;
  padding: 4px 10px;
  border: 1.5px solid transparent;
  border-radius: 6px;
  background: transparent;
  color: var(--ink);
  font: 500 16px var(--font-text);
  text-align: left;
  cursor: pointer;
}

.options button[aria-current='true']:not(:disabled) {
  border-color: var(--jade);
  background: var(--jade-wash);
}

.options .true {
  border-color: var(--jade);
  background: var(--jade-wash);
  font-weight: 700;
}

.options .wrong {
  border-color: var(--line-strong);
}

.mark {
  font-weight: 500;
  font-size: 14px;
}

.tool {
  font: 500 19px/1.3 var(--font-title);
}

.means {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
}

.score {
  margin-top: 14px;
}

@media (width <= 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }

  /* The hand before what is said of it. */
  .right {
    order: -1;
  }
}
</style>
