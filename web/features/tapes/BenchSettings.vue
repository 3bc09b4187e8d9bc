<template>
  <section class="card settings" aria-label="Instrument">
    <div v-if="!bench.instrument" class="pair">
      <FamilyAndSize v-model:family="familyId" v-model:size-id="setup.sizeId" />
    </div>
    <LengthField
      ref="lengthField"
      @enter="keep.keepLength(false)"
      @size="keep.takeSize($event)"
      @keep-anyway="keep.keepLength(true)"
    />
    <MarkChoice />
    <FieldRow label="Tune by">
      <SystemChoice v-model="setup.systemId" :tuning="bench.tuning" />
    </FieldRow>
    <details>
      <summary>Tape and finger <span class="soft">{{ tapeSummary }}</span></summary>
      <div class="pair">
        <FieldRow label="Width">
          <ChoiceSelect v-model="setup.tapeWidthMm" label="Tape’s width" :options="tapeWidths" />
        </FieldRow>
        <FieldRow label="Thickness">
          <ChoiceSelect v-model="setup.tapeThicknessMm" label="Tape’s thickness" :options="thicknesses" />
        </FieldRow>
      </div>
      <p v-if="tapes.thickness" class="heed" role="status">{{ tapes.thickness }}</p>
      <FieldRow label="The fingertip">
        <ElSegmented v-model="setup.contact" :options="CONTACTS" aria-label="What the fingertip does" />
      </FieldRow>
      <FieldRow label="Neck and board, girth" hint="mm, for the first tape" :fault="girthFault">
        <template #default="{ id }">
          <ElInput
            :id="id"
            v-model="setup.girthText"
            data-takes="length"
            placeholder="typical"
            maxlength="12"
          />
        </template>
      </FieldRow>
    </details>
    <details>
      <summary>Pressing <span class="soft">{{ pressingSummary }}</span></summary>
      <FieldRow label="Reckon with pressing">
        <ElSegmented
          v-model="setup.pressingMode"
          :options="PRESSING_MODES"
          aria-label="Reckon with pressing"
        />
      </FieldRow>
      <p v-if="setup.pressingMode === 'typical'" class="soft note">
        {{ length(bench.typicalPressing.nutHeightMm) }} at the nut,
        {{ length(bench.typicalPressing.endHeightMm) }} at the board’s end,
        {{ MATERIAL_NAMES[bench.typicalPressing.material].toLowerCase() }}: typical, from memory.
      </p>
      <template v-if="setup.pressingMode === 'measured'">
        <FieldRow label="String over the board" hint="mm" :fault="heightFaultWords">
          <div class="pair">
            <ElInputNumber
              v-model="setup.nutHeightMm"
              :step="0.1"
              :controls="false"
              aria-label="Height at the nut, mm"
            >
              <template #prefix>nut</template>
            </ElInputNumber>
            <ElInputNumber
              v-model="setup.endHeightMm"
              :step="0.1"
              :controls="false"
              aria-label="Height at the board’s end, mm"
            >
              <template #prefix>end</template>
            </ElInputNumber>
          </div>
        </FieldRow>
        <FieldRow label="Strings">
          <ElSegmented v-model="material" :options="MATERIALS" aria-label="String material" />
        </FieldRow>
        <FieldRow
          v-for="(open, i) in material === EACH ? bench.tuning : []"
          :key="i"
          :label="`${noteLabel(open)} string`"
        >
          <ElSegmented
            v-model="setup.materials[i]"
            :options="ONE_MATERIAL"
            :aria-label="`Material of the ${noteLabel(open)} string`"
          />
        </FieldRow>
      </template>
      <ElButton
        v-if="bench.instrument"
        size="small"
        :disabled="bench.pressingFault !== undefined"
        @click="keep.keepPressing()"
      >
        Keep for {{ bench.instrument.label }}
      </ElButton>
    </details>
    <details>
      <summary>Strings and scale <span class="soft">{{ tuningNames }}</span></summary>
      <FieldRow label="Open strings" hint="lowest first, four to six" :fault="tuningFault">
        <template #default="{ id, invalid }">
          <ElInput
            :id="id"
            v-model="setup.tuningText"
            :placeholder="tuningNames"
            :aria-invalid="invalid"
            maxlength="60"
            autocomplete="off"
          />
        </template>
        <template #after>
          <ElButton
            v-if="bench.instrument && setup.tuningText.trim() !== ''"
            size="small"
            :disabled="tuningFault !== undefined"
            @click="keep.keepTuning()"
          >
            Keep for {{ bench.instrument.label }}
          </ElButton>
        </template>
      </FieldRow>
      <ScalaFile />
    </details>
  </section>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, ref } from 'vue'
