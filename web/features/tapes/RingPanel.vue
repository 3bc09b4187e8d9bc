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
  <table class="ledger">
    <thead>
      <tr>
        <th scope="col">Tape</th>
        <th scope="col">play</th>
        <th scope="col">listen for</th>
        <th scope="col">tone</th>
        <th scope="col" class="number">computed</th>
        <th scope="col">rings at, mm</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(row, index) in rings.rows.value" :key="`${row.mark.id} ${row.string}`">
        <th scope="row">
          <template v-if="rings.rows.value[index - 1]?.mark.id !== row.mark.id">{{
            markName(row.mark)
          }}</template>
        </th>
        <td>
          <strong>{{ row.play }}</strong> on {{ short(row.string) }}
        </td>
        <td>
          <span v-for="heard in row.heard" :key="heard.ring.kind + heard.open" class="heard">
            <span
              class="strength"
              :class="heard.strength"
              :title="`${heard.strength} ring`"
              aria-hidden="true"
            />
            open {{ heard.open }}, {{ heard.words
            }}<span class="visually-hidden">, {{ heard.strength }}</span>
          </span>
        </td>
        <td>
          <button
            type="button"
            class="tone"
            :aria-pressed="tone.sounding.value === toneId(row)"
            :aria-label="`Reference tone ${row.play}`"
            @click="tone.toggle(toneId(row), bench.system.value.centsAboveA4(row.check.stopped))"
          >
            {{ tone.sounding.value === toneId(row) ? '■' : '▶' }}
          </button>
        </td>
        <td class="number">{{ mm(row.placeMm) }}</td>
        <td>
          <input
            class="found numbers"
            inputmode="decimal"
            :aria-label="`${row.play} on the ${short(row.string)} string rings at, mm`"
            :value="texts[toneId(row)] ?? ''"
            maxlength="12"
            @input="texts[toneId(row)] = ($event.target as HTMLInputElement).value"
            @keydown.enter.prevent="add(row)"
          />
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  <p v-if="rings.silent.value.length" class="soft silent">
    Nothing rings at the {{ listed(rings.silent.value.map(markName)) }}{{ silentReason }}
  </p>
  <TableExport v-if="rings.rows.value.length" :table="table" />

  <section v-if="rings.judgedFinds.value.length" class="fit" aria-label="What the rings say">
    <h3>
      The string rings like one of <strong class="numbers">{{ mm(effectiveMm) }} mm</strong>
      <span class="soft">
        ({{ signedMm(bench.fit.value!.lengthCorrectionMm) }} on what was measured). Every place lies
        {{ mm(Math.abs(bench.fit.value!.nutOffsetMm)) }} mm
        {{ bench.fit.value!.nutOffsetMm < 0 ? 'nearer to' : 'further from' }} where the ruler begins.
      </span>
    </h3>
    <ul>
      <li v-for="one in rings.judgedFinds.value" :key="one.find.id" :class="{ questioned: one.isQuestioned }">
        <span>
          <strong>{{ one.find.note }}</strong> on {{ short(one.find.string) }} rings at
          <strong class="numbers">{{ mm(one.find.placeMm) }}</strong> mm
        </span>
        <span class="off numbers"
          >{{ signedMm(one.offMm) }} mm from what the rest says, {{ Math.abs(one.sigmas).toFixed(1) }} σ</span
        >
        <span class="acts">
          <ElButton v-if="one.isQuestioned" size="small" @click="store.trustFind(one.find.id, true)"
            >Rung again: it is so</ElButton
          >
          <ElButton v-else-if="one.find.isTrusted" size="small" @click="store.trustFind(one.find.id, false)"
            >No longer sure</ElButton
          >
          <ElButton size="small" @click="remove(one.find.id)">Remove</ElButton>
        </span>
        <p v-if="one.isQuestioned" class="why">
          Is that right? It disagrees with everything else, so it is left out until you ring it again.
          {{ one.belongs }}
        </p>
      </li>
    </ul>
    <TableExport :table="findsTable" />
  </section>
</template>

