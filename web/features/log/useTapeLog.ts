import { computed, onScopeDispose, type Ref } from 'vue'
import { familyOf, handMarks, marksWithIds, WHOLE_INSTRUMENT_KINDS, type TapeEventKind } from '#core'
import type { Instrument, TapeEvent, TapeEventDraft } from '#contracts'
import { call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import { useStudio } from '../../stores/studio'
import { EVENT_NAMES, markName } from '../../words/trade'

/** An instrument's log: what happened, and writing down what happens. */
export function useTapeLog(instrument: Ref<Instrument | undefined>) {
  const studio = useStudio()
  const notices = useNotices()
  const outbox = useOutbox()
  const { data: events, reload: load } = useLoaded(
    () => instrument.value?.id,
    (instrumentId) => call('tapeEvents.list', { params: { instrumentId } }),
  )
  onScopeDispose(outbox.onArrival(() => void load()))

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
      label: UNDO,
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
      const { id, label } = instrument.value
      const input = { params: { instrumentId: id }, body: draft }
      const saved = await outbox.send('tapeEvents.create', input, { what: `an entry in the log of ${label}` })
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
