import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { computed, ref } from 'vue'
import { dayNumber } from '#core'
import type { HandMeasurement, HandMeasurementDraft } from '#contracts'
import { useStudio } from '../../stores/studio'
import { known, A_STUDENT, fakeServer, freshStores } from '../../testing'
import { mounted } from '../../mounting'
import HandMeasureForm from './HandMeasureForm.vue'
import { useHandFile } from './useHandFile'
import { useHandForm } from './useHandForm'

beforeEach(() => freshStores())

describe('measures as they are typed', () => {
  it('asks for nothing but the comfortable span, and reads cm and inches', () => {
    const form = useHandForm()
    expect(form.draft.value).toBeUndefined()
    form.texts['comfortable'] = '6.4 cm'
    expect(form.draft.value).toMatchObject({ comfortableSpanMm: 64, reachedSpanMm: null, thumb: null })
    form.texts['reached'] = '2 3/4 in'
    expect(form.draft.value?.reachedSpanMm).toBeCloseTo(69.85, 2)
  })

  it.each([
    ['comfortable', '400', 'no hand’s'],
    ['comfortable', '6.4', 'Were these centimetres'],
    ['comfortable', 'wide', 'Type a length'],
    ['reached', '50', 'less than the 64.0 mm at rest'],
    ['fingertip', '64', 'A fingertip of 64.0 mm'],
  ])('refuses %s “%s” in words and keeps what was typed', (field, text, words) => {
    const form = useHandForm()
    form.texts['comfortable'] = '64'
    form.texts[field] = text
    expect(form.faults.value[field]).toContain(words)
    expect(form.draft.value).toBeUndefined()
    expect(form.texts[field]).toBe(text)
  })

  it('keeps the fingers that were measured, one by one', () => {
    const form = useHandForm()
    form.texts['comfortable'] = '64'
    form.texts['finger2'] = '64'
    expect(form.draft.value?.fingerLengthsMm).toEqual({ 2: 64 })
    form.texts['finger4'] = '4.7 cm'
    expect(form.draft.value?.fingerLengthsMm).toEqual({ 2: 64, 4: 47 })
    form.clear()
    expect(form.draft.value).toBeUndefined()
  })

  it('asks once more where a hand would have shrunk or shot up, and keeps it at the second Enter', async () => {
    const saved: number[] = []
    const before = [{ day: dayNumber('2026-05-02'), spanMm: 55 }]
    const save = ({ comfortableSpanMm }: HandMeasurementDraft) =>
      Promise.resolve(void saved.push(comfortableSpanMm))
    const page = await mounted(HandMeasureForm, { before, save })
    const type = async (text: string) => {
      const span = document.querySelector('input')!
      span.value = text
      span.dispatchEvent(new Event('input'))
      await flushPromises()
    }
    const enter = async () => {
      document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }))
      await flushPromises()
    }
    await type('40')
    expect(document.querySelector('[role=alert]')?.textContent).toBe(
      'It was 55.0 mm on 2 May 2026, and a hand does not shrink. Measure once more.',
    )
    await enter()
    expect(saved).toEqual([])
    expect(page.text()).toContain('Keep it all the same')
    await type('57')
    expect(document.querySelector('[role=alert]')).toBeNull()
    await enter()
    await type('41')
    await enter()
    await enter()
    expect(saved).toEqual([57, 41])
    page.wrapper.unmount()
  })
})

describe('a hand over time', () => {
  const hand = (measuredOn: string, comfortableSpanMm: number): HandMeasurement => ({
    id: `01900000-0000-7000-8000-0000000${measuredOn.replaceAll('-', '').slice(3)}`,
    measuredOn,
    comfortableSpanMm,
    reachedSpanMm: null,
    fingerLengthsMm: null,
    fingertipWidthMm: null,
    thumb: null,
    by: 'Hester Lowe',
  })
  const history = [
    hand('2026-11-07', 62),
    hand('2026-05-09', 60.2),
    hand('2025-11-08', 58.1),
    hand('2025-05-10', 56.4),
  ]
  async function fileOf(kept: HandMeasurement[]) {
    const sent = fakeServer({ status: 200, body: kept })
    known({ students: [A_STUDENT] })
    const file = useHandFile(
      ref(A_STUDENT.id),
      computed(() => useStudio().student(A_STUDENT.id)),
    )
    await flushPromises()
    return { file, sent }
  }

  it('says that there are too few measurements, or too close together', async () => {
    const { file } = await fileOf(history.slice(0, 2))
    expect(file.growthSentence.value).toContain('Too few measurements to tell the growth: 2 of 4')
    expect(file.nextSentence.value).toBe('')
    const close = await fileOf(
      ['2026-11-01', '2026-11-02', '2026-11-03', '2026-11-04'].map((d, i) => hand(d, 60 + i)),
    )
    expect(close.file.growthSentence.value).toContain('too close together')
  })

  it('tells the growth with its interval, and about when the next size will fit', async () => {
    const { file } = await fileOf(history)
    expect(file.growthSentence.value).toMatch(/grows 3\.\d mm a year \(four times in five/)
    // A half-size in hand: the three-quarter asks for a frame of 8:9 less 2:3 of 308 mm, by the ring.
    expect(file.next.value?.sizeId).toBe('3/4')
    expect(file.nextSentence.value).toMatch(/The ¾ \(frame 68\.4 mm\) will probably fit about .* 202[78]/)
  })

  it('keeps a measurement and reads the file anew', async () => {
    const { file, sent } = await fileOf(history)
    await file.keep({ measuredOn: '2026-11-25', comfortableSpanMm: 62.5 }).catch(() => undefined)
    expect(sent[1]).toMatchObject({ method: 'POST', body: { comfortableSpanMm: 62.5 } })
    expect(sent[1]!.path).toContain(`/students/${A_STUDENT.id}/hands`)
    expect(sent[1]!.headers['idempotency-key']).toBeTruthy()
  })
})
