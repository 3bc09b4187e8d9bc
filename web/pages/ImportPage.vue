<template>
  <header class="page-head">
    <h1>Bring in a table</h1>
    <p class="whose">Nothing is saved before you have seen it</p>
  </header>
  <section class="card step" aria-label="The file">
    <p>
      A CSV file with the columns <strong>label</strong>, <strong>family</strong>, <strong>size</strong>.
      Where you have them, also <strong>length</strong>, <strong>tuning</strong>,
      <strong>measured on</strong> and <strong>with</strong> (who has it). What the cupboard saved as a table
      comes back whole.
      <button type="button" class="sample" @click="saveFile('instruments.csv', SAMPLE, 'text/csv')">
        A file to start from
      </button>
    </p>
    <label class="file" for="table-file">
      <span>{{ table.state.value === 'reading' ? 'Reading…' : 'Choose the file' }}</span>
      <input
        id="table-file"
        class="visually-hidden"
        type="file"
        accept=".csv,text/csv,text/plain"
        @change="choose"
      />
    </label>
    <p v-if="table.fileFault.value" class="fault" role="alert">
      {{ tableFaultWords(table.fileFault.value) }}
    </p>
  </section>
  <section v-if="hasRows" class="card step" aria-label="What would come in">
    <div class="sum" aria-live="polite">
      <p class="big numbers">{{ number(table.good.value.length) }}<small> ready</small></p>
      <p v-if="doubtful.length" class="big doubt numbers">
        {{ number(doubtful.length) }}
        <small>of them to look at</small>
      </p>
      <p v-if="table.faulty.value.length" class="big bad numbers">
        {{ number(table.faulty.value.length) }}
        <small>{{ table.faulty.value.length === 1 ? 'row' : 'rows' }} to mend</small>
      </p>
      <p v-if="table.unread.value.length" class="heed" role="status">
        Not read: {{ table.unread.value.map((name) => `“${name}”`).join(', ') }}.
      </p>
      <div class="acts">
        <template v-if="table.state.value === 'saving'">
          <progress :value="table.saved.value" :max="table.order.value.length" />
          <span class="numbers" role="status">
            {{
              table.isWaiting.value
                ? 'waiting for the server…'
                : `${number(table.saved.value)} of ${number(table.order.value.length)}`
            }}
          </span>
          <ElButton @click="table.stop()">Stop here</ElButton>
        </template>
        <ElButton
          v-else-if="table.state.value === 'read'"
          type="primary"
          size="large"
          :disabled="table.good.value.length === 0"
          @click="table.save()"
        >
          Save {{ number(table.good.value.length) }}
          {{ table.good.value.length === 1 ? 'instrument' : 'instruments' }}
        </ElButton>
      </div>
    </div>
    <p v-if="table.saveFault.value" class="fault" role="alert">
      {{ table.saveFault.value }} Mend it in the table and choose the file again.
    </p>
    <template v-if="doubted.length && table.state.value === 'read'">
      <table class="ledger">
        <thead>
          <tr>
            <th scope="col" class="number">row</th>
            <th scope="col">name</th>
            <th scope="col">what to look at</th>
            <th scope="col">comes in</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in doubted.slice(0, limit)" :key="row.row">
            <td class="number">{{ row.row }}</td>
            <td class="name">{{ row.label || '—' }}</td>
            <td>{{ row.why }}</td>
            <td :class="{ fault: !row.isGood }">
              {{ row.isGood ? 'yes, as written' : 'not before it is mended' }}
            </td>
          </tr>
        </tbody>
      </table>
      <ElButton v-if="doubted.length > limit" @click="limit += SHOWN_AT_ONCE">
        Show more of {{ number(doubted.length) }}
      </ElButton>
      <TableExport :table="faults" />
    </template>
    <table v-else-if="table.state.value === 'read'" class="ledger">
      <thead>
        <tr>
          <th scope="col" class="number">row</th>
          <th scope="col">name</th>
          <th scope="col">kind</th>
          <th scope="col">length</th>
          <th scope="col">strings</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ row, instrument } in table.good.value.slice(0, PREVIEW_ROWS)" :key="row">
          <td class="number">{{ row }}</td>
          <td>{{ instrument.label }}</td>
          <td>{{ instrumentKind(instrument.family, instrument.sizeId) }}</td>
          <td>{{ instrument.length ?? '—' }}</td>
          <td>{{ instrument.tuning?.join(' ') ?? 'usual' }}</td>
        </tr>
      </tbody>
    </table>
  </section>
  <section v-if="table.state.value === 'saved'" class="card step" role="status">
    <h2>{{ count(table.saved.value, 'instrument') }} saved.</h2>
    <p v-if="table.saved.value < table.order.value.length" class="soft">
      Stopped before the end: {{ number(table.order.value.length - table.saved.value) }} rows are not in.
      Choose the file again to go on; those that are in are passed over.
    </p>
    <p v-for="one in table.notLent.value" :key="one.label" class="heed">
      {{ notLentSentence(one) }}
    </p>
    <p v-if="undoFault" class="fault" role="alert">{{ undoFault }}</p>
    <div class="acts ends">
      <ElButton type="primary" @click="router.push({ name: 'instruments' })"
        >To the cupboard<KeyHint of="Enter" on-button
      /></ElButton>
      <ElButton @click="undo">Take them all out again<KeyHint of="z" on-button /></ElButton>
    </div>
  </section>
