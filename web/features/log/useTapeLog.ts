import { computed, ref, watch, type Ref } from 'vue'
import { familyOf, handMarks, marksWithIds, WHOLE_INSTRUMENT_KINDS, type TapeEventKind } from '#core'
import type { Instrument, TapeEvent, TapeEventDraft } from '#contracts'
import { call } from '../../api/client'
import { saveSurely } from '../../api/saving'
import { useNotices } from '../../stores/notices'
import { useStudio } from '../../stores/studio'
import { EVENT_NAMES, markName } from '../../words/trade'

/** An instrument's log: what happened, and writing down what happens. */
export function useTapeLog(instrument: Ref<Instrument | undefined>) {
  const studio = useStudio()
  const notices = useNotices()
  const events = ref<TapeEvent[]>()

  async function load() {
    const id = instrument.value?.id
    if (id) events.value = await call('tapeEvents.list', { params: { instrumentId: id } })
  }
  watch(() => instrument.value?.id, load, { immediate: true })

  /** Tapes that lie there first: they are what entries are about. */
  const marks = computed(() => {
    if (!instrument.value) return []
    const family = familyOf(instrument.value.family)
    const lying = instrument.value.tapes.map((tape) => tape.markId)
    return [...marksWithIds(family, lying), ...handMarks(family).filter((m) => !lying.includes(m.id))]
  })
  function nameOf(markId: string | null): string {
    const mark = marks.value.find((m) => m.id === markId)
    return mark ? markName(mark) : 'the whole instrument'
  }

  async function takeBack(event: TapeEvent) {
    studio.takeInstrument(await call('tapeEvents.remove', { params: { eventId: event.id } }))
    await load()
    notices.say(`“${EVENT_NAMES[event.kind]}, ${nameOf(event.markId)}” is out of the log.`, {
      label: 'Undo',
      run: async () => {
        studio.takeInstrument(await call('tapeEvents.restore', { params: { eventId: event.id } }))
        await load()
      },
    })
  }

  return {
    events,
    marks,
    nameOf,
    takeBack,
    isWhole: (kind: TapeEventKind) => WHOLE_INSTRUMENT_KINDS.includes(kind),
    async write(draft: TapeEventDraft) {
      if (!instrument.value) return
      const saved = await saveSurely('tapeEvents.create', {
        params: { instrumentId: instrument.value.id },
        body: draft,
      })
      studio.takeInstrument(saved)
      await load()
    },
    async setWarmHands(warmHands: boolean) {
      if (!instrument.value) return
      const { id, version } = instrument.value
      studio.takeInstrument(
        await call('instruments.update', { params: { instrumentId: id }, body: { version, warmHands } }),
      )
    },
  }
}
