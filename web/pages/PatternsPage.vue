<template>
  <PatternsHead>
    <ElButton @click="check">Check it<KeyHint of="h" on-button /></ElButton>
    <ElButton type="primary" @click="isPrinting = true">Pattern sheet<KeyHint of="p" on-button /></ElButton>
  </PatternsHead>
  <section class="choices" aria-label="What is shown">
    <KeyFields v-if="stage > 0" />
    <FieldRow v-if="stage > 1" label="Compare with">
      <PlainSelect v-model="compareId" label="Compare with" :options="compareOptions" />
    </FieldRow>
    <ElCheckbox v-if="patterns.student" v-model="patterns.choice.knownOnly" class="known">
      Only what {{ patterns.student.name }} knows <KeyHint of="o" />
    </ElCheckbox>
  </section>
  <p v-if="atlas.hasNoKnown.value" class="heed" role="status">
    No {{ MODE_NAMES[patterns.choice.modeId] }} key in {{ positionName(atlas.position.value) }} asks only for
    patterns that {{ patterns.student?.name }} has secure. Choose another position or scale, or mark what is
    secure.
  </p>
  <p v-if="!bench.stringing.isMeasured" class="heed">
    Drawn for a typical {{ family.id }} {{ sizeName(bench.setup.sizeId) }} of
    {{ length(bench.stringing.lengthMm, 0) }}, from memory. Measured strings give their own places.
  </p>
  <div :class="['atlas', { upright: isUpright }]">
    <div :class="{ top: !isUpright }">
      <section v-if="stage > 2" class="card board">
        <StringBoard
          :stringing="bench.stringing"
          :fingers="fingers"
          :active-string="atlas.stringIndex.value"
          :label="`Fingerboard with the hand for ${keyName(atlas.key.value)}`"
          show-places
          can-turn
          :is-upright-first="isUprightFirst"
        />
        <PatternMarks v-if="!isUpright && stage > 3" />
      </section>
      <section v-if="!isUpright && stage > 3" class="card"><PlacementDetail /></section>
    </div>
    <div class="beside">
      <section v-if="isUpright && stage > 3" class="card info"><PlacementDetail /><PatternMarks /></section>
      <KeyDiffCard />
      <div class="tables">
        <section v-if="stage > 4" class="card keys" aria-label="Keys">
          <p class="eyebrow">
            Every {{ MODE_NAMES[patterns.choice.modeId] }} key in {{ positionName(atlas.position.value) }}
            <KeyHint of="ArrowUp" />
            <KeyHint of="ArrowDown" />
          </p>
          <AtlasTable
            label="Keys and strings"
            head="Key"
            :strings="strings"
            :rows="keyRows"
            :current-id="atlas.key.value.id"
            :current-string="atlas.stringIndex.value"
            :name-of="keyLabel"
            :sign-of="(row) => (row.isKnown ? '✓' : '')"
            sign-title="No new pattern"
            :words-of="(c) => cellWords(family, c)"
            @choose="chooseKeyRow"
          />
          <p v-if="patterns.student" class="soft small">✓ needs no pattern that is not secure yet.</p>
          <p v-if="signsIn(keyRows)" class="soft small">{{ signsIn(keyRows) }}</p>
        </section>
        <section v-if="stage > 5" class="card positions" aria-label="Positions">
          <p class="eyebrow">
            {{ keyName(atlas.key.value) }} in every position <KeyHint of="," /> <KeyHint of="." />
          </p>
          <AtlasTable
            label="Positions and strings"
            head="Position"
            :strings="strings"
            :rows="positionRows"
            :current-id="atlas.position.value.id"
            :current-string="atlas.stringIndex.value"
            :name-of="positionLabel"
            :sign-of="(row) => (patterns.student ? STATE_SIGNS[mastery.stateOf('position', row.id)] : '')"
            sign-title="Learning or secure"
            :words-of="(c) => cellWords(family, c)"
            @choose="choosePositionRow"
          />
          <p v-if="signsIn(positionRows)" class="soft small">{{ signsIn(positionRows) }}</p>
        </section>
      </div>
    </div>
  </div>
  <PatternList v-if="stage > 6" class="all" />
  <PatternSheetDialog v-model="isPrinting" />
</template>

<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import StringBoard from '../board/StringBoard.vue'
import { useTurned } from '../board/useTurned'
import AtlasTable from '../features/patterns/AtlasTable.vue'
import KeyDiffCard from '../features/patterns/KeyDiffCard.vue'
import KeyFields from '../features/patterns/KeyFields.vue'
import PatternMarks from '../features/patterns/PatternMarks.vue'
import PlacementDetail from '../features/patterns/PlacementDetail.vue'
import PatternList from '../features/patterns/PatternList.vue'
import PatternsHead from '../features/patterns/PatternsHead.vue'
import PatternSheetDialog from '../features/patterns/PatternSheetDialog.vue'
import { useBoardFingers } from '../features/patterns/useBoardFingers'
import type { AtlasRow } from '../features/patterns/useAtlas'
import { usePatterns } from '../features/patterns/usePatterns'
import { useBench } from '../stores/bench'
import { useExerciseChoice } from '../stores/exercise-choice'
import PlainSelect from '../ui/PlainSelect.vue'
import FieldRow from '../ui/FieldRow.vue'
import { useNextFrame } from '../ui/useNextFrame'
import { useShortcuts } from '../ui/useShortcuts'
import { useStages } from '../ui/useStages'
import { keyName, MODE_NAMES } from '../words/keys'
import { STATE_SIGNS } from '../words/mastery'
import { cellWords, noPlacementLegend } from '../words/patterns'
import { positionName, shortPositionName } from '../words/positions'
import { sizeName } from '../words/trade'
import KeyHint from '../ui/KeyHint.vue'
import { labelOfName, noteLabel } from '../words/notes'
import { length } from '../words/numbers'

