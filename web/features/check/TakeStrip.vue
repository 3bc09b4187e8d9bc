<template>
  <section
    class="strip"
    aria-label="Listening"
    :class="{ 'drop-here': isOver }"
    @dragover.prevent="isOver = canBegin()"
    @dragleave="isOver = false"
    @drop.prevent="drop"
  >
    <template v-if="phase === 'off'">
      <span v-if="isResting" class="rests">Nothing is played while it hurts.</span>
      <template v-else>
        <ElButton type="primary" :disabled="isIdle" @click="emit('listen', chosenId)"
          >Listen<KeyHint of="l" on-button
        /></ElButton>
        <ElButton :disabled="isIdle" @click="file?.click()">A recording<KeyHint of="f" on-button /></ElButton>
      </template>
      <input
        ref="file"
        type="file"
        accept="audio/*,.wav"
        class="visually-hidden"
        tabindex="-1"
        aria-label="A recording of the exercise"
        @change="choose"
      />
      <slot />
      <span v-if="companion !== 'nothing'" class="chip">{{ companionName }}. Keep it quiet.</span>
      <slot name="said" />
      <ElButton class="after" :aria-expanded="isMore" aria-controls="more-of-take" @click="isMore = !isMore"
        >{{ isMore ? 'Less' : 'More' }}<KeyHint of="m" on-button
      /></ElButton>
      <div v-show="isMore" id="more-of-take" class="more">
        <ChoiceSelect
          v-if="microphones.length > 2"
          v-model="microphoneId"
          label="Microphone"
          :options="microphones"
          class="microphone"
        />
        <PlainSelect
          v-model="companion"
          label="In the player’s headphones"
          :options="COMPANION_CHOICES"
          class="companion"
        />
        <PlainSelect
          v-if="companion === 'click'"
          v-model="tempo"
          label="Clicks a minute"
          :options="TEMPI"
          class="tempo"
        />
        <span class="student">
          <ChoiceSelect
            v-model="faultId"
            label="The simulated student’s hand"
            :options="faultChoices"
            class="fault-choice"
          />
          <ElButton :disabled="isIdle" @click="emit('play', faultId)"
            >Simulated student<KeyHint of="p" on-button
          /></ElButton>
        </span>
        <slot name="more" />
      </div>
    </template>
    <template v-else-if="phase === 'hearing'">
      <p class="state" role="status">Hearing the recording …</p>
      <ElProgress :percentage="Math.round(100 * progress)" class="progress" />
      <ElButton @click="emit('stop')">Cancel</ElButton>
    </template>
    <template v-else>
      <p class="state" role="status">{{ stateWords }}</p>
      <p v-if="now" class="now numbers" :class="now.side" aria-live="off">
        <strong>{{ now.finger }}</strong> {{ now.cents }}
      </p>
      <span
        class="meter"
        role="meter"
        aria-label="Loudness"
        aria-valuemin="-60"
        aria-valuemax="0"
        :aria-valuenow="Math.round(meterDb)"
        :aria-valuetext="word"
      >
        <span
          class="fill"
          :class="word.replace(' ', '-')"
          :style="{ width: `${(100 * (meterDb + 60)) / 60}%` }"
        />
      </span>
      <span class="word">{{ word }}</span>
      <ElButton @click="emit('stop')"
        >{{ phase === 'playing' ? 'Done' : 'Stop' }}<kbd class="on-button">Space</kbd></ElButton
      >
    </template>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <p v-else-if="said" class="said" role="status">{{ said }}</p>
  </section>
</template>

