<template>
  <header class="page-head">
    <h1>Tapes</h1>
    <p class="whose">
      <template v-if="student && instrument">
        <RouterLink :to="{ name: 'student', params: { studentId: student.id } }">{{
          student.name
        }}</RouterLink>
        · {{ instrumentKind(instrument.family, instrument.sizeId) }}, {{ instrument.label }}
      </template>
      <template v-else>Any instrument; nothing is saved without one</template>
    </p>
    <div class="actions">
      <ElButton v-if="student" @click="lesson.end()">Without a student</ElButton>
      <ElButton v-if="instrument" :disabled="bench.isTypical.value || isMeasured" @click="keepLength(false)">
        Keep the length<kbd class="on-button">⏎</kbd>
      </ElButton>
      <ElButton
        v-if="instrument"
        type="primary"
        :disabled="!isMeasured || bench.marks.value.length === 0"
        @click="logLaid"
      >
        Log as laid
      </ElButton>
    </div>
  </header>
  <section class="card">
    <StringBoard
      :instrument="bench.boardInstrument.value"
      :tapes="bench.boardTapes.value"
      :targets="bench.boardTargets.value"
      label="Fingerboard with the tapes and the places of the fingers"
      show-places
    />
  </section>
  <div class="below">
    <section class="card settings" aria-label="Instrument">
      <div v-if="!instrument" class="pair">
        <FieldRow label="Family">
          <ChoiceSelect v-model="bench.familyId.value" label="Family" :options="FAMILIES" />
        </FieldRow>
        <FieldRow label="Size">
          <ChoiceSelect v-model="bench.sizeId.value" label="Size" :options="sizes" />
        </FieldRow>
      </div>
      <LengthField
        ref="lengthField"
        v-model="bench.lengthText.value"
        :typed="bench.typed.value"
        :family="bench.familyId.value"
        :size-id="bench.sizeId.value"
        :can-keep-anyway="instrument !== undefined"
        @enter="keepLength(false)"
        @size="takeSize"
        @keep-anyway="keepLength(true)"
      />
      <FieldRow label="Tapes">
        <ElSegmented v-model="bench.schoolId.value" :options="schools" aria-label="Tapes" />
      </FieldRow>
      <div class="pair">
        <FieldRow label="Places follow">
          <SystemChoice v-model="bench.systemId.value" :tuning="bench.tuning.value" />
        </FieldRow>
        <FieldRow label="Tape’s width">
          <ChoiceSelect v-model="bench.tapeWidthMm.value" label="Tape’s width" :options="TAPE_WIDTHS" />
        </FieldRow>
      </div>
    </section>
    <section class="card" aria-label="Places">
      <p class="eyebrow">Places from the nut, mm</p>
      <p v-if="bench.isTypical.value" class="typical">
        For a typical {{ bench.familyId.value }} {{ sizeName(bench.sizeId.value) }} of
        {{ bench.lengthMm.value.toFixed(0) }} mm, from memory. Measure the string before you lay a tape.
      </p>
      <PlaceTable v-if="bench.marks.value.length" :marks="bench.marks.value" />
      <p v-else class="none">No tapes: the ear alone. The dots on the board show where the fingers belong.</p>
      <p v-if="firstMark && !bench.isTypical.value" class="say">
        Tune first. Lay the {{ shortFingerName(firstMark.finger) }} tape with its middle
        {{ mm(firstMark.middleMm) }} mm from the nut, squared to the strings; let the ear decide before it is
        pressed down.
      </p>
      <p class="soft caution">
        Cut tape off the instrument, never with a blade on the board; no solvents near varnish: a luthier
        removes stubborn glue.
      </p>
    </section>
  </div>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, onMounted, ref, watch } from 'vue'
import { FAMILY_IDS } from '#core'
import StringBoard from '../board/StringBoard.vue'
import ChoiceSelect from '../features/shell/ChoiceSelect.vue'
import FieldRow from '../features/shell/FieldRow.vue'
import { useShortcuts } from '../features/shell/useShortcuts'
import LengthField from '../features/tapes/LengthField.vue'
import PlaceTable from '../features/tapes/PlaceTable.vue'
import SystemChoice from '../features/tapes/SystemChoice.vue'
import { useBench } from '../features/tapes/useBench'
import { useKeepOnInstrument } from '../features/tapes/useKeepOnInstrument'
import { useLesson } from '../stores/lesson'
import { mm } from '../words/numbers'
import { FAMILY_NAMES, instrumentKind, schoolName, shortFingerName, sizeName } from '../words/trade'

const TAPE_WIDTHS = [1, 1.5, 2, 3, 4, 5, 6].map((value) => ({ value, label: `${value} mm` }))
const FAMILIES = FAMILY_IDS.map((id) => ({ value: id, label: FAMILY_NAMES[id] }))

const lesson = useLesson()
const { student } = storeToRefs(lesson)
const bench = useBench(student)
const { instrument } = bench
const { keepLength, takeSize, logLaid, isMeasured } = useKeepOnInstrument(bench)

const schools = computed(() =>
  bench.family.value.schools.map(({ id }) => ({ value: id, label: schoolName(id) })),
)
const sizes = computed(() => bench.family.value.sizes.map(({ id }) => ({ value: id, label: sizeName(id) })))
const firstMark = computed(() => bench.marks.value[0])

const lengthField = ref<InstanceType<typeof LengthField>>()
onMounted(() => lengthField.value?.focus())
watch(
  () => student.value?.id,
  () => lengthField.value?.focus(),
)
useShortcuts('Tapes', [{ key: 'l', does: 'Type the string length', run: () => lengthField.value?.focus() }])
</script>

<style scoped>
.below {
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  gap: var(--gap);
  margin-top: var(--gap);
}

.settings {
  display: grid;
  align-content: start;
  gap: 12px;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}

.typical {
  margin: 8px 0;
  padding: 8px 12px;
  border-radius: 6px;
  background: var(--brass-wash);
  color: var(--brass-ink);
}

.none {
  padding: 18px 8px;
}

.say {
  margin-top: 14px;
  font: 400 20px/1.35 var(--font-title);
}

.caution {
  margin-top: 10px;
  font-size: 14.5px;
}

@media (width <= 900px) {
  .below {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
