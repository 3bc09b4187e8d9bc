<template>
  <header class="page-head">
    <h1>Tapes</h1>
    <p class="whose">
      <template v-if="bench.student && bench.instrument">
        <RouterLink :to="{ name: 'student', params: { studentId: bench.student.id } }">{{
          bench.student.name
        }}</RouterLink>
        · {{ instrumentKind(bench.instrument.family, bench.instrument.sizeId) }},
        <RouterLink :to="{ name: 'instrument', params: { instrumentId: bench.instrument.id } }">{{
          bench.instrument.label
        }}</RouterLink>
      </template>
      <template v-else-if="bench.instrument">
        <RouterLink :to="{ name: 'instrument', params: { instrumentId: bench.instrument.id } }">{{
          bench.instrument.label
        }}</RouterLink>
        · {{ instrumentKind(bench.instrument.family, bench.instrument.sizeId) }}
      </template>
      <template v-else>Any instrument; nothing is saved without one</template>
    </p>
    <div class="actions">
      <ElButton v-if="bench.student || bench.instrument" @click="bench.clear()">Bare bench</ElButton>
      <ElButton
        v-if="bench.instrument"
        :disabled="!bench.stringing.isMeasured || keep.isMeasured.value"
        @click="keep.keepLength(false)"
      >
        Keep the length<KeyHint of="Enter" on-button />
      </ElButton>
      <ElButton @click="compare">Compare<KeyHint of="m" on-button /></ElButton>
      <ElButton :disabled="!canLay" @click="isPrinting = true">Print<KeyHint of="p" on-button /></ElButton>
      <ElButton type="primary" :disabled="!canLay" @click="router.push({ name: 'lay' })">
        Lay them<KeyHint of="y" on-button />
      </ElButton>
    </div>
  </header>
  <section class="card">
    <StringBoard
      :stringing="bench.stringing"
      :tapes="tapes.boardTapes"
      :targets="tapes.boardTargets"
      label="Fingerboard with the tapes and the places of the fingers"
      show-places
      can-turn
    />
  </section>
  <div class="below">
    <BenchSettings ref="settings" />
    <section class="card" aria-label="Places">
      <div class="tabs" role="tablist" aria-label="What to look at">
        <button
          v-for="(panel, index) in PANELS"
          :id="`tab-${panel.id}`"
          :key="panel.id"
          type="button"
          role="tab"
          :aria-selected="shown === panel.id"
          :tabindex="shown === panel.id ? 0 : -1"
          aria-controls="bench-panel"
          @click="shown = panel.id"
          @keydown.right="walk(index + 1)"
          @keydown.left="walk(index - 1)"
        >
          {{ panel.name }}<KeyHint :of="panel.key" />
        </button>
      </div>
      <div id="bench-panel" class="panel" role="tabpanel" :aria-labelledby="`tab-${shown}`">
        <p v-if="!bench.stringing.isMeasured" class="heed">
          For a typical {{ setup.familyId }} {{ sizeName(setup.sizeId) }} of
          {{ length(bench.stringing.lengthMm, 0) }}, from memory. Measure the string before you lay a tape.
        </p>
        <p v-if="tapes.marks.length === 0" class="none">
          No tapes: the ear alone. The dots on the board show where the fingers belong.
        </p>
        <template v-else-if="shown === 'places'">
          <PlaceTable />
          <p v-if="firstMark && bench.stringing.isMeasured" class="say">
            Tune first. Lay the {{ markName(firstMark) }} tape with its middle
            {{ length(firstMark.middleMm) }}
            from the nut, {{ lies }}. Let the ear decide before it is pressed down.
          </p>
          <p class="soft caution">
            Cut tape off the instrument, never with a blade on the board. No solvents near varnish: a luthier
            removes stubborn glue.
          </p>
        </template>
        <RingPanel v-else-if="shown === 'ring'" />
        <AcrossPanel v-else-if="shown === 'across'" />
        <SystemsPanel v-else-if="shown === 'systems'" />
        <CuttingPanel v-else />
      </div>
    </section>
  </div>
  <StripDialog v-model="isPrinting" :sheets="sheet" />
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import StringBoard from '../board/StringBoard.vue'
import { useShortcuts } from '../ui/useShortcuts'
import AcrossPanel from '../features/tapes/AcrossPanel.vue'
import BenchSettings from '../features/tapes/BenchSettings.vue'
import CuttingPanel from '../features/tapes/CuttingPanel.vue'
import PlaceTable from '../features/tapes/PlaceTable.vue'
import RingPanel from '../features/tapes/RingPanel.vue'
import SystemsPanel from '../features/tapes/SystemsPanel.vue'
import { useKeepOnInstrument } from '../features/tapes/useKeepOnInstrument'
import { useTapes } from '../features/tapes/useTapes'
import { sheetOf } from '../paper/sheet'
import StripDialog from '../paper/StripDialog.vue'
import { useBench } from '../stores/bench'
import { askewSentence } from '../words/length'
import { noteLabel } from '../words/notes'
import { length } from '../words/numbers'
import { instrumentKind, markName, sizeName } from '../words/trade'
import KeyHint from '../ui/KeyHint.vue'

