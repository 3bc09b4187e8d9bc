<template>
  <section class="card" aria-label="All patterns">
    <p class="eyebrow">
      Every pattern of the {{ family.id }}’s hand, and where {{ MODE_NAMES[patterns.choice.modeId] }} keys ask
      for it in
      {{ positionName(atlas.position.value) }}
    </p>
    <table class="ledger stacked">
      <thead>
        <tr>
          <th scope="col">Steps</th>
          <th scope="col">By the fingers</th>
          <th scope="col">Hand</th>
          <th scope="col">Asked by</th>
          <th v-if="patterns.student" scope="col">{{ patterns.student.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in rows"
          :key="row.pattern.id"
          v-memo="[
            row,
            row.pattern.id === currentId,
            patterns.student && mastery.stateOf('pattern', row.pattern.id),
          ]"
          :class="{ here: row.pattern.id === currentId }"
        >
          <th scope="row" class="steps">{{ stepsName(row.pattern) }}</th>
          <td>{{ patternName(family, row.pattern) }}</td>
          <td class="soft">{{ row.hand }}</td>
          <td>
            <template v-for="asked in row.asked.slice(0, MOST_ASKED)" :key="asked.keyId">
              <button type="button" class="key" @click="choose(asked)">{{ asked.name }}</button>
            </template>
            <span v-if="row.asked.length > MOST_ASKED" class="soft"
              >and {{ row.asked.length - MOST_ASKED }} more</span
            >
            <span v-if="row.asked.length === 0" class="soft">no key here</span>
          </td>
          <td v-if="patterns.student">
            {{ STATE_SIGNS[mastery.stateOf('pattern', row.pattern.id)] }}
            {{ STATE_NAMES[mastery.stateOf('pattern', row.pattern.id)] }}
          </td>
        </tr>
      </tbody>
    </table>
    <p class="soft small">
      H half step, W whole step, A augmented step. Name a pattern by which fingers touch, or by its steps;
      nothing else.
    </p>
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { patternsOf, type Pattern, techniqueOf } from '#core'
import { useNextFrame } from '../../ui/useNextFrame'
import { MODE_NAMES } from '../../words/keys'
import { STATE_NAMES, STATE_SIGNS } from '../../words/mastery'
import { FRAME_NAMES, patternName, SPREAD_NAMES, stepsName } from '../../words/patterns'
import { positionName } from '../../words/positions'
import { usePatterns } from './usePatterns'
import { noteLabel } from '../../words/notes'

/** As many keys as have room beside a pattern. */
const MOST_ASKED = 6

const patterns = usePatterns()
const { atlas, mastery } = patterns
const family = computed(() => atlas.family.value)
const currentId = computed(() =>
  atlas.cell.value.kind === 'placement' ? atlas.cell.value.pattern?.id : undefined,
)

interface Asked {
  readonly keyId: string
  readonly stringIndex: number
  /** `D: D A` */
  readonly name: string
}

const late = useNextFrame(() => atlas.keyRows.value)
/** After the tables, which are a frame late themselves. */
const keyRows = useNextFrame(() => late.value)
const rows = computed(() => {
  const shown = patternsOf(family.value).filter(
    (p) =>
      !techniqueOf(family.value.id).choosesFrame ||
      p.frameId === family.value.frames[atlas.context.value.frameIndex]?.id,
  )
  return shown.map((pattern) => ({ pattern, hand: handOf(pattern), asked: askedBy(pattern) }))
})

function handOf({ frameId, spread }: Pattern): string {
  return techniqueOf(family.value.id).touches ? SPREAD_NAMES[spread] : (FRAME_NAMES[frameId] ?? frameId)
}

function askedBy(pattern: Pattern): Asked[] {
  return keyRows.value.flatMap(({ id, cells }) => {
    const strings = cells.flatMap((cell, i) =>
      cell.kind === 'placement' && cell.pattern === pattern ? [i] : [],
    )
    const [first] = strings
    if (first === undefined) return []
    const names = strings.map((i) => noteLabel(atlas.tuning.value[i]!, { octave: false }))
    return [{ keyId: id, stringIndex: first, name: `${id.split(':')[0]}: ${names.join(' ')}` }]
  })
}

function choose({ keyId, stringIndex }: Asked) {
  Object.assign(patterns.choice, { keyId, stringIndex })
}
</script>

<style scoped>
.card {
  padding: 12px 14px;
}

.ledger td,
.ledger tbody th {
  padding: 4px 8px;
}

.steps {
  letter-spacing: 0.08em;
  white-space: nowrap;
}

.here {
  background: var(--jade-wash);
}

.key {
  margin: 1px 6px 1px 0;
  border: 1px solid var(--line);
  border-radius: 5px;
  padding: 1px 8px;
  background: var(--card-sunk);
  color: var(--ink);
  font: 600 14px var(--font-text);
  cursor: pointer;
}

.key:hover {
  border-color: var(--jade);
}

.small {
  margin-top: 6px;
  font-size: 13.5px;
}
</style>
