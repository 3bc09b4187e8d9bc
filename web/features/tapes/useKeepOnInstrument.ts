import { computed } from 'vue'
import type { Instrument } from '#contracts'
import { call } from '../../api/client'
import { useNotices } from '../../stores/notices'
import { useStudio } from '../../stores/studio'
import { isoDay } from '../../words/dates'
import { mm } from '../../words/numbers'
import { sizeName } from '../../words/trade'
import type { useBench } from './useBench'

/** Saves what the bench shows to the instrument on it: its length, its size, tapes as laid. */
export function useKeepOnInstrument(bench: ReturnType<typeof useBench>) {
  const studio = useStudio()
  const notices = useNotices()
  const kept = computed(() => bench.instrument.value?.measurement?.lengthMm)
  /** What is typed is what the instrument has. */
  const isMeasured = computed(() => {
    const { usableMm } = bench.typed.value
    return usableMm !== undefined && kept.value !== undefined && Math.abs(usableMm - kept.value) < 0.05
  })

  function take(instrument: Instrument, said: string) {
    studio.takeInstrument(instrument)
    notices.say(said)
  }

  return {
    isMeasured,

    /** A length that does not suit the size is kept only by `anyway`; the field says why and offers it. */
    async keepLength(anyway: boolean) {
      const instrument = bench.instrument.value
      const { usableMm, judgement } = bench.typed.value
      if (!instrument || usableMm === undefined || isMeasured.value) return
      if (judgement?.verdict !== 'fits' && !anyway) return
      const saved = await call('measurements.create', {
        params: { instrumentId: instrument.id },
        body: { length: bench.lengthText.value, measuredOn: isoDay(new Date()), keepAnyway: anyway },
      })
      take(saved, `${mm(usableMm)} mm is kept for ${instrument.label}.`)
    },

    /** The instrument turns out to be another size: corrected there, or only on the bench where there is none. */
    async takeSize(sizeId: string) {
      const instrument = bench.instrument.value
      if (!instrument) return void (bench.sizeId.value = sizeId)
      const saved = await call('instruments.update', {
        params: { instrumentId: instrument.id },
        body: { version: instrument.version, sizeId },
      })
      take(saved, `${instrument.label} is now a ${sizeName(sizeId)}.`)
    },

    async logLaid() {
      const instrument = bench.instrument.value
      if (!instrument) return
      const saved = await call('tapeSets.create', {
        params: { instrumentId: instrument.id },
        body: {
          schoolId: bench.schoolId.value,
          system: bench.systemId.value,
          tapeWidthMm: bench.tapeWidthMm.value,
          laidOn: isoDay(new Date()),
        },
      })
      take(saved, `Tapes logged as laid on ${instrument.label}.`)
    },
  }
}
