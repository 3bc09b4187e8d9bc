<template>
  <PrintDialog
    v-model="open"
    title="Print this line"
    :page="pages?.[0]"
    :fault="fault || printing.fault.value"
  >
    <FieldRow label="Paper">
      <ElSegmented v-model="paper" :options="PAPER_NAMES" aria-label="Paper" />
    </FieldRow>
    <p class="soft">
      {{
        pages ? `${count(pages.length, 'page')}: notes, fingers, and the board from the nut.` : 'Drawing …'
      }}
    </p>
    <ElButton type="primary" :disabled="printing.progress.value !== undefined" @click="savePdf"
      >Save as PDF</ElButton
    >
    <ElButton :disabled="!pages" @click="saveSvg">Save as SVG</ElButton>
    <ElButton @click="saveMusicXml">Save as MusicXML</ElButton>
    <p class="soft small">MusicXML goes into any notation program, with fingers, strings and thumb.</p>
  </PrintDialog>
</template>

<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import {
  LINE_MARGIN_MM,
  fillingSpaceMm,
  lineSheet,
  STAFF_SPACE_MM,
  PAPERS,
  pageSvg,
  placeOfNote,
  writeMusicXml,
  type DrawnLine,
  type Page,
} from '#core'
import { fileName, saveFile } from '../../files/tables'
import PrintDialog from '../../paper/PrintDialog.vue'
import { PAPER_NAMES, SHEET_FONT } from '../../paper/sheet'
import { usePrinting } from '../../paper/usePrinting'
import { useBench } from '../../stores/bench'
import { useAsStudio } from '../../ui/asStudio'
import FieldRow from '../../ui/FieldRow.vue'
import { shortDay } from '../../words/dates'
import { fingerSign } from '../../words/fingers'
import { noteLabel } from '../../words/notes'
import { count } from '../../words/numbers'
import { shortPlaceName } from '../../words/positions'
import { instrumentKind } from '../../words/trade'
import type { Line } from './useLine'
import { studioDay } from '../../words/shown'

/** The line as it stands on the page, for the music stand. */
const props = defineProps<{ line: Line; title: string; whose: readonly string[] }>()
const open = defineModel<boolean>({ required: true })
const paper = useAsStudio('paper')
const bench = useBench()
const printing = usePrinting()
const fault = ref('')
const drawn = shallowRef<readonly DrawnLine[]>()
let asked = 0

watch(
  [open, paper, () => props.line.score.value],
  async ([isOpen]) => {
    const mine = ++asked
    drawn.value = undefined
    if (!isOpen) return
    try {
      const lines = await fillingLines()
      if (mine === asked) drawn.value = lines
      fault.value = ''
    } catch (error) {
      fault.value = `The sheet could not be drawn: ${error instanceof Error ? error.message : String(error)}`
    }
  },
  { immediate: true },
)

/** As large as one page has room for; what needs more pages is as small as it is printed. */
async function fillingLines(): Promise<readonly DrawnLine[]> {
  const { linesForPaper } = await import('../../notation/lines')
  const drawnAt = (spaceMm: number) =>
    linesForPaper(props.line.score.value, PAPERS[paper.value].widthMm - 2 * LINE_MARGIN_MM, spaceMm)
  const small = await drawnAt(STAFF_SPACE_MM.least)
  const largest = fillingSpaceMm(small, paper.value, bench.stringing.tuning.length)
  for (let space = largest; space > STAFF_SPACE_MM.least; space -= SMALLER_MM) {
    const lines = await drawnAt(space)
    if (sheetOf(lines).length === 1) return lines
  }
  return small
}
/** Where lines do not break as was reckoned, the next size is tried. */
const SMALLER_MM = 0.25

const pages = computed<Page[] | undefined>(() => drawn.value && sheetOf(drawn.value))

function sheetOf(lines: readonly DrawnLine[]): Page[] {
  const { stringing } = bench
  return lineSheet({
    title: props.title,
    subtitle: [...props.whose, shortDay(studioDay())].join(' · '),
    paper: paper.value,
    lines,
    board: stringing.board,
    strings: stringing.tuning.map((open) => noteLabel(open, { octave: false })),
    places: placesOnBoard(),
    words: {
      strip: 'The board from the nut, the lowest string nearest to you.',
      foot: ['Tune first; the ear decides. Stop and rest at any pain; never stretch 4 upwards.'],
    },
  })
}

function placesOnBoard() {
  const seen = new Map<string, { stringIndex: number; placeMm: number; finger: string }>()
  for (const n of props.line.notes.value) {
    const second = n.second ? [{ ...n.second, stringIndex: n.stringIndex + 1 }] : []
    for (const { finger, stringIndex, note } of [n, ...second]) {
      const placeMm = placeOfNote(bench.stringing, stringIndex, note)
      const id = `${stringIndex} ${placeMm.toFixed(1)}`
      if (finger !== 0 && !seen.has(id)) seen.set(id, { stringIndex, placeMm, finger: fingerSign(finger) })
    }
  }
  return [...seen.values()]
}

/** Asked for before the sheet was drawn: it is made as soon as it is. */
let isWanted = false
function savePdf() {
  isWanted = !pages.value
  if (pages.value) printing.print({ title: props.title, pages: pages.value })
}
watch(pages, (drawnNow) => drawnNow && isWanted && savePdf())
watch(open, () => (isWanted = false))
function saveSvg() {
  pages.value?.forEach((page, i, all) => {
    const name = all.length > 1 ? `${props.title} ${i + 1}` : props.title
    saveFile(fileName(name, 'svg'), pageSvg(page, SHEET_FONT), 'image/svg+xml')
  })
}
async function saveMusicXml() {
  const { familyId, sizeId } = bench.setup
  const xml = await writeMusicXml(props.line.score.value, {
    title: props.title,
    instrument: instrumentKind(familyId, sizeId),
    position: shortPlaceName,
  })
  saveFile(fileName(props.title, 'musicxml'), xml, 'application/xml')
}
</script>

<style scoped>
.small {
  font-size: 14px;
}
</style>
