<template>
  <section class="step">
    <h1 aria-live="polite">Tune first.</h1>
    <p class="do">Every later step is void on an untuned instrument.</p>
    <p v-if="tapes.thickness" class="heed" role="status">{{ tapes.thickness }}</p>
    <ul>
      <li>Cut {{ listed(pieces) }} of tape, off the instrument: never with a blade on the board.</li>
      <li>A thin, narrow tape; a thick one changes the pitch. Try its glue on a place nobody sees.</li>
      <li>Slide it under the tuned strings, sticky side down, and move it until the note rings.</li>
      <li>Small cuttings away from small children. Red or itching skin: take the tape off.</li>
    </ul>
    <div class="go">
      <ElButton type="primary" size="large" @click="emit('begin')"
        >Begin<KeyHint of="Enter" on-button
      /></ElButton>
    </div>
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import type { TapeMark } from '#core'
import { cutLength, listed } from '../../words/numbers'
import { useTapes } from './useTapes'
import KeyHint from '../../ui/KeyHint.vue'

/** Before the first tape: what to cut, and what to heed. */
const props = defineProps<{ marks: readonly TapeMark[] }>()
const emit = defineEmits<{ begin: [] }>()
const tapes = useTapes()
/** As long as the neck is round, measured or typical. */
const pieces = computed(() => props.marks.map((mark) => cutLength(tapes.pieceOf(mark).roundMm)))
</script>

<style scoped>
h1 {
  font-size: 54px;
}

ul {
  max-width: 760px;
  margin: 0;
  padding-left: 22px;
  text-align: left;
  font-size: 18px;
  line-height: 1.5;
}
</style>
