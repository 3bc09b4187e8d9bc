<template>
  <PrintDialog v-model="open" title="Pattern sheet" :page="page" :fault="printing.fault.value">
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
  </PrintDialog>
</template>

<script setup lang="ts">
import { useAsStudio } from '../../ui/asStudio'
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { pageSvg } from '#core'
import { fileName, saveFile } from '../../files/tables'
import PrintDialog from '../../paper/PrintDialog.vue'
import { patternSheetPage } from '../../paper/pattern-sheet'
import { PAPER_NAMES, SHEET_FONT } from '../../paper/sheet'
import { usePrinting } from '../../paper/usePrinting'
import { useBench } from '../../stores/bench'
import { keyName } from '../../words/keys'
import { positionName } from '../../words/positions'
import { instrumentKind } from '../../words/trade'
import FieldRow from '../../ui/FieldRow.vue'
import { usePatterns } from './usePatterns'

const DRAWINGS = [
  { value: 'scale', label: 'To scale' },
  { value: 'diagram', label: 'Diagram' },
]

const open = defineModel<boolean>({ required: true })
const paper = useAsStudio('paper')
const drawing = useLocalStorage<'scale' | 'diagram'>('jadefell.patterns.drawing', 'diagram')
const patterns = usePatterns()
const { atlas } = patterns
const bench = useBench()
const printing = usePrinting()

const whose = computed(() => {
  const { instrument, setup } = bench
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
        key: atlas.key.value,
        position: atlas.position.value,
        cells: atlas.cells.value,
        stringing: bench.stringing,
        whose: whose.value,
        paper: paper.value,
        drawing: drawing.value,
      })
    : undefined,
)
const title = computed(() =>
  ['Patterns', bench.setup.familyId, keyName(atlas.key.value), positionName(atlas.position.value)].join(' '),
)

function savePdf() {
  if (page.value) printing.print({ title: title.value, pages: [page.value] })
}
function saveSvg() {
  if (page.value) saveFile(fileName(title.value, 'svg'), pageSvg(page.value, SHEET_FONT), 'image/svg+xml')
}
</script>
