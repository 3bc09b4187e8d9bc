<template>
  <div class="kept-take">
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <p v-else-if="!notes" class="soft" role="status">Fetching the take …</p>
    <template v-else>
      <NotationStaff
        v-if="score"
        :score="score"
        :at="shownAt"
        label="The notes of the take, as they were meant"
      />
      <TakeTrack
        :notes="notes"
        :shown="shownAt ?? -1"
        :tolerance-cents="check.toleranceCents"
        @hear="(index) => hear(index, 1)"
      />
      <div class="sounds">
        <ElButton
          size="small"
          @click="player.at.value === undefined ? hear(0, notes.length) : player.stop()"
          >{{ player.at.value === undefined ? 'Hear it as it settled' : 'Stop' }}</ElButton
        >
        <template v-for="sound in sounds.data.value ?? []" :key="sound.id">
          <audio
            controls
            preload="none"
            :src="`${API_BASE}/attachments/${sound.id}`"
            @error="sounds.reload()"
          />
          <ElButton size="small" text @click="removeSound(sound.id)">Remove the sound for good</ElButton>
        </template>
        <p v-if="soundFault" class="soft" role="status">{{ soundFault }}</p>
      </div>
    </template>
  </div>
</template>

<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import {
  parseNote,
  pitchOfExpected,
  readSnapshot,
  strayLandings,
  type Landing,
  type PitchTrack,
  takeScore,
} from '#core'
import { API_BASE, type Check } from '#contracts'
import { call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { usePlayer } from '../../audio/usePlayer'
import { useStudio } from '../../stores/studio'
import { trackOf } from '../../charts/coded-track'
import TakeTrack from '../../charts/TakeTrack.vue'
import { trackNotes } from '../../charts/track-notes'
import NotationStaff from '../../notation/NotationStaff.vue'

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
  const strays = strayLandings({
    stringing: stringing.value,
    exercise: { name: { kind: 'free' }, notes: landings },
    landings,
    toleranceCents: props.check.toleranceCents,
  })
  return trackNotes(stringing.value, track.value, landings, strays)
})

void call('checks.track', { params: { checkId: props.check.id } })
  .then(({ track: coded }) => {
    track.value = trackOf(coded)
  })
  .catch((error: unknown) => {
    fault.value = error instanceof Error ? error.message : 'The take could not be fetched.'
  })

const soundFault = ref('')
const sayOf = (error: unknown) => (error instanceof Error ? error.message : 'try again.')
/** Recordings that lie beside the check. */
const sounds = useLoaded(
  () => props.check.id,
  (recordId) =>
    call('attachments.list', { params: { record: 'check', recordId } }).then(
      (all) => all.filter(({ mediaType }) => mediaType === 'audio/wav'),
      (error: unknown) => {
        // The take is drawn all the same.
        soundFault.value = `Whether its sound is stored cannot be told: ${sayOf(error)}`
        return []
      },
    ),
)
// Withdrawn here or elsewhere: what is gone is not offered any more.
const studio = useStudio()
watch(
  () => studio.student(props.check.studentId)?.soundConsent === null,
  (isWithdrawn) => isWithdrawn && void sounds.reload(),
)
async function removeSound(attachmentId: string) {
  await call('attachments.remove', { params: { attachmentId } })
  await sounds.reload()
}

const keyId = computed(() =>
  props.check.exercise && 'keyId' in props.check.exercise ? props.check.exercise.keyId : undefined,
)
/** Not made anew with whatever else is drawn. */
const score = computed(() =>
  stringing.value && notes.value ? takeScore(stringing.value, notes.value, keyId.value) : undefined,
)
const player = usePlayer()
const from = ref(0)
/** The note that sounds, among those of the take. */
const shownAt = computed(() => (player.at.value === undefined ? undefined : from.value + player.at.value))
function hear(first: number, count: number) {
  const strings = stringing.value
  if (!strings) return
  from.value = first
  const centsAboveA4 = (notes.value ?? [])
    .slice(first, first + count)
    .map((one) => pitchOfExpected(strings, one) + one.settledCents)
  void player.start(() => ({ centsAboveA4, noteMs: NOTE_MS, isLoop: false }))
}
</script>

<style scoped>
.kept-take {
  grid-column: 1 / -1;
}

.sounds {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}

.sounds audio {
  height: 34px;
}
</style>
