<template>
  <div class="kept-take">
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <p v-else-if="!notes" class="soft" role="status">Fetching the take …</p>
    <template v-else>
      <TakeTrack :notes="notes" :tolerance-cents="check.toleranceCents" @hear="(index) => hear(index, 1)" />
      <ElButton size="small" @click="player.at.value === undefined ? hear(0, notes.length) : player.stop()">{{
        player.at.value === undefined ? 'Hear it as it settled' : 'Stop'
      }}</ElButton>
    </template>
  </div>
</template>

<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { parseNote, pitchOfExpected, readSnapshot, type Landing, type PitchTrack } from '#core'
import type { Check } from '#contracts'
import { call } from '../../api/client'
import { usePlayer } from '../../audio/usePlayer'
import { trackOf } from '../../charts/coded-track'
import TakeTrack from '../../charts/TakeTrack.vue'
import { trackNotes } from '../../charts/track-notes'

/** A take that was heard and kept, note by note; its sound is made anew of where the notes settled. */
const props = defineProps<{ check: Check }>()

const NOTE_MS = 600

const fault = ref('')
const track = shallowRef<PitchTrack>()
const stringing = computed(() => {
  const read = props.check.stringing && readSnapshot(props.check.stringing)
  return read?.ok ? read.stringing : undefined
})
const notes = computed(() => {
  if (!track.value || !stringing.value) return undefined
  const landings = props.check.landings.flatMap((landing): Landing[] => {
    const note = parseNote(landing.note)
    return note ? [{ ...landing, note }] : []
  })
  return trackNotes(stringing.value, track.value, landings)
})

void call('checks.track', { params: { checkId: props.check.id } })
  .then(({ track: coded }) => {
    track.value = trackOf(coded)
  })
  .catch((error: unknown) => {
    fault.value = error instanceof Error ? error.message : 'The take could not be fetched.'
  })

const player = usePlayer()
function hear(from: number, count: number) {
  const strings = stringing.value
  if (!strings) return
  const centsAboveA4 = (notes.value ?? [])
    .slice(from, from + count)
    .map((one) => pitchOfExpected(strings, one) + one.settledCents)
  void player.start(() => ({ centsAboveA4, noteMs: NOTE_MS, isLoop: false }))
}
</script>

<style scoped>
.kept-take {
  grid-column: 1 / -1;
}
</style>
