<template>
  <div class="scala">
    <FieldRow label="Scale of your own" hint="Scala, .scl" :fault="fault">
      <template #default="{ id }">
        <input :id="id" ref="input" type="file" accept=".scl,text/plain" @change="read" />
      </template>
      <template #after>
        <p v-for="line in said" :key="line" class="soft" role="status">{{ line }}</p>
        <div v-if="own" class="own">
          <FieldRow label="Its first note is">
            <ChoiceSelect v-model="keynote" label="Its first note is" :options="KEYNOTE_CHOICES" />
          </FieldRow>
        </div>
        <ElButton size="small" @click="write">Save “{{ shortSystemName(setup.systemId) }}” as .scl</ElButton>
      </template>
    </FieldRow>
  </div>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, ref } from 'vue'
import {
  parseScala,
  readScaleId,
  SCALA_SIZE_LIMIT,
  SCALE_SIZE,
  scalaCents,
  scaleId,
  twelveOf,
  writeScala,
  note,
  transpose,
  CHROMATIC,
} from '#core'
import { fileName, saveFile } from '../../files/tables'
import { useBench } from '../../stores/bench'
import { count } from '../../words/numbers'
import { scalaFaultWords, scalaQuestionWords } from '../../words/scala'
import { labelOfName } from '../../words/notes'
import { KEYNOTES, shortSystemName } from '../../words/trade'
import ChoiceSelect from '../../ui/ChoiceSelect.vue'
import FieldRow from '../../ui/FieldRow.vue'

const KEYNOTE_CHOICES = KEYNOTES.map((value: string) => ({ value, label: labelOfName(value) }))
const bench = useBench()
const { setup } = storeToRefs(bench)
const fault = ref<string>()
/** What should be known of a scale that was taken. */
const said = ref<readonly string[]>([])
const input = ref<HTMLInputElement>()

const own = computed(() => readScaleId(setup.value.systemId))
const keynote = computed({
  get: () => own.value?.keynote ?? 'C',
  set: (to) => {
    if (own.value) setup.value.systemId = scaleId(own.value.name, to, own.value.cents)
  },
})

/** The format is Latin-1; names written in UTF-8 are met as well. */
function decoded(bytes: ArrayBuffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('latin1').decode(bytes)
  }
}

async function read() {
  const file = input.value?.files?.[0]
  fault.value = undefined
  said.value = []
  if (!file) return
  // A file far too large is not even read.
  const text = file.size > 4 * SCALA_SIZE_LIMIT ? undefined : decoded(await file.arrayBuffer())
  if (text === undefined) {
    fault.value = scalaFaultWords({ code: 'scala_too_large', limit: SCALA_SIZE_LIMIT })
    return
  }
  const parsed = parseScala(text)
  if (!parsed.ok) {
    fault.value = scalaFaultWords(parsed.fault)
    return
  }
  const cents = scalaCents(parsed.scale)
  const twelve = twelveOf(cents)
  if (!twelve) {
    fault.value =
      'A scale needs at least one note, and its last must lie above the first: it is where the scale repeats.'
    return
  }
  const name = parsed.scale.description || file.name.replace(/\.scl$/i, '')
  const isTwelve = cents.length === SCALE_SIZE
  setup.value.systemId = scaleId(name, keynote.value, isTwelve ? cents : twelve.cents)
  said.value = [
    ...parsed.questions.map(scalaQuestionWords),
    ...(isTwelve
      ? []
      : [
          `It has ${count(cents.length, 'note')}. Fingers are named by twelve to the octave: each takes the nearest note of the scale, at most ${Math.round(twelve.furthestCents)} cents from equal temperament.`,
        ]),
  ]
}

/** The chosen system's twelve notes on its keynote, for other programs. */
function write() {
  const { system } = bench.stringing
  const key =
    own.value?.keynote ?? (setup.value.systemId.startsWith('just:') ? setup.value.systemId.slice(5) : 'G')
  const first = note(`${key}4`)
  const pitches = CHROMATIC.slice(1).map((interval) => ({
    kind: 'cents' as const,
    cents: system.centsAboveA4(transpose(first, interval)) - system.centsAboveA4(first),
  }))
  const name = `${shortSystemName(setup.value.systemId)}, twelve notes from ${key}`
  const file = fileName(name, 'scl')
  saveFile(file, writeScala({ description: name, pitches }, file), 'text/plain')
}
</script>

<style scoped>
.scala input[type='file'] {
  font: 400 14.5px var(--font-text);
  max-width: 100%;
}

.own {
  margin: 4px 0;
}
</style>