const router = useRouter()
const exercises = useExerciseChoice()
const patterns = usePatterns()
const { atlas, mastery } = patterns
const bench = useBench()
const family = computed(() => atlas.family.value)
const strings = computed(() => atlas.tuning.value.map((open) => noteLabel(open, { octave: false })))
const fingers = useBoardFingers(patterns)
/** As a cello or a bass stands before its player. */
const isUprightFirst = computed(() => family.value.hold !== 'shoulder')
const { isUpright } = useTurned(isUprightFirst)
const isPrinting = ref(false)
const stage = useStages(7)
/** The tables follow the board by a frame: a key that is pressed is answered there first. */
const keyRows = useNextFrame(() => atlas.keyRows.value)
const positionRows = useNextFrame(() => atlas.positionRows.value)

/** A choice of its own: a drop-down takes an empty value for none made. */
const NO_KEY = 'none'
const compareId = computed({
  get: () => patterns.choice.compareId || NO_KEY,
  set: (id) => Object.assign(patterns.choice, { compareId: id === NO_KEY ? '' : id, isFromCompared: false }),
})
/** The key itself is among them: a list that stays the same is not made anew from key to key. */
const compareOptions = computed(() => [
  { value: NO_KEY, label: 'no other key' },
  ...atlas.keys.value.map((k) => ({ value: k.id, label: keyName(k) })),
])

const keyLabel = (id: string) => labelOfName(id.split(':')[0] ?? id)
function positionLabel(id: string): string {
  const position = family.value.positions.find((p) => p.id === id)
  return position ? shortPositionName(position) : id
}
/** What the words in a table's cells stand for, as far as they are in it. */
function signsIn(rows: readonly AtlasRow[]): string {
  return noPlacementLegend(rows.flatMap((row) => row.cells))
}
function chooseKeyRow(id: string, string: number | undefined) {
  patterns.choice.keyId = id
  if (string !== undefined) patterns.choice.stringIndex = string
}
function choosePositionRow(id: string, string: number | undefined) {
  patterns.choice.positionId = id
  if (string !== undefined) patterns.choice.stringIndex = string
}

useShortcuts('Atlas', [
  { key: 'ArrowDown', does: 'Next key', run: () => atlas.moveKey(1) },
  { key: 'ArrowUp', does: 'Key before', run: () => atlas.moveKey(-1) },
  { key: 'ArrowRight', does: 'String above', run: () => atlas.moveString(1) },
  { key: 'ArrowLeft', does: 'String below', run: () => atlas.moveString(-1) },
  { key: '.', does: 'Next position', run: () => atlas.movePosition(1) },
  { key: ',', does: 'Position before', run: () => atlas.movePosition(-1) },
  { key: 'c', does: 'Compare with this key from now on', run: compare },
  {
    key: 'o',
    does: 'Only what the student knows',
    run: () => (patterns.choice.knownOnly = !patterns.choice.knownOnly),
  },
  { key: 'h', does: 'Check this hand', run: check },
  { key: 'p', does: 'Pattern sheet', run: () => (isPrinting.value = true) },
])

/** The hand that is looked at is played next. */
function check() {
  const { key, position, stringIndex } = atlas
  exercises.choose({
    kind: 'hand',
    keyId: key.value.id,
    positionId: position.value.id,
    stringIndex: stringIndex.value,
  })
  void router.push({ name: 'check' })
}

/** The key shown now stays as the one to compare with; again, and nothing is compared. */
function compare() {
  const compareId = patterns.choice.compareId === '' ? atlas.key.value.id : ''
  Object.assign(patterns.choice, { compareId, isFromCompared: true })
}
</script>

<style scoped>
.known kbd {
  margin-left: 6px;
}

.known {
  align-self: end;
  height: 34px;
}

.top,
.tables {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 392px;
  align-items: start;
  gap: var(--gap);
}

.tables {
  align-items: start;
  grid-template-columns: repeat(2, minmax(0, 1fr));
}

.atlas,
.beside {
  display: grid;
  align-content: start;
  gap: var(--gap);
}

.atlas.upright {
  grid-template-columns: 300px minmax(0, 1fr);
  align-items: start;
}

.card {
  padding: 12px 14px;
}

.info,
.board {
  display: grid;
  gap: 10px;
}

.eyebrow {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-bottom: 4px;
}

.eyebrow kbd {
  letter-spacing: 0;
}

.small {
  margin-top: 6px;
  font-size: 13.5px;
}

.all {
  margin-top: var(--gap);
}

@media (width <= 1000px) {
  .top,
  .tables,
  .atlas.upright {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
