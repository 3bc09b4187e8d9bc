<template>
  <PrintDialog v-model="open" :title="heading" :page="firstPage" :fault="printing.fault.value">
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
  </PrintDialog>
</template>

<script setup lang="ts">
import { useAsStudio } from '../ui/asStudio'
import { computed } from 'vue'
import { stripPages, stripSheets, pageSvg } from '#core'
import FieldRow from '../ui/FieldRow.vue'
import { fileName, saveFile } from '../files/tables'
import { count } from '../words/numbers'
import { PAPER_NAMES, SHEET_FONT, stripWords, type SheetDraft } from './sheet'
import PrintDialog from './PrintDialog.vue'
import { usePrinting } from './usePrinting'

const props = defineProps<{ sheets: readonly SheetDraft[] }>()
const open = defineModel<boolean>({ required: true })
const paper = useAsStudio('paper')
const printing = usePrinting()

const requestOf = (sheet: SheetDraft) => ({ ...sheet, paper: paper.value, words: stripWords })
const pages = computed(() => (open.value ? stripSheets(props.sheets.map(requestOf)) : []))
const firstPage = computed(() => pages.value[0])
const pageCount = computed(() => pages.value.length)
const heading = computed(() => (props.sheets.length > 1 ? `${props.sheets.length} strips` : 'The strip'))
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
  const [first] = props.sheets
  const own = first ? stripPages(requestOf(first)) : []
  for (const [index, page] of own.entries()) {
    const part = own.length > 1 ? ` sheet ${index + 1}` : ''
    saveFile(fileName(title.value + part, 'svg'), pageSvg(page, SHEET_FONT), 'image/svg+xml')
  }
}
</script>

<style scoped>
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
</style>
