<template>
  <header class="page-head">
    <h1>Every finding</h1>
    <p class="whose">as a simulated hand plays it, and as it is told</p>
    <div class="actions">
      <ElSegmented v-model="familyId" :options="families" aria-label="Family" />
    </div>
  </header>
  <section v-for="one in shown" :key="one.id" class="case" :aria-label="CASE_NAMES[one.id]">
    <h2>{{ CASE_NAMES[one.id] }}</h2>
    <div class="card">
      <StringBoard
        :stringing="stringing"
        :label="`Where the fingers landed: ${CASE_NAMES[one.id]}`"
        :landings="one.landings"
        :tapes="one.tapes"
        :targets="one.targets"
        aim-only
      />
    </div>
    <VerdictCard
      :verdict="one.verdict"
      :family="familyId"
      :note-count="one.noteCount"
      :tolerance-cents="one.toleranceCents"
    />
  </section>
</template>

<script setup lang="ts">
import { computed, ref } from 'vue'
import {
  CASE_IDS,
  casesFor,
  DEFAULT_TAPE_WIDTH_MM,
  familyOf,
  fifths,
  FAMILY_IDS,
  landedPlaces,
  placesOf,
  playCase,
  targetOf,
  typicalStringing,
  type CaseId,
  type FamilyId,
} from '#core'
import type { KeptVerdict } from '#contracts'
import { landingsOnBoard } from '../board/landings'
import StringBoard from '../board/StringBoard.vue'
import VerdictCard from '../features/check/VerdictCard.vue'
import { useStages } from '../ui/useStages'
import { CASE_NAMES } from '../words/cases'
import { noteLabel } from '../words/notes'
import { FAMILY_NAMES } from '../words/trade'

/** One that shows each of them well. */
const SEED = 41

const familyId = ref<FamilyId>('violin')
const families = FAMILY_IDS.map((value) => ({ value, label: FAMILY_NAMES[value] }))
const stringing = computed(() => {
  const family = familyOf(familyId.value)
  return typicalStringing(family, family.sizes[0]!.id, fifths)
})
const ids = computed(() => casesFor(familyId.value))
const stage = useStages(CASE_IDS.length)
const shown = computed(() => ids.value.slice(0, stage.value).map(drawn))

function drawn(id: CaseId) {
  const strings = stringing.value
  const { take, verdict } = playCase(id, SEED, strings)
  const half = DEFAULT_TAPE_WIDTH_MM / 2
  return {
    id,
    verdict: verdict as KeptVerdict,
    noteCount: take.landings.length,
    toleranceCents: take.toleranceCents,
    landings: landingsOnBoard(strings, landedPlaces(strings, take.landings), take.toleranceCents),
    tapes: (take.tapesMm ?? []).map((mm) => ({
      id: String(mm),
      label: '',
      nearEdgeMm: mm - half,
      middleMm: mm,
      farEdgeMm: mm + half,
    })),
    targets: placesOf(take.exercise.notes).flatMap((expected) => {
      const { finger, stringIndex, placeMm, note } = targetOf(strings, expected)
      return finger === 0 ? [] : [{ finger, stringIndex, placeMm, note: noteLabel(note) }]
    }),
  }
}
</script>

<style scoped>
.case {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 6px var(--gap);
  align-items: start;
  margin-bottom: 26px;
  content-visibility: auto;
  contain-intrinsic-size: auto 380px;
}

h2 {
  grid-column: 1 / -1;
  font-size: 21px;
}

@media (width <= 900px) {
  .case {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
