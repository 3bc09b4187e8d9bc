import { describe, expect, it } from 'vitest'
import { ref } from 'vue'
import { chartTapes, marksWithIds, planTapes } from '#core'
import { strung } from '../../../core/testing'
import { NOT_BEGUN, useLaying, type LayState } from './useLaying'

const strings = strung('violin', 284.5)
const marks = chartTapes(strings, planTapes(strings, marksWithIds(strings.family, ['1.2', '3.5'])))

function laying(state = ref<LayState>({ ...NOT_BEGUN })) {
  const lay = useLaying(marks, ref(284.5), state, 'no. 7')
  lay.next()
  return Object.assign(lay, { state })
}
type Laying = ReturnType<typeof laying>

function finish(lay: Laying) {
  Object.assign(lay.step.value!, { isSquared: true, isWrapped: true })
  lay.next()
}

describe('laying tape after tape', () => {
  it('begins where the tape was computed, and ends with where each was found', () => {
    const lay = laying()
    expect(lay.step.value?.foundMm).toBe(31.6)
    lay.nudge(0.1)
    lay.nudge(0.5)
    finish(lay)
    expect(lay.type('7.14 cm')).toBe(true)
    finish(lay)
    expect(lay.isOver.value).toBe(true)
    expect(lay.laid.value).toEqual([
      { markId: '1.2', placeMm: 32.2 },
      { markId: '3.5', placeMm: 71.4 },
    ])
  })

  it('does not go on before the tape is squared and wrapped', () => {
    const lay = laying()
    lay.step.value!.isSquared = true
    lay.next()
    expect(lay.at.value).toBe(0)
  })

  it('logs nothing of a tape that was left off, and a tape once taken up again', () => {
    const lay = laying()
    lay.skip()
    finish(lay)
    expect(lay.laid.value.map((t) => t.markId)).toEqual(['3.5'])
  })

  it('goes on where it was after a reload, and begins anew for other tapes or once it is over', () => {
    const state = ref<LayState>({ ...NOT_BEGUN })
    const lay = laying(state)
    lay.nudge(0.4)
    const again = useLaying(
      marks,
      ref(284.5),
      ref(JSON.parse(JSON.stringify(state.value)) as LayState),
      'no. 7',
    )
    expect([again.at.value, again.step.value?.foundMm]).toEqual([0, 32])
    expect(useLaying(marks, ref(284.5), state, 'no. 8').at.value).toBe(-1)
    // rings that are read after the page are no reason to begin anew, nor to move a tape that is being laid
    const late = marks.map((mark) => ({ ...mark, middleMm: mark.middleMm + 0.4 }))
    const kept = ref(JSON.parse(JSON.stringify(laying().state.value)) as LayState)
    expect(useLaying(late, ref(284.5), kept, 'no. 7').marks.value[0]?.middleMm).toBe(marks[0]!.middleMm)
  })

  it('lays the tapes that follow where the first one rang says that they belong, and none that was found', () => {
    const lay = laying()
    lay.nudge(0.5)
    finish(lay)
    const later = marks.map((mark) => ({ ...mark, middleMm: mark.middleMm + 0.8 }))
    lay.correct(later)
    expect(lay.step.value).toMatchObject({ foundMm: 71.9, plannedMm: marks[1]!.middleMm })
    expect(lay.marks.value.map((m) => m.middleMm)).toEqual([marks[0]!.middleMm, later[1]!.middleMm])
    lay.nudge(-0.1)
    lay.correct(marks)
    expect(lay.laid.value.map((t) => t.placeMm)).toEqual([32.1, 71.8])
  })

  it('takes no place beyond the string, nor words, and stays on the string when pushed', () => {
    const lay = laying()
    expect(lay.type('400')).toBe(false)
    expect(lay.type('here')).toBe(false)
    lay.nudge(-100)
    expect(lay.step.value?.foundMm).toBe(1)
    lay.nudge(1000)
    expect(lay.step.value?.foundMm).toBe(283.5)
  })
})