<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { parseLength } from '#core'
import { LOUDEST } from '../../audio/tone'
import { A4_CHOICES, useReferenceTone } from '../../audio/useReferenceTone'
import TableExport from '../../files/TableExport.vue'
import type { DataTable } from '../../files/tables'
import { useBenchStore } from '../../stores/bench'
import { useNotices } from '../../stores/notices'
import { listed, mm, signedMm } from '../../words/numbers'
import { markName } from '../../words/trade'
import ChoiceSelect from '../shell/ChoiceSelect.vue'
import FieldRow from '../shell/FieldRow.vue'
import { useRings, type RingRow } from './useRings'

const A4_OPTIONS = A4_CHOICES.map((value) => ({ value, label: `${value} Hz` }))

const store = useBenchStore()
const { bench } = store
const notices = useNotices()
const rings = useRings()
const tone = useReferenceTone()

const texts = reactive<Record<string, string>>({})
const fault = ref<string>()

const effectiveMm = computed(() => bench.lengthMm.value + (bench.fit.value?.lengthCorrectionMm ?? 0))
const silentReason = computed(() =>
  bench.setup.value.systemId === 'fifths'
    ? ': no open string answers. Compare with an octave, or measure.'
    : ' in this system. Places that follow the ring (fifths) have more to listen for.',
)

function toneId(row: RingRow): string {
  return `${row.mark.id} ${row.string}`
}
function short(name: string): string {
  return name.replace(/\d$/, '')
}

async function add(row: RingRow) {
  const text = texts[toneId(row)] ?? ''
  const parsed = parseLength(text)
  fault.value = undefined
  if (!parsed.ok || parsed.lengthMm >= bench.lengthMm.value) {
    fault.value = `“${text}” is no place on this string. Type where ${row.play} rings, in mm from the nut, as in ${mm(row.placeMm)}.`
    return
  }
  await store.addFind(row.string, row.play, parsed.lengthMm)
  texts[toneId(row)] = ''
}

async function remove(id: string) {
  const undo = await store.removeFind(id)
  notices.say('The found place is taken out; the places are as they were.', { label: 'Undo', run: undo })
}

const table = computed<DataTable>(() => ({
  name: 'ring-checks',
  columns: ['tape', 'play', 'on string', 'listen for open', 'interval', 'strength', 'off cents', 'place mm'],
  rows: rings.rows.value.flatMap((row) =>
    row.heard.map(({ ring, open, words, strength }) => [
      markName(row.mark),
      row.play,
      row.string,
      open,
      words,
      strength,
      Number(ring.offCents.toFixed(1)),
      Number(row.placeMm.toFixed(2)),
    ]),
  ),
}))

const findsTable = (): DataTable => ({
  name: 'places-found-by-ring',
  columns: ['string', 'note', 'place mm', 'off mm', 'sigmas', 'questioned', 'found on'],
  rows: rings.judgedFinds.value.map(({ find, offMm, sigmas, isQuestioned }) => [
    find.string,
    find.note,
    find.placeMm,
    Number(offMm.toFixed(2)),
    Number(sigmas.toFixed(1)),
    isQuestioned ? 'yes' : 'no',
    find.foundOn,
  ]),
})
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

.acts :deep(.el-button) {
  margin: 0;
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

.fit {
  margin-top: 14px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}

.fit h3 {
  font-size: 18px;
  font-weight: 500;
}

.fit h3 strong {
  color: var(--jade);
  font-size: 24px;
}

ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: minmax(220px, auto) 1fr auto;
  gap: 2px 16px;
  align-items: center;
  padding: 6px 10px;
  border-bottom: 1px solid var(--line);
}

li.questioned {
  border-radius: 6px;
  background: var(--sharp-wash);
}

.off {
  color: var(--ink-soft);
  font-size: 14.5px;
}

.why {
  grid-column: 1 / -1;
  color: var(--sharp);
  font-weight: 600;
  font-size: 15px;
}

.acts {
  display: flex;
  gap: 6px;
  white-space: nowrap;
}

@media (width <= 900px) {
  .tools {
    grid-template-columns: 110px 1fr;
  }

  .tools .say {
    grid-column: 1 / -1;
  }

  li {
    grid-template-columns: 1fr;
  }
}
</style>
