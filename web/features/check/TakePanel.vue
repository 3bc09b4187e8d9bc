<template>
  <TakeStrip
    v-model:companion="companion"
    v-model:tempo="tempo"
    :phase="heard.phase.value"
    :level="heard.level.value"
    :progress="heard.progress.value"
    :fault="heard.fault.value"
    :said="heard.said.value"
    :sounding="heard.finger.value"
    :tolerance-cents="toleranceCents"
    :is-idle="isIdle"
    :is-resting="(student?.pains.length ?? 0) > 0"
    @listen="listen"
    @hear="(file) => void heard.hear(file)"
    @play="playStudent"
    @stop="heard.stop()"
  >
    <slot />
    <template #said><slot name="said" /></template>
    <template #more><slot name="more" /></template>
  </TakeStrip>
  <template v-if="isTrackShown && track.length > 0">
    <NotationStaff
      :score="score"
      :at="shownIndex < 0 ? undefined : shownIndex"
      label="The notes of the take, as they were meant"
    />
    <TakeTrack
      :notes="track"
      :shown="shownIndex"
      :sound="heard.sound.value"
      :tolerance-cents="toleranceCents"
      @hear="hearNote"
    />
  </template>
</template>

<script setup lang="ts">
import { computed, watch } from 'vue'
import {
  pitchOfExpected,
  PLAYER_LEVELS,
  type ExpectedNote,
  type Landing,
  type Stringing,
  takeScore,
} from '#core'
import type { Student } from '#contracts'
import { useCompanion } from '../../audio/useCompanion'
import { usePlayer } from '../../audio/usePlayer'
import TakeTrack from '../../charts/TakeTrack.vue'
import { trackNotes } from '../../charts/track-notes'
import NotationStaff from '../../notation/NotationStaff.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import { faultsOf } from './simulated'
import TakeStrip from './TakeStrip.vue'
import type { useHeardTake } from './useHeardTake'

/** A take under the board: how to begin it, how it goes, and note by note what was heard. */
const props = defineProps<{
  heard: ReturnType<typeof useHeardTake>
  stringing: Stringing
  toleranceCents: number
  /** Of its landings, those that were left out. */
  strays: ReadonlySet<Landing>
  /** Whose hand it is; missing for a walk-in. */
  student?: Student | undefined
  /** There is nothing to be played yet. */
  isIdle: boolean
  /** Of the exercise; its signature stands before the notes. */
  keyId?: string | undefined
  /** Pitch of a drone that goes with the exercise, above A4. */
  droneCents: number
}>()
/** The note of the take that is pointed at. */
const shown = defineModel<ExpectedNote | undefined>('shown')
const shownIndex = computed(() => track.value.findIndex((one) => one === shown.value))
const isTrackShown = defineModel<boolean>('track', { required: true })

const NOTE_MS = 900

const track = computed(() =>
  props.heard.track.value
    ? trackNotes(props.stringing, props.heard.track.value, props.heard.landings.value, props.strays)
    : [],
)
/** Not made anew with every level that is heard. */
const score = computed(() => takeScore(props.stringing, track.value, props.keyId))
const player = usePlayer()
const companions = useCompanion()
const { companion, tempo } = companions
/** Where the ear left it, so that a teacher can play it again to the student. */
function hearNote(index: number) {
  const one = track.value[index]
  if (!one) return
  shown.value = one
  const centsAboveA4 = [pitchOfExpected(props.stringing, one) + one.settledCents]
  void player.start(() => ({ centsAboveA4, noteMs: NOTE_MS, isLoop: false }))
}

/** The keys are the take's from now on: a space ends it. */
function leaveFields() {
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
}
function listen(deviceId: string) {
  leaveFields()
  void props.heard.listen(deviceId, companions.start(props.droneCents))
}
watch(props.heard.phase, (phase) => phase === 'off' && companions.stop())
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
