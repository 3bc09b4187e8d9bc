<template>
  <section class="card fit" aria-label="Fit to the body">
    <div class="head">
      <p class="eyebrow">{{ FAMILY_NAMES[family] }}, fitted to the body</p>
      <p v-if="newest" class="soft">{{ longDay(new Date(newest.fittedOn)) }}, {{ newest.by }}</p>
    </div>
    <div class="drawings">
      <FigureView
        v-for="(one, index) in figures"
        :key="index"
        :figure="one.figure"
        :label="drawingWords(one.parts)"
      />
    </div>
    <p v-for="doubt in doubts" :key="doubt" class="doubt">{{ FIT_DOUBTS[doubt] }}</p>
    <p v-for="part in jumps" :key="part" class="doubt">
      {{ FIT_FIELDS[part].label }}: {{ withUnit(part, newest?.[part]) }} last time,
      {{ withUnit(part, shown[part]) }} now. Is that so?
    </p>
    <p v-if="newest?.note" class="note" dir="auto">{{ newest.note }}</p>
    <form aria-label="Measure the fit" @submit.prevent="keep">
      <FieldRow
        v-for="part in parts"
        :key="part"
        v-slot="{ id }"
        :label="FIT_FIELDS[part].label"
        :fault="faults[part]"
      >
        <ElInput
          :id="id"
          v-model="texts[part]"
          :data-takes="FIT_FIELDS[part].unit === 'mm' ? 'length' : 'number'"
          inputmode="decimal"
          :placeholder="newest?.[part] === null || !newest ? '' : String(newest[part])"
        >
          <template #suffix>{{ FIT_FIELDS[part].unit }}</template>
        </ElInput>
      </FieldRow>
      <FieldRow v-slot="{ id }" label="How it is set up, in words" class="words">
        <ElInput
          :id="id"
          v-model="note"
          maxlength="400"
          :placeholder="newest?.note || 'flat rest no. 2, pad of felt'"
        />
      </FieldRow>
      <ElButton type="primary" native-type="submit" :disabled="!draft">Keep the fit</ElButton>
      <ElButton v-if="newest" text @click="emit('remove', newest)">Take the newest out</ElButton>
    </form>
    <p class="soft small">
      What is left empty stays as it was.
      <template v-if="parts.includes('chinRestMm')"
        >Chin and shoulder rests that press or hurt: a shop fits others.</template
      >
    </p>
  </section>
</template>

<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import {
  bodyFitDoubts,
  bodyFitFigures,
  bodyFitJumps,
  readMeasure,
  BODY_FIT_LIMITS,
  bodyFitParts,
  NO_BODY_FIT,
  type BodyFitPart,
  type BodyFitValues,
  type FamilyId,
} from '#core'
import type { BodyFit, BodyFitDraft } from '#contracts'
import FigureView from '../../figure/FigureView.vue'
import FieldRow from '../../ui/FieldRow.vue'
import { longDay } from '../../words/dates'
import { inStudioUnit } from '../../words/numbers'
import { FIT_DOUBTS, FIT_FIELDS } from '../../words/gates'
import { FAMILY_NAMES } from '../../words/trade'
import { studioDay } from '../../words/shown'

/** Rests, angle, thumb, endpin and pegs in numbers: what sets a loan instrument up again in a minute. */
const props = defineProps<{ family: FamilyId; fits: readonly BodyFit[] }>()
const emit = defineEmits<{ keep: [draft: BodyFitDraft]; remove: [fit: BodyFit] }>()
const parts = computed(() => bodyFitParts(props.family))
const newest = computed(() => props.fits.find(({ family }) => family === props.family))
const texts = reactive<Record<string, string>>({})
const note = ref('')
watch(
  [() => props.family, () => newest.value?.id],
  () => {
    for (const part of parts.value) texts[part] = ''
    note.value = ''
  },
  { immediate: true },
)

const UNIT_OF = { mm: 'mm', '°': 'degrees', 'of 5': 'times' } as const
const readOf = (part: BodyFitPart) => readMeasure(texts[part] ?? '', UNIT_OF[FIT_FIELDS[part].unit])
const valueOf = (part: BodyFitPart) => {
  const read = readOf(part)
  return read.code === 'value' ? read.value : undefined
}
const faults = computed<Partial<Record<BodyFitPart, string>>>(() =>
  Object.fromEntries(
    parts.value.flatMap((part) => {
      const read = readOf(part)
      const [least, most] = BODY_FIT_LIMITS[part]
      if (read.code === 'empty') return []
      if (read.code === 'value' && read.value >= least && read.value <= most) return []
      return [[part, `Give ${inStudioUnit(`${least} to ${most} ${FIT_FIELDS[part].unit}`)}.`]]
    }),
  ),
)
/** What is typed goes before what was measured last. */
const shown = computed<BodyFitValues>(() => {
  const values: Record<string, number | null> = { ...NO_BODY_FIT }
  for (const part of parts.value)
    values[part] = (faults.value[part] ? undefined : valueOf(part)) ?? newest.value?.[part] ?? null
  return values as unknown as BodyFitValues
})
const figures = computed(() => bodyFitFigures(props.family, shown.value))
const doubts = computed(() => bodyFitDoubts(props.family, shown.value))
function withUnit(part: BodyFitPart, value: number | null | undefined): string {
  const { unit } = FIT_FIELDS[part]
  return inStudioUnit(`${value ?? 0}${unit === '°' ? '' : ' '}${unit}`)
}
const jumps = computed(() => (newest.value ? bodyFitJumps(newest.value, shown.value) : []))
const draft = computed<BodyFitDraft | undefined>(() => {
  const isTyped = note.value.trim() !== '' || parts.value.some((part) => valueOf(part) !== undefined)
  if (!isTyped || Object.keys(faults.value).length > 0) return undefined
  return {
    family: props.family,
    fittedOn: studioDay(),
    // What was typed and nothing else: another teacher may have measured the rest since this page was opened.
    ...Object.fromEntries(
      parts.value.flatMap((part) => {
        const value = valueOf(part)
        return value === undefined ? [] : [[part, value] as const]
      }),
    ),
    ...(note.value.trim() !== '' && { note: note.value.trim() }),
  }
})

function keep() {
  if (draft.value) emit('keep', draft.value)
}

function drawingWords(of: readonly BodyFitPart[]): string {
  const said = of.flatMap((part) => {
    const value = shown.value[part]
    return value === null ? [] : [`${FIT_FIELDS[part].label} ${withUnit(part, value)}`]
  })
  return said.length > 0 ? said.join(', ') : 'Nothing measured yet'
}
</script>

<style scoped>
.fit {
  display: grid;
  align-content: start;
  gap: 10px;
}

.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 12px;
}

.drawings {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: 8px;
}

.drawings > :deep(.figure) {
  height: 236px;
}

form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  align-items: end;
  gap: 10px;
}

.words {
  grid-column: 1 / -1;
}

.doubt {
  padding: 6px 12px;
  border-left: 3px solid var(--brass);
  background: var(--brass-wash);
  color: var(--brass-ink);
}

.note {
  font: 500 18px/1.35 var(--font-title);
  overflow-wrap: anywhere;
}

.small {
  font-size: 13.5px;
}
</style>