</template>

<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useImport } from '../features/instruments/useImport'
import { saveFile, type DataTable } from '../files/tables'
import TableExport from '../files/TableExport.vue'
import { useNotices } from '../stores/notices'
import KeyHint from '../ui/KeyHint.vue'
import { useShortcuts } from '../ui/useShortcuts'
import { doubtWords, notLentSentence, rowFaultWords, tableFaultWords } from '../words/import'
import { count } from '../words/numbers'
import { instrumentKind } from '../words/trade'

const SHOWN_AT_ONCE = 100
const PREVIEW_ROWS = 12
const SAMPLE =
  '\uFEFFlabel,family,size,length,tuning\r\nno. 21,violin,1/2 size,284.5,\r\nno. 22,cello,3/4 size,24 3/8 in,C2 G2 D3 A3\r\n'

const router = useRouter()
const table = useImport()
const limit = ref(SHOWN_AT_ONCE)
const hasRows = computed(() => table.state.value === 'read' || table.state.value === 'saving')
const doubtful = computed(() =>
  table.good.value.filter((row) => row.instrument.isDoubtful || row.sizeFromDay),
)
/** What cannot come in and what comes in with a doubt, in the order of the file. */
const doubted = computed(() =>
  [
    ...table.faulty.value.map(({ row, label, faults }) => ({
      row,
      label,
      why: faults.map(rowFaultWords).join('; '),
      isGood: false,
    })),
    ...doubtful.value.map(({ row, instrument, sizeFromDay }) => ({
      row,
      label: instrument.label,
      why: doubtWords(instrument, sizeFromDay),
      isGood: true,
    })),
  ].sort((a, b) => a.row - b.row),
)
const number = (n: number) => n.toLocaleString('en-GB')

const notices = useNotices()
const undoFault = ref('')
async function undo() {
  undoFault.value = ''
  const taken = table.saved.value
  try {
    await table.undo()
    notices.say(`${count(taken, 'instrument')} taken out again.`)
  } catch (error) {
    undoFault.value = error instanceof Error ? error.message : 'They are still in: try again.'
  }
}
const isSaved = () => table.state.value === 'saved'
useShortcuts('Bring in a table', [
  {
    key: 'Enter',
    does: 'To the cupboard, when it is saved',
    run: () => isSaved() && void router.push({ name: 'instruments' }),
  },
  { key: 'z', does: 'Take all that came in out again', run: () => isSaved() && void undo() },
])

async function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const [file] = input.files ?? []
  limit.value = SHOWN_AT_ONCE
  if (file) await table.read(file)
  // The same file, mended, can be chosen again.
  input.value = ''
}

const faults = computed<DataTable>(() => ({
  name: 'rows-to-look-at',
  columns: ['row', 'name', 'what to look at', 'comes in'],
  rows: doubted.value.map(({ row, label, why, isGood }) => [row, label, why, isGood ? 'yes' : 'no']),
}))
</script>

<style scoped>
.step {
  display: grid;
  justify-items: start;
  gap: 12px;
  margin-bottom: var(--gap);
}

.step table,
.step .sum {
  width: 100%;
}

.step :deep(.export) {
  justify-self: end;
}

.sample {
  border: 0;
  padding: 0 4px;
  background: none;
  color: var(--jade);
  font: inherit;
  font-weight: 600;
  text-decoration: underline;
  cursor: pointer;
}

.file {
  padding: 14px 28px;
  border: 1.5px dashed var(--jade);
  border-radius: var(--radius);
  background: var(--jade-wash);
  color: var(--jade);
  font-weight: 700;
  cursor: pointer;
}

.file:focus-within {
  outline: 3px solid var(--focus);
  outline-offset: 2px;
}

.name {
  white-space: nowrap;
}

.ledger .number:first-child {
  width: 90px;
}

.sum {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 28px;
}

.big {
  font: 700 38px/1.1 var(--font-text);
  color: var(--jade);
}

.big.bad {
  color: var(--sharp);
}

.big.doubt {
  color: var(--brass-ink);
}

.big small {
  font-size: 16px;
  font-weight: 500;
}

.acts.ends {
  margin-left: 0;
}

.acts {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-left: auto;
}

progress {
  width: 200px;
  accent-color: var(--jade);
}
</style>
