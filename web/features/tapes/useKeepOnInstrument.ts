import { computed } from 'vue'
import type { Instrument } from '#contracts'
import { call } from '../../api/client'
import { pressingChoiceOf, useBench } from '../../stores/bench'
import { useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import { useStudio } from '../../stores/studio'
import { inUnit, listed, unitName } from '../../words/numbers'
import { sizeName } from '../../words/trade'
import { noteName } from '#core'
import { studioDay } from '../../words/shown'

const SAME_MM = 0.05

/** A tape as it was laid. */
export interface LaidTape {
  readonly markId: string
  readonly placeMm: number
}

/** Saves what the bench shows to the instrument on it: its length, its size, its strings, tapes as laid. */
export function useKeepOnInstrument() {
  const bench = useBench()
  const outbox = useOutbox()
  const studio = useStudio()
  const notices = useNotices()

  /** What is typed is what the instrument has. */
  const isMeasured = computed(() => {
    const kept = bench.instrument?.measurement
    const typed = bench.lengths.usableMm
    if (!kept || !typed) return false
    const has = kept.stringLengthsMm ?? [kept.lengthMm]
    return has.length === typed.length && has.every((mm_, i) => Math.abs(mm_ - (typed[i] ?? NaN)) < SAME_MM)
  })
  /** Every length that is typed suits the size. */
  const suits = computed(() => {
    const typed = bench.setup.method === 'strings' ? bench.lengths.each : [bench.lengths.one]
    return typed.every(({ judgement }) => judgement?.verdict === 'fits')
  })

  function take(instrument: Instrument, said: string) {
    studio.takeInstrument(instrument)
    notices.say(said)
  }

  async function change(
    instrument: Instrument,
    body: Partial<Pick<Instrument, 'sizeId' | 'tuning' | 'pressing' | 'warmHands'>>,
    said: string,
  ) {
    const saved = await call('instruments.update', {
      params: { instrumentId: instrument.id },
      body: { version: instrument.version, ...body },
    })
    take(saved, said)
  }

  return {
    isMeasured,

    /** A length that does not suit the size is kept only by `anyway`; the field says why and offers it. */
    async keepLength(anyway: boolean) {
      const { instrument, setup } = bench
      const lengths = bench.lengths.usableMm
      if (!instrument || !lengths || isMeasured.value || (!suits.value && !anyway)) return
      const measured =
        setup.method === 'strings'
          ? { strings: [...setup.stringTexts] }
          : { length: setup.lengthText, method: setup.method }
      const saved = await outbox.send(
        'measurements.create',
        {
          params: { instrumentId: instrument.id },
          body: { ...measured, measuredOn: studioDay(), keepAnyway: anyway },
        },
        { what: `the length of ${instrument.label}` },
      )
      take(
        saved,
        `${listed(lengths.map(inUnit))} ${unitName()} ${lengths.length > 1 ? 'are' : 'is'} kept for ${instrument.label}.`,
      )
    },

    /** The instrument turns out to be another size: corrected there, or only on the bench where there is none. */
    async takeSize(sizeId: string) {
      const { instrument, setup } = bench
      if (!instrument) return void (setup.sizeId = sizeId)
      await change(instrument, { sizeId }, `${instrument.label} is now a ${sizeName(sizeId)}.`)
    },

    async keepTuning() {
      const { instrument } = bench
      if (!instrument) return
      const tuning = bench.tuning.map((n) => noteName(n))
      await change(instrument, { tuning }, `${instrument.label} is now strung ${tuning.join(' ')}.`)
    },

    async keepPressing() {
      const { instrument, setup } = bench
      if (!instrument) return
      const pressing = pressingChoiceOf(setup)
      await change(instrument, { pressing }, `Heights and strings are kept for ${instrument.label}.`)
    },

    async logLaid(laid: readonly LaidTape[], reason: string) {
      const { instrument, setup } = bench
      if (!instrument) return
      const body = {
        schoolId: setup.schoolId,
        system: setup.systemId,
        tapeWidthMm: setup.tapeWidthMm,
        laidOn: studioDay(),
        marks: [...laid],
        reason,
      }
      const saved = await outbox.send(
        'tapeSets.create',
        { params: { instrumentId: instrument.id }, body },
        { what: `the tapes laid on ${instrument.label}` },
      )
      take(
        saved,
        `${listed(laid.map((tape) => inUnit(tape.placeMm)))} ${unitName()} logged as laid on ${instrument.label}.`,
      )
    },
  }
}
