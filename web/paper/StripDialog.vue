<template>
  <QuickDialog v-model="open" label="Print strips" wide>
    <div class="inside">
      <div class="side">
        <h2 tabindex="-1" autofocus>
          {{ sheets.length > 1 ? `${sheets.length} strips` : 'The strip' }}
        </h2>
        <FieldRow label="Paper">
          <ElSegmented v-model="paper" :options="PAPER_NAMES" aria-label="Paper" />
        </FieldRow>
        <p class="soft">
          {{ count(pageCount, 'sheet') }}. Print at 100 % and measure the 100 mm line before you use it.
        </p>
        <ElButton type="primary" :disabled="printing.progress.value !== undefined" @click="savePdf"
          >Save as PDF</ElButton
        >
        <ElButton v-if="sheets.length === 1" @click="saveSvg">Save as SVG</ElButton>
        <div v-if="printing.progress.value" class="progress" role="status">
          <progress :value="printing.progress.value.done" :max="Math.max(1, printing.progress.value.of)" />
          <span class="numbers">{{ printing.progress.value.done }} of {{ printing.progress.value.of }}</span>
          <ElButton size="small" @click="printing.cancel()">Cancel</ElButton>
        </div>
        <p v-if="printing.fault.value" class="fault" role="alert">{{ printing.fault.value }}</p>
      </div>
      <div class="sheet"><PagePreview v-if="firstPage" :page="firstPage" /></div>
    </div>
  </QuickDialog>
</template>

<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { stripPages, pageSvg, type PaperId } from '#core'
import FieldRow from '../features/shell/FieldRow.vue'
import QuickDialog from '../features/shell/QuickDialog.vue'
import { fileName, saveFile } from '../files/tables'
import { count } from '../words/numbers'
import { PAPER_NAMES, SHEET_FONT, stripWords, type SheetDraft } from './sheet'
import PagePreview from './PagePreview.vue'
import { usePrinting } from './usePrinting'

const props = defineProps<{ sheets: readonly SheetDraft[] }>()
const open = defineModel<boolean>({ required: true })
const paper = useLocalStorage<PaperId>('jadefell.paper', 'a4')
const printing = usePrinting()

const firstPages = computed(() => {
  const [first] = props.sheets
  return open.value && first ? stripPages({ ...first, paper: paper.value, words: stripWords }) : []
})
const firstPage = computed(() => firstPages.value[0])
const pageCount = computed(() =>
  open.value
    ? props.sheets.reduce(
        (sum, sheet) => sum + stripPages({ ...sheet, paper: paper.value, words: stripWords }).length,
        0,
      )
    : 0,
)
const title = computed(() => {
  const [first] = props.sheets
  return props.sheets.length > 1 ? 'Tape strips' : `Tape strip ${first?.title ?? ''}`
})

function savePdf() {
  printing.print({
    title: title.value,
    sheets: props.sheets.map((sheet) => ({ ...sheet, paper: paper.value })),
  })
}

/** One file a sheet: an SVG has no pages. */
function saveSvg() {
  for (const [index, page] of firstPages.value.entries()) {
    const part = firstPages.value.length > 1 ? ` sheet ${index + 1}` : ''
    saveFile(fileName(title.value + part, 'svg'), pageSvg(page, SHEET_FONT), 'image/svg+xml')
  }
}
</script>

<style scoped>
.inside {
  display: grid;
  grid-template-columns: 250px 1fr;
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
  max-height: 66vh;
}

.progress {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 8px;
  align-items: center;
}

progress {
  width: 100%;
  accent-color: var(--jade);
}

@media (width <= 700px) {
  .inside {
    grid-template-columns: 1fr;
  }
}
</style>