<script setup lang="ts">
import { fingerSign } from '../../words/fingers'
import { useDevicesList, useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { Landing, SoundLevel } from '#core'
import type { ListenPhase } from '../../listen/useHearing'
import type { Companion } from '../../audio/useCompanion'
import ChoiceSelect from '../../ui/ChoiceSelect.vue'
import PlainSelect from '../../ui/PlainSelect.vue'
import KeyHint from '../../ui/KeyHint.vue'
import { useShortcuts } from '../../ui/useShortcuts'
import { levelWord, roomSentence } from '../../words/listening'
import { signedCents } from '../../words/numbers'
import { SIMULATED_FAULTS, SURPRISE } from './simulated'

const props = defineProps<{
  phase: ListenPhase
  level: SoundLevel | undefined
  progress: number
  fault: string
  said: string
  /** The note that sounds now, where it is one of the exercise. */
  sounding: Landing | undefined
  toleranceCents: number
  /** There is nothing to be played yet. */
  isIdle: boolean
  /** A pain is marked: nobody is asked to play. */
  isResting: boolean
}>()
const emit = defineEmits<{
  /** With the microphone that was chosen; none is the browser’s own choice. */
  listen: [deviceId: string]
  hear: [file: File]
  play: [faultId: string]
  stop: []
}>()

const companion = defineModel<Companion>('companion', { required: true })
const tempo = defineModel<number>('tempo', { required: true })
const COMPANION_CHOICES: readonly { value: Companion; label: string }[] = [
  { value: 'nothing', label: 'No headphones' },
  { value: 'drone', label: 'Drone in headphones' },
  { value: 'click', label: 'Click in headphones' },
]
const companionName = computed(
  () => COMPANION_CHOICES.find(({ value }) => value === companion.value)?.label ?? '',
)
/** What is needed once a month. */
const isMore = ref(false)
const TEMPI = [40, 50, 60, 72, 80, 92, 100, 120].map((value) => ({ value, label: `${value} a minute` }))

const faultChoices = [
  { value: SURPRISE, label: 'Surprise me' },
  ...SIMULATED_FAULTS.map(({ id, label }) => ({ value: id, label })),
]
const faultId = ref(SURPRISE)

const QUIETEST_DB = -60
const meterDb = computed(() => Math.max(QUIETEST_DB, Math.min(0, props.level?.levelDb ?? QUIETEST_DB)))
const word = computed(() => (props.level ? levelWord(props.level) : 'silent'))
const stateWords = computed(() => {
  if (props.phase === 'opening') return 'One moment …'
  if (props.phase === 'playing') return 'Playing'
  return `Play it when you like, twice over or more. ${roomSentence(props.level?.noiseDb ?? null, props.level?.humHz ?? null)}`
})
const now = computed(() => {
  if (!props.sounding) return undefined
  const { finger, cents } = props.sounding
  const isOff = Math.abs(cents) > props.toleranceCents
  return {
    finger: finger === 0 ? 'open' : fingerSign(finger),
    cents: `${signedCents(cents)} cents`,
    side: isOff ? (cents > 0 ? 'sharp' : 'flat') : '',
  }
})

const USUAL = 'usual'
/** The browser names microphones once it was allowed to listen. The one that was chosen is remembered on this machine. */
const { audioInputs } = useDevicesList()
// Their names are told only once somebody has allowed it: then the list is asked for anew.
watch(
  () => props.phase === 'waiting',
  (isOpen) =>
    isOpen && 'mediaDevices' in navigator && navigator.mediaDevices.dispatchEvent(new Event('devicechange')),
)
const microphoneId = useLocalStorage('jadefell.microphone', USUAL)
const microphones = computed(() => [
  { value: USUAL, label: 'Usual microphone' },
  ...audioInputs.value
    .filter((one) => one.label !== '' && !['', 'default', 'communications'].includes(one.deviceId))
    .map((one) => ({ value: one.deviceId, label: one.label })),
])
/** One that is not plugged in is not asked for. */
const chosenId = computed(() => {
  const { value } = microphones.value.find((one) => one.value === microphoneId.value) ?? { value: USUAL }
  return value === USUAL ? '' : value
})

/** A recording is held over the strip. */
const isOver = ref(false)
function drop(event: DragEvent) {
  isOver.value = false
  const dropped = event.dataTransfer?.files[0]
  if (dropped && canBegin()) emit('hear', dropped)
}

const file = ref<HTMLInputElement>()
function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  if (chosen) emit('hear', chosen)
  // The same file can be chosen once more.
  input.value = ''
}

const canBegin = () => props.phase === 'off' && !props.isIdle && !props.isResting
useShortcuts('Listening', [
  {
    key: 'l',
    does: 'Listen to a take',
    run: () => canBegin() && emit('listen', chosenId.value),
  },
  { key: 'm', does: 'More of listening and of the board', run: () => (isMore.value = !isMore.value) },
  {
    key: 'f',
    does: 'Hear a recording',
    run: () => canBegin() && file.value?.click(),
  },
  {
    key: 'p',
    does: 'A simulated student plays',
    run: () => canBegin() && emit('play', faultId.value),
  },
  { key: ' ', does: 'The take is over', run: () => props.phase !== 'off' && emit('stop') },
])
</script>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  min-height: 36px;
  padding-top: 8px;
  border-top: 1px solid var(--line);
}

.drop-here {
  outline: 2.5px dashed var(--focus);
  outline-offset: 4px;
}

.strip > .el-button:not(.after) {
  margin: 0;
}

.student {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}

.more {
  display: flex;
  flex: 1 0 100%;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}

.chip {
  color: var(--brass-ink);
  font-weight: 600;
}

.microphone {
  width: 190px;
}

.companion {
  width: 192px;
}

.tempo {
  width: 136px;
}

.fault-choice {
  width: 204px;
}

.after {
  margin-left: auto;
}

.state {
  margin: 0;
  font-weight: 600;
}

.now {
  margin: 0;
  font-size: 26px;
  line-height: 1;
}

.now.flat {
  color: var(--flat);
}

.now.sharp {
  color: var(--sharp);
}

.meter {
  flex: 1 1 140px;
  max-width: 340px;
  height: 14px;
  overflow: hidden;
  margin-left: auto;
  border: 1px solid var(--line-strong);
  border-radius: 4px;
}

.fill {
  display: block;
  height: 100%;
  background: var(--jade);
}

.fill.too-loud {
  background: var(--danger);
}

.fill.too-quiet,
.fill.silent {
  background: var(--brass);
}

.word {
  min-width: 74px;
}

.progress {
  flex: 1 1 220px;
  max-width: 420px;
}

.fault,
.said {
  flex-basis: 100%;
  margin: 0;
}

.said {
  font-weight: 600;
}
</style>
