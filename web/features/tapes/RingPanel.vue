<template>
  <div class="tools">
    <FieldRow label="A4">
      <ChoiceSelect v-model="tone.a4Hz.value" label="A4 in Hz" :options="A4_OPTIONS" />
    </FieldRow>
    <FieldRow label="Loudness" hint="quiet is enough">
      <template #default="{ id }">
        <input
          :id="id"
          v-model.number="tone.loudness.value"
          type="range"
          min="0.01"
          :max="LOUDEST"
          step="0.01"
        />
      </template>
    </FieldRow>
    <p class="soft say">
      Bow the note, long and free: the open string answers when the place is right. Keep a tone in headphones
      quiet.
    </p>
  </div>
  <table class="ledger stacked">
    <thead>
      <tr>
        <th scope="col">Tape</th>
        <th scope="col">play</th>
        <th scope="col">listen for</th>
        <th scope="col">tone</th>
        <th scope="col" class="number">computed</th>
        <th scope="col">rings at, {{ unitName() }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(row, index) in tapes.rows" :key="toneId(row)">
        <th scope="row">
          <template v-if="tapes.rows[index - 1]?.mark.id !== row.mark.id">{{ markName(row.mark) }}</template>
        </th>
        <td><strong>{{ noteLabel(row.stopped) }}</strong> on {{ shortName(row.open) }}</td>
        <td>
          <span v-for="ring in row.rings" :key="`${ring.kind} ${ring.stringIndex}`" class="heard">
            <span
              class="strength"
              :class="ringStrength(ring)"
              :title="`${ringStrength(ring)} ring`"
              aria-hidden="true"
            />
            open {{ shortName(ring.open) }}, {{ ringWords(ring)
            }}<span class="visually-hidden">, {{ ringStrength(ring) }}</span>
          </span>
        </td>
        <td>
          <button
            type="button"
            class="tone"
            :aria-pressed="tone.sounding.value === toneId(row)"
            :aria-label="`Reference tone ${noteLabel(row.stopped)}`"
            @click="tone.toggle(toneId(row), bench.stringing.system.centsAboveA4(row.stopped))"
          >
            {{ tone.sounding.value === toneId(row) ? '■' : '▶' }}
          </button>
        </td>
        <td class="number" :data-label="`at, ${unitName()}`">{{ inUnit(row.placeMm) }}</td>
        <td>
          <input
            class="found numbers"
            inputmode="decimal"
            data-takes="length"
            :aria-label="`${noteLabel(row.stopped)} on the ${shortName(row.open)} string rings at, mm`"
            :value="texts[toneId(row)] ?? ''"
            maxlength="12"
            :aria-invalid="faultAt === toneId(row)"
            :aria-describedby="faultAt === toneId(row) ? 'ring-fault' : undefined"
            @input="texts[toneId(row)] = ($event.target as HTMLInputElement).value"
            @keydown.enter.prevent="add(row)"
          />
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="fault" id="ring-fault" class="fault" role="alert">{{ fault }}</p>
  <p v-if="tapes.silent.length" class="soft silent">
    Nothing rings at the {{ listed(tapes.silent.map(markName)) }}{{ silentReason }}
  </p>
  <TableExport v-if="tapes.rows.length" :table="table" />
  <RingFinds v-if="tapes.judgedFinds.length" />
</template>

<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { noteName, parseLength, ringStrength, type Note, type RingRow } from '#core'
import { LOUDEST } from '#contracts'
import { A4_CHOICES, useReferenceTone } from '../../audio/useReferenceTone'
import TableExport from '../../files/TableExport.vue'
import type { DataTable } from '../../files/tables'
import { useBench } from '../../stores/bench'
import ChoiceSelect from '../../ui/ChoiceSelect.vue'
import FieldRow from '../../ui/FieldRow.vue'
import { inUnit, listed, mm, unitName } from '../../words/numbers'
import { markName, ringWords } from '../../words/trade'
import RingFinds from './RingFinds.vue'
import { useTapes } from './useTapes'
import { noteLabel } from '../../words/notes'

const A4_OPTIONS = computed(() =>
  [...new Set([...A4_CHOICES, tone.a4Hz.value])].map((value) => ({ value, label: `${value} Hz` })),
)

const bench = useBench()
const tapes = useTapes()
const tone = useReferenceTone()
const texts = reactive<Record<string, string>>({})
const fault = ref<string>()
/** Whose field the fault is about. */
const faultAt = ref('')

const silentReason = computed(() =>
  bench.setup.systemId === 'fifths'
    ? ': no open string answers. Compare with an octave, or measure.'
    : ' in this system. Places that follow the ring (fifths) have more to listen for.',
)

const toneId = (row: RingRow) => `${row.mark.id} ${noteName(row.open)}`
const shortName = (open: Note) => noteLabel(open, { octave: false })

async function add(row: RingRow) {
  const text = texts[toneId(row)] ?? ''
  const parsed = parseLength(text)
  fault.value = undefined
  faultAt.value = ''
  if (!parsed.ok || parsed.lengthMm >= bench.stringing.lengthMm) {
    faultAt.value = toneId(row)
    fault.value = `“${text}” is no place on this string. Type where ${noteLabel(row.stopped)} rings, in mm from the nut, as in ${mm(row.placeMm)}.`
    return
  }
  await bench.addFind(noteName(row.open), noteName(row.stopped), parsed.lengthMm)
  texts[toneId(row)] = ''
}

const table = computed<DataTable>(() => ({
  name: 'ring-checks',
  columns: ['tape', 'play', 'on string', 'listen for open', 'interval', 'strength', 'off cents', 'place mm'],
  rows: tapes.rows.flatMap((row) =>
    row.rings.map((ring) => [
      markName(row.mark),
      noteName(row.stopped),
      noteName(row.open),
      shortName(ring.open),
      ringWords(ring),
      ringStrength(ring),
      Number(ring.offCents.toFixed(1)),
      Number(row.placeMm.toFixed(2)),
    ]),
  ),
}))
</script>

<style scoped>
.tools {
  display: grid;
  grid-template-columns: 110px 170px 1fr;
  gap: 16px;
  align-items: end;
  margin-bottom: 8px;
}

.tools .say {
  font-size: 14.5px;
}

input[type='range'] {
  accent-color: var(--jade);
}

td strong {
  font-size: 17px;
}

.heard {
  display: block;
  white-space: nowrap;
}

.strength {
  display: inline-block;
  width: 38px;
  height: 7px;
  margin-right: 7px;
  border-radius: 4px;
  border: 1px solid var(--jade);
  background: linear-gradient(var(--jade), var(--jade)) left / var(--part) 100% no-repeat;
}

.strength.strong {
  --part: 100%;
}

.strength.clear {
  --part: 60%;
}

.strength.faint {
  --part: 25%;
}

.tone {
  width: 36px;
  height: 30px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--card);
  color: var(--jade);
  font-size: 13px;
  cursor: pointer;
}

.tone[aria-pressed='true'] {
  background: var(--jade);
  color: var(--on-jade);
}

.found {
  width: 82px;
  padding: 5px 8px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--card);
  color: var(--ink);
  font: 600 16px var(--font-text);
}

.silent {
  margin-top: 8px;
  font-size: 14.5px;
}

@media (width <= 900px) {
  .tools {
    grid-template-columns: 110px 1fr;
  }

  .tools .say {
    grid-column: 1 / -1;
  }
}
</style>
