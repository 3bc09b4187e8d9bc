<template>
  <QuickDialog v-model="open" label="Pattern sheet" wide>
    <div class="inside">
      <div class="side">
        <h2 tabindex="-1" autofocus>Pattern sheet</h2>
        <FieldRow label="Drawn">
          <ElSegmented v-model="drawing" :options="DRAWINGS" aria-label="Drawn" />
        </FieldRow>
        <FieldRow label="Paper">
          <ElSegmented v-model="paper" :options="PAPER_NAMES" aria-label="Paper" />
        </FieldRow>
        <p class="soft">
          {{
            drawing === 'scale'
              ? 'For this instrument, to scale. Print at 100 %.'
              : 'For the whole class, whatever their sizes.'
          }}
        </p>
        <ElButton type="primary" :disabled="printing.progress.value !== undefined" @click="savePdf"
          >Save as PDF</ElButton
        >
        <ElButton @click="saveSvg">Save as SVG</ElButton>
        <p v-if="printing.fault.value" class="fault" role="alert">{{ printing.fault.value }}</p>
      </div>
      <div class="sheet"><PagePreview v-if="page" :page="page" /></div>
    </div>
  </QuickDialog>
</template>

<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { pageSvg, type PaperId } from '#core'
import { fileName, saveFile } from '../../files/tables'
import PagePreview from '../../paper/PagePreview.vue'
import { patternSheetPage } from '../../paper/pattern-sheet'
import { PAPER_NAMES, SHEET_FONT } from '../../paper/sheet'
import { usePrinting } from '../../paper/usePrinting'
import { usePatterns } from '../../stores/patterns'
import { keyName, positionName } from '../../words/patterns'
import { instrumentKind } from '../../words/trade'
import FieldRow from '../shell/FieldRow.vue'
import QuickDialog from '../shell/QuickDialog.vue'

const DRAWINGS = [
  { value: 'scale', label: 'To scale' },
  { value: 'diagram', label: 'Diagram' },
]

const open = defineModel<boolean>({ required: true })
const paper = useLocalStorage<PaperId>('jadefell.paper', 'a4')
const drawing = useLocalStorage<'scale' | 'diagram'>('jadefell.patterns.drawing', 'diagram')
const patterns = usePatterns()
const { atlas, bench, benchStore } = patterns
const printing = usePrinting()

const whose = computed(() => {
  const { instrument, setup } = benchStore
  const kind = instrumentKind(setup.familyId, setup.sizeId)
  // A sheet for a whole class names nobody and no size.
  if (drawing.value === 'diagram') return [setup.familyId]
  return [patterns.student?.name, instrument ? `${kind}, ${instrument.label}` : kind].filter(
    (w) => w !== undefined,
  )
})
const page = computed(() =>
  open.value
    ? patternSheetPage({
        atlas,
        bench,
        board: bench.board.value,
        whose: whose.value,
        paper: paper.value,
        drawing: drawing.value,
      })
    : undefined,
)
const title = computed(() =>
  ['Patterns', benchStore.setup.familyId, keyName(atlas.key.value), positionName(atlas.position.value)].join(
    ' ',
  ),
)

function savePdf() {
  if (page.value) printing.print({ title: title.value, pages: [page.value] })
}
function saveSvg() {
  if (page.value) saveFile(fileName(title.value, 'svg'), pageSvg(page.value, SHEET_FONT), 'image/svg+xml')
}
</script>

<style scoped>
.inside {
  display: grid;
  grid-template-columns: 230px 1fr;
  gap: 24px;
}

.side {
  display: grid;
  align-content: start;
  gap: 12px;
}

.side :deep(.el-button) {
  margin: 0;
}

h2:focus {
  outline: none;
}

.sheet {
  max-height: 70vh;
}

@media (width <= 700px) {
  .inside {
    grid-template-columns: 1fr;
  }
}
</style>