import { parseLength, STRING_MATERIALS, type StringMaterial } from '#core'
import { heightSentence } from '#contracts'
import { useBench } from '../../stores/bench'
import { inStudioUnit, length, toUnit, unitName } from '../../words/numbers'
import { MATERIAL_NAMES } from '../../words/trade'
import ChoiceSelect from '../../ui/ChoiceSelect.vue'
import FamilyAndSize from '../../ui/FamilyAndSize.vue'
import FieldRow from '../../ui/FieldRow.vue'
import LengthField from './LengthField.vue'
import MarkChoice from './MarkChoice.vue'
import ScalaFile from './ScalaFile.vue'
import SystemChoice from '../../ui/SystemChoice.vue'
import { useKeepOnInstrument } from './useKeepOnInstrument'
import { useTapes } from './useTapes'
import { noteLabel } from '../../words/notes'

const TAPE_WIDTHS_MM = [1, 1.5, 2, 3, 4, 5, 6]
const THICKNESSES_MM = [0.05, 0.1, 0.13, 0.2, 0.3, 0.5, 1]
const widthName = (mm: number) => (unitName() === 'mm' ? `${mm} mm` : length(mm))
const tapeWidths = computed(() => TAPE_WIDTHS_MM.map((value) => ({ value, label: widthName(value) })))
const thicknesses = computed(() =>
  THICKNESSES_MM.map((value) => ({ value, label: `${Number(toUnit(value).toFixed(3))} ${unitName()}` })),
)
const ONE_MATERIAL = STRING_MATERIALS.map((value) => ({ value, label: MATERIAL_NAMES[value].split(' ')[0]! }))
const EACH = 'each'
const MATERIALS = [...ONE_MATERIAL, { value: EACH, label: 'By string' }]
const CONTACTS = [
  { value: 'centre', label: 'stands on it' },
  { value: 'touch', label: 'touches its edge' },
]
const PRESSING_MODES = [
  { value: 'off', label: 'Off' },
  { value: 'typical', label: 'Typical' },
  { value: 'measured', label: 'Measured' },
]

const bench = useBench()
const { setup } = storeToRefs(bench)
const familyId = computed({ get: () => setup.value.familyId, set: (id) => bench.chooseFamily(id) })
const keep = useKeepOnInstrument()
const tapes = useTapes()

const tuningNames = computed(() => bench.tuning.map((n) => noteLabel(n)).join(' '))
const tuningFault = computed(() => (bench.typedTuning.ok ? undefined : bench.typedTuning.message))
/** One for all strings, or `EACH`: then it starts from the one for all. */
const material = computed({
  get: () => (setup.value.materials.length > 0 ? EACH : setup.value.material),
  set(chosen: StringMaterial | typeof EACH) {
    if (chosen === EACH) setup.value.materials = bench.tuning.map(() => setup.value.material)
    else Object.assign(setup.value, { material: chosen, materials: [] })
  },
})
const tapeSummary = computed(
  () => `${widthName(setup.value.tapeWidthMm)} wide${tapes.thickness ? ', too thick' : ''}`,
)
const pressingSummary = computed(
  () => PRESSING_MODES.find((m) => m.value === setup.value.pressingMode)?.label.toLowerCase() ?? '',
)
const heightFaultWords = computed(() => bench.pressingFault && heightSentence(bench.pressingFault))
const girthFault = computed(() => {
  const text = setup.value.girthText.trim()
  if (text === '' || tapes.girthMm !== undefined) return undefined
  if (!parseLength(text).ok) return 'Type the girth in mm, as in 72.'
  const [low, high] = tapes.girthBounds.map((bound) => bound.toFixed(0))
  return `Neck and board here are ${inStudioUnit(`${low} to ${high} mm`)} round: measure again. The typical girth is used meanwhile.`
})

const lengthField = ref<InstanceType<typeof LengthField>>()
defineExpose({ focusLength: () => lengthField.value?.focus() })
</script>

<style scoped>
.settings {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  gap: 12px;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}

.settings :deep(.system),
.pair :deep(.el-input-number) {
  width: 100%;
}

details {
  border-top: 1px solid var(--line);
  padding-top: 9px;
}

details[open] > * + * {
  margin-top: 10px;
}

summary {
  font-weight: 600;
  font-size: 15px;
  cursor: pointer;
}

summary .soft {
  font-weight: 400;
}

.note {
  font-size: 14.5px;
}
</style>
