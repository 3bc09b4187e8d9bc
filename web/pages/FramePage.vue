<template>
  <PatternsHead />
  <section class="choose" aria-label="What is shown">
    <SubjectFields />
    <FieldRow label="Also show">
      <ElSelect v-model="others" v-bind="sizeOptions" aria-label="Sizes to compare" />
    </FieldRow>
    <p class="soft say">
      For <b>{{ length(bench.stringing.lengthMm) }}</b>; another length is typed on the
      <RouterLink :to="{ name: 'tapes' }">tape bench</RouterLink>.
    </p>
    <p v-if="!hand" class="soft say">
      With a student in the lesson whose hand is measured, the hand is drawn as a band.
      <RouterLink v-if="patterns.student" :to="{ name: 'hand', params: { studentId: patterns.student.id } }"
        >Measure {{ patterns.student.name }}’s hand</RouterLink
      >
    </p>
  </section>
  <div class="two">
    <section class="card">
      <FrameChart :lines="lines" :places="places" :band="band" />
      <p v-for="line in comfortLines" :key="line" class="comfort">{{ line }}</p>
      <p class="heed">
        A hand too small for the frame reaches back with 1, brings the thumb forward, or takes a smaller size.
        Never stretch 4 upwards to cure it. Pain, numbness or tingling: stop, rest, and ask a doctor.
      </p>
    </section>
    <section class="card" aria-label="Widths">
      <p class="eyebrow">
        {{ ownName }}, {{ stringName(stringIndex) }} string,
        {{ length(stringLengthMm(bench.stringing, stringIndex))
        }}{{ bench.stringing.isMeasured ? '' : ', from memory' }}
      </p>
      <table class="ledger numbers widths">
        <thead>
          <tr>
            <th scope="col">Position</th>
            <th scope="col" class="number">1 at</th>
            <th v-for="f in family.frames" :key="f.id" scope="col" class="number">
              {{ FRAME_NAMES[f.id] }}, {{ unitName() }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="place in neck" :key="place.semitones">
            <th scope="row">{{ place.position ? shortPositionName(place.position) : '' }}</th>
            <td class="number soft">{{ place.semitones }} st</td>
            <td
              v-for="f in family.frames"
              :key="f.id"
              class="number width"
              :class="hand && fitOfWidth(place.widthsMm[f.id] ?? 0, hand)"
            >
              {{ inUnit(place.widthsMm[f.id] ?? 0)
              }}<span
                v-if="hand"
                class="fit-sign"
                :title="FIT_NAMES[fitOfWidth(place.widthsMm[f.id] ?? 0, hand)]"
                >{{ FIT_SIGNS[fitOfWidth(place.widthsMm[f.id] ?? 0, hand)] }}</span
              >
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="hand" class="soft small">
        <template v-for="(sign, kind) in FIT_SIGNS" :key="kind"
          >{{ sign }} {{ FIT_NAMES[kind].toLowerCase() }}&ensp;</template
        >
      </p>
    </section>
  </div>
  <div class="two">
    <section class="card" aria-label="Fit">
      <template v-if="hand">
        <p class="eyebrow">Every size against {{ patterns.student?.name }}’s hand, first position</p>
        <FitTable caption="Sizes" head="Size" :rows="fit" :is-reach-measured="hand.reachedSpanMm !== null" />
      </template>
      <template v-else>
        <p class="eyebrow">Fit</p>
        <p>Open a student’s file, press <kbd>H</kbd>, and measure the span from 1 to 4.</p>
      </template>
    </section>
    <section class="card" aria-label="Octave">
      <p class="eyebrow">The octave with 1 and 4 on neighbouring strings, first position</p>
      <table class="ledger numbers">
        <tbody>
          <tr v-for="check in octaves" :key="check.lowerString">
            <th scope="row">{{ stringName(check.lowerString) }} – {{ stringName(check.lowerString + 1) }}</th>
            <td class="number width">{{ length(check.widthMm) }}</td>
            <td>{{ octaveSentence(check) }}</td>
          </tr>
        </tbody>
      </table>
      <p class="soft small">Slowly, and only if it is comfortable.</p>
    </section>
  </div>
</template>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import {
  FIRST_POSITION,
  fitOfWidth,
  frameAlongNeck,
  narrowFrom,
  octaveChecks,
  stringLengthMm,
  TYPICAL_REACH,
  typicalStringing,
  type OctaveCheck,
} from '#core'
import FitTable from '../features/patterns/FitTable.vue'
import { frameLines, neighbouringSizes, type HandBand } from '../features/patterns/frame-lines'
import FrameChart from '../features/patterns/FrameChart.vue'
import PatternsHead from '../features/patterns/PatternsHead.vue'
import SubjectFields from '../features/patterns/SubjectFields.vue'
import { useFit } from '../features/patterns/useFit'
import FieldRow from '../ui/FieldRow.vue'
import { usePatterns } from '../features/patterns/usePatterns'
import { useBench } from '../stores/bench'
import { inUnit, length, unitName } from '../words/numbers'
import { FIT_NAMES, FIT_SIGNS } from '../words/hand-fit'
import { FRAME_NAMES } from '../words/patterns'
import { shortPositionName } from '../words/positions'
import { instrumentKind, sizeName } from '../words/trade'
import { noteLabel } from '../words/notes'

const patterns = usePatterns()
const bench = useBench()
const family = computed(() => bench.family)
const sizeId = computed(() => bench.setup.sizeId)
const stringIndex = computed(() => patterns.atlas.stringIndex.value)
const hand = computed(() => patterns.student?.hand ?? undefined)
const ownName = computed(() => instrumentKind(family.value.id, sizeId.value))

const others = ref<string[]>([])
watch([family, sizeId], () => (others.value = neighbouringSizes(family.value, sizeId.value)), {
  immediate: true,
})
/** Bound as one: Element Plus types these single props as their own descriptions. */
const sizeOptions = computed<Record<string, unknown>>(() => ({
  multiple: true,
  placeholder: 'no other size',
  options: family.value.sizes
    .filter((s) => s.id !== sizeId.value)
    .map(({ id }) => ({ value: id, label: sizeName(id) })),
}))

const lines = computed(() => [
  ...frameLines(bench.stringing, stringIndex.value, {
    id: 'own',
    name: sizeName(sizeId.value),
    isOwn: true,
  }),
  ...others.value.flatMap((id) =>
    frameLines(typicalStringing(family.value, id, bench.stringing.system), stringIndex.value, {
      id,
      name: sizeName(id),
      isOwn: false,
    }),
  ),
])
const neck = computed(() => frameAlongNeck(bench.stringing, stringIndex.value))
/** A position that has two places is named at the first of them. */
const places = computed(() =>
  neck.value.map(({ semitones, position }, i) => ({
    semitones,
    name: position && position.id !== neck.value[i - 1]?.position?.id ? shortPositionName(position) : '',
  })),
)
const band = computed<HandBand | undefined>(
  () =>
    hand.value && {
      comfortableMm: hand.value.comfortableSpanMm,
      reachedMm: hand.value.reachedSpanMm ?? hand.value.comfortableSpanMm * TYPICAL_REACH,
      isReachMeasured: hand.value.reachedSpanMm !== null,
    },
)
/** From where on the hand holds each frame at rest. */
const comfortLines = computed(() =>
  hand.value
    ? family.value.frames.map((frame) => {
        const name = family.value.frames.length > 1 ? `${FRAME_NAMES[frame.id]}: the frame` : 'The frame'
        const place = narrowFrom(neck.value, frame.id, hand.value!.comfortableSpanMm)
        if (place?.semitones === 1) return `${name} is comfortable from half position on.`
        if (!place) return `${name} is comfortable nowhere below the octave.`
        const position = place.position ? `, ${shortPositionName(place.position)} position` : ''
        return `${name} is comfortable from ${place.semitones} semitones on${position}.`
      })
    : [],
)

const octaves = computed(() => octaveChecks(bench.stringing, FIRST_POSITION))
const stringName = (index: number) => noteLabel(bench.tuning[index]!, { octave: false })
function octaveSentence({ semitones, frame, widthMm }: OctaveCheck): string {
  if (!frame) return `${semitones} semitones: no frame of this hand; 1 and 4 do not do it without the thumb.`
  const fit = hand.value ? `: ${FIT_NAMES[fitOfWidth(widthMm, hand.value)].toLowerCase()}` : ''
  return `the width of the ${FRAME_NAMES[frame.id]?.toLowerCase()}${frame.id === 'fourth' ? '' : ' frame'}${fit}`
}

const fit = useFit(
  hand,
  computed(() => ({ sizeId: sizeId.value, stringing: bench.stringing })),
)
</script>

<style scoped>
.choose {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 14px;
  margin-bottom: 12px;
}

.choose > :deep(.field) {
  min-width: 170px;
}

.say {
  padding-bottom: 6px;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  align-items: start;
  gap: var(--gap);
  margin-bottom: var(--gap);
}

.comfort {
  font: 500 19px/1.35 var(--font-title);
}

.widths td,
.widths tbody th {
  padding: 4px 8px;
}

.width {
  font-weight: 700;
}

.width {
  white-space: nowrap;
}

td.comfortable {
  color: var(--jade);
}

td.too_big {
  color: var(--ink-soft);
}

.fit-sign {
  display: inline-block;
  width: 1.4em;
  text-align: right;
}

.small {
  margin-top: 6px;
  font-size: 13.5px;
}

@media (width <= 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
