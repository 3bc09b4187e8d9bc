<template>
  <TakeStrip
    :phase="heard.phase.value"
    :level="heard.level.value"
    :progress="heard.progress.value"
    :fault="heard.fault.value"
    :said="heard.said.value"
    :sounding="heard.finger.value"
    :tolerance-cents="toleranceCents"
    :is-idle="isIdle"
    @listen="listen"
    @hear="(file) => void heard.hear(file)"
    @play="playStudent"
    @stop="heard.stop()"
  >
    <slot />
  </TakeStrip>
  <TakeTrack
    v-if="isTrackShown && track.length > 0"
    :notes="track"
    :sound="heard.sound.value"
    :tolerance-cents="toleranceCents"
    @hear="hearNote"
  />
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { pitchOfExpected, PLAYER_LEVELS, type Stringing } from '#core'
import type { Student } from '#contracts'
import { usePlayer } from '../../audio/usePlayer'
import TakeTrack from '../../charts/TakeTrack.vue'
import { trackNotes } from '../../charts/track-notes'
import { useShortcuts } from '../../ui/useShortcuts'
import { faultsOf } from './simulated'
import TakeStrip from './TakeStrip.vue'
import type { useHeardTake } from './useHeardTake'

/** A take under the board: how to begin it, how it goes, and note by note what was heard. */
const props = defineProps<{
  heard: ReturnType<typeof useHeardTake>
  stringing: Stringing
  toleranceCents: number
  /** Whose hand it is; missing for a walk-in. */
  student?: Student | undefined
  /** There is nothing to be played yet. */
  isIdle: boolean
}>()
const isTrackShown = defineModel<boolean>('track', { required: true })

const NOTE_MS = 900

const track = computed(() =>
  props.heard.track.value
    ? trackNotes(props.stringing, props.heard.track.value, props.heard.landings.value)
    : [],
)
const player = usePlayer()
/** Where the ear left it, so that a teacher can play it again to the student. */
function hearNote(index: number) {
  const one = track.value[index]
  if (!one) return
  const centsAboveA4 = [pitchOfExpected(props.stringing, one) + one.settledCents]
  void player.start(() => ({ centsAboveA4, noteMs: NOTE_MS, isLoop: false }))
}

/** The keys are the take's from now on: a space ends it. */
function leaveFields() {
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
}
function listen(deviceId: string) {
  leaveFields()
  void props.heard.listen(deviceId)
}
/** As trained as whoever is in the lesson. */
function playStudent(faultId: string) {
  leaveFields()
  const level = PLAYER_LEVELS.find((one) => one === props.student?.level) ?? 'intermediate'
  props.heard.play(
    level,
    faultsOf(faultId, props.stringing.lengthMm, Math.random),
    Math.floor(Math.random() * 1e9),
  )
}

useShortcuts('The take', [
  {
    key: 't',
    does: 'The take note by note, or not',
    run: () => (isTrackShown.value = props.heard.track.value !== undefined && !isTrackShown.value),
  },
])
</script>