const PANELS = [
  { id: 'places', name: 'Places', key: 'e' },
  { id: 'ring', name: 'Ring and fit', key: 'r' },
  { id: 'across', name: 'String by string', key: 'b' },
  { id: 'systems', name: 'Systems', key: 's' },
  { id: 'cutting', name: 'Cutting', key: 'u' },
] as const
type PanelId = (typeof PANELS)[number]['id']

const router = useRouter()
const bench = useBench()
const tapes = useTapes()
const { setup } = storeToRefs(bench)
const keep = useKeepOnInstrument()

const shown = ref<PanelId>('places')
const firstMark = computed(() => tapes.marks[0])
const lies = computed(() => {
  const askew = firstMark.value && tapes.askewOf(firstMark.value)
  const names = bench.tuning.map((open) => noteLabel(open, { octave: false }))
  return askew ? askewSentence(askew, names) : 'squared to the strings'
})
const canLay = computed(() => tapes.marks.length > 0 && bench.stringing.isMeasured)
const isPrinting = ref(false)
const sheet = computed(() =>
  isPrinting.value && canLay.value
    ? [
        sheetOf({
          withoutPlace: tapes.withoutPlace,
          who: bench.student?.name,
          label: bench.instrument?.label,
          kind: instrumentKind(setup.value.familyId, setup.value.sizeId),
          stringing: bench.stringing,
          marks: tapes.marks,
        }),
      ]
    : [],
)

/** From what lies on the bench to another one: the size that comes next. */
function compare() {
  const from = bench.instrument?.id
  void router.push({ name: 'compare', query: from === undefined ? {} : { from } })
}

function walk(to: number) {
  const panel = PANELS[(to + PANELS.length) % PANELS.length]
  if (!panel) return
  shown.value = panel.id
  void nextTick(() => document.getElementById(`tab-${panel.id}`)?.focus())
}

const settings = ref<InstanceType<typeof BenchSettings>>()
/** The first act where the string is not measured; where it is, the keys are the page's. */
function begin() {
  if (!bench.stringing.isMeasured) settings.value?.focusLength()
}
onMounted(() => {
  begin()
  // The next act is to lay them: its page is there when the key is pressed.
  void import('./LayPage.vue')
})
watch(
  () => bench.instrument?.id,
  () => void nextTick(begin),
)
useShortcuts('Tapes', [
  { key: 'l', does: 'Type the string length', run: () => settings.value?.focusLength() },
  ...PANELS.map(({ id, name, key }) => ({ key, does: name, run: () => (shown.value = id) })),
  { key: 'p', does: 'Print the strip', run: () => (isPrinting.value = canLay.value) },
  { key: 'y', does: 'Lay them, step by step', run: () => canLay.value && void router.push({ name: 'lay' }) },
  { key: 'm', does: 'Compare with another instrument', run: compare },
])
</script>

<style scoped>
.below {
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  gap: var(--gap);
  margin-top: var(--gap);
}

.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin: -6px -6px 10px;
  border-bottom: 1px solid var(--line);
}

.tabs button {
  border: 0;
  border-bottom: 3px solid transparent;
  padding: 7px 12px;
  background: none;
  color: var(--ink-soft);
  font: 600 15.5px var(--font-text);
  cursor: pointer;
}

.tabs kbd {
  margin-left: 6px;
  border-color: transparent;
  background: none;
  font-weight: 500;
}

.tabs button[aria-selected='true'] {
  border-bottom-color: var(--brass);
  color: var(--ink);
}

.panel {
  overflow-x: auto;
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
