<template>
  <PrintDialog v-model="open" :title="title" :page="pages?.[0]" :fault="fault || printing.fault.value">
    <FieldRow label="Paper">
      <ElSegmented v-model="paper" :options="PAPER_NAMES" aria-label="Paper" />
    </FieldRow>
    <p class="soft">
      {{ pages ? `${count(pages.length, 'page')}: boxes to tick, notes, and the board.` : 'Drawing …' }}
    </p>
    <ElButton type="primary" :disabled="!pages || printing.progress.value !== undefined" @click="savePdf"
      >Save as PDF</ElButton
    >
    <ElButton v-if="printing.progress.value" @click="printing.cancel">
      Stop at page {{ printing.progress.value.done }} of {{ printing.progress.value.of }}
    </ElButton>
    <ElButton :disabled="!pages" @click="saveSvg">Save as SVG</ElButton>
    <ElButton @click="saveCalendar">Days for a calendar</ElButton>
    <ElButton @click="saveJson">Save as JSON</ElButton>
    <p class="soft small">A calendar takes the days as an iCalendar file, without a name in it.</p>
  </PrintDialog>
</template>

<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue'
import { knownSystem, pageSvg, type Page } from '#core'
import type { Plan, Student } from '#contracts'
import { fileName, saveFile } from '../../files/tables'
import PrintDialog from '../../paper/PrintDialog.vue'
import { PAPER_NAMES, SHEET_FONT } from '../../paper/sheet'
import { usePrinting } from '../../paper/usePrinting'
import { studioStringing } from '../../stores/stringing'
import { useStudio } from '../../stores/studio'
import { useAsStudio } from '../../ui/asStudio'
import FieldRow from '../../ui/FieldRow.vue'
import { count } from '../../words/numbers'
import { planSheet, sheetStringing } from './plan-sheet'

/** Weeks on paper, a page each, and as files. */
const props = defineProps<{
  plans: readonly { readonly plan: Plan; readonly student: Student }[]
  title: string
}>()
const open = defineModel<boolean>({ required: true })
const studio = useStudio()
const paper = useAsStudio('paper')
const printing = usePrinting()
const fault = ref('')
const pages = shallowRef<readonly Page[]>()
let asked = 0

watch(
  [open, paper, () => props.plans],
  async ([isOpen]) => {
    const mine = ++asked
    pages.value = undefined
    if (!isOpen) return
    try {
      const drawn: Page[] = []
      for (const { plan, student } of props.plans) {
        const systemId = studio.systemOf(student.instrument ?? undefined, student)
        const own = student.instrument ? studioStringing(student.instrument, systemId) : undefined
        const stringing = sheetStringing(student, own, knownSystem(systemId))
        drawn.push(await planSheet({ plan, student, stringing }, paper.value))
        if (mine !== asked) return
      }
      pages.value = drawn
      fault.value = ''
    } catch (error) {
      fault.value = `The sheet could not be drawn: ${error instanceof Error ? error.message : String(error)}`
    }
  },
  { immediate: true },
)

function savePdf() {
  if (pages.value) printing.print({ title: props.title, pages: pages.value })
}
function saveSvg() {
  pages.value?.forEach((page, i, all) => {
    const name = all.length > 1 ? `${props.title} ${i + 1}` : props.title
    saveFile(fileName(name, 'svg'), pageSvg(page, SHEET_FONT), 'image/svg+xml')
  })
}
async function saveCalendar() {
  const { planCalendar } = await import('./plan-calendar')
  saveFile(fileName(props.title, 'ics'), planCalendar(props.plans.map(({ plan }) => plan)), 'text/calendar')
}
function saveJson() {
  const plans = props.plans.map(({ plan, student }) => ({ student: student.name, ...plan }))
  saveFile(fileName(props.title, 'json'), JSON.stringify(plans, null, 2), 'application/json')
}
</script>

<style scoped>
.small {
  font-size: 14px;
}
</style>
